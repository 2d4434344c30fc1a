import { skipToken } from '@reduxjs/toolkit/query/react';
import { useId } from 'react';
import { TextField } from '../parts/form.tsx';
import { useCaptionsQuery } from './print-api.ts';

/** What is written under a picture: one of the lines its prints bear, with their numbers, or what is typed. */
export function CaptionField({
  pictureId,
  value,
  onChange,
  className,
}: {
  pictureId?: string;
  value: string;
  onChange: (caption: string) => void;
  className?: string;
}) {
  const { data: captions = [] } = useCaptionsQuery(pictureId ?? skipToken);
  const list = useId();
  return (
    <>
      <TextField
        label="Caption under it"
        maxLength={200}
        list={list}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        className={className}
      />
      <datalist id={list}>
        {captions.map((c) => (
          <option key={c} value={c} />
        ))}
      </datalist>
    </>
  );
}
