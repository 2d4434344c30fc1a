import type { LaidPiece, LayoutInput, LayoutView, StockInput } from '@rakuen/contract/layouts';
import { sideWords } from '@rakuen/core/layout/cuts';
import { CAPTION_ROOM_MM, type Edge } from '@rakuen/core/layout/borders';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Download } from '../parts/download.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useLayoutQuery } from './print-api.ts';

/** How everything lies, what is wasted, and the cuts in their order. */
export function LayoutDrawn({ input }: { input: LayoutInput }) {
  const { data, error } = useLayoutQuery(input);
  if (error) return <ErrorNote error={error} />;
  if (!data) return <p className="text-quiet">Computing the layout…</p>;
  return (
    <section aria-label="The layout">
      <p className="mb-2 flex flex-wrap items-baseline gap-x-5">
        <b>
          {data.sheets.length === 1 ? 'one sheet' : `${data.sheets.length} sheets`}
          {input.stock.kind === 'roll' &&
            data.sheets[0] &&
            `, ${formatNumber(data.sheets[0].heightMm, 0)} mm of the roll`}
        </b>
        <span>
          {formatNumber(data.waste * 100, 0)} % waste
          {data.wasted !== undefined && `, ${formatNumber(data.wasted, 2)} ${data.currency}`}
        </span>
        <Download href="/api/layouts/pdf" body={input}>
          As PDF, true size
        </Download>
      </p>
      {data.notes.map((note) => (
        <p key={note} className="mb-2 max-w-[70ch] text-[13px]">
          {note}
        </p>
      ))}
      {data.lacking.length > 0 && (
        <p role="alert" className="mb-2 font-semibold">
          No room for: {data.lacking.map((p) => p.name).join(', ')}. Another size, or let it lie turned.
        </p>
      )}
      <div className="flex flex-wrap gap-5">
        {data.sheets.slice(0, MOST_DRAWN).map((s, i) => (
          <Sheet key={i} sheet={s} stock={input.stock} />
        ))}
      </div>
      {data.sheets.length > MOST_DRAWN && (
        <p className="mt-2 text-quiet">and {data.sheets.length - MOST_DRAWN} more; all of them are in the PDF.</p>
      )}
    </section>
  );
}

/** Sheets that are drawn on the screen. */
const MOST_DRAWN = 4;
const MOST_PX = { width: 420, height: 460 };

function Sheet({ sheet, stock }: { sheet: LayoutView['sheets'][number]; stock: StockInput }) {
  const height = stock.kind === 'roll' ? sheet.heightMm + stock.top + stock.bottom : stock.heightMm;
  const scale = Math.min(MOST_PX.width / stock.widthMm, MOST_PX.height / height);
  const text = 11 / scale;
  const nameOf = (key: string) => sheet.placed.find((p) => p.key === key)?.name ?? key;
  return (
    <figure>
      <svg
        role="img"
        aria-label={`Sheet of ${Math.round(stock.widthMm)} by ${Math.round(height)} mm with ${sheet.placed.length} pieces`}
        width={stock.widthMm * scale}
        height={height * scale}
        viewBox={`0 0 ${stock.widthMm} ${height}`}
        className="border border-edge bg-field"
      >
        {sheet.placed.map((p) => (
          <g
            key={p.key}
            transform={
              p.turned ? `translate(${p.xMm} ${p.yMm + p.widthMm}) rotate(-90)` : `translate(${p.xMm} ${p.yMm})`
            }
          >
            <LaidPieceDrawn piece={p} text={text} line={1 / scale} />
          </g>
        ))}
        {stock.deckle?.map((edge) => (
          <path
            key={edge}
            d={tornEdge(edge, stock.widthMm, height)}
            fill="none"
            stroke="var(--color-ink)"
            strokeWidth={1.2 / scale}
          />
        ))}
        {sheet.cuts.map((c, i) => {
          const at =
            c.way === 'across'
              ? { x1: c.fromMm, x2: c.toMm, y1: c.atMm, y2: c.atMm }
              : { x1: c.atMm, x2: c.atMm, y1: c.fromMm, y2: c.toMm };
          return (
            <g key={i}>
              <line
                {...at}
                data-cut={i + 1}
                stroke="var(--color-ink)"
                strokeWidth={0.8 / scale}
                strokeDasharray={`${4 / scale} ${3 / scale}`}
                opacity={0.6}
              />
              <text
                x={at.x1 + 2 / scale}
                y={at.y1 + (c.way === 'across' ? -2 : 11) / scale}
                fontSize={text}
                fill="var(--color-ink)"
              >
                {i + 1}
              </text>
            </g>
          );
        })}
      </svg>
      {sheet.cuts.length > 0 && (
        <figcaption className="mt-1 max-w-[420px] text-[13px]">
          Cuts in order:
          <ol aria-label="Cuts in order">
            {sheet.cuts.map((c, i) => (
              <li key={i}>
                {i + 1} {c.way} at {formatNumber(c.atMm, 0)} mm: parts {sideWords(c.first, nameOf)} from{' '}
                {sideWords(c.second, nameOf)}
              </li>
            ))}
          </ol>
        </figcaption>
      )}
    </figure>
  );
}

/** A piece as it stands, its top at the top: paper, picture or name, caption. @param text height of letters, mm */
function LaidPieceDrawn({ piece: p, text, line }: { piece: LaidPiece; text: number; line: number }) {
  const b = p.borders;
  return (
    <>
      <rect
        width={p.widthMm}
        height={p.heightMm}
        fill="var(--color-sheet)"
        stroke="var(--color-ink)"
        strokeWidth={line}
      />
      {p.pictureId ? (
        <image
          href={`/api/pictures/${p.pictureId}/preview`}
          x={b.left}
          y={b.top}
          width={p.widthMm - b.left - b.right}
          height={p.heightMm - b.top - b.bottom}
          preserveAspectRatio="none"
        />
      ) : (
        <text x={b.left + text / 2} y={b.top + text * 1.3} fontSize={text} fill="var(--color-ink)">
          {p.name}
        </text>
      )}
      {p.caption && (
        <text
          x={b.left}
          y={p.heightMm - CAPTION_ROOM_MM / 2 + text / 3}
          fontSize={text}
          fill="var(--color-ink)"
          className="font-serif"
        >
          {p.caption}
        </text>
      )}
    </>
  );
}

/** A torn edge as a line that wanders, along the inside of the sheet. */
function tornEdge(edge: Edge, widthMm: number, heightMm: number): string {
  const along = edge === 'top' || edge === 'bottom' ? widthMm : heightMm;
  const steps = Math.max(8, Math.round(along / TORN_STEP_MM));
  const points = Array.from({ length: steps + 1 }, (_, i) => {
    const [far, deep] = [(along * i) / steps, i % 2 === 0 ? 0.6 : 2.2];
    if (edge === 'top') return [far, deep];
    if (edge === 'bottom') return [far, heightMm - deep];
    return edge === 'left' ? [deep, far] : [widthMm - deep, far];
  });
  return `M${points.map((p) => p.join(' ')).join('L')}`;
}
const TORN_STEP_MM = 6;
