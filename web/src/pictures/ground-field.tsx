import type { UseFormRegisterReturn } from 'react-hook-form';
import type { ColourFigure } from '@rakuen/core/measurement/figure';
import { usePreviewReadingMutation } from '../readings/reading-api.ts';
import { READING_FILES } from '../parts/file-kinds.ts';
import { FileButton } from '../parts/file-button.tsx';
import { TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';

/** Colour of the ground an original lies on: typed, or taken from a reading of it. */
export function GroundField({
  field,
  error,
  onRead,
}: {
  field: UseFormRegisterReturn;
  error?: string;
  onRead: (lab: string) => void;
}) {
  const [preview, { data, error: refused }] = usePreviewReadingMutation();
  const found = data?.figures.white as ColourFigure | undefined;
  const read = async (file: File) => {
    const { data: taken } = await preview({ file });
    const white = taken?.figures.white;
    if (white?.shape === 'colour') onRead(white.lab.map((v) => v.toFixed(2)).join('; '));
  };
  return (
    <div className="col-span-2">
      <div className="flex items-start gap-2 [&>button]:mt-6">
        <TextField
          label="Ground of the original"
          unit="L*; a*; b*"
          className="min-w-0 flex-1"
          placeholder="none: no reproduction"
          error={error}
          {...field}
        />
        <FileButton label="From a reading" accept={READING_FILES} onFile={(file) => void read(file)} />
      </div>
      <ErrorNote error={refused} />
      {data && (
        <p role="status" className="text-[13px]">
          {found?.shape === 'colour'
            ? `The lightest of ${data.patchCount} patches in ${data.fileName}, ${data.measurementCondition ?? 'measurement condition unstated'}.`
            : (data.spreadsheet?.fault ?? `No colour was found in ${data.fileName}.`)}
        </p>
      )}
    </div>
  );
}
