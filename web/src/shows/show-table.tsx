import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { PictureView } from '@rakuen/contract/pictures';
import type { ShowInput, ShowPlanView } from '@rakuen/contract/shows';
import type { PaperStanding } from '@rakuen/contract/vocabulary';
import { TABLE_SIZE } from '@rakuen/core/table/table';
import { formatNumber } from '@rakuen/core/measurement/show';
import { QuietButton } from '../parts/button.tsx';
import { useTable } from '../table/use-table.ts';
import type { ShowAtHand } from './use-show.ts';

/** Papers that stand in the table at first: those of the recommended choice, and those that would improve it most. */
const FIRST_PAPERS = 7;
const STANDINGS: readonly (readonly [PaperStanding, string])[] = [
  ['considered', 'considered'],
  ['chosen', 'chosen'],
  ['vetoed', 'vetoed'],
];

/** Every picture of the show, in its order, with its score on each paper. */
export function ShowTable({
  at,
  plan,
  pictures,
}: {
  at: ShowAtHand;
  /** Absent until the first scores are there. */
  plan?: ShowPlanView;
  pictures: readonly PictureView[];
}) {
  const [all, setAll] = useState(false);
  const main = plan?.choices[plan.fewest ?? plan.choices.length - 1]?.paperIds ?? [];
  const order = plan ? columnsOf(plan, main) : [];
  const columns = all ? order : order.slice(0, Math.max(FIRST_PAPERS, main.length));
  return (
    <>
      <div className="overflow-x-auto">
        <table className="w-full text-left text-[13px]" aria-label="Scores by picture and paper, of 10">
          <thead>
            <tr className="border-b border-edge align-bottom">
              <th scope="col" className="pr-3 font-normal text-quiet">
                Score of 10; underlined: the paper of the choice
              </th>
              {columns.map((c) => (
                <PaperHead key={plan!.papers[c].paperId} paper={plan!.papers[c]} at={at} />
              ))}
              <th scope="col">
                <span className="sr-only">Order</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {at.now.pictureIds.map((id, i) => (
              <PictureRow
                key={id}
                {...{ id, plan, columns, main, at }}
                number={i + 1}
                last={i === at.now.pictureIds.length - 1}
                picture={pictures.find((p) => p.id === id)}
              />
            ))}
          </tbody>
        </table>
      </div>
      {order.length > FIRST_PAPERS && (
        <QuietButton className="mt-2" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? `Show the first ${Math.max(FIRST_PAPERS, main.length)} papers` : `Show all ${order.length} papers`}
        </QuietButton>
      )}
    </>
  );
}

/** Columns: the choice first, then papers that would improve it, then the others. */
function columnsOf({ papers, additions }: ShowPlanView, main: readonly string[]): number[] {
  const rank = (id: string): number => {
    if (main.includes(id)) return main.indexOf(id) - main.length;
    const at = additions.findIndex((a) => a.paperId === id);
    return at >= 0 ? at : additions.length;
  };
  return papers.map((_, i) => i).sort((p, q) => rank(papers[p].paperId) - rank(papers[q].paperId) || p - q);
}

function PaperHead({ paper, at }: { paper: ShowPlanView['papers'][number]; at: ShowAtHand }) {
  const { paperId, name } = paper;
  const held = (now: ShowInput): PaperStanding =>
    now.papers.find((p) => p.paperId === paperId)?.standing ?? 'considered';
  const hold = (standing: PaperStanding | '') => {
    const others = at.now.papers.filter((p) => p.paperId !== paperId);
    const named = standing !== '' && (standing !== 'considered' || !at.now.allPapers);
    at.change({ papers: named ? [...others, { paperId, standing }] : others });
  };
  return (
    <th scope="col" className="max-w-[15ch] min-w-[9ch] px-2 text-right font-normal">
      <span className="block font-serif leading-tight break-words">{name}</span>
      <select
        aria-label={`${name} in this show`}
        value={held(at.now)}
        onChange={(e) => hold(e.target.value as PaperStanding | '')}
        className="mb-1 min-h-6 rounded-[3px] border border-edge bg-field text-[12px]"
      >
        {STANDINGS.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
        {!at.now.allPapers && <option value="">not considered</option>}
      </select>
    </th>
  );
}

function PictureRow({
  id,
  picture,
  number,
  last,
  plan,
  columns,
  main,
  at,
}: {
  id: string;
  picture?: PictureView;
  number: number;
  last: boolean;
  plan?: ShowPlanView;
  columns: readonly number[];
  main: readonly string[];
  at: ShowAtHand;
}) {
  const row = plan?.pictures.find((p) => p.pictureId === id);
  const own = main.map((paperId) => plan!.papers.findIndex((p) => p.paperId === paperId));
  const best = row && Math.max(...own.map((c) => row.scores[c] ?? 0));
  const title = picture?.title ?? 'a removed picture';
  const remove = () => at.change({ pictureIds: at.now.pictureIds.filter((p) => p !== id) });
  return (
    <tr className="border-b border-line">
      <th scope="row" className="min-w-[190px] py-0.5 pr-3 font-normal">
        <span className="flex items-center gap-3">
          <span className="w-[2ch] shrink-0 text-right text-quiet">{number}</span>
          <img src={`/api/pictures/${id}/preview`} alt="" loading="lazy" className="h-8 w-12 shrink-0 object-contain" />
          <PictureName {...{ id, title }} />
        </span>
      </th>
      {columns.map((c) => {
        const score = row?.scores[c] ?? undefined;
        const carries = own.includes(c) && score !== undefined && score === best;
        return (
          <td key={c} className={`px-2 text-right ${carries ? 'font-semibold underline' : ''}`}>
            {score === undefined ? <span title={row ? 'refused' : undefined}>—</span> : formatNumber(score, 1)}
          </td>
        );
      })}
      <td className="pl-2 whitespace-nowrap">
        <QuietButton aria-label={`Move ${title} up`} disabled={number === 1} onClick={() => at.move(id, -1)}>
          <ArrowUp size={15} aria-hidden />
        </QuietButton>
        <QuietButton aria-label={`Move ${title} down`} disabled={last} onClick={() => at.move(id, 1)}>
          <ArrowDown size={15} aria-hidden />
        </QuietButton>
        <QuietButton aria-label={`Remove ${title} from the show`} onClick={remove}>
          <X size={15} aria-hidden />
        </QuietButton>
      </td>
    </tr>
  );
}

/** A picture’s title leads to its match. */
function PictureName({ id, title }: { id: string; title: string }) {
  const table = useTable();
  /** On a full table it finds no place: the match would be another picture’s. */
  const select = (event: { preventDefault: () => void }) => {
    if (table.has(id)) return table.holdPicture(id, title);
    if (table.table.pictureIds.length >= TABLE_SIZE) event.preventDefault();
    table.togglePicture(id, title);
  };
  return (
    <Link
      to="/match"
      onClick={select}
      className="min-w-0 font-serif break-words underline decoration-line underline-offset-3"
    >
      {title}
    </Link>
  );
}
