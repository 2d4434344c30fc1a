import { mapThree } from '../colour/three.ts';
import { xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { Lab, Rgb } from '../colour/types.ts';
import type { MeasurementCondition } from '../measurement/reading.ts';
import { inkDensity, type InkSetModel } from './inks.ts';
import { BENCH_GRID, sheetBody, type SheetModel } from './sheet.ts';

/** A sheet in a printer: the things a print condition fixes. */
export interface PressModel {
  readonly sheet: SheetModel;
  readonly inks: InkSetModel;
  readonly blackInk: 'photo' | 'matt';
  /** Ink laid down by the media setting; 1 is right for the sheet, below 1 under-inks, above 1 floods it. */
  readonly inkLoad: number;
  /** `profile` takes colour as it comes; `black-and-white` is the driver's own mode: lightness alone, in greys kept neutral. */
  readonly mode?: 'profile' | 'black-and-white';
  /** A second pass of black over the deepest black. */
  readonly overcoat?: boolean;
}

/** Reflectance factors on the bench grid of a device RGB, for one measurement condition. */
export type Print = (rgb: Rgb) => number[];

/** Coverage of an area: the three colours, and one amount 0–1 along paper → light grey → grey → black. */
type Coverage = readonly [cyan: number, magenta: number, yellow: number, dark: number];

/** Where along the dark amount light grey gives way to grey, and grey to black. */
const GREYS_TURN = [0.3, 0.62] as const;
/** How much of a grey's tinge a profiled driver trims away with a breath of colour; its black-and-white mode takes all of it. */
const TRIM = { profile: 0.75, 'black-and-white': 1 } as const;
/** Density a second pass adds to full black (our own model). */
const OVERCOAT_DENSITY = 0.1;

/**
 * Prints by a Yule–Nielsen-modified Neugebauer model: the overprints of cyan, magenta and yellow with paper, light grey, grey or black
 * are computed from ink densities on the sheet, weighted by coverage (Demichel 1924), mixed in the power 1/n (Yule & Nielsen 1951),
 * and the light of the surface is added on top. Greys follow one another, light grey first, black last.
 *
 * The driver's tables (equal steps of grey are equal steps of L*; greys trimmed towards neutral) are made for the sheet's right ink
 * load. Another load prints through the same tables, as a wrong media setting does: too little ink lacks density, too much spreads,
 * closes the deep shadows, pools on the surface, and upsets the trim.
 */
export function press(model: PressModel, condition: MeasurementCondition): Print {
  const cover = coverageOf(model);
  const actual = halftone(model, condition, model.inkLoad);
  return (rgb) => actual(cover(rgb));
}

/**
 * Ink a device colour takes: areas of full dots, added over the inks, times the load of the media setting. The greys
 * lie in place of one another.
 * @returns for device RGB 0–1; 1 is a whole area of one ink at the right load
 */
export function inkTaken(model: PressModel): (rgb: Rgb) => number {
  const cover = coverageOf(model);
  return (rgb) => {
    const [c, m, y, dark] = cover(rgb);
    const [lower, share] = neighbours(dark);
    return model.inkLoad * (c + m + y + (lower === 0 ? share : 1));
  };
}

/** What the driver lays down for a device colour. */
function coverageOf(model: PressModel): (rgb: Rgb) => Coverage {
  const { trim, darkFor, inkFor } = driverTables(model);
  const mode = model.mode ?? 'profile';

  return (rgb) => {
    const clipped = rgb.map((v) => Math.min(1, Math.max(0, v)));
    // The driver's own black-and-white: Rec. 709 luma of the picture, and no colour at all.
    const grey = 0.2126 * clipped[0]! + 0.7152 * clipped[1]! + 0.0722 * clipped[2]!;
    const amounts = mode === 'black-and-white' ? [1 - grey, 1 - grey, 1 - grey] : clipped.map((v) => 1 - v);
    const k = Math.min(...amounts);
    // Full replacement: what the three colours have in common is printed in greys alone.
    const dark = darkFor(k);
    // Ink limit: the nearer black is to full coverage, the less colour the sheet takes on top of it.
    const room = 1 - dark ** model.sheet.inkLimit;
    const toner = trim(dark);
    const chroma = Math.max(...amounts) - k;
    const [c, m, y] = amounts.map((a, i) =>
      Math.min(1, (k >= 1 ? 0 : room * inkFor((a - k) / (1 - k))) + toner[i]! * (1 - chroma)),
    );
    return [c!, m!, y!, dark];
  };
}

/**
 * What the driver knows of the sheet: how much ink a wish takes. It was made once, from M1 readings, and is the same
 * whatever light the print is read in.
 */
interface DriverTables {
  readonly trim: (dark: number) => [number, number, number];
  readonly darkFor: (share: number) => number;
  readonly inkFor: (share: number) => number;
}
const knownTables = new WeakMap<PressModel, DriverTables>();

function driverTables(model: PressModel): DriverTables {
  const known = knownTables.get(model);
  if (known) return known;
  const right = halftone(model, 'M1', 1);
  const white = illuminantWhite();
  const labOf = (coverage: Coverage): Lab =>
    xyzToLab(spectrumToXyz({ startNm: BENCH_GRID.startNm, stepNm: BENCH_GRID.stepNm, values: right(coverage) }), white);
  const trim = trimmed(labOf, TRIM[model.mode ?? 'profile']);
  const tables = {
    trim,
    darkFor: linearise((dark) => labOf([...trim(dark), dark])[0]),
    inkFor: linearise((c) => (labOf([c, 0, 0, 0])[0] + labOf([0, c, 0, 0])[0]) / 2),
  };
  knownTables.set(model, tables);
  return tables;
}

/** How cyan, magenta and yellow follow the load, as powers of it. */
const LOAD_EXPONENTS = [0.2, -0.5, 1.2] as const;

/** Reflectance of an area by its coverage, with as much ink as a media setting lays down. */
function halftone(model: PressModel, condition: MeasurementCondition, load: number): (coverage: Coverage) => number[] {
  const { sheet, inks } = model;
  const body = sheetBody(sheet, condition);
  const black = model.blackInk === 'photo' ? inks.photoBlack : inks.mattBlack;
  // A coating takes little more than its fill; what is too much spreads and pools instead.
  const hold = sheet.inkHold * (load <= 1 ? load : 1 + 0.05 * Math.min(1, load - 1));
  const spread = Math.max(0, load - 1);
  const surface = sheet.surfaceReflection * (1 + 2 * spread);
  const held = (ink: InkSetModel['cyan'], share = hold) => inkDensity(ink).map((d) => d * share);
  // Starved, the greys and black keep more of their density than the colours: their drops are laid on top of one another.
  const holdDark = load < 1 ? hold / Math.sqrt(load) : hold;
  const colours = [inks.cyan, inks.magenta, inks.yellow].map((ink) => held(ink));
  const overcoat = model.overcoat ? OVERCOAT_DENSITY : 0;
  const darks = [
    new Array<number>(BENCH_GRID.count).fill(0),
    held(inks.lightGrey, holdDark),
    held(inks.grey, holdDark),
    held(black, holdDark).map((d) => d + overcoat),
  ];
  const n = sheet.yuleNielsen;
  const count = BENCH_GRID.count;

  /** Overprints in the power 1/n: colours by bits (cyan 1, magenta 2, yellow 4), darks from paper to black. */
  const overprints = darks.map((dark) =>
    Array.from({ length: 8 }, (_, bits) => {
      const density = (i: number) => colours.reduce((sum, d, ink) => sum + (bits & (1 << ink) ? d[i]! : 0), dark[i]!);
      // Brightener under ink: its light passes the ink once, and the UV that wakes it passes the ink too.
      const uvThrough = 10 ** (-0.5 * density(0));
      return Float64Array.from({ length: count }, (_, i) => {
        const through = 10 ** -density(i);
        return (body.reflected[i]! * through + body.emitted[i]! * Math.sqrt(through) * uvThrough) ** (1 / n);
      });
    }),
  );
  const grown = (c: number) => Math.min(1, c * (1 + 0.35 * spread));

  return (coverage) => {
    const [lower, share] = neighbours(grown(coverage[3]));
    // Colours respond to a wrong load each in its own way, so that a trimmed grey goes off.
    const [c, m, y] = mapThree(LOAD_EXPONENTS, (by, ink) => Math.min(1, grown(coverage[ink]!) * load ** by));
    const out = new Float64Array(count);
    for (let bits = 0; bits < 8; bits++) {
      const weight = (bits & 1 ? c : 1 - c) * (bits & 2 ? m : 1 - m) * (bits & 4 ? y : 1 - y);
      if (weight === 0) continue;
      const [light, dark] = [overprints[lower]![bits]!, overprints[lower + 1]![bits]!];
      for (let i = 0; i < count; i++) out[i]! += weight * ((1 - share) * light[i]! + share * dark[i]!);
    }
    return Array.from(out, (v) => surface + (1 - surface) * v ** n);
  };
}

/** Which two of paper, light grey, grey and black share an area, and the darker one's part of it. */
function neighbours(dark: number): [lower: 0 | 1 | 2, share: number] {
  if (dark <= GREYS_TURN[0]) return [0, dark / GREYS_TURN[0]];
  if (dark <= GREYS_TURN[1]) return [1, (dark - GREYS_TURN[0]) / (GREYS_TURN[1] - GREYS_TURN[0])];
  return [2, (dark - GREYS_TURN[1]) / (1 - GREYS_TURN[1])];
}

/** A breath of colour, by dark amount, that takes a share of the greys' tinge away: found by descent at seventeen places. */
function trimmed(labOf: (coverage: Coverage) => Lab, share: number): (dark: number) => [number, number, number] {
  const PLACES = 16;
  const [paper, black] = [labOf([0, 0, 0, 0]), labOf([0, 0, 0, 1])];
  const off = (cmy: readonly [number, number, number], dark: number) => {
    const lab = labOf([...cmy, dark]);
    const t = (paper[0] - lab[0]) / (paper[0] - black[0]);
    return (lab[1] - paper[1] - (black[1] - paper[1]) * t) ** 2 + (lab[2] - paper[2] - (black[2] - paper[2]) * t) ** 2;
  };
  const table = Array.from({ length: PLACES + 1 }, (_, i): [number, number, number] => {
    const dark = i / PLACES;
    let best: [number, number, number] = [0, 0, 0];
    if (i === 0 || i === PLACES) return best;
    let least = off(best, dark);
    for (let step = 0.04; step > 0.001; step /= 2) {
      for (let moved = true; moved;) {
        moved = false;
        for (const ink of [0, 1, 2]) {
          for (const by of [step, -step]) {
            const next = [...best] as [number, number, number];
            next[ink]! += by;
            if (next[ink]! < 0 || next[ink]! > 0.3) continue;
            const there = off(next, dark);
            if (there < least - 1e-9) [best, least, moved] = [next, there, true];
          }
        }
      }
    }
    return best.map((v) => v * share) as [number, number, number];
  });
  return (dark) => {
    const place = Math.min(PLACES - 1e-9, Math.max(0, dark) * PLACES);
    const i = Math.floor(place);
    const t = place - i;
    return table[i]!.map((v, ink) => v + (table[i + 1]![ink]! - v) * t) as [number, number, number];
  };
}

/** Coverage for a wanted share of the way from the lightest to the darkest, so that equal shares are equal steps of L*. */
function linearise(lightness: (coverage: number) => number): (share: number) => number {
  const STEPS = 64;
  const table = Array.from({ length: STEPS + 1 }, (_, i) => lightness(i / STEPS));
  const [light, dark] = [table[0]!, table[STEPS]!];
  return (share) => {
    if (share <= 0) return 0;
    if (share >= 1) return 1;
    const target = light + (dark - light) * share;
    let i = 0;
    while (i < STEPS - 1 && table[i + 1]! > target) i++;
    const t = (table[i]! - target) / (table[i]! - table[i + 1]! || 1);
    return (i + Math.min(1, Math.max(0, t))) / STEPS;
  };
}
