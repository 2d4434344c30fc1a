import { day } from '../parts/label.ts';
import { useTable } from '../table/use-table.ts';
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
/** As a piece begins: one, that may turn, with nothing around it. */
const PLAIN = { copies: 1, mayTurn: true, border: 'equal', borderMm: 0 } as const;
/** A small card: one postcard’s size. */
const CARD: PieceInput = { ...PLAIN, name: 'Card', widthMm: 90, heightMm: 55 };

interface StockChoice {
  readonly key: string;
  readonly name: string;
  /** Why it is proposed where nothing was chosen. */
  readonly why: string;
  readonly stock: Pick<StockInput, 'kind' | 'widthMm' | 'heightMm' | 'price' | 'currency' | 'paperId'>;
}

/** Prints, strips and cards laid on a sheet or a roll, with the cuts in their order. */
export function LayoutScreen() {
  const at = useStock();
  const lie = usePieces();
  const pieces = lie.laid.map((l) => l.piece);
  const input: LayoutInput | undefined =
    at.asked && pieces.length > 0 ? { stock: at.asked, pieces, gapMm: GAP_MM } : undefined;
  const asked = useDeferredValue(input);
  return (
    <>
      <ScreenHead title="Prints" question={questionOf('/prints')} />
      <PrintPlaces />
      <div className="grid grid-cols-[minmax(300px,420px)_minmax(0,1fr)] gap-8 max-[1100px]:grid-cols-1">
        <section aria-label="What is laid">
          <StockFields at={at} />
          <ul className="mt-3 border-t border-edge">
            {lie.laid.map(({ key, piece }) => (
              <LaidPiece
                key={key}
                piece={piece}
                onChange={(what) => lie.change(key, what)}
                onAway={() => lie.away(key)}
              />
            ))}
          </ul>
          <ToLay onLay={lie.add} />
        </section>
        {asked ? (
          <LayoutDrawn input={asked} />
        ) : (
          <p className="text-quiet">Add a print that waits, or one of any size.</p>
        )}
      </div>
    </>
  );
}

/** What lies on it. Each piece has a key of its own: what was typed stays with it when another is taken off. */
function usePieces() {
  const [laid, setLaid] = useState<readonly { readonly key: number; readonly piece: PieceInput }[]>([]);
  return {
    laid,
    add: (piece: PieceInput) => setLaid([...laid, { key: (laid.at(-1)?.key ?? 0) + 1, piece }]),
    change: (key: number, what: Partial<PieceInput>) =>
      setLaid(laid.map((l) => (l.key === key ? { key, piece: { ...l.piece, ...what } } : l))),
    away: (key: number) => setLaid(laid.filter((l) => l.key !== key)),
  };
}

/** What is laid on: a box or a size of a paper, with what its edges and its printer leave. */
function useStock() {
  const stocks = useStocks();
  const [key, setKey] = useState('');
  const [edge, setEdge] = useState(String(BARE_EDGE));
  const [printer, setPrinter] = useState('');
  const [grain, setGrain] = useState<Grain>();
  const [deckle, setDeckle] = useState<readonly Edge[]>([]);
  const chosen = stocks.find((s) => s.key === key) ?? stocks.at(0);
  const bare = Math.max(0, decimal(edge) || 0);
  const printers = usePrinters(chosen?.stock.paperId);
  // A roll's fibres run along it: it is made that way (practice).
  const runs = chosen?.stock.kind === 'roll' ? 'height' : grain;
  const asked: StockInput | undefined = chosen && {
    ...chosen.stock,
    ...{ top: bare, right: bare, bottom: bare, left: bare },
    ...(printers.includes(printer) && { printer }),
    ...(runs && { grain: runs }),
    deckle: [...deckle],
  };
  return {
    stocks,
    chosen,
    proposed: key === '' ? chosen : undefined,
    asked,
    printers,
    setKey,
    edge,
    setEdge,
    printer,
    setPrinter,
    grain,
    setGrain,
    deckle,
    setDeckle,
  };
}

