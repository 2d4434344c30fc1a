import { useEffect, useState } from 'react';
import type { ApiError } from '@rakuen/contract/settings';
import { api, useAddPictureMutation, useCancelPictureJobMutation, usePictureJobQuery } from '../api/api.ts';
import { putAway, useHanded } from '../app/handed.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { DropZone } from '../parts/drop-zone.tsx';
import { ErrorNote } from '../parts/messages.tsx';

interface Intake {
  key: string;
  file: File;
  jobId?: string;
  error?: ApiError;
}

/** Brings pictures in, each with its progress; a picture that fails says why, and stays until it is put away. */
export function PictureIntake({ onAdded }: { onAdded: (id: string) => void }) {
  const [add] = useAddPictureMutation();
  const [intakes, setIntakes] = useState<Intake[]>([]);
  const update = (key: string, change: Partial<Intake>) =>
    setIntakes((all) => all.map((i) => (i.key === key ? { ...i, ...change } : i)));

  const begin = async (key: string, file: File, assumeSrgb?: 'yes') => {
    update(key, { error: undefined, jobId: undefined });
    const answer = await add({ file, assumeSrgb });
    if (answer.error) update(key, { error: answer.error as ApiError });
    else update(key, { jobId: answer.data.id });
  };
  const take = (files: File[]) => {
    const fresh = files.map((file) => ({ key: crypto.randomUUID(), file }));
    setIntakes((all) => [...all, ...fresh]);
    for (const { key, file } of fresh) void begin(key, file);
  };
  // What was dropped elsewhere in the room.
  const handed = useHanded('pictures');
  useEffect(() => {
    if (handed.length === 0) return;
    for (const file of handed) putAway('pictures', file);
    take([...handed]);
  });
  const drop = (key: string) => setIntakes((all) => all.filter((i) => i.key !== key));

  return (
    <div className="space-y-3">
      <DropZone
        label="Bring a picture"
        hint="or drop it here: JPEG, PNG or TIFF, RGB or grey, 8 or 16 bits"
        accept="image/jpeg,image/png,image/tiff,.tif,.tiff,.jpg,.jpeg,.png"
        multiple
        onFiles={take}
      />
      {intakes.map((i) => (
        <IntakeLine
          key={i.key}
          intake={i}
          onDone={(id) => (drop(i.key), onAdded(id))}
          onGone={() => drop(i.key)}
          onFailed={(error) => update(i.key, { error, jobId: undefined })}
          onAssume={() => void begin(i.key, i.file, 'yes')}
        />
      ))}
    </div>
  );
}

function IntakeLine({
  intake,
  onDone,
  onGone,
  onFailed,
  onAssume,
}: {
  intake: Intake;
  onDone: (id: string) => void;
  onGone: () => void;
  onFailed: (error: ApiError) => void;
  onAssume: () => void;
}) {
  const dispatch = useAppDispatch();
  const [cancel] = useCancelPictureJobMutation();
  const { data: job, error } = usePictureJobQuery(intake.jobId!, { skip: !intake.jobId, pollingInterval: 250 });

  useEffect(() => {
    if (error) return onFailed(error as ApiError);
    if (job?.state === 'done' && job.pictureId) {
      dispatch(api.util.invalidateTags(['pictures', 'matches']));
      dispatch(said(`${job.fileName} is read.`));
      onDone(job.pictureId);
    } else if (job?.state === 'failed')
      onFailed({ statusCode: 422, message: 'The picture could not be read.', ...job.error, file: job.fileName });
    else if (job?.state === 'cancelled') onGone();
    // The handlers are made anew at each rendering; only the job's news matters.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [job, error]);

  if (intake.error) {
    return (
      <div className="flex items-start gap-3">
        <ErrorNote error={intake.error} />
        <div className="flex flex-col gap-1">
          {intake.error.field === 'embedded profile' && (
            <Button onClick={onAssume}>Set the profile aside and assume sRGB</Button>
          )}
          <QuietButton onClick={onGone}>Put away</QuietButton>
        </div>
      </div>
    );
  }
  const progress = job?.progress ?? 0;
  return (
    <div className="flex items-center gap-3">
      <span className="min-w-0 truncate">{intake.file.name}</span>
      <progress max={1} value={progress} aria-label={`Reading ${intake.file.name}`} className="h-2 w-52 accent-ink" />
      <span className="text-quiet">{job?.state === 'reading' ? `${Math.round(progress * 100)} %` : 'waiting'}</span>
      {intake.jobId && <QuietButton onClick={() => void cancel(intake.jobId!)}>Stop</QuietButton>}
    </div>
  );
}
