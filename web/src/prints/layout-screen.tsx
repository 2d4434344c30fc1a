import { useDeferredValue, useState } from 'react';
import type { LayoutInput, LayoutView, PieceInput, StockInput } from '@rakuen/contract/layouts';
import { BORDER_STYLES, type BorderStyle } from '@rakuen/core/layout/borders';
import { formatNumber } from '@rakuen/core/measurement/show';
import { usePapersQuery, usePicturesQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useBoxesQuery, useLayoutQuery, usePrintsQuery } from './print-api.ts';
import { PrintPlaces } from './print-places.tsx';
import { decimal } from '../parts/decimal.ts';

/** Edges a printer leaves bare where nothing was said, mm (our own start). */
const BARE_EDGE = 3;
const GAP_MM = 4;
/** A small card: one postcard’s size. */
const CARD: PieceInput = {
  name: 'Card',
  widthMm: 90,
  heightMm: 55,
  copies: 1,
  mayTurn: true,
  border: 'equal',
  borderMm: 0,
};

interface StockChoice {
  readonly key: string;
  readonly name: string;
  readonly stock: Pick<StockInput, 'kind' | 'widthMm' | 'heightMm' | 'price' | 'currency'>;
}

/** Prints, strips and cards laid on a sheet or a roll, with the cuts in their order. */
export function LayoutScreen() {
  const stocks = useStocks();
  const { data: waiting = [] } = usePrintsQuery('waiting');
  const { data: pictures = [] } = usePicturesQuery();
  const [stockKey, setStock] = useState('');
  // Each piece has a key of its own: what was typed stays with it when another is taken off.
  const [laid, setLaid] = useState<readonly { readonly key: number; readonly piece: PieceInput }[]>([]);
  const pieces = laid.map((l) => l.piece);
  const [edge, setEdge] = useState(String(BARE_EDGE));
  const stock = stocks.find((s) => s.key === stockKey) ?? stocks[0];
  const bare = Math.max(0, decimal(edge) || 0);
  const input: LayoutInput | undefined =
    stock && pieces.length > 0
      ? {
          stock: { ...stock.stock, top: bare, right: bare, bottom: bare, left: bare },
          pieces: [...pieces],
          gapMm: GAP_MM,
        }
      : undefined;
  const asked = useDeferredValue(input);
  const add = (piece: PieceInput) => setLaid([...laid, { key: (laid.at(-1)?.key ?? 0) + 1, piece }]);
  const change = (key: number, what: Partial<PieceInput>) =>
    setLaid(laid.map((l) => (l.key === key ? { key, piece: { ...l.piece, ...what } } : l)));
  return (
    <>
      <ScreenHead title="Prints" question={questionOf('/prints')} />
      <PrintPlaces />
      <div className="grid grid-cols-[minmax(300px,420px)_minmax(0,1fr)] gap-8 max-[1100px]:grid-cols-1">
        <section aria-label="What is laid">
          <div className="flex flex-wrap items-end gap-3">
            {stocks.length > 0 ? (
              <ChoiceField
                label="On"
                value={stock?.key ?? ''}
                onChange={(e) => setStock(e.target.value)}
                options={stocks.map((s) => [s.key, s.name] as const)}
                className="max-w-full"
              />
            ) : (
              <p>Add a paper with its sizes first: it is what prints are laid on.</p>
            )}
            <TextField
              label="Bare edge"
              unit="mm"
              inputMode="decimal"
              value={edge}
              onChange={(e) => setEdge(e.target.value)}
              className="w-28"
            />
          </div>
          <ul className="mt-3 border-t border-edge">
            {laid.map(({ key, piece }) => (
              <Piece
                key={key}
                piece={piece}
                onChange={(what) => change(key, what)}
                onAway={() => setLaid(laid.filter((l) => l.key !== key))}
              />
            ))}
          </ul>
          <div className="mt-2 flex flex-wrap gap-2">
            {waiting.map((w) => (
              <Button
                key={w.id}
                onClick={() =>
                  add({
                    name: pictures.find((p) => p.id === w.pictureId)?.title ?? 'Print',
                    pictureId: w.pictureId,
                    widthMm: w.widthMm,
                    heightMm: w.heightMm,
                    copies: w.copies,
                    mayTurn: true,
                    border: 'equal',
                    borderMm: 0,
                  })
                }
              >
                Lay {pictures.find((p) => p.id === w.pictureId)?.title}
              </Button>
            ))}
            <Button
              onClick={() =>
                add({
                  name: 'Print',
                  widthMm: 200,
                  heightMm: 150,
                  copies: 1,
                  mayTurn: true,
                  border: 'equal',
                  borderMm: 0,
                })
              }
            >
              A print of any size
            </Button>
            <Button onClick={() => add(CARD)}>A card</Button>
          </div>
        </section>
        {asked ? (
          <Plan input={asked} />
        ) : (
          <p className="text-quiet">Lay something: what waits, or a print of any size.</p>
        )}
      </div>
    </>
  );
}

