import { useState } from 'react';
import { Link } from 'react-router';
import type { CardView, ScanView } from '@rakuen/contract/strips';
import { MISTAKES } from '@rakuen/core/proof/mistakes';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Button, QuietButton } from '../parts/button.tsx';
import { FileButton } from '../parts/file-button.tsx';
import { day } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { Hatching } from '../pictures/hatching.tsx';
import { useCardQuery, useHoldScanMutation, useLayOutCardMutation } from './recipe-api.ts';

const IMAGES = '.tif,.tiff,.png,.jpg,.jpeg';
/** Causes that are named after the likeliest. */
const CAUSES = 4;

/** A scan of a small sheet, with a card beside it, laid over its proof. */
export function ScanHeld({
  pictureId,
  asked,
  sheets,
  paper,
  onEnter,
}: {
  pictureId: string;
  /** How the strips were asked for. */
  asked: Record<string, string>;
  sheets: number;
  paper: string;
  /** Puts what was found into the ledger. */
  onEnter: (text: string) => Promise<unknown>;
}) {
  const { data: card } = useCardQuery(pictureId);
  const [layOut, laying] = useLayOutCardMutation();
  const [hold, held] = useHoldScanMutation();
  const [chosen, choose] = useState('');
  const [entered, setEntered] = useState(false);
  const readingId = chosen || card?.readings[0]?.readingId;
  return (
    <details className="mt-1">
      <summary className="min-h-7 cursor-pointer text-[13px] text-quiet">
        A scan of the print, against this proof
      </summary>
      <div className="space-y-2 border-l border-edge pl-4">
        <p className="max-w-[80ch] text-[13px] text-quiet">
          Lay the sheet and the card upright on a flatbed, apart from each other, with white around them. Scan both at
          once in colour at 150 ppi or more, with every correction off. The card was printed once and read; by it the
          scanner is known, best on the paper of the strips, for a scanner sees brightener otherwise than an instrument
          does. The scan is held against the strips as profile, recipe and steps would write them now: where one of them
          has changed since they were printed, print them anew.
        </p>
        <CardFirst card={card} onLayOut={() => void layOut()} busy={laying.isLoading} />
        {card?.chartId && readingId && (
          <Scans
            {...{ card, readingId, sheets, paper, choose }}
            busy={held.isLoading}
            onScan={(file, page) => {
              setEntered(false);
              void hold({ pictureId, file, fields: { ...asked, page, chartId: card.chartId!, readingId } });
            }}
          />
        )}
        <ErrorNote error={held.error ?? laying.error} />
        {held.isLoading && <p role="status">Laying the scan over its proof…</p>}
        {held.data && (
          <Found
            held={held.data}
            paper={paper}
            entered={entered}
            onEnter={() =>
              void onEnter(sentenceOf(held.data!)).then(
                () => setEntered(true),
                () => undefined,
              )
            }
          />
        )}
      </div>
    </details>
  );
}

/** Without a card that was read no scanner is known. */
function CardFirst({ card, busy, onLayOut }: { card?: CardView; busy: boolean; onLayOut: () => void }) {
  return (
    <>
      {card && !card.chartId && (
        <Button disabled={busy} onClick={onLayOut}>
          Lay out the card
        </Button>
      )}
      {card?.chartId && card.readings.length === 0 && (
        <p>
          The card is laid out and was not read yet:{' '}
          <Link className="underline" to="/readings/charts">
            print it
          </Link>{' '}
          and{' '}
          <Link className="underline" to={`/readings/sessions?chart=${card.chartId}`}>
            read it
          </Link>
          .
        </p>
      )}
    </>
  );
}

/** A scan of each sheet, by the readings of the card. */
function Scans({
  card,
  readingId,
  sheets,
  paper,
  busy,
  choose,
  onScan,
}: {
  card: CardView;
  readingId: string;
  sheets: number;
  paper: string;
  busy: boolean;
  choose: (readingId: string) => void;
  onScan: (file: File, page: string) => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <select
        aria-label={`The card’s readings, for ${paper}`}
        className="min-h-8 max-w-[34ch] rounded-[3px] border border-edge bg-field px-2"
        value={readingId}
        onChange={(e) => choose(e.target.value)}
      >
        {card.readings.map((r) => (
          <option key={r.readingId} value={r.readingId}>
            {[r.fileName, r.measurementCondition, r.paper, day(r.importedAt)].filter(Boolean).join(', ')}
          </option>
        ))}
      </select>
      {Array.from({ length: sheets }, (_, page) => (
        <FileButton
          key={page}
          label={sheets === 1 ? `Scan of the sheet on ${paper}` : `Scan of sheet ${page + 1} on ${paper}`}
          accept={IMAGES}
          disabled={busy}
          onFile={(file) => onScan(file, String(page))}
        />
      ))}
    </div>
  );
}

const sentenceOf = ({ recognised, off, scanner }: ScanView): string =>
  `Scan against proof: ${recognised.sentence} ${off.length > 0 ? `${off.join('; ')}. ` : ''}The scanner is known to ${formatNumber(scanner.errorDeltaE, 1)} ΔE00.`;

function Found({
  held,
  paper,
  entered,
  onEnter,
}: {
  held: ScanView;
  paper: string;
  entered: boolean;
  onEnter: () => void;
}) {
  const { recognised, off, scanner, map } = held;
  return (
    <div className="grid gap-x-5 gap-y-2 min-[1100px]:grid-cols-[1fr_260px]">
      <div>
        <p className="font-serif text-[1.05rem]">{recognised.sentence}</p>
        <p className="text-[13px]">
          {off.length > 0
            ? `${off.join('; ')}.`
            : 'Of no kind of colour can it be said that it came out wrong, as far as this scanner tells.'}
        </p>
        <p className="text-[13px] text-quiet">
          {held.samples} even places (scanned): {formatNumber(held.meanDeltaE, 1)} ΔE00 off in the mean,{' '}
          {formatNumber(held.p95DeltaE, 1)} for nineteen in twenty. The scanner itself is known to{' '}
          {formatNumber(scanner.errorDeltaE, 1)} ΔE00 in the mean and {formatNumber(scanner.p95DeltaE, 1)} for nineteen
          in twenty, from {scanner.patches} patches of the card.
        </p>
        {recognised.causes.length > 1 && (
          <ol className="text-[13px]">
            {recognised.causes.slice(0, CAUSES).map((c) => (
              <li key={`${c.mistake} ${c.which}`}>
                {formatNumber(c.meanDeltaE, 1)} ΔE00 from {MISTAKES[c.mistake]}
                {c.which && ` (${c.which})`}
              </li>
            ))}
          </ol>
        )}
        <QuietButton disabled={entered} onClick={onEnter}>
          {entered ? 'It is in the ledger' : 'Enter it in the ledger'}
        </QuietButton>
      </div>
      <figure>
        <div className="relative border border-edge bg-[#d8d8d8]" style={{ aspectRatio: map.columns / map.rows }}>
          <Hatching
            columns={map.columns}
            rows={map.rows}
            level={(tile) => (map.deltaE[tile] === '.' ? 0 : Math.max(0, Number(map.deltaE[tile]) - 1))}
            label={`The sheet of ${paper}: the denser hatched, the further the scan lies from its proof`}
          />
        </div>
        <figcaption className="text-[12.5px] text-quiet">
          From 2 ΔE00 on, denser to 9 and beyond; edges of the picture count too, and shift with the paper.
        </figcaption>
      </figure>
    </div>
  );
}
