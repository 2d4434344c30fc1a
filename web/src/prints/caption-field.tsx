import { skipToken } from '@reduxjs/toolkit/query/react';
import { useId } from 'react';
import { TextField } from '../parts/form.tsx';
import { Typed } from '../parts/typed.tsx';
import { useCaptionsQuery } from './print-api.ts';

/** What is written under a picture: one of the lines its prints bear, with their numbers, or what is typed. */
export function CaptionField({
  pictureId,
  value,
  onChange,
  whenLeft = false,
  className,
}: {
  pictureId?: string;
  value: string;
  onChange: (caption: string) => void;
  /** It is said once, when its writer leaves it. */
  whenLeft?: boolean;
  className?: string;
}) {
  const { data: captions = [] } = useCaptionsQuery(pictureId ?? skipToken);
  const list = useId();
  const field = { label: 'Caption under it', maxLength: 200, list, value, className };
  return (
    <>
      {whenLeft ? (
        <Typed {...field} onTyped={onChange} />
      ) : (
        <TextField {...field} onChange={(e) => onChange(e.target.value)} />
      )}
      <datalist id={list}>
        {captions.map((c) => (
          <option key={c} value={c} />
        ))}
      </datalist>
    </>
  );
}