/** What there is to print on: boxes in the drawer, and the sizes papers are sold in. */
function useStocks(): StockChoice[] {
  const { data: boxes = [] } = useBoxesQuery();
  const { data: papers = [] } = usePapersQuery();
  const nameOf = (id: string) => papers.find((p) => p.id === id)?.name ?? '';
  return [
    ...boxes.map((b): StockChoice => ({
      key: b.id,
      name: `${nameOf(b.paperId)}, ${b.label} in the drawer`,
      stock: {
        kind: b.kind,
        widthMm: b.widthMm,
        heightMm: b.kind === 'roll' ? Math.max(10, b.left) : b.heightMm,
        ...(b.each !== undefined && {
          price: b.kind === 'roll' ? (b.each * b.left) / 1000 : b.each,
          currency: b.currency,
        }),
      },
    })),
    ...papers.flatMap((p) =>
      p.sizes.map((s): StockChoice => ({
        key: `${p.id} ${s.label}`,
        name: `${p.name}, ${s.label}`,
        stock: {
          kind: s.sheets === 1 && s.heightMm > 3000 ? 'roll' : 'sheet',
          widthMm: s.widthMm,
          heightMm: s.heightMm,
          ...(s.packPrice !== undefined && { price: s.packPrice / s.sheets, currency: p.currency }),
        },
      })),
    ),
  ];
}

function Piece({
  piece: p,
  onChange,
  onAway,
}: {
  piece: PieceInput;
  onChange: (what: Partial<PieceInput>) => void;
  onAway: () => void;
}) {
  const number = (key: 'widthMm' | 'heightMm' | 'copies' | 'borderMm', label: string, unit?: string) => (
    <TextField
      label={label}
      unit={unit}
      inputMode="decimal"
      defaultValue={p[key]}
      onBlur={(e) => {
        const value = decimal(e.target.value);
        if (value >= (key === 'borderMm' ? 0 : 1)) onChange({ [key]: key === 'copies' ? Math.round(value) : value });
      }}
      className="w-20"
    />
  );
  return (
    <li className="border-b border-line py-2">
      <p className="flex items-baseline justify-between">
        <span className="font-serif">{p.name}</span>
        <QuietButton onClick={onAway} aria-label={`Take ${p.name} off`}>
          Take off
        </QuietButton>
      </p>
      <div className="flex flex-wrap items-end gap-2">
        {number('widthMm', 'Width', 'mm')}
        {number('heightMm', 'Height', 'mm')}
        {number('copies', 'Copies')}
        {number('borderMm', 'Border', 'mm')}
        <ChoiceField
          label="Border is"
          value={p.border}
          onChange={(e) => onChange({ border: e.target.value as BorderStyle })}
          options={Object.entries(BORDER_STYLES)}
        />
        <TickField
          label="may lie turned"
          checked={p.mayTurn}
          onChange={(e) => onChange({ mayTurn: e.target.checked })}
        />
      </div>
    </li>
  );
}

function Plan({ input }: { input: LayoutInput }) {
  const { data, error } = useLayoutQuery(input);
  const pdf = async () => {
    const answer = await fetch('/api/layouts/pdf', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(input),
    });
    const url = URL.createObjectURL(await answer.blob());
    const link = Object.assign(document.createElement('a'), { href: url, download: 'rakuen-layout.pdf' });
    link.click();
    URL.revokeObjectURL(url);
  };
  if (error) return <ErrorNote error={error} />;
  if (!data) return <p className="text-quiet">Laying…</p>;
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
        <QuietButton onClick={() => void pdf()}>As PDF, true size</QuietButton>
      </p>
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
        {sheet.placed.map((p) => {
          const [w, h] = p.turned ? [p.heightMm, p.widthMm] : [p.widthMm, p.heightMm];
          const b = p.turned
            ? { left: p.borders.top, top: p.borders.right, right: p.borders.bottom, bottom: p.borders.left }
            : p.borders;
          const [iw, ih] = [w - b.left - b.right, h - b.top - b.bottom];
          return (
            <g key={p.key}>
              <rect
                x={p.xMm}
                y={p.yMm}
                width={w}
                height={h}
                fill="var(--color-sheet)"
                stroke="var(--color-ink)"
                strokeWidth={1 / scale}
              />
              {p.pictureId && !p.turned ? (
                <image
                  href={`/api/pictures/${p.pictureId}/preview`}
                  x={p.xMm + b.left}
                  y={p.yMm + b.top}
                  width={iw}
                  height={ih}
                  preserveAspectRatio="none"
                />
              ) : (
                <text
                  x={p.xMm + b.left + text / 2}
                  y={p.yMm + b.top + text * 1.3}
                  fontSize={text}
                  fill="var(--color-ink)"
                >
                  {p.name}
                </text>
              )}
            </g>
          );
        })}
        {sheet.cuts.map((c, i) => {
          const at =
            c.way === 'across'
              ? { x1: 0, x2: stock.widthMm, y1: c.atMm, y2: c.atMm }
              : { x1: c.atMm, x2: c.atMm, y1: 0, y2: height };
          return (
            <line
              key={i}
              {...at}
              stroke="var(--color-ink)"
              strokeWidth={0.8 / scale}
              strokeDasharray={`${4 / scale} ${3 / scale}`}
              opacity={0.6}
            />
          );
        })}
      </svg>
      {sheet.cuts.length > 0 && (
        <figcaption className="mt-1 max-w-[420px] text-[13px]">
          Cuts in order:{' '}
          {sheet.cuts
            .map((c, i) => `${i + 1} ${c.way === 'across' ? 'across' : 'down'} at ${formatNumber(c.atMm, 0)} mm`)
            .join(', ')}
          .
        </figcaption>
      )}
    </figure>
  );
}
