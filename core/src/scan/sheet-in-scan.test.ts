import type { CornerMark } from './corner-marks.ts';
import { ScanError, sheetInScan, type SheetMarks } from './sheet-in-scan.ts';

const ON: SheetMarks = {
  topRight: { x: 140, y: 8 },
  bottomLeft: { x: 8, y: 97 },
  bottomRight: { x: 140, y: 97 },
};
/** The marks of a sheet at so many pixels a mm, turned and moved. */
const marks = (pxPerMm: number, turnDeg: number, dx: number, dy: number): CornerMark[] => {
  const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  return Object.values(ON).map(({ x, y }) => ({
    x: pxPerMm * (c * x - s * y) + dx,
    y: pxPerMm * (s * x + c * y) + dy,
    side: 5 * pxPerMm,
    heart: false,
  }));
};

it('a sheet is found by its three marks wherever it lies, a stray mark beside it', () => {
  const stray: CornerMark = { x: 40, y: 900, side: 26, heart: false };
  for (const turn of [-8, 0, 3]) {
    const on = sheetInScan('the card', [stray, ...marks(5, turn, 120, 90)], ON);
    const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
    expect(on(50, 40).x).toBeCloseTo(5 * (c * 50 - s * 40) + 120, 6);
    expect(on(50, 40).y).toBeCloseTo(5 * (s * 50 + c * 40) + 90, 6);
  }
});

it('two sheets alike on the glass are not guessed between, and one that lies on its head is not found', () => {
  const two = [...marks(5, 0, 0, 0), ...marks(5, 0, 0, 700)];
  expect(() => sheetInScan('the card', two, ON)).toThrow(/fit in 2 places/);
  expect(() => sheetInScan('the card', marks(5, 180, 900, 900), ON)).toThrow(ScanError);
  expect(() => sheetInScan('the card', marks(5, 0, 0, 0).slice(1), ON)).toThrow(/were not found/);
});
