import { useForm } from 'react-hook-form';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { RankedSheet } from '@rakuen/core/match/rank';
import type { PictureView } from '@rakuen/contract/pictures';
import type { Stamp } from '@rakuen/contract/vocabulary';
import { useDecideMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { AreaField, ChoiceField } from '../parts/form.tsx';
import { conditionLine } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { Seal } from '../parts/seal.tsx';

/** The seal and the reason said aloud. */
export function StampDialog({
  picture,
  condition,
  place,
  stamp,
  version,
  onClose,
}: {
  picture: PictureView;
  condition: ConditionHead;
  place: RankedSheet;
  stamp: Stamp;
  /** Name of the version that stands in this place. */
  version?: string;
  onClose: () => void;
}) {
  const dispatch = useAppDispatch();
  const [decide, { error, isLoading }] = useDecideMutation();
  const { register, handleSubmit, setValue, formState } = useForm({
    defaultValues: { reason: version ? `Printed as “${version}”. ` : '', decidedBy: 'printmaker' },
  });
  const submit = handleSubmit(async ({ reason, decidedBy }) => {
    await decide({ pictureId: picture.id, conditionId: condition.id, stamp, reason, decidedBy }).unwrap();
    dispatch(said(`${condition.paper.name} is ${stamp} for ${picture.title}.`));
    onClose();
  });
  return (
    <Dialog
      open
      onClose={onClose}
      title={picture.title}
      description={`on ${condition.paper.name}, ${conditionLine(condition)}`}
    >
      <form onSubmit={(e) => void submit(e).catch(() => undefined)} className="space-y-4" noValidate>
        <Seal stamp={stamp} />
        <AreaField
          label="Why, in your words"
          autoFocus
          rows={3}
          error={formState.errors.reason?.message}
          {...register('reason', { validate: (v) => v.trim() !== '' || 'Say why in a few words' })}
        />
        <div className="text-[13px]">
          <p className="text-quiet">Or take a reason from the match:</p>
          <ul>
            {place.reasons.slice(0, 4).map((r) => (
              <li key={r.leaning}>
                <QuietButton
                  className="-ml-1.5 text-left"
                  onClick={() => setValue('reason', r.sentence, { shouldValidate: true })}
                >
                  {r.sentence}
                </QuietButton>
              </li>
            ))}
          </ul>
        </div>
        <ChoiceField
          label="Decided by"
          options={[
            ['printmaker', 'the printmaker'],
            ['client', 'the client'],
            ['both', 'both together'],
            ['artist', 'the artist'],
          ]}
          {...register('decidedBy')}
        />
        <ErrorNote error={error} />
        <div className="flex gap-3">
          <Button main type="submit" disabled={isLoading}>
            Stamp it {stamp}
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
