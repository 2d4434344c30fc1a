import { Fragment, useState } from 'react';
import { Link } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PaperHead, PaperView } from '@rakuen/contract/papers';
import { COATING_CLASSES } from '@rakuen/core/paper';
import { formatNumber } from '@rakuen/core/measurement/show';
import { dmax } from '@rakuen/core/measurement/measures/dmax';
import { gamutVolume } from '@rakuen/core/measurement/measures/gamut-volume';
import { useConditionsQuery, usePapersQuery, useTakePaperMutation } from '../api/api.ts';
import { useTrialsQuery } from '../compare/judging-api.ts';
import { questionOf } from '../app/steps.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Draggable } from '../parts/draggable.tsx';
import { Claimed, Measured } from '../parts/figure.tsx';
import { FileButton } from '../parts/file-button.tsx';
import { Download } from '../parts/download.tsx';
import { bodyClaims, conditionLine } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { Strip } from '../parts/strip.tsx';
import { moveFocus } from '../parts/use-keys.ts';
import { useTable } from '../table/use-table.ts';
import { ConditionDialog } from './condition-dialog.tsx';
import { PaperDialog } from './paper-dialog.tsx';
import { StripLegend } from './strip-legend.tsx';

type Open =
  { kind: 'paper'; paper?: PaperView } | { kind: 'condition'; paper: PaperView; condition?: ConditionHead } | undefined;

const coatingName = ({ coating }: PaperHead): string => (coating ? COATING_CLASSES[coating].name : '');

/** The drawer: each paper with the ways it is printed. */
export function PapersScreen() {
  const papers = usePapersQuery();
  const conditions = useConditionsQuery();
  const [open, setOpen] = useState<Open>();
  const [words, setWords] = useState('');
  const bringing = useBringPaper();
  const error = papers.error ?? conditions.error ?? bringing.error;
  const shown = (papers.data ?? []).filter((p) =>
    `${p.maker} ${p.name} ${coatingName(p)} ${p.base ?? ''}`.toLowerCase().includes(words.toLowerCase()),
  );

  return (
    <>
      <ScreenHead title="Papers" question={questionOf('/papers')}>
        {papers.data && papers.data.length > 3 && <Find words={words} onFind={setWords} />}
        <StripLegend />
        <Link
          to="/papers/packs"
          className="inline-flex min-h-8 items-center rounded-[3px] border border-edge bg-sheet px-3 py-1 hover:bg-field"
        >
          Sample packs
        </Link>
        <FileButton
          label="Bring a paper"
          accept=".json,application/json"
          disabled={bringing.isLoading}
          onFile={(file) => void bringing.bring(file)}
        />
        <Button main onClick={() => setOpen({ kind: 'paper' })}>
          Add a paper
        </Button>
      </ScreenHead>
      <ErrorNote error={error} />
      {bringing.isLoading && <Waiting what="Unpacking the paper" />}
      {papers.isLoading && <Waiting what="Opening the drawer" />}
      {papers.data?.length === 0 && (
        <Empty
          title="The drawer is empty"
          action={<Button onClick={() => setOpen({ kind: 'paper' })}>Add the first paper</Button>}
        >
          Add a paper as its maker sells it, then say how you print it: printer, inks, media setting. Every figure is
          measured of that print condition, never of the paper alone.
        </Empty>
      )}
      {papers.data && papers.data.length > 0 && shown.length === 0 && <p>No paper is called that.</p>}
      <ul onKeyDown={moveFocus} className="space-y-6">
        {shown.map((paper) => (
          <PaperEntry
            key={paper.id}
            paper={paper}
            conditions={(conditions.data ?? []).filter((c) => c.paperId === paper.id)}
            onOpen={setOpen}
          />
        ))}
      </ul>
      {open?.kind === 'paper' && (
        <PaperDialog
          paper={open.paper}
          onClose={() => setOpen(undefined)}
          onAdded={(paper) => setOpen({ kind: 'condition', paper })}
        />
      )}
      {open?.kind === 'condition' && (
        <ConditionDialog paper={open.paper} condition={open.condition} onClose={() => setOpen(undefined)} />
      )}
    </>
  );
}

/** A paper that was taken away whole, brought with everything known of it. */
function useBringPaper() {
  const [take, { error, isLoading }] = useTakePaperMutation();
  const dispatch = useAppDispatch();
  const bring = async (file: File) => {
    const { data } = await take(file);
    if (data) dispatch(said(`${data.name} lies in the drawer, with everything known of it.`));
  };
  return { bring, error, isLoading };
}

function Find({ words, onFind }: { words: string; onFind: (words: string) => void }) {
  return (
    <input
      type="search"
      value={words}
      onChange={(e) => onFind(e.target.value)}
      placeholder="Find a paper"
      aria-label="Find a paper"
      className="min-h-8 w-44 rounded-[3px] border border-edge bg-field px-2"
    />
  );
}

