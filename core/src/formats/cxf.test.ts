import fc from 'fast-check';
import { deltaE76 } from '../colour/difference.ts';
import type { Reading } from '../measurement/reading.ts';
import { surfaceChart } from '../simulation/chart.ts';
import { PIGMENT_INKS } from '../simulation/inks.ts';
import { readChart } from '../simulation/instrument.ts';
import { readingsFromCxf } from './cxf.ts';
import { writeCxf } from './cxf-write.ts';
import { FormatError } from './format-error.ts';
import { readingsFromFile } from './reading-formats.ts';
import { writeCgats } from './cgats-write.ts';
import { CLASS_SHEETS, RELIEFS } from '../simulation/stand-in.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const sheet = { ...CLASS_SHEETS.matt, brightener: 0.4, relief: RELIEFS.smooth, weightGsm: 230, thicknessUm: 300 };
const press = { sheet, inks: PIGMENT_INKS, blackInk: 'matt' as const, inkLoad: 1 };
const chart = surfaceChart(3, 5, 2);
const m1: Reading = {
  ...readChart(press, chart, 'M1', 1),
  instrument: 'Bench & sons "A"',
  createdAt: '2026-09-14',
  description: 'Trial <one>',
};

/** A file as an instrument writes it that reads M0, M1 and M2 in one pass. */
const ONE_PASS = `<?xml version="1.0"?>
<CxF xmlns="http://colorexchangeformat.com/CxF3-core"><Resources><ObjectCollection>
${[0.9, 0.05]
  .map(
    (
      r,
      i,
    ) => `<Object Name="P${i}" Id="${i}"><DeviceColorValues><ColorCMYK><Cyan>0</Cyan><Magenta>0</Magenta><Yellow>0</Yellow><Black>${i * 100}</Black></ColorCMYK></DeviceColorValues><ColorValues>
${['M0', 'M1', 'M2'].map((m, k) => `<ReflectanceSpectrum ColorSpecification="CS_${m}" StartWL="380">${Array.from({ length: 36 }, (_, n) => (n < 10 ? r * (1 + 0.05 * (2 - k)) : r)).join(' ')}</ReflectanceSpectrum>`).join('')}
<ColorCIELab ColorSpecification="CS_M1"><L>1</L><A>2</A><B>3</B></ColorCIELab></ColorValues></Object>`,
  )
  .join('\n')}
</ObjectCollection><ColorSpecificationCollection>
${['M0', 'M1', 'M2'].map((m) => `<ColorSpecification Id="CS_${m}"><MeasurementSpec><WavelengthRange StartWL="380" Increment="10"/><Device><Manufacturer>Bench</Manufacturer><Model>Strip reader</Model><DeviceIllumination>${m}_Light</DeviceIllumination></Device></MeasurementSpec></ColorSpecification>`).join('')}
</ColorSpecificationCollection></Resources></CxF>`;

function fault(text: string): FormatError {
  try {
    readingsFromCxf(bytes(text));
  } catch (error) {
    if (error instanceof FormatError) return error;
    throw error;
  }
  throw new Error('nothing was thrown');
}

