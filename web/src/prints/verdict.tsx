import { useForm } from 'react-hook-form';
import type { PrintInput, PrintView } from '@rakuen/contract/prints';
import { DECIDERS, VERDICTS } from '@rakuen/contract/vocabulary';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { AreaField, ChoiceField, named, TextField } from '../parts/form.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useChangePrintMutation } from './print-api.ts';

type Judged = Pick<PrintInput, 'verdict' | 'verdictReason' | 'notes' | 'judgedIn' | 'decidedWhy'> & {
  decidedBy: string;
};

/** What the print is worth, by whom, in which light; given when it is dry. */
export function Verdict({ print }: { print: PrintView }) {
  const dispatch = useAppDispatch();
  const [change, changing] = useChangePrintMutation();
  const theirs = theirsOf<PrintView>(changing.error);
  const { register, handleSubmit, getValues, reset } = useForm<Judged>({
    // What another window wrote comes in where nothing was typed here.
    resetOptions: { keepDirtyValues: true },
    values: {
      verdict: print.verdict,
      verdictReason: print.verdictReason,
      notes: print.notes ?? '',
      judgedIn: print.judgedIn ?? '',
      decidedBy: print.decidedBy ?? '',
      decidedWhy: print.decidedWhy ?? '',
    },
  });
  const submit = handleSubmit(async ({ decidedBy, ...judged }) => {
    const input: PrintInput = {
      pictureId: print.pictureId,
      conditionId: print.conditionId,
      printedOn: print.printedOn,
      widthMm: print.widthMm,
      heightMm: print.heightMm,
      copies: print.copies,
      settings: print.settings,
      carriedOver: print.carriedOver,
      ...(print.boxId && { boxId: print.boxId }),
      ...judged,
      ...(decidedBy && { decidedBy: decidedBy as NonNullable<PrintInput['decidedBy']> }),
    };
    await change({ id: print.id, revision: print.revision, print: input }).unwrap();
    dispatch(said('The verdict stands in the ledger.'));
  });
  return (
    <form
      aria-label="Verdict"
      onSubmit={(e) => void submit(e).catch(() => undefined)}
      className="border-t border-edge pt-3"
    >
      <div className="grid grid-cols-[150px_minmax(0,1fr)] gap-x-4 gap-y-3">
        <ChoiceField label="The print is" options={named(VERDICTS)} {...register('verdict')} />
        <TextField label="Why" maxLength={2000} {...register('verdictReason')} />
        <ChoiceField label="Decided by" options={[['', 'not said'], ...named(DECIDERS)]} {...register('decidedBy')} />
        <TextField label="Judged in" unit="which light" maxLength={80} {...register('judgedIn')} />
      </div>
      <AreaField className="mt-3" label="Notes" {...register('notes')} />
      <p className="mt-1 text-[13px] text-quiet">
        Wait before you judge: colour settles as the ink dries, minutes for the look, a day for handling (practice).
      </p>
      {theirs ? (
        <Conflict
          mine={getValues()}
          theirs={theirs}
          onMine={() => void submit().catch(() => undefined)}
          onTheirs={() => {
            reset(undefined, { keepDirtyValues: false });
            changing.reset();
          }}
        />
      ) : (
        <ErrorNote error={changing.error} />
      )}
      <Button main className="mt-2" type="submit" disabled={changing.isLoading}>
        Save the verdict
      </Button>
    </form>
  );
}