function PaperEntry({
  paper,
  conditions,
  onOpen,
}: {
  paper: PaperView;
  conditions: ConditionHead[];
  onOpen: (open: Open) => void;
}) {
  return (
    <li>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="min-w-0 break-words">
          {paper.name} <span className="font-sans text-[0.95rem] text-quiet">{paper.maker}</span>
        </h2>
        <div className="ml-auto flex gap-x-1">
          <QuietButton onClick={() => onOpen({ kind: 'paper', paper })} aria-label={`Change ${paper.name}`}>
            Change
          </QuietButton>
          <Download href={`/api/papers/${paper.id}/bundle`} label={`Export ${paper.name}, with everything known of it`}>
            Export
          </Download>
          <QuietButton
            onClick={() => onOpen({ kind: 'condition', paper })}
            aria-label={`Add a print condition for ${paper.name}`}
          >
            Add a print condition
          </QuietButton>
        </div>
      </div>
      <p className="mb-1.5 text-[13px]">
        {[coatingName(paper), paper.base].filter(Boolean).map((words) => `${words}, `)}
        {bodyClaims(paper).map((words) => (
          <Fragment key={words}>
            <Claimed>{words}</Claimed>,{' '}
          </Fragment>
        ))}
        <Claimed>brightener {paper.brightenerClaim}</Claimed>
        {paper.pricePerM2 !== undefined && (
          <>
            , <Claimed>{`from ${paper.currency} ${formatNumber(paper.pricePerM2, 2)} per m²`}</Claimed>
          </>
        )}
      </p>
      {conditions.length === 0 ? (
        <p className="border-t border-line pt-2 text-quiet">No print condition yet: say how you print it.</p>
      ) : (
        <ul>
          {conditions.map((c) => (
            <ConditionRow
              key={c.id}
              condition={c}
              onChange={() => onOpen({ kind: 'condition', paper, condition: c })}
            />
          ))}
        </ul>
      )}
    </li>
  );
}

function ConditionRow({ condition, onChange }: { condition: ConditionHead; onChange: () => void }) {
  const table = useTable();
  const { paper } = condition;
  const onTable = table.has(condition.id);
  const { data: trials } = useTrialsQuery();
  // The newest stamp of the paper in this printer stands.
  const standing =
    trials?.find((t) => t.paperId === condition.paperId && t.printer === condition.printer)?.conditionId ===
    condition.id;
  const open = `/readings/${condition.id}`;
  return (
    <li className="border-t border-line">
      <Draggable
        kind="paper"
        id={condition.id}
        name={paper.name}
        className="grid cursor-grab grid-cols-[minmax(0,1fr)_64px_140px_auto] items-center gap-x-4 py-1.5 hover:bg-sheet max-[1150px]:grid-cols-[minmax(0,1fr)_64px_auto]"
      >
        <Link
          to={open}
          draggable={false}
          data-row
          data-kind="paper"
          data-id={condition.id}
          data-name={paper.name}
          aria-label={`${paper.name}, ${conditionLine(condition)}`}
          className="flex min-w-0 items-center gap-4 hover:underline"
        >
          <span className="max-[1150px]:hidden">
            <Strip paper={paper} facts={condition.facts} />
          </span>
          <span className="min-[1151px]:hidden">
            <Strip paper={paper} facts={condition.facts} size="small" />
          </span>
          <span className="min-w-0">
            <span className="block truncate" title={conditionLine(condition)}>
              {conditionLine(condition)}
            </span>
            <span className="block truncate text-[12.5px] text-quiet">
              {[condition.inkSet, condition.blackInk, condition.resolution].filter(Boolean).join(', ')}
              {standing && ', the standing setting'}
            </span>
          </span>
        </Link>
        <span>
          <Measured measure={dmax} condition={condition} />
          {condition.facts && <span className="block text-[12px] leading-tight text-quiet">Dmax</span>}
        </span>
        <span className="text-right max-[1150px]:hidden">
          <Measured measure={gamutVolume} condition={condition} unit={false} />
          {condition.facts && (
            <span className="block text-[12px] leading-tight text-quiet">gamut, {gamutVolume.unit}</span>
          )}
        </span>
        <span className="flex justify-end">
          {condition.facts && (
            <Link
              to={`/match/papers/${condition.id}`}
              className="inline-flex min-h-7 items-center px-1.5 underline decoration-line underline-offset-3 hover:decoration-ink"
              aria-label={`Pictures for ${paper.name}, ${conditionLine(condition)}`}
            >
              Pictures for it
            </Link>
          )}
          <QuietButton onClick={onChange} aria-label={`Change ${conditionLine(condition)}, ${condition.paper.name}`}>
            Change
          </QuietButton>
          <QuietButton
            onClick={() => table.togglePaper(condition.id, paper.name)}
            aria-pressed={onTable}
            className="w-20 justify-end"
            aria-label={onTable ? `Put ${paper.name} back` : `Lay ${paper.name} on the table`}
          >
            {onTable ? 'Put back' : 'Lay out'}
          </QuietButton>
        </span>
      </Draggable>
    </li>
  );
}
