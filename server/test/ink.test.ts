import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readChart } from '@rakuen/core/simulation/instrument';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { blocks } from './files.ts';
import { condition, picture, start, type Running } from './rakuen.ts';

interface Cost {
  inkMl: number;
  inkFrom: string;
}

let rakuen: Running;
const ids: Record<string, string> = {};
beforeAll(async () => {
  rakuen = await start();
  const chart = writeCgats(readChart(SHEETS.baryta, scatteredChart(300), 'M1', 5));
  for (const [name, instrument] of [
    ['simulated', 'Simulated bench spectrophotometer'],
    ['read', 'A spectrophotometer'],
  ]) {
    ids[name] = await condition(rakuen, `Sheet ${name}`);
    await rakuen.upload(`/api/conditions/${ids[name]}/readings`, `${name}.txt`, chart, { instrument });
  }
  for (const [name, colour] of [
    ['dark', [0.05, 0.05, 0.05]],
    ['light', [0.95, 0.95, 0.95]],
    ['yellow', [0.95, 0.85, 0.1]],
  ] as const)
    ids[name] = (await picture(rakuen, `${name}.tif`, await blocks([colour]))).job.pictureId!;
}, 240_000);
afterAll(() => rakuen.stop());

const cost = async (of: string, on: string, scale = 1) =>
  (
    await rakuen.call<Cost>(
      'GET',
      `/api/costs?pictureId=${ids[of]}&conditionId=${ids[on]}&widthMm=${200 * scale}&heightMm=${150 * scale}`,
    )
  ).body;

it('ink is counted where the printer is simulated, and reckoned from what is seen where it is not; said which', async () => {
  const [counted, reckoned] = [await cost('dark', 'simulated'), await cost('dark', 'read')];
  expect(counted.inkFrom).toBe('simulated printer');
  expect(reckoned.inkFrom).toBe('picture and sheet');
  expect(counted.inkMl / reckoned.inkMl).toBeGreaterThan(0.5);
  expect(counted.inkMl / reckoned.inkMl).toBeLessThan(3);
});

it('goes with the area and with the colours: a light saturated one takes more than its density tells', async () => {
  const [dark, larger, light] = [
    await cost('dark', 'simulated'),
    await cost('dark', 'simulated', 2),
    await cost('light', 'simulated'),
  ];
  expect(larger.inkMl / dark.inkMl).toBeCloseTo(4, 6);
  expect(light.inkMl).toBeLessThan(dark.inkMl / 4);
  const [counted, seen] = [await cost('yellow', 'simulated'), await cost('yellow', 'read')];
  expect(counted.inkMl).toBeGreaterThan(2 * seen.inkMl);
});
