import { asThree } from '@rakuen/core/colour/three';
import { useRef } from 'react';
import { useForm, type UseFormReturn } from 'react-hook-form';
import type { CommissionInput, PictureView } from '@rakuen/contract/pictures';
import { GLASSES } from '@rakuen/core/light/glass';
import { VETOES, type Veto } from '@rakuen/core/match/commission';
import { said, useAppDispatch } from '../app/store.ts';
import { useLight } from '../compare/use-light.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { AreaField, ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useChangePictureMutation } from './picture-api.ts';
import { GroundField } from './ground-field.tsx';
import { decimal, typedNumber, typedNumberOrNone } from '../parts/decimal.ts';

interface Fields {
  longSideMm: string;
  viewingCm: string;
  copies: string;
  editionOf: string;
  handled: boolean;
  light: string;
  glass: string;
  lux: string;
  mustLast: boolean;
  vetoes: Veto[];
  ground: string;
  signedOffBy: string;
  deadline: string;
  wishes: string;
}

/** Where a picture will live. Everything has a start: one field can be changed and the rest left. */
export function CommissionDialog({ picture, onClose }: { picture: PictureView; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const [change, { error, isLoading, originalArgs }] = useChangePictureMutation();
  // From the revision whose words the form began with.
  const revision = useRef(picture.revision);
  const theirs = theirsOf<PictureView>(error);
  const form = useForm<Fields>({
    defaultValues: fieldsOf(picture.commission),
  });
  const submit = form.handleSubmit(async (f) => {
    const commission = commissionOf(f);
    await change({ id: picture.id, revision: revision.current, commission }).unwrap();
    dispatch(said(`Where ${picture.title} will live is kept.`));
    onClose();
  });
  return (
    <Dialog open onClose={onClose} wide title="Where it will hang" description={picture.title}>
      <form
        onSubmit={(e) => void submit(e).catch(() => undefined)}
        className="grid grid-cols-4 gap-x-4 gap-y-3"
        noValidate
      >
        <CommissionFields form={form} />
        <div className="col-span-4">
          {theirs ? (
            <Conflict
              mine={originalArgs?.commission ?? {}}
              theirs={theirs.commission}
              onMine={() => {
                revision.current = theirs.revision;
                void submit().catch(() => undefined);
              }}
              onTheirs={onClose}
            />
          ) : (
            <ErrorNote error={error} />
          )}
        </div>
        <div className="col-span-4 flex gap-2">
          <Button main type="submit" disabled={isLoading}>
            Keep it
          </Button>
          <QuietButton onClick={onClose}>Leave it</QuietButton>
          {picture.commissioned && (
            <QuietButton
              className="ml-auto"
              onClick={() =>
                void change({ id: picture.id, revision: revision.current, asFound: ['commission'] })
                  .unwrap()
                  .then(onClose, () => undefined)
              }
            >
              As it begins
            </QuietButton>
          )}
        </div>
      </form>
    </Dialog>
  );
}

const fieldsOf = (c: PictureView['commission']): Fields => ({
  longSideMm: String(c.longSideMm),
  viewingCm: String(c.viewingMm / 10),
  copies: String(c.copies),
  editionOf: c.editionOf ? String(c.editionOf) : '',
  handled: c.handled,
  light: c.light,
  glass: c.glass,
  lux: String(c.lux),
  mustLast: c.mustLast,
  vetoes: [...c.vetoes],
  ground: c.originalGround ? c.originalGround.join('; ') : '',
  signedOffBy: c.signedOffBy ?? '',
  deadline: c.deadline ?? '',
  wishes: c.wishes ?? '',
});

/** What was typed of a ground: none where nothing was. */
const groundOf = (typed: string): number[] =>
  typed
    .split(/[;\s]+/)
    .filter(Boolean)
    .map(decimal);
const THREE = {
  validate(typed: string) {
    const ground = groundOf(typed);
    return ground.length === 0 || (ground.length === 3 && !ground.some(Number.isNaN))
      ? true
      : 'Three numbers, as 94,1; 0,2; 1,5';
  },
} as const;

function commissionOf(f: Fields): CommissionInput {
  const ground = groundOf(f.ground);
  return {
    longSideMm: decimal(f.longSideMm),
    viewingMm: decimal(f.viewingCm) * 10,
    copies: decimal(f.copies),
    ...(f.editionOf.trim() && { editionOf: decimal(f.editionOf) }),
    handled: f.handled,
    light: f.light,
    glass: f.glass,
    lux: decimal(f.lux),
    mustLast: f.mustLast,
    vetoes: f.vetoes || [],
    ...(ground.length > 0 && { originalGround: asThree(ground) }),
    ...(f.signedOffBy.trim() && { signedOffBy: f.signedOffBy.trim() }),
    ...(f.deadline && { deadline: f.deadline }),
    ...(f.wishes.trim() && { wishes: f.wishes.trim() }),
  };
}

function CommissionFields({ form: { register, setValue, formState } }: { form: UseFormReturn<Fields> }) {
  const { lights } = useLight();
  const number = (name: 'longSideMm' | 'viewingCm' | 'copies' | 'editionOf' | 'lux') => ({
    inputMode: 'decimal' as const,
    error: formState.errors[name]?.message,
    ...register(name, name === 'editionOf' ? typedNumberOrNone : typedNumber),
  });
  return (
    <>
      <TextField label="Longer side" unit="mm" {...number('longSideMm')} />
      <TextField label="Seen from" unit="cm" {...number('viewingCm')} />
      <TextField label="Copies" {...number('copies')} />
      <TextField label="Numbered, of" unit="(empty: open)" {...number('editionOf')} />
      <ChoiceField
        label="Light"
        className="col-span-2"
        options={lights.map((l) => [l.key, l.name] as const)}
        {...register('light')}
      />
      <TextField label="Level" unit="lx" {...number('lux')} />
      <ChoiceField label="Glass" options={GLASSES.map((g) => [g.key, g.name] as const)} {...register('glass')} />
      <TickField label="It will be handled" className="col-span-2" {...register('handled')} />
      <TickField label="It is to last" className="col-span-2" {...register('mustLast')} />
      <fieldset className="col-span-4">
        <legend>Vetoes, of the client or your own</legend>
        <div className="flex flex-wrap gap-x-5">
          {Object.entries(VETOES).map(([key, name]) => (
            <TickField key={key} label={name} value={key} {...register('vetoes')} />
          ))}
        </div>
      </fieldset>
      <GroundField
        field={register('ground', THREE)}
        error={formState.errors.ground?.message}
        onRead={(lab) => setValue('ground', lab)}
      />
      <TextField label="Signed off by" {...register('signedOffBy')} />
      <TextField label="Deadline" type="date" {...register('deadline')} />
      <AreaField label="Wishes" className="col-span-4" {...register('wishes')} />
    </>
  );
}
