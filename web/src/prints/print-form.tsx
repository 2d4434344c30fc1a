import { useEffect } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { PrintInput, PrintProposal, PrintView } from '@rakuen/contract/prints';
import { BLACK_INKS, INTENTS, PRINT_MODES, SETTING_KEYS, VERDICTS, type SettingKey } from '@rakuen/contract/vocabulary';
import { useChangePrintMutation, useProposalQuery, useRecordPrintMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { AreaField, ChoiceField, named, TextField, TickField } from '../parts/form.tsx';
import { conditionLine } from '../parts/label.ts';
import { Caution, ErrorNote, Waiting } from '../parts/messages.tsx';
import { Strip } from '../parts/strip.tsx';

/** Name of a setting as the printmaker says it. */
const NAMES: Record<SettingKey, string> = {
  printer: 'Printer',
  inkSet: 'Ink set',
  blackInk: 'Black ink',
  mediaSetting: 'Media setting',
  resolution: 'Resolution',
  printMode: 'Print mode',
  profile: 'Profile',
  intent: 'Rendering intent',
  blackPointCompensation: 'Black point compensation',
  blackOvercoat: 'Extra black overcoat',
  sharpening: 'Sharpening',
  feed: 'Feed',
};

/** Records a print: every setting carried over, and shown as carried over until it is looked at and changed. */
export function PrintForm({
  picture,
  condition,
  print,
  onClose,
}: {
  picture: PictureView;
  condition: ConditionView;
  print?: PrintView;
  onClose: () => void;
}) {
  const proposal = useProposalQuery(
    { pictureId: picture.id, conditionId: condition.id },
    { refetchOnMountOrArgChange: true },
  );
  if (proposal.error) return <ErrorNote error={proposal.error as never} />;
  if (!proposal.currentData || proposal.isFetching) return <Waiting what="Fetching the settings" />;
  return (
    <Form picture={picture} condition={condition} print={print} proposal={proposal.currentData} onClose={onClose} />
  );
}

function Form({
  picture,
  condition,
  print,
  proposal,
  onClose,
}: {
  picture: PictureView;
  condition: ConditionView;
  print?: PrintView;
  proposal: PrintProposal;
  onClose: () => void;
}) {
  const dispatch = useAppDispatch();
  const [record, recording] = useRecordPrintMutation();
  const [change, changing] = useChangePrintMutation();
  const aspect = picture.heightPx / picture.widthPx;
  const { register, handleSubmit, control, setValue, formState } = useForm<PrintInput>({
    defaultValues: print ?? blank(picture, condition, proposal),
  });
  const { errors } = formState;
  const settings = useWatch({ control, name: 'settings' });
  const misprints = useWatch({ control, name: 'misprints' });
  const width = useWatch({ control, name: 'widthMm' });
  const carried = SETTING_KEYS.filter((key) => settings[key] === proposal.settings[key]);

  useEffect(() => {
    // The picture's shape is kept; both sides are written down.
    if (width > 0 && formState.dirtyFields.widthMm) setValue('heightMm', Math.round(width * aspect * 10) / 10);
  }, [width, aspect, setValue, formState.dirtyFields.widthMm]);

  const submit = handleSubmit(async (values) => {
    const input: PrintInput = {
      ...inputOf(values),
      carriedOver: print ? print.carriedOver : carried,
      printedOn: values.printedOn.slice(0, 10),
    };
    await (print ? change({ id: print.id, revision: print.revision, print: input }) : record(input)).unwrap();
    dispatch(said(`The print of ${picture.title} is in the ledger.`));
    onClose();
  });
  const number = { valueAsNumber: true, validate: (v: number) => v > 0 || 'A number above 0' } as const;
  const mark = (key: SettingKey) =>
    print ? undefined : carried.includes(key) ? `from ${proposal.carriedFrom[key]}` : 'changed for this print';
  const text = (
    key: 'printer' | 'inkSet' | 'mediaSetting' | 'resolution' | 'profile' | 'sharpening' | 'feed',
    required = false,
  ) => (
    <TextField
      label={NAMES[key]}
      unit={mark(key) && `· ${mark(key)}`}
      error={errors.settings?.[key]?.message}
      {...register(`settings.${key}`, required ? { required: 'This is needed' } : {})}
    />
  );
  const choice = (key: 'blackInk' | 'printMode' | 'intent', options: readonly string[]) => (
    <ChoiceField
      label={NAMES[key]}
      unit={mark(key) && `· ${mark(key)}`}
      options={named(options)}
      {...register(`settings.${key}`)}
    />
  );
  const tick = (key: 'blackPointCompensation' | 'blackOvercoat') => (
    <TickField
      className="mt-5"
      label={`${NAMES[key]}${mark(key) ? ` · ${mark(key)}` : ''}`}
      {...register(`settings.${key}`)}
    />
  );

  return (
    <form onSubmit={(e) => void submit(e).catch(() => undefined)} noValidate className="space-y-6">
      <div className="flex flex-wrap items-start gap-5">
        <img src={`/api/pictures/${picture.id}/preview`} alt="" className="max-h-28 max-w-44" />
        <div className="min-w-0">
          <h2 className="break-words">
            {picture.title} on {condition.paper.name}
          </h2>
          <p className="mb-1">{conditionLine(condition)}</p>
          <Strip paper={condition.paper} facts={condition.facts} />
        </div>
      </div>
      {!print && (
        <Caution>
          Feed with the coated side right: it feels slightly tacky to a damp fingertip, at a corner outside the picture.
          Power off before you reach into the printer.
        </Caution>
      )}
      <div className="grid grid-cols-4 gap-4">
        <TextField
          label="Printed on"
          type="date"
          error={errors.printedOn?.message}
          {...register('printedOn', { required: 'This is needed' })}
        />
        <TextField
          label="Width"
          unit="mm"
          inputMode="decimal"
          error={errors.widthMm?.message}
          {...register('widthMm', number)}
        />
        <TextField
          label="Height"
          unit="mm"
          inputMode="decimal"
          error={errors.heightMm?.message}
          {...register('heightMm', number)}
        />
        <TextField label="Copies" inputMode="numeric" error={errors.copies?.message} {...register('copies', number)} />
      </div>
      <fieldset>
        <legend className="font-serif text-[1.1rem]">Settings</legend>
        {!print && (
          <p className="mb-2">
            {carried.length} of {SETTING_KEYS.length} are carried over. Look at each before a sheet is spent.
          </p>
        )}
        <div className="grid grid-cols-2 gap-x-6 gap-y-3 min-[1500px]:grid-cols-3">
          {text('printer', true)}
          {text('inkSet', true)}
          {choice('blackInk', BLACK_INKS)}
          {text('mediaSetting', true)}
          {text('resolution', true)}
          {choice('printMode', PRINT_MODES)}
          {text('profile')}
          {choice('intent', INTENTS)}
          {text('sharpening')}
          {text('feed')}
          {tick('blackPointCompensation')}
          {tick('blackOvercoat')}
        </div>
      </fieldset>
      <fieldset>
        <legend className="font-serif text-[1.1rem]">Verdict</legend>
        <div className="mt-1 grid grid-cols-[1fr_2fr] gap-4">
          <ChoiceField label="The print is" options={named(VERDICTS)} {...register('verdict')} />
          <TextField label="Why" {...register('verdictReason')} />
          <TextField
            label="Misprints on the way"
            unit="sheets"
            inputMode="numeric"
            {...register('misprints', { valueAsNumber: true, validate: (v) => v >= 0 || 'A number' })}
          />
          <TextField
            label="What spoilt them"
            error={errors.misprintCause?.message}
            {...register('misprintCause', {
              validate: (v) => !(misprints > 0) || v.trim() !== '' || 'A misprint wants its cause',
            })}
          />
        </div>
        <p className="mt-1 text-[13px] text-quiet">
          Wait before you judge: colour settles as the ink dries, minutes for the look, a day for handling (practice).
        </p>
      </fieldset>
      <AreaField label="Notes" {...register('notes')} />
      <ErrorNote error={(recording.error ?? changing.error) as never} />
      <div className="flex gap-3">
        <Button main type="submit" disabled={recording.isLoading || changing.isLoading}>
          {print ? 'Keep the change' : 'Enter in the ledger'}
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </form>
  );
}

const PIXELS_PER_INCH = 300;
const MM_PER_INCH = 25.4;

function blank(picture: PictureView, condition: ConditionView, proposal: PrintProposal): PrintInput {
  const widthMm = proposal.widthMm ?? Math.round((picture.widthPx / PIXELS_PER_INCH) * MM_PER_INCH);
  return {
    pictureId: picture.id,
    conditionId: condition.id,
    printedOn: new Date().toLocaleDateString('sv'),
    widthMm,
    heightMm: proposal.heightMm ?? Math.round((widthMm * picture.heightPx) / picture.widthPx),
    copies: 1,
    settings: proposal.settings,
    carriedOver: [],
    verdict: 'not yet judged',
    verdictReason: '',
    misprints: 0,
    misprintCause: '',
    notes: '',
  };
}

/** The fields the server knows; a record read back carries more. */
function inputOf(v: PrintInput): PrintInput {
  const {
    pictureId,
    conditionId,
    printedOn,
    widthMm,
    heightMm,
    copies,
    settings,
    carriedOver,
    verdict,
    verdictReason,
    misprints,
    misprintCause,
    notes,
  } = v;
  return {
    pictureId,
    conditionId,
    printedOn,
    widthMm,
    heightMm,
    copies,
    settings,
    carriedOver,
    verdict,
    verdictReason,
    misprints: misprints || 0,
    misprintCause,
    notes,
  };
}
