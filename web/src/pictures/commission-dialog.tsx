import { asThree } from '@rakuen/core/colour/three';
import { useRef } from 'react';
import { useForm, type UseFormReturn } from 'react-hook-form';
import type { CommissionInput, PictureView } from '@rakuen/contract/pictures';
import { aspectOf } from '@rakuen/core/picture/aspect';
import { formatNumber } from '@rakuen/core/measurement/show';
import { GLASSES } from '@rakuen/core/light/glass';
import { FORMATS, PRICE_CLASSES, VETOES, type Format, type PriceClass, type Veto } from '@rakuen/core/match/commission';
import { usePicturesQuery } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { PlaceChoice } from '../clients/place-choice.tsx';
import { useLight } from '../compare/use-light.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { AreaField, ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useShowsQuery } from '../shows/show-api.ts';
import { useTable } from '../table/use-table.ts';
import { useChangePictureMutation, useCommissionManyMutation } from './picture-api.ts';
import { GroundField } from './ground-field.tsx';
import { decimal, typedNumber, typedNumberOrNone } from '../parts/decimal.ts';

interface Fields {
  longSideMm: string;
  shortSideMm: string;
  format: '' | Format;
  priceClass: PriceClass;
  /** Key of the other pictures it is for. */
  alsoFor: string;
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

/** Where a picture will hang. Everything has a default: one field can be changed and the rest left. */
export function CommissionDialog({ picture, onClose }: { picture: PictureView; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const [change, { error, isLoading, originalArgs }] = useChangePictureMutation();
  const [commissionMany, many] = useCommissionManyMutation();
  const also = useAlsoFor(picture.id);
  // From the revision whose words the form began with.
  const revision = useRef(picture.revision);
  const theirs = theirsOf<PictureView>(error);
  const form = useForm<Fields>({
    defaultValues: fieldsOf(picture.commission),
  });
  const submit = form.handleSubmit(async (f) => {
    const commission = commissionOf(f);
    const others = also.find((a) => a.key === f.alsoFor)?.pictureIds.filter((id) => id !== picture.id) ?? [];
    const kept = await change({ id: picture.id, revision: revision.current, commission }).unwrap();
    revision.current = kept.revision;
    if (others.length > 0) await commissionMany({ pictureIds: others, commission }).unwrap();
    dispatch(
      said(
        others.length > 0
          ? `The commission is saved for ${picture.title} and ${others.length} more.`
          : `The commission of ${picture.title} is saved.`,
      ),
    );
    onClose();
  });
  return (
    <Dialog open onClose={onClose} wide title="Where it will hang" description={picture.title}>
      <form
        onSubmit={(e) => void submit(e).catch(() => undefined)}
        className="grid grid-cols-4 gap-x-4 gap-y-3"
        noValidate
      >
        <CommissionFields form={form} aspect={aspectOf(picture)} also={also} />
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
            <ErrorNote error={error ?? many.error} />
          )}
        </div>
        <div className="col-span-4 flex gap-2">
          <Button main type="submit" disabled={isLoading || many.isLoading}>
            Save
          </Button>
          <QuietButton onClick={onClose}>Cancel</QuietButton>
          {picture.commissioned && (
            <QuietButton
              className="ml-auto"
              onClick={() =>
                void change({ id: picture.id, revision: revision.current, asFound: ['commission'] })
                  .unwrap()
                  .then(onClose, () => undefined)
              }
            >
              Default
            </QuietButton>
          )}
        </div>
      </form>
    </Dialog>
  );
}

const fieldsOf = (c: PictureView['commission']): Fields => ({
  longSideMm: String(c.longSideMm),
  shortSideMm: c.shortSideMm === undefined ? '' : String(c.shortSideMm),
  format: c.format ?? '',
  priceClass: c.priceClass ?? 'standard',
  alsoFor: '',
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
    ...(f.shortSideMm.trim() && { shortSideMm: decimal(f.shortSideMm) }),
    ...(f.format && { format: f.format }),
    ...(f.priceClass !== 'standard' && { priceClass: f.priceClass }),
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

/** Other pictures that a commission may be saved for. */
interface AlsoFor {
  readonly key: string;
  readonly words: string;
  readonly pictureIds: readonly string[];
}

function useAlsoFor(id: string): AlsoFor[] {
  const { laidPictures } = useTable();
  const { data: pictures = [] } = usePicturesQuery();
  const { data: shows = [] } = useShowsQuery();
  const onTable = laidPictures.map((p) => p.id);
  return [
    { key: 'table', words: `the ${onTable.length} pictures on the table`, pictureIds: onTable },
    ...shows.map((s) => ({ key: s.id, words: `the show ${s.name}, ${s.pictures} pictures`, pictureIds: s.pictureIds })),
    { key: 'all', words: `all ${pictures.length} pictures`, pictureIds: pictures.map((p) => p.id) },
  ].filter((a) => a.pictureIds.some((p) => p !== id));
}

function CommissionFields({
  form: { register, setValue, getValues, formState },
  aspect,
  also,
}: {
  form: UseFormReturn<Fields>;
  /** Of the picture: shorter side over longer. */
  aspect: number;
  also: readonly AlsoFor[];
}) {
  const { lights } = useLight();
  const number = (name: 'longSideMm' | 'shortSideMm' | 'viewingCm' | 'copies' | 'editionOf' | 'lux') => ({
    inputMode: 'decimal' as const,
    error: formState.errors[name]?.message,
    ...register(name, name === 'editionOf' || name === 'shortSideMm' ? typedNumberOrNone : typedNumber),
  });
  return (
    <>
      <TextField label="Longer side" unit="mm" {...number('longSideMm')} />
      <TextField
        label="Shorter side"
        unit="mm"
        placeholder={`by the picture, ${formatNumber(aspect, 2)} of the longer`}
        {...number('shortSideMm')}
      />
      <ChoiceField label="Format" options={[['', 'any'], ...Object.entries(FORMATS)]} {...register('format')} />
      <ChoiceField label="Price class" options={Object.entries(PRICE_CLASSES)} {...register('priceClass')} />
      <TextField label="Viewing distance" unit="cm" {...number('viewingCm')} />
      <TextField label="Copies" {...number('copies')} />
      <TextField label="Numbered, of" unit="(empty: open)" {...number('editionOf')} />
      <PlaceChoice
        className="col-span-4"
        onChoose={({ light, glass, lux }, client) => {
          if (light) setValue('light', light);
          if (glass) setValue('glass', glass);
          if (lux !== undefined) setValue('lux', String(lux));
          if (client?.wishes && !getValues('wishes').trim()) setValue('wishes', client.wishes);
        }}
      />
      <ChoiceField
        label="Light"
        className="col-span-2"
        options={lights.map((l) => [l.key, l.name] as const)}
        {...register('light')}
      />
      <TextField label="Illuminance" unit="lx" {...number('lux')} />
      <ChoiceField label="Glass" options={GLASSES.map((g) => [g.key, g.name] as const)} {...register('glass')} />
      <TickField label="Will be handled" className="col-span-2" {...register('handled')} />
      <TickField label="Must last" className="col-span-2" {...register('mustLast')} />
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
      {also.length > 0 && (
        <ChoiceField
          label="Also save it for"
          className="col-span-2"
          options={[['', 'this picture only'], ...also.map((a) => [a.key, a.words] as const)]}
          {...register('alsoFor')}
        />
      )}
      <AreaField label="Wishes" className="col-span-4" {...register('wishes')} />
    </>
  );
}
