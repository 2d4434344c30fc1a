import type { PictureView } from '@rakuen/contract/pictures';
import type { PlannedChange, PlannedChoice, ShowInput, ShowPlanView } from '@rakuen/contract/shows';
import { formatNumber } from '@rakuen/core/measurement/show';

/** Further papers that are listed with what they would improve. */
const MAX_ADDITIONS = 3;
/** A mean that rises by less is worth no further paper: a score may be off by several tenths (our own choice). */
const REAL_GAIN = 0.15;
/** A change of a score below this can't be read from it. */
const SMALLEST = 0.05;

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];
const papersOf = (n: number): string => `${NUMBERS[n] ?? n} ${n === 1 ? 'paper' : 'papers'}`;
const points = (v: number): string => formatNumber(Math.abs(v), Math.abs(v) < SMALLEST ? 2 : 1);

interface VerdictProps {
  show: ShowInput;
  plan: ShowPlanView;
  pictures: readonly PictureView[];
}

/** Which papers carry the show: the answer, then what fewer and more would do. */
export function ShowVerdict({ show, plan, pictures }: VerdictProps) {
  const names = new Map(plan.papers.map((p) => [p.paperId, p.name]));
  const nameOf = (id: string) => names.get(id) ?? 'a removed paper';
  const titleOf = (id: string) => pictures.find((p) => p.id === id)?.title ?? 'a removed picture';
  const main = plan.choices[plan.fewest ?? plan.choices.length - 1];
  if (!main) return null;
  return (
    <section aria-label="The verdict" className="mb-4">
      <p className="font-serif text-[1.12rem] leading-snug font-semibold">{verdictOf(show, plan, main, nameOf)}</p>
      <p className="text-[13px]">
        {main.hardest.loss > SMALLEST
          ? `${titleOf(main.hardest.pictureId)} loses most: it scores ${formatNumber(main.hardest.score, 1)}, ${points(main.hardest.loss)} below its best paper.`
          : 'Every picture is on its best paper, or on one as good.'}{' '}
        {plan.exactSearch
          ? 'All combinations of these papers were tried.'
          : `Not all combinations were tried: no other ${papersOf(main.paperIds.length)} can have a mean above ${formatNumber(main.atMost, 2)}.`}
      </p>
      {plan.unlike.map(([p, q]) => (
        <p key={`${p} ${q}`} role="alert" className="mt-1 border-l-4 border-ink bg-field px-3 py-1">
          {nameOf(p)} and {nameOf(q)} are both chosen, but do not have one look.
        </p>
      ))}
      {plan.meanWithoutWish !== undefined && (
        <p className="text-[13px]">{wishOf(plan.meanWithoutWish - main.meanScore)}</p>
      )}
      <Numbers {...{ plan, nameOf, titleOf, main }} />
      <Changes {...{ plan, nameOf, titleOf, main }} />
    </section>
  );
}

function verdictOf(show: ShowInput, plan: ShowPlanView, main: PlannedChoice, nameOf: (id: string) => string): string {
  const names = main.paperIds.map(nameOf).join(', ');
  const n = papersOf(main.paperIds.length);
  if (plan.fewest === undefined)
    return `No choice stays within a mean loss of ${formatNumber(show.maxLoss, 2)}. The best loses ${formatNumber(main.meanLoss, 2)}, with ${n}: ${names}.`;
  const words = n.charAt(0).toUpperCase() + n.slice(1);
  return `${words} ${main.paperIds.length === 1 ? 'carries' : 'carry'} the show: ${names}. Mean score ${formatNumber(main.meanScore, 1)} of 10, mean loss ${formatNumber(main.meanLoss, 2)}.`;
}

const wishOf = (by: number): string =>
  by > SMALLEST
    ? `The wish for one look costs ${points(by)} of the mean score.`
    : 'The wish for one look costs nothing that can be read from the scores.';

interface PartProps {
  plan: ShowPlanView;
  main: PlannedChoice;
  nameOf: (id: string) => string;
  titleOf: (id: string) => string;
}

/** The best of each number of papers. */
function Numbers({ plan, main, nameOf, titleOf }: PartProps) {
  // A paper more that improves nothing that can be read is left out.
  const read = (c: PlannedChoice | undefined) => c && formatNumber(c.meanScore, 2);
  const shown = plan.choices.filter((c, i) => c === main || read(c) !== read(plan.choices[i - 1]));
  if (shown.length < 2) return null;
  return (
    <table className="mt-3 w-full text-left text-[13px]">
      <caption className="text-left font-serif text-[1rem]">The best choice by number of papers</caption>
      <thead>
        <tr className="border-b border-edge text-quiet">
          {['Papers', 'Best choice', 'Loses most', 'Mean score', 'Mean loss'].map((h, i) => (
            <th key={h} scope="col" className={`pr-4 font-normal ${i > 2 ? 'text-right' : ''}`}>
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {shown.map((c) => (
          <tr key={c.paperIds.length} className="border-b border-line align-baseline">
            <th scope="row" className={`py-0.5 pr-4 font-normal ${c === main ? 'font-semibold' : ''}`}>
              {c.paperIds.length}
              {c === main && <span className="sr-only"> (recommended)</span>}
            </th>
            <td className={`pr-4 font-serif ${c === main ? 'font-semibold' : ''}`}>
              {c.paperIds.map(nameOf).join(', ')}
            </td>
            <td className="pr-4">
              {c.hardest.loss > SMALLEST ? `${titleOf(c.hardest.pictureId)}, ${points(c.hardest.loss)}` : 'none'}
            </td>
            <td className="pr-4 text-right">
              {formatNumber(c.meanScore, 2)}
              {!plan.exactSearch && <span className="text-quiet"> (at most {formatNumber(c.atMost, 2)})</span>}
            </td>
            <td className="pr-4 text-right">{formatNumber(c.meanLoss, 2)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What dropping each paper costs, and what one more would improve. */
function Changes({ plan, main, nameOf, titleOf }: PartProps) {
  const further = plan.additions.filter((c) => c.byMean >= SMALLEST / 10).slice(0, MAX_ADDITIONS);
  return (
    <div className="mt-3 grid grid-cols-2 gap-x-8 text-[13px] max-[900px]:grid-cols-1">
      <ChangeList
        title="One paper less"
        changes={main.paperIds.length > 1 ? plan.drops : []}
        none="There is only one paper."
        words={(c) =>
          `Without ${nameOf(c.paperId)} the mean falls by ${formatNumber(-c.byMean, 2)}${
            c.pictures > 0 ? `; ${titleOf(c.most.pictureId)} loses ${points(c.most.by)}` : ''
          }.`
        }
      />
      <ChangeList
        title="One paper more"
        changes={further}
        none="No further paper improves the show."
        words={(c) =>
          `${nameOf(c.paperId)} raises the mean by ${formatNumber(c.byMean, 2)}, for ${c.pictures === 1 ? 'one picture' : `${c.pictures} pictures`}; ${titleOf(c.most.pictureId)} gains ${points(c.most.by)}${c.byMean < REAL_GAIN ? ' (no real gain)' : ''}.`
        }
      />
    </div>
  );
}

function ChangeList({
  title,
  changes,
  none,
  words,
}: {
  title: string;
  changes: readonly PlannedChange[];
  none: string;
  words: (change: PlannedChange) => string;
}) {
  return (
    <div>
      <h3>{title}</h3>
      {changes.length === 0 ? (
        <p className="text-quiet">{none}</p>
      ) : (
        <ul>
          {changes.map((c) => (
            <li key={c.paperId}>{words(c)}</li>
          ))}
        </ul>
      )}
    </div>
  );
}
