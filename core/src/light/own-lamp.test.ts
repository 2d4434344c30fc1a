import { ILLUMINANTS } from '../colour/illuminant.ts';
import { spectrumAt } from '../colour/spectrum.ts';
import type { Spectrum } from '../colour/types.ts';
import { parseLightSpectrum } from '../formats/spectrum-table.ts';
import { readingFacts } from '../measurement/reading-facts.ts';
import { computeFigures } from '../measurement/measures/registry.ts';
import { standIn } from '../simulation/stand-in.ts';
import { readChart } from '../simulation/instrument.ts';
import { surfaceChart } from '../simulation/chart.ts';
import { GLASSES } from './glass.ts';
import { lighting } from './lit-sheet.ts';
import { litPrint } from './lit-print.ts';
import { countedLights, viewingLight, type LampUv } from './own-lamp.ts';
import { printSpectra } from './print-spectra.ts';
import { turns, unsteadiness } from './turns.ts';
import { TABLE_LIGHTS } from './table-lights.ts';

/** A lamp's file of what an instrument that begins at a wavelength sees of a spectrum. */
const file = (power: (nm: number) => number, fromNm: number, stepNm = 10) => {
  const lines: string[] = [];
  for (let nm = fromNm; nm <= 730; nm += stepNm) lines.push(`${nm} ${power(nm).toFixed(5)}`);
  return parseLightSpectrum(new TextEncoder().encode(lines.join('\n')));
};
const d65 = (nm: number) => spectrumAt(ILLUMINANTS.D65, nm);
const lamp = (spectrum: Spectrum, uv: LampUv = 'unknown', id = 'own') =>
  viewingLight({ id, name: 'Hall', spectrum, uv });

const bright = (() => {
  const press = standIn({
    coating: 'matt',
    surface: 'smooth',
    brightenerClaim: 'high',
    weightGsm: 200,
    thicknessUm: 250,
    blackInk: 'matt black',
    mediaSetting: 'Matt',
    printMode: 'colour through a profile',
    blackOvercoat: false,
  });
  const [m1, m2] = (['M1', 'M2'] as const).map((c) => readChart(press, surfaceChart(5), c, 3));
  const facts = readingFacts(m1!, [m2]);
  return { sheet: printSpectra(facts)!, figures: computeFigures(facts) };
})();
const whiteB = (light: ReturnType<typeof lamp>) => {
  const under = (power: Spectrum) => lighting(power, GLASSES[0]!, bright.sheet);
  const { white } = litPrint(bright.sheet, bright.figures, under(light.power), 1, light.uvEnds?.map(under)).figures;
  if (white?.shape !== 'colour') throw new Error('No white.');
  return { b: white.lab[2], between: white.between, from: white.estimatedFrom };
};

describe('a lamp whose spectrum begins at 380 nm', () => {
  const late = file(d65, 380).spectrum;

  it('says so by its name, whatever names it; one that was read from 340 nm does not', () => {
    expect(lamp(late).name).toBe('Hall (UV not measured)');
    expect(lamp(late, 'led').name).toBe('Hall (UV taken as none, a white LED)');
    expect(lamp(late).source).toMatch(/from 380 nm/);
    expect(lamp(file(d65, 340).spectrum).name).toBe('Hall');
  });

  it('of unknown UV holds the truth between its ends; told to be daylight it is found to 0.3 b*', () => {
    const truth = whiteB(lamp(file(d65, 340).spectrum)).b;
    const open = whiteB(lamp(late));
    expect(open.from).toBe('lamp');
    expect(open.between![0]).toBeLessThanOrEqual(truth + 0.05);
    expect(open.between![1]).toBeGreaterThan(truth + 0.5);
    // Without more said it is taken without: less blue than it is.
    expect(open.b).toBeCloseTo(open.between![1], 6);
    const told = whiteB(lamp(late, 'daylight'));
    expect(Math.abs(told.b - truth)).toBeLessThan(0.3);
    expect(told.between).toBeUndefined();
    expect(whiteB(lamp(late, 'filtered')).b).toBeCloseTo(open.b, 6);
  });

  it('tungsten continued as tungsten is tungsten', () => {
    const a = (nm: number) => spectrumAt(ILLUMINANTS.A, nm);
    const truth = whiteB(lamp(file(a, 340).spectrum)).b;
    expect(Math.abs(whiteB(lamp(file(a, 380).spectrum, 'tungsten')).b - truth)).toBeLessThan(0.1);
  });

  it('a lamp without violet has no interval: nothing leads on to any UV', () => {
    const led = (nm: number) => Math.exp(-0.5 * ((nm - 452) / 11) ** 2) + Math.exp(-0.5 * ((nm - 590) / 60) ** 2);
    expect(whiteB(lamp(file(led, 380).spectrum)).between).toBeUndefined();
  });
});

describe('lamps that count', () => {
  const own = (id: string, by = 1) => lamp(file((nm) => by * d65(nm), 380).spectrum, 'daylight', id);
  const red = lamp(file((nm) => (nm > 640 ? 1 : 0.0001), 380).spectrum, 'led', 'red');

  it('one lamp three times counts once, however bright; a red one nowhere', () => {
    const counted = countedLights([TABLE_LIGHTS[3]!, own('a'), own('b', 7), own('c', 0.2), red]);
    expect(counted.map((l) => l.key)).toEqual(['A', 'a']);
    const one = unsteadiness(turns(bright.sheet, [...TABLE_LIGHTS, own('a')]));
    const three = unsteadiness(turns(bright.sheet, [...TABLE_LIGHTS, own('a'), own('b', 7), red, own('c', 0.2)]));
    expect(three).toBeCloseTo(one!, 9);
    expect(one).not.toBeCloseTo(unsteadiness(turns(bright.sheet, TABLE_LIGHTS))!, 3);
  });
});

describe('a lamp’s file', () => {
  it('no line is lost between the places of the grid, wherever it lies; wide steps are known', () => {
    // A flat run of 0.1 with a line 1 nm wide: its energy is the same wherever it falls.
    const withLine = (at: number) => file((nm) => (nm === at ? 100 : 0.1), 380, 1).spectrum;
    const energy = ({ values, stepNm }: Spectrum) => values.reduce((s, v) => s + v, 0) * stepNm;
    const whole = energy(withLine(540));
    for (let at = 541; at < 551; at++) expect(energy(withLine(at)) / whole).toBeCloseTo(1, 6);
    expect(whole).toBeCloseTo(100 + 0.1 * 360, -1);
    expect(file(d65, 380, 20).fileStepNm).toBe(20);
    expect(file(d65, 380, 5).fileStepNm).toBe(5);
    // Ten by ten it stays what it was.
    file(d65, 380)
      .spectrum.values.slice(1, -1)
      .forEach((v, i) => expect(v).toBeCloseTo(d65(380 + 10 * i), 4));
  });
});
