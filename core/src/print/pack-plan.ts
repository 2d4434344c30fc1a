/** A thing to be printed on a sample sheet. Sizes in mm, a cutting edge included by the planner. */
export interface PackItem {
  readonly key: string;
  readonly kind: 'chart' | 'test page' | 'crop';
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Sheets of one type in the pack, all of one size. */
export interface PackType {
  readonly id: string;
  readonly sheets: number;
}

export interface PlacedItem extends PackItem {
  readonly xMm: number;
  readonly yMm: number;
  /** Lies turned by a quarter. */
  readonly turned: boolean;
}

export interface PlannedSheet {
  readonly items: readonly PlacedItem[];
  /** Share of the sheet that is printed on, 0–1. */
  readonly used: number;
}

export interface TypePlan {
  readonly id: string;
  readonly sheets: readonly PlannedSheet[];
  /** Sheets nothing is planned for. */
  readonly left: number;
  /** What found no room. */
  readonly lacking: readonly PackItem[];
}

/** Between things on a sheet, for the knife, mm (our own choice). */
const GAP = 4;

interface Free {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/**
 * Lays everything wanted on as few sheets of a type as hold it: the largest first, each into the free place it fits best, turned where that fits better; what is free is cut
 * guillotine-wise, so that a straight knife parts it (after the guillotine heuristics of Jylänki 2010). Charts go on first: without them nothing is measured.
 */
export function planPack(
  widthMm: number,
  heightMm: number,
  types: readonly PackType[],
  items: readonly PackItem[],
): TypePlan[] {
  const order = [...items].sort(
    (p, q) =>
      Number(q.kind === 'chart') - Number(p.kind === 'chart') || q.widthMm * q.heightMm - p.widthMm * p.heightMm,
  );
  return types.map(({ id, sheets }) => {
    const laid: { items: PlacedItem[]; free: Free[] }[] = [];
    const lacking: PackItem[] = [];
    for (const item of order) {
      const place = laid.map((s, at) => ({ at, fit: bestFit(s.free, item) })).find((p) => p.fit);
      if (place?.fit) {
        put(laid[place.at], item, place.fit);
        continue;
      }
      const fresh = { items: [] as PlacedItem[], free: [{ x: 0, y: 0, w: widthMm, h: heightMm }] };
      const fit = laid.length < sheets ? bestFit(fresh.free, item) : undefined;
      if (fit) {
        laid.push(fresh);
        put(fresh, item, fit);
      } else lacking.push(item);
    }
    return {
      id,
      sheets: laid.map((s) => ({
        items: s.items,
        used: s.items.reduce((sum, i) => sum + i.widthMm * i.heightMm, 0) / (widthMm * heightMm),
      })),
      left: sheets - laid.length,
      lacking,
    };
  });
}

interface Fit {
  readonly free: Free;
  readonly turned: boolean;
}

/** The free place that an item leaves the least of along its shorter side. */
function bestFit(places: readonly Free[], item: PackItem): Fit | undefined {
  let best: Fit | undefined;
  let least = Infinity;
  for (const free of places) {
    for (const turned of [false, true]) {
      const [w, h] = turned ? [item.heightMm, item.widthMm] : [item.widthMm, item.heightMm];
      if (w > free.w + 1e-6 || h > free.h + 1e-6) continue;
      const rest = Math.min(free.w - w, free.h - h);
      if (rest < least - 1e-6) [best, least] = [{ free, turned }, rest];
    }
  }
  return best;
}

function put(sheet: { items: PlacedItem[]; free: Free[] }, item: PackItem, { free, turned }: Fit): void {
  const [w, h] = turned ? [item.heightMm, item.widthMm] : [item.widthMm, item.heightMm];
  sheet.items.push({ ...item, xMm: free.x, yMm: free.y, turned });
  const [restW, restH] = [free.w - w - GAP, free.h - h - GAP];
  // Cut along the shorter rest, so that the larger piece stays whole.
  const pieces: Free[] =
    restW < restH
      ? [
          { x: free.x + w + GAP, y: free.y, w: restW, h },
          { x: free.x, y: free.y + h + GAP, w: free.w, h: restH },
        ]
      : [
          { x: free.x + w + GAP, y: free.y, w: restW, h: free.h },
          { x: free.x, y: free.y + h + GAP, w, h: restH },
        ];
  sheet.free = [...sheet.free.filter((f) => f !== free), ...pieces.filter((p) => p.w > 0 && p.h > 0)];
}
