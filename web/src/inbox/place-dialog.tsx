import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { InboxFile, InboxImport, InboxPrinted } from '@rakuen/contract/inbox';
import type { PaperInput, PaperView } from '@rakuen/contract/papers';
import { BLACK_INKS } from '@rakuen/contract/vocabulary';
import { useConditionsQuery, usePapersQuery } from '../api/api.ts';
import { Button } from '../parts/button.tsx';
import { aboveNoughtOrNone, REQUIRED } from '../parts/decimal.ts';
import { Dialog } from '../parts/dialog.tsx';
import { ChoiceField, named, TextField } from '../parts/form.tsx';
import { settingLine } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { useImportFileMutation } from './inbox-api.ts';

/** Where it goes: a print condition that is there, another way of printing a paper, or a paper that is new. */
type Where = `condition ${string}` | `paper ${string}` | 'new';
type Values = Pick<PaperInput, 'maker' | 'name' | 'weightGsm' | 'currency'> & InboxPrinted & { where: Where };

interface Known {
  readonly papers: readonly PaperView[];
  readonly conditions: readonly ConditionHead[];
}

/** Says where one file belongs. What the file says stands in the fields already, and is corrected there. */
export function PlaceDialog({ file, onClose }: { file: InboxFile; onClose: () => void }) {
  const { data: papers } = usePapersQuery();
  const { data: conditions } = useConditionsQuery();
  if (!papers || !conditions) return null;
  return <PlaceForm file={file} known={{ papers, conditions }} onClose={onClose} />;
}

function PlaceForm({ file, known, onClose }: { file: InboxFile; known: Known; onClose: () => void }) {
  const [importFile, importing] = useImportFileMutation();
  const [batch, setBatch] = useState('');
  const form = useForm<Values>({ defaultValues: beginning(file, known) });
  const { register, watch, handleSubmit } = form;
  const where = watch('where');
  const error = importing.error;
  const send = (over: Pick<InboxImport, 'keep'> = {}) =>
    handleSubmit(async (values) => {
      await importFile({
        id: file.id,
        name: file.name,
        ...targetOf(values),
        batch: batch.trim() || undefined,
        ...over,
      }).unwrap();
      onClose();
    })().catch(() => undefined);
  return (
    <Dialog
      wide
      open
      onClose={onClose}
      title={`Where does ${file.name.replace(/^.*\//, '')} belong?`}
      description={file.what}
    >
      <form
        noValidate
        className="space-y-4"
        onSubmit={(e) => {
          e.preventDefault();
          void send();
        }}
      >
        {file.unclear.map((words) => (
          <p key={words} className="border-l-4 border-ink pl-2">
            {words}
          </p>
        ))}
        <ChoiceField label="Belongs to" options={choices(known)} {...register('where')} />
        {where === 'new' && <PaperPart form={form} />}
        {!where.startsWith('condition') && <PrintedPart form={form} known={known} />}
        {where.startsWith('condition') && (
          <TextField
            label="Box, where it is another than the first"
            value={batch}
            onChange={(e) => setBatch(e.target.value)}
          />
        )}
        <ErrorNote error={error} />
        <div className="flex items-center gap-3">
          <Button main type="submit" disabled={importing.isLoading}>
            Import {file.name.replace(/^.*\//, '')}
          </Button>
          {error && 'field' in error && error.field === 'keep' && (
            <Button disabled={importing.isLoading} onClick={() => void send({ keep: 'apart' })}>
              Keep it there apart
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}

type Form = ReturnType<typeof useForm<Values>>;

function PaperPart({ form: { register, formState } }: { form: Form }) {
  const { errors } = formState;
  return (
    <div className="grid grid-cols-4 gap-4">
      <TextField needed label="Maker" error={errors.maker?.message} {...register('maker', REQUIRED)} />
      <TextField needed label="Paper" error={errors.name?.message} {...register('name', REQUIRED)} />
      <TextField
        label="Weight"
        unit="g/m²"
        inputMode="decimal"
        error={errors.weightGsm?.message}
        {...register('weightGsm', aboveNoughtOrNone)}
      />
      <TextField
        needed
        label="Currency"
        maxLength={3}
        error={errors.currency?.message}
        {...register('currency', { ...REQUIRED, pattern: { value: /^[A-Z]{3}$/, message: 'Three capitals' } })}
      />
    </div>
  );
}

const KNOWN = ['printer', 'inkSet', 'mediaSetting', 'resolution'] as const;

function PrintedPart({ form: { register, formState }, known }: { form: Form; known: Known }) {
  const { errors } = formState;
  return (
    <div className="grid grid-cols-3 gap-4">
      <TextField
        needed
        label="Printer"
        list="inbox-printer"
        error={errors.printer?.message}
        {...register('printer', REQUIRED)}
      />
      <TextField
        needed
        label="Ink set"
        list="inbox-inkSet"
        error={errors.inkSet?.message}
        {...register('inkSet', REQUIRED)}
      />
      <ChoiceField label="Black ink" options={named(BLACK_INKS)} {...register('blackInk')} />
      <TextField
        needed
        label="Media setting"
        list="inbox-mediaSetting"
        error={errors.mediaSetting?.message}
        {...register('mediaSetting', REQUIRED)}
      />
      <TextField label="Resolution (optional)" list="inbox-resolution" {...register('resolution')} />
      {KNOWN.map((key) => (
        <datalist key={key} id={`inbox-${key}`}>
          {[...new Set(known.conditions.map((c) => c[key]))].filter(Boolean).map((v) => (
            <option key={v} value={v} />
          ))}
        </datalist>
      ))}
    </div>
  );
}

const choices = ({ papers, conditions }: Known): (readonly [Where, string])[] => [
  ['new', 'A new paper'],
  ...conditions.map(
    (c) => [`condition ${c.id}`, `${c.paper.maker} ${c.paper.name}: ${settingLine(c)}`] as [Where, string],
  ),
  ...papers.map((p) => [`paper ${p.id}`, `${p.maker} ${p.name}, printed in another way`] as [Where, string]),
];

/** What the file says; what it leaves open is carried over from what was printed last, and from the paper's class. */
function beginning({ told = { stated: [] }, belongs }: InboxFile, { papers, conditions }: Known): Values {
  const last = conditions[conditions.length - 1];
  return {
    where: belongs?.conditionId
      ? `condition ${belongs.conditionId}`
      : belongs?.paperId
        ? `paper ${belongs.paperId}`
        : 'new',
    maker: told.maker ?? '',
    name: told.paper ?? '',
    weightGsm: told.weightGsm,
    currency: papers[papers.length - 1]?.currency ?? 'EUR',
    printer: told.printer ?? last?.printer ?? '',
    inkSet: told.inkSet ?? last?.inkSet ?? '',
    blackInk: told.blackInk ?? 'photo black',
    mediaSetting: told.mediaSetting ?? '',
    resolution: told.resolution ?? last?.resolution ?? '',
  };
}

function targetOf({ where, maker, name, weightGsm, currency, ...printed }: Values): Omit<InboxImport, 'name'> {
  const [kind, id] = where.split(' ');
  if (kind === 'condition') return { conditionId: id };
  if (kind === 'paper') return { paperId: id, printed };
  return { paper: { maker, name, weightGsm, currency, brightenerClaim: 'not stated', sizes: [] }, printed };
}
