import { scatteredChart, SHEETS } from '../../test/sheets.ts';
import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import { GLASSES } from '../light/glass.ts';
import { TABLE_LIGHTS } from '../light/table-lights.ts';
import { readChart } from '../simulation/instrument.ts';
import { inverter } from './inverse.ts';
import { labAt } from './lattice.ts';
import { litModel } from './lit-model.ts';
import { LOSSES, printed, sentLattice, throughPrinted } from './printed.ts';
import { printModel } from './print-model.ts';
import { relativePrint } from './relative-print.ts';
import { RENDERINGS } from './renderings.ts';

const model = printModel([readChart(SHEETS.uncoated, scatteredChart(300), 'M1', 7)]);
const print = relativePrint(model.labs);
const sent = sentLattice(print, 'relative', { grid: 33 });
const through = (lattice: ReturnType<typeof printed>, lab: Lab): Lab => {
  const out = new Float32Array(3);
  throughPrinted(lattice, lab, out);
  return [out[0], out[1], out[2]];
};

describe('a file’s colours as they are seen on a sheet', () => {
  const seen = printed(sent, model.labs);

  it('black is the sheet’s black, white its white', () => {
    expect(deltaE2000(through(seen, [100, 0, 0]), print.white)).toBeLessThan(0.3);
    expect(deltaE2000(through(seen, [0, 0, 0]), labAt(model.labs, [0, 0, 0]))).toBeLessThan(1);
  });

  it('between the nodes it is what sending the colour itself would give, to about half a ΔE00', () => {
    const aim = RENDERINGS.find((r) => r.key === 'relative')!.aim(print, 0);
    const send = inverter(print.lattice);
    for (const lab of [
      [50, 0, 0],
      [70, 10, 12],
      [40, -8, 6],
      [62, 5, -14],
    ] as const)
      expect(deltaE2000(through(seen, lab), labAt(model.labs, send(aim(lab)).device))).toBeLessThan(0.6);
  });

  it('says what is lost: nothing of a middle grey, the saturation of a strong green, and never a dark grey with black compensated', () => {
    const at = (lab: Lab) => {
      const node = lab.map((v, i) => Math.round((i === 0 ? v / 100 : v / 256 + 0.5) * 32));
      return LOSSES[sent.loss[(node[0] * 33 + node[1]) * 33 + node[2]]];
    };
    expect(at([50, 0, 0])).toBe('kept');
    expect(at([50, -80, 56])).toBe('too saturated');
    expect(at([12.5, 0, 0])).toBe('kept');
    const absolute = sentLattice(print, 'absolute', { grid: 17 });
    expect(LOSSES[absolute.loss[(1 * 17 + 8) * 17 + 8]]).toBe('too dark');
  });

  it('under another lamp the same sheets of ink are seen, not sent anew', () => {
    const warm = printed(sent, litModel(model, TABLE_LIGHTS.find((l) => l.key === 'led-warm')!.power, GLASSES[1]));
    const grey = through(warm, [50, 0, 0]);
    expect(deltaE2000(grey, through(seen, [50, 0, 0]))).toBeGreaterThan(0.5);
    // Glass lays a veil over the black.
    expect(through(warm, [0, 0, 0])[0]).toBeGreaterThan(through(seen, [0, 0, 0])[0]);
  });
});