describe('CxF3 (ISO 17972)', () => {
  it('three measurement conditions of one sheet go into one file and come back as three readings', () => {
    const [m0, m2] = (['M0', 'M2'] as const).map((m, i): Reading => ({
      ...readChart(press, chart, m, 2 + i),
      instrument: m1.instrument,
      createdAt: m1.createdAt,
      description: m1.description,
    }));
    const text = writeCxf(m0, m1, m2);
    const back = readingsFromFile(bytes(text)).map((r) => r.reading);
    expect(back.map((r) => r.condition)).toEqual(['M0', 'M1', 'M2']);
    [m0, m1, m2].forEach((reading, i) =>
      expect(back[i].patches.map((p) => p.reflectance!.map((v) => v.toFixed(6)))).toEqual(
        reading.patches.map((p) => p.reflectance!.map((v) => v.toFixed(6))),
      ),
    );
    expect(writeCxf(...(back as [Reading, Reading, Reading]))).toBe(
      writeCxf(
        ...(readingsFromFile(bytes(writeCxf(...(back as [Reading, Reading, Reading])))).map((r) => r.reading) as [
          Reading,
          Reading,
          Reading,
        ]),
      ),
    );
    expect(() => writeCxf(m0, { ...m1, patches: m1.patches.slice(1) })).toThrow(RangeError);
  });

  it('what we write we read back: patches, device values, spectra, condition, instrument, words', () => {
    const [{ reading, missing }] = readingsFromFile(bytes(writeCxf(m1)));
    expect(reading).toMatchObject({
      deviceSpace: 'RGB',
      condition: 'M1',
      instrument: 'Bench & sons "A"',
      createdAt: '2026-09-14',
      description: 'Trial <one>',
      backing: 'white',
      spectralGrid: { startNm: 380, stepNm: 10, count: 36 },
    });
    expect(missing).toEqual([]);
    expect(reading.patches).toHaveLength(m1.patches.length);
    reading.patches.forEach((p, i) => {
      expect(p.id).toBe(m1.patches[i].id);
      p.device!.forEach((v, c) => expect(v).toBeCloseTo(m1.patches[i].device![c], 5));
      p.reflectance!.forEach((v, c) => expect(v).toBeCloseTo(m1.patches[i].reflectance![c], 5));
    });
  });

  it('gives the same colours as the same readings in CGATS', () => {
    const [viaCxf] = readingsFromFile(bytes(writeCxf(m1)));
    const [viaCgats] = readingsFromFile(bytes(writeCgats(m1)));
    viaCxf.reading.patches.forEach((p, i) =>
      expect(deltaE76(p.lab, viaCgats.reading.patches[i].lab)).toBeLessThan(1e-6),
    );
  });

  it('any names and values survive', () => {
    const unit = fc.double({ min: 0, max: 1, noNaN: true });
    const name = fc
      .string({ minLength: 1, maxLength: 10, unit: fc.constantFrom(...'aZ9 &<>"\'ü·'.split('')) })
      .filter((s) => s.trim() === s && !/\s{2}/.test(s));
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            id: name,
            cmyk: fc.tuple(unit, unit, unit, unit),
            lab: fc.tuple(
              fc.double({ min: 0, max: 100, noNaN: true }),
              fc.double({ min: -99, max: 99, noNaN: true }),
              fc.double({ min: -99, max: 99, noNaN: true }),
            ),
          }),
          { minLength: 1, maxLength: 12 },
        ),
        (list) => {
          const reading: Reading = {
            colourFrom: 'Lab',
            deviceSpace: 'CMYK',
            patches: list.map((p) => ({ id: p.id, device: p.cmyk, lab: p.lab, xyz: [1, 1, 1] })),
          };
          const [back] = readingsFromCxf(bytes(writeCxf(reading)));
          expect(back.reading.colourFrom).toBe('Lab');
          back.reading.patches.forEach((p, i) => {
            expect(p.id).toBe(list[i].id);
            expect(deltaE76(p.lab, list[i].lab)).toBeLessThan(2e-4);
            p.device!.forEach((v, c) => expect(v).toBeCloseTo(list[i].cmyk[c], 5));
          });
        },
      ),
      { numRuns: 80 },
    );
  });

  it('M0, M1 and M2 read in one pass are three readings of the same patches', () => {
    const readings = readingsFromCxf(bytes(ONE_PASS));
    expect(readings.map((r) => r.reading.condition)).toEqual(['M0', 'M1', 'M2']);
    for (const r of readings) {
      expect(r.reading.patches.map((p) => p.id)).toEqual(['P0', 'P1']);
      expect(r.reading).toMatchObject({
        deviceSpace: 'CMYK',
        instrument: 'Bench Strip reader',
        colourFrom: 'spectrum',
      });
    }
    // The tristimulus values beside the spectra are not believed over them.
    expect(readings[1].reading.patches[0].lab[0]).toBeGreaterThan(90);
    expect(readings[0].reading.patches[0].lab[2]).toBeLessThan(readings[2].reading.patches[0].lab[2] - 1);
  });

  it.each<[string, string, RegExp]>([
    ['cut short', ONE_PASS.slice(0, 1200), /XML is broken/],
    ['another vocabulary', '<?xml version="1.0"?><recipe><flour/></recipe>', /no colour objects/],
    ['a word among the numbers', ONE_PASS.replace('0.05 ', 'dark '), /Object P1: “dark” is not a number/],
    [
      'a spectrum that does not say where it lies',
      ONE_PASS.replaceAll(' StartWL="380"', ''),
      /does not say where it lies/,
    ],
    ['a device value beyond its range', ONE_PASS.replace('<Black>100', '<Black>900'), /outside its range/],
    [
      'entities that would grow',
      `<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]><CxF>&b;</CxF>`,
      /XML|no colour objects/,
    ],
  ])('%s: a clear error', (_, text, message) => {
    const error = fault(text);
    expect(error.message).toMatch(message);
    expect(error.remedy.length).toBeGreaterThan(10);
  });

  it('a file that reads another’s secrets reads nothing', () => {
    const text = ONE_PASS.replace(
      '<?xml version="1.0"?>',
      '<?xml version="1.0"?><!DOCTYPE CxF [<!ENTITY secret SYSTEM "file:///etc/passwd">]>',
    ).replace('Name="P0"', 'Name="&secret;"');
    let id = '';
    try {
      id = readingsFromCxf(bytes(text))[0].reading.patches[0].id;
    } catch (error) {
      expect(error).toBeInstanceOf(FormatError);
    }
    expect(id).not.toMatch(/root:/);
  });
});
