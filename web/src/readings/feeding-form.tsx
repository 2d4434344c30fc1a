import { useForm } from 'react-hook-form';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { FeedingValue } from '@rakuen/contract/observations';
import { GRADES, TAKES } from '@rakuen/core/measurement/observations';
import { FEED_PATHS, type FeedKey } from '@rakuen/core/print/feed';
import { useObserveMutation } from './reading-api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';

type Typed = Omit<FeedingValue, 'stack' | 'corners' | 'coreCurl' | 'reloads'> & {
  stack: string;
  corners: string;
  coreCurl: string;
  reloads: boolean;
};
const START: Typed = {
  feed: 'auto',
  takes: 'well',
  stack: '',
  headHeight: '',
  suction: '',
  corners: '0',
  coreCurl: '0',
  borderless: false,
  customSizes: false,
  reloads: true,
};
const grades = GRADES.map((word, g) => [String(g), `${g} ${word}`] as const);

/** How one way into the printer takes the sheet, by whom and when: used in the match, the run and where the hands are. */
export function FeedingForm({ condition, by }: { condition: ConditionHead; by: string }) {
  const dispatch = useAppDispatch();
  const [observe, observing] = useObserveMutation();
  const { register, handleSubmit, watch, reset, setError, formState } = useForm<Typed>({ defaultValues: START });
  const feed: FeedKey = watch('feed');
  const keep = handleSubmit(async ({ stack, corners, coreCurl, reloads, ...rest }) => {
    if (!by.trim()) return setError('root', { message: 'Say first who works at the bench, at the top.' });
    const value: FeedingValue = {
      ...rest,
      headHeight: rest.headHeight.trim(),
      suction: rest.suction.trim(),
      corners: Number(corners),
      ...(feed === 'auto' && stack.trim() && { stack: Number(stack) }),
      ...(feed === 'roll' && { coreCurl: Number(coreCurl), reloads }),
    };
    const done = await observe({
      conditionId: condition.id,
      observations: [{ kind: 'feeding', value, takenAt: new Date().toISOString(), by, instrument: '' }],
    });
    if (!('data' in done)) return;
    reset({ ...START, feed });
    dispatch(said('Feeding kept.'));
  });
  return (
    <form noValidate onSubmit={(e) => void keep(e)} className="space-y-2">
      <div className="grid grid-cols-2 gap-x-4 gap-y-2">
        <ChoiceField
          label="By way of"
          options={Object.entries(FEED_PATHS).map(([key, { name }]) => [key, name] as const)}
          {...register('feed')}
        />
        <ChoiceField label="The printer" options={Object.entries(TAKES)} {...register('takes')} />
        <TextField
          label="Head height"
          maxLength={40}
          placeholder="in the printer’s words"
          {...register('headHeight')}
        />
        <TextField label="Suction" maxLength={40} placeholder="in the printer’s words" {...register('suction')} />
        <ChoiceField label="Lifted corners" options={grades} {...register('corners')} />
        {feed === 'auto' && (
          <TextField label="At once" unit="sheets" type="number" min={1} max={500} {...register('stack')} />
        )}
        {feed === 'roll' && <ChoiceField label="Curl at the core" options={grades} {...register('coreCurl')} />}
      </div>
      <div className="flex flex-wrap gap-x-5">
        <TickField label="Prints to the edge" {...register('borderless')} />
        <TickField label="Takes sizes of one’s own" {...register('customSizes')} />
        {feed === 'roll' && <TickField label="A part-used roll goes in again" {...register('reloads')} />}
      </div>
      <Button type="submit" disabled={observing.isLoading} aria-label="Keep feeding">
        Keep
      </Button>
      {formState.errors.root && <p role="alert">{formState.errors.root.message}</p>}
      <ErrorNote error={observing.error} />
    </form>
  );
}