function StockFields({ at }: { at: ReturnType<typeof useStock> }) {
  const { stocks, chosen, proposed, printers, deckle, setDeckle } = at;
  return (
    <>
      {proposed && (
        <p className="mb-1 text-[13px] text-quiet">
          Proposed: {proposed.name}. {proposed.why[0]?.toUpperCase()}
          {proposed.why.slice(1)}.
        </p>
      )}
      <div className="flex flex-wrap items-end gap-3">
        {stocks.length > 0 ? (
          <ChoiceField
            label="On"
            value={chosen?.key ?? ''}
            onChange={(e) => at.setKey(e.target.value)}
            options={stocks.map((s) => [s.key, s.name] as const)}
            className="max-w-full"
          />
        ) : (
          <p>Add a paper with its sizes first: it is what prints are laid on.</p>
        )}
        <TextField
          label="Unprintable margin"
          unit="mm"
          inputMode="decimal"
          value={at.edge}
          onChange={(e) => at.setEdge(e.target.value)}
          className="w-28"
        />
        {printers.length > 0 && (
          <ChoiceField
            label="Through"
            value={at.printer}
            onChange={(e) => at.setPrinter(e.target.value)}
            options={[['', 'any printer'], ...printers.map((p) => [p, p] as const)]}
          />
        )}
        {chosen?.stock.kind === 'sheet' && (
          <ChoiceField
            label="Its fibres run"
            value={at.grain ?? ''}
            onChange={(e) => at.setGrain((e.target.value || undefined) as Grain | undefined)}
            options={[['', 'not known'], ...Object.entries(GRAINS)]}
          />
        )}
      </div>
      <fieldset className="mt-2 flex flex-wrap gap-x-4">
        <legend className="text-[13px] text-quiet">Deckle edges, left uncut</legend>
        {EDGES.map((e) => (
          <TickField
            key={e}
            label={EDGE_NAMES[e]}
            checked={deckle.includes(e)}
            onChange={({ target }) => setDeckle(target.checked ? [...deckle, e] : deckle.filter((d) => d !== e))}
          />
        ))}
      </fieldset>
    </>
  );
}

/** What there is to lay: prints that wait, one of any size, a card. */
function ToLay({ onLay }: { onLay: (piece: PieceInput) => void }) {
  const { data: waiting = [] } = usePrintsQuery('waiting');
  const { data: pictures = [] } = usePicturesQuery();
  const titleOf = (id: string) => pictures.find((p) => p.id === id)?.title ?? 'Print';
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      {waiting.map(({ id, pictureId, widthMm, heightMm, copies }) => (
        <Button
          key={id}
          onClick={() => onLay({ ...PLAIN, name: titleOf(pictureId), pictureId, widthMm, heightMm, copies })}
        >
          Add {titleOf(pictureId)}
        </Button>
      ))}
      <Button onClick={() => onLay({ ...PLAIN, name: 'Print', widthMm: 200, heightMm: 150 })}>
        A print of any size
      </Button>
      <Button onClick={() => onLay(CARD)}>A card</Button>
    </div>
  );
}

const EDGE_NAMES: Record<Edge, string> = { top: 'top', right: 'right', bottom: 'bottom', left: 'left' };

/** Printers a paper was put through. */
function usePrinters(paperId?: string): string[] {
  const { data: conditions = [] } = useConditionsQuery();
  return [...new Set(conditions.filter((c) => c.paperId === paperId).map((c) => c.printer))];
}

/** What there is to print on: boxes in the drawer, and the sizes papers are sold in. */
function useStocks(): StockChoice[] {
  const { data: boxes = [] } = useBoxesQuery();
  const { data: papers = [] } = usePapersQuery();
  const { left } = useTable();
  const nameOf = (id: string) => papers.find((p) => p.id === id)?.name ?? '';
  const inHand = (paperId: string) => paperId === left?.paperId;
  // The paper in the left hand first, then what was bought first; what is empty last.
  const order = [...boxes].sort(
    (a, b) =>
      Number(b.left > 0) - Number(a.left > 0) ||
      Number(inHand(b.paperId)) - Number(inHand(a.paperId)) ||
      a.boughtOn.localeCompare(b.boughtOn),
  );
  return [
    ...order.map((b): StockChoice => ({
      key: b.id,
      why: `${inHand(b.paperId) ? `${nameOf(b.paperId)} is in the left hand` : 'no box of the paper in the left hand has a sheet left'}; of its boxes this was bought first, on ${day(b.boughtOn)}`,
      name: `${nameOf(b.paperId)}, ${b.label} in stock`,
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
        why: 'no box is in stock; it is a size this paper is sold in',
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
