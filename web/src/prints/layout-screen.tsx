import { useDeferredValue, useState } from 'react';
import type { LayoutInput, PieceInput, StockInput } from '@rakuen/contract/layouts';
import { EDGES, type Edge } from '@rakuen/core/layout/borders';
import { GRAINS, type Grain } from '@rakuen/core/layout/lie';
import { useConditionsQuery, usePapersQuery, usePicturesQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { Button } from '../parts/button.tsx';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { LaidPiece } from './laid-piece.tsx';
import { LayoutDrawn } from './layout-drawn.tsx';
import { useBoxesQuery, usePrintsQuery } from './print-api.ts';
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
  readonly stock: Pick<StockInput, 'kind' | 'widthMm' | 'heightMm' | 'price' | 'currency' | 'paperId'>;
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
  const [printer, setPrinter] = useState('');
  const [grain, setGrain] = useState<Grain>();
  const [deckle, setDeckle] = useState<readonly Edge[]>([]);
  const stock = stocks.find((s) => s.key === stockKey) ?? stocks[0];
  const bare = Math.max(0, decimal(edge) || 0);
  const printers = usePrinters(stock?.stock.paperId);
  // A roll's fibres run along it: it is made that way (practice).
  const runs = stock?.stock.kind === 'roll' ? 'height' : grain;
  const input: LayoutInput | undefined =
    stock && pieces.length > 0
      ? {
          stock: {
            ...stock.stock,
            ...{ top: bare, right: bare, bottom: bare, left: bare },
            ...(printers.includes(printer) && { printer }),
            ...(runs && { grain: runs }),
            deckle: [...deckle],
          },
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
            {printers.length > 0 && (
              <ChoiceField
                label="Through"
                value={printer}
                onChange={(e) => setPrinter(e.target.value)}
                options={[['', 'any printer'], ...printers.map((p) => [p, p] as const)]}
              />
            )}
            {stock?.stock.kind === 'sheet' && (
              <ChoiceField
                label="Its fibres run"
                value={grain ?? ''}
                onChange={(e) => setGrain((e.target.value || undefined) as Grain | undefined)}
                options={[['', 'not known'], ...Object.entries(GRAINS)]}
              />
            )}
          </div>
          <fieldset className="mt-2 flex flex-wrap gap-x-4">
            <legend className="text-[13px] text-quiet">Torn edges, that stay as they are</legend>
            {EDGES.map((e) => (
              <TickField
                key={e}
                label={EDGE_NAMES[e]}
                checked={deckle.includes(e)}
                onChange={({ target }) => setDeckle(target.checked ? [...deckle, e] : deckle.filter((d) => d !== e))}
              />
            ))}
          </fieldset>
          <ul className="mt-3 border-t border-edge">
            {laid.map(({ key, piece }) => (
              <LaidPiece
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
          <LayoutDrawn input={asked} />
        ) : (
          <p className="text-quiet">Lay something: what waits, or a print of any size.</p>
        )}
      </div>
    </>
  );
}

const EDGE_NAMES: Record<Edge, string> = { top: 'top', right: 'right', bottom: 'foot', left: 'left' };

/** Printers a paper was put through. */
function usePrinters(paperId?: string): string[] {
  const { data: conditions = [] } = useConditionsQuery();
  return [...new Set(conditions.filter((c) => c.paperId === paperId).map((c) => c.printer))];
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
        paperId: b.paperId,
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
          paperId: p.id,
          kind: s.sheets === 1 && s.heightMm > 3000 ? 'roll' : 'sheet',
          widthMm: s.widthMm,
          heightMm: s.heightMm,
          ...(s.packPrice !== undefined && { price: s.packPrice / s.sheets, currency: p.currency }),
        },
      })),
    ),
  ];
}
