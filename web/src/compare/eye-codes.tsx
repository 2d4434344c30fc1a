import { useParams } from 'react-router';
import { useEyeLabelsQuery } from './judging-api.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';

/** For whoever lays the prints out, and not for the eye that judges: the codes, to be written on the backs. */
export function EyeCodes() {
  const { id = '' } = useParams();
  const { data, error } = useEyeLabelsQuery(id);
  return (
    <>
      <ScreenHead title="Codes for the backs" question="Not for the eye that will judge." />
      <ErrorNote error={error} />
      {!data && !error && <Waiting what="Drawing the codes" />}
      {data && (
        <>
          <p className="mb-3 max-w-[62ch]">
            Write each code on the back of its print, turn the prints face down, shuffle them, and lay them out two at a
            time as the other screen asks. Close this page before the eye comes.
          </p>
          <ul className="font-serif text-[1.15rem]">
            {data.labels.map((l) => (
              <li key={l.code} className="border-b border-line py-1">
                <b className="mr-4">{l.code}</b> {l.name}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}
