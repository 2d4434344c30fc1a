import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import type { DeviceSpace, MeasurementCondition, Reading } from './reading.ts';
import { groupPatches } from './repeats.ts';
import { DRIFT } from './same-print.ts';

/** What a print is recognised by: colours of some of its patches. Plain data, small enough to be kept for every print condition. */
export interface Fingerprint {
  readonly condition?: MeasurementCondition;
  readonly deviceSpace: DeviceSpace;
  /** Device values in ten-thousandths, joined by commas. */
  readonly keys: readonly string[];
  /** L*, a*, b* of each, one after another. */
  readonly labs: readonly number[];
}

/** More patches say the same at more cost. */
const MAX_PATCHES = 400;

/**
 * Of a reading with device values: the patches that most charts share come first (paper, full inks and black, greys),
 * then others spread over the chart.
 */
export function fingerprintOf(reading: Reading): Fingerprint | undefined {
  const { deviceSpace, condition } = reading;
  const groups = groupPatches(reading).filter((g) => g.device);
  if (!deviceSpace || groups.length === 0) return undefined;
  const rank = (device: readonly number[]) =>
    device.every((v) => v === 0 || v === 1) ? 0 : Math.max(...device) - Math.min(...device) < 0.004 ? 1 : 2;
  const ranked = groups.map((g) => ({ g, rank: rank(g.device!) }));
  const shared = ranked.filter((r) => r.rank < 2).sort((p, q) => p.rank - q.rank);
  const others = ranked.filter((r) => r.rank === 2);
  const room = Math.max(0, MAX_PATCHES - shared.length);
  const every = Math.max(1, others.length / Math.max(1, room));
  const spread = Array.from({ length: Math.min(room, others.length) }, (_, i) => others[Math.floor(i * every)]!);
  const kept = [...shared.slice(0, MAX_PATCHES), ...spread].map((r) => r.g);
  return {
    condition,
    deviceSpace,
    keys: kept.map((g) => g.device!.map((v) => Math.round(v * 10_000)).join()),
    labs: kept.flatMap((g) => g.lab.map((v) => Math.round(v * 100) / 100)),
  };
}

/** How far two prints lie apart, mean ΔE00 over the patches both hold. */
export interface Closeness {
  readonly deltaE00: number;
  readonly common: number;
}

/** White, black and the full inks at least: fewer patches in common say nothing. */
const MIN_COMMON = 4;

/** @returns undefined where they were read under unlike measurement conditions, or share too few patches */
export function closeness(p: Fingerprint, q: Fingerprint): Closeness | undefined {
  if (p.deviceSpace !== q.deviceSpace) return undefined;
  if (p.condition && q.condition && p.condition !== q.condition) return undefined;
  const places = new Map(q.keys.map((key, i) => [key, i]));
  const off = p.keys.flatMap((key, i) => {
    const j = places.get(key);
    return j === undefined ? [] : [deltaE2000(labAt(p, i), labAt(q, j))];
  });
  if (off.length < MIN_COMMON) return undefined;
  return { deltaE00: off.reduce((s, v) => s + v, 0) / off.length, common: off.length };
}

const labAt = ({ labs }: Fingerprint, i: number): Lab => [labs[i * 3]!, labs[i * 3 + 1]!, labs[i * 3 + 2]!];

/** A print condition that an incoming reading was compared with. */
export interface Resemblance extends Closeness {
  readonly id: string;
}

/** Where an incoming reading belongs, by what is kept. */
export interface Placing {
  /** What the print condition it is meant for holds, and how far that lies from it. */
  readonly own?: Closeness;
  /** Other print conditions, the nearest first. */
  readonly others: readonly Resemblance[];
  /** Something is kept there, though nothing that can be compared with it. */
  readonly incomparable: boolean;
  /** Why it does not belong where it is meant for; absent where nothing speaks against it. */
  readonly against?: 'another print' | 'unlike its own';
}

/** Two readings this near are of one print, read twice (our own choice). */
export const SAME_PRINT = 0.5;

/** What is known of an incoming reading besides its colours. */
export interface PlacingHints {
  /** Another box or another state of drying was stated: it may differ from what is kept there. */
  readonly mayDiffer?: boolean;
  /** The file itself names the paper it is meant for: two papers may be as like as two prints of one. */
  readonly named?: boolean;
}

/** Whether a file's name or description names a paper: every word of the paper's name of three letters and more. */
export function namesPaper(words: string, paper: string): boolean {
  const plain = (text: string) =>
    text
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ');
  const wanted = plain(paper)
    .split(' ')
    .filter((w) => w.length >= 3);
  const said = new Set(plain(words).split(' '));
  return wanted.length > 0 && wanted.every((w) => said.has(w));
}

/**
 * Compares an incoming reading with what is kept.
 */
export function placing(
  incoming: readonly Fingerprint[],
  ownKept: Fingerprint | undefined,
  others: readonly { readonly id: string; readonly print: Fingerprint }[],
  { mayDiffer = false, named = false }: PlacingHints = {},
): Placing {
  const nearest = (kept: Fingerprint): Closeness | undefined =>
    incoming
      .flatMap((print) => closeness(print, kept) ?? [])
      .reduce<Closeness | undefined>((best, c) => (!best || c.common > best.common ? c : best), undefined);
  const own = ownKept && nearest(ownKept);
  const ranked = others
    .flatMap(({ id, print }) => {
      const found = nearest(print);
      return found ? [{ id, ...found }] : [];
    })
    .sort((p, q) => p.deltaE00 - q.deltaE00);
  const best = ranked[0];
  const alike = own !== undefined && own.deltaE00 <= DRIFT.mean;
  const elsewhere = best !== undefined && (own ? best.deltaE00 <= DRIFT.mean : !named && best.deltaE00 <= SAME_PRINT);
  const against =
    alike || (!own && !elsewhere)
      ? undefined
      : elsewhere && (!own || best.deltaE00 < own.deltaE00 / 2)
        ? 'another print'
        : own && !mayDiffer
          ? 'unlike its own'
          : undefined;
  return { own, others: ranked, incomparable: ownKept !== undefined && own === undefined, against };
}
