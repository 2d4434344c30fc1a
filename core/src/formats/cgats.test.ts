import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { deltaE2000 } from '../colour/difference.ts';
import { seededRandom } from '../random.ts';
import type { Reading } from '../measurement/reading.ts';
import { writeCgats } from './cgats-write.ts';
import { FormatError, describeFault } from './format-error.ts';
import { readingFromCgats, readingsFromCgats } from './reading-from-cgats.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const latin1 = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));
const read = (text: string) => readingFromCgats(bytes(text));

const HEAD = 'CGATS.17\nINSTRUMENTATION "Bench spectrophotometer"\nMEASUREMENT_CONDITION "M1"\n';
const table = (format: string, rows: string[], sets = rows.length) =>
  `${HEAD}NUMBER_OF_FIELDS ${format.split(' ').length}\nBEGIN_DATA_FORMAT\n${format}\nEND_DATA_FORMAT\nNUMBER_OF_SETS ${sets}\nBEGIN_DATA\n${rows.join('\n')}\nEND_DATA\n`;
const RGB_LAB = 'SAMPLE_ID RGB_R RGB_G RGB_B LAB_L LAB_A LAB_B';
const ROWS = ['1 255 255 255 96.1 0.2 -1.5', '2 0 0 0 4.1 0.1 0.3', '3 255 0 0 48.5 68.1 50.2'];

function fault(run: () => unknown): FormatError {
  try {
    run();
  } catch (error) {
    if (error instanceof FormatError) return error;
    throw error;
  }
  throw new Error('nothing was thrown');
}

describe('what is recognised', () => {
  it('columns, condition, instrument, and what is missing', () => {
    const { reading, recognised, missing } = read(table(RGB_LAB, ROWS));
    expect(reading).toMatchObject({
      deviceSpace: 'RGB',
      condition: 'M1',
      instrument: 'Bench spectrophotometer',
      colourFrom: 'Lab',
    });
    expect(reading.patches[2]).toMatchObject({ id: '3', device: [1, 0, 0], lab: [48.5, 68.1, 50.2] });
    expect(recognised.join()).toMatch(/3 patches.*RGB device values, 0–255/);
    expect(missing.join(' ')).toMatch(/Spectra.*Backing.*Date/);
  });

  it('CR, LF and CRLF line ends, decimal commas, Latin-1, comments and quoted names give the same readings', () => {
    const plain = read(table(RGB_LAB, ROWS)).reading.patches;
    const text = table(RGB_LAB, ROWS);
    expect(read(text.replaceAll('\n', '\r')).reading.patches).toEqual(plain);
    expect(read(text.replaceAll('\n', '\r\n')).reading.patches).toEqual(plain);
    const commas = read(
      table(
        RGB_LAB,
        ROWS.map((r) => r.replaceAll('.', ',')),
      ),
    );
    expect(commas.reading.patches).toEqual(plain);
    expect(commas.recognised).toContain('decimal commas');
    const named = table(RGB_LAB, ['"A 1" 255 255 255 96.1 0.2 -1.5 # paper', ...ROWS.slice(1)]);
    expect(read(named).reading.patches[0]).toMatchObject({ id: 'A 1', lab: [96.1, 0.2, -1.5] });
    const umlaut = readingFromCgats(latin1(text.replace('Bench', 'Messger\u00e4t')));
    expect(umlaut.reading.instrument).toBe('Messgerät spectrophotometer');
    expect(umlaut.recognised[0]).toContain('Latin-1');
  });

  it.each([
    ['SPECTRAL_NM_', 1],
    ['SPECTRAL_', 1],
    ['nm', 1],
    ['SPEC_', 100],
    ['R_', 1],
    ['SPECTRAL_PCT_', 100],
    ['', 100],
  ])('a flat grey of 18 %% as %s columns is L* 49.50, 0, 0', (prefix, scale) => {
    const nms = Array.from({ length: 36 }, (_, i) => 380 + 10 * i);
    const format = `SAMPLE_ID ${nms.map((n) => prefix + n).join(' ')}`;
    const row = (id: number, r: number) => `${id} ${nms.map(() => (r * scale).toFixed(4)).join(' ')}`;
    const { reading } = read(table(format, [row(1, 0.9), row(2, 0.18)]));
    expect(reading.spectralGrid).toEqual({ startNm: 380, stepNm: 10, count: 36 });
    expect(reading.patches[1].lab[0]).toBeCloseTo(49.496, 2);
    expect(Math.hypot(reading.patches[1].lab[1], reading.patches[1].lab[2])).toBeLessThan(1e-9);
  });

  it('340–780 nm at 20 nm is read as well', () => {
    const nms = Array.from({ length: 23 }, (_, i) => 340 + 20 * i);
    const { reading } = read(
      table(`SAMPLE_ID ${nms.map((n) => `SPECTRAL_NM_${n}`).join(' ')}`, [`1 ${nms.map(() => 1).join(' ')}`]),
    );
    expect(reading.patches[0].lab[0]).toBeCloseTo(100, 9);
  });

  it('XYZ alone, also counted from 0 to 1', () => {
    const hundred = read(table('SAMPLE_ID XYZ_X XYZ_Y XYZ_Z', ['1 84.48 87.62 74.57', '2 1 1 1']));
    const one = read(table('SAMPLE_ID XYZ_X XYZ_Y XYZ_Z', ['1 0.8448 0.8762 0.7457', '2 0.01 0.01 0.01']));
    expect(deltaE2000(hundred.reading.patches[0].lab, [95, 0, -2])).toBeLessThan(0.1);
    expect(deltaE2000(hundred.reading.patches[0].lab, one.reading.patches[0].lab)).toBeLessThan(1e-6);
  });

  it('a chart that was split over tables is read whole', () => {
    const second = table(RGB_LAB, ROWS.slice(1)).split('\n').slice(1).join('\n');
    const { reading, recognised } = read(`${table(RGB_LAB, ROWS.slice(0, 1))}${second}`);
    expect(reading.patches.map((p) => p.id)).toEqual(['1', '2', '3']);
    expect(recognised).toContain('a chart in 2 tables');
  });

  it('M0, M1 and M2 as tables are three readings; what the first header says holds for all', () => {
    const text = ['M0', 'M1', 'M2']
      .map((m, i) =>
        table(RGB_LAB, ROWS)
          .replace('"M1"', `"${m}"`)
          .replace(i === 0 ? '\r' : HEAD.split('\n')[1], ''),
      )
      .join('');
    const all = readingsFromCgats(bytes(text));
    expect(all.map((r) => r.reading.condition)).toEqual(['M0', 'M1', 'M2']);
    for (const { reading } of all)
      expect(reading).toMatchObject({ instrument: 'Bench spectrophotometer', patches: { length: 3 } });
  });

  it.each(['D_', 'WL', 'LAMBDA_', 'REMISSION_', 'SPECTRAL_NM', 'NM_', 'SPECTRAL_NM_'])(
    'spectra named %s380 …',
    (prefix) => {
      const nms = Array.from({ length: 36 }, (_, i) => 380 + 10 * i);
      const { reading } = read(
        table(`SAMPLE_ID ${nms.map((nm) => `${prefix}${nm}`).join(' ')}`, [`1 ${nms.map(() => 0.5).join(' ')}`]),
      );
      expect(reading.spectralGrid).toEqual({ startNm: 380, stepNm: 10, count: 36 });
    },
  );

  it('spectra as pairs of wavelength and value', () => {
    const nms = Array.from({ length: 36 }, (_, i) => 380 + 10 * i);
    const columns = `SAMPLE_ID ${nms.map(() => 'SPECTRAL_NM SPECTRAL_DEC').join(' ')}`;
    const { reading } = read(table(columns, [`1 ${nms.map((nm) => `${nm} 0.5`).join(' ')}`]));
    expect(reading.spectralGrid).toEqual({ startNm: 380, stepNm: 10, count: 36 });
    const odd = [`1 ${nms.map((nm) => `${nm} 0.5`).join(' ')}`, `2 ${nms.map((nm) => `${nm + 5} 0.5`).join(' ')}`];
    expect(fault(() => read(table(columns, odd))).message).toMatch(/gives 385 nm where the first row has 380/);
  });

  it.each([
    ['16 bits', ['1 65535 65535 65535 96 0 0', '2 0 0 0 4 0 0'], 65_535],
    ['dark patches on 0–255', ['1 99 99 99 42 0 0', '2 50 50 50 24 0 0', '3 0 0 0 6 0 0'], 255],
    ['the same on 0–100', ['1 99 99 99 95 0 0', '2 50 50 50 55 0 0', '3 0 0 0 6 0 0'], 100],
  ])('device values: %s', (_, rows, scale) => {
    const { reading, recognised } = read(table(RGB_LAB, rows));
    expect(recognised.join()).toContain(`0–${scale}`);
    expect(reading.patches[0].device![0]).toBeCloseTo(Number(rows[0].split(' ')[1]) / scale, 9);
  });

  it('device values whose scale nothing tells are not guessed; the header may say it', () => {
    const rows = ['1 99 99 99 68 0 0', '2 50 50 50 40 0 0'];
    expect(fault(() => read(table(RGB_LAB, rows))).message).toMatch(
      /nothing tells whether the values run to 100, or 255/,
    );
    const said = table(RGB_LAB, rows).replace('NUMBER_OF_FIELDS', 'DEVICE_SCALE 255\nNUMBER_OF_FIELDS');
    expect(read(said).reading.patches[0].device![0]).toBeCloseTo(99 / 255, 9);
  });

  it('the first word of the file may be any', () =>
    expect(read(table(RGB_LAB, ROWS).replace('CGATS.17', 'Messlabor_7')).reading.patches).toHaveLength(3));

  it('a patch named like a keyword survives the round trip', () => {
    const { reading } = read(table(RGB_LAB, ROWS));
    const names = ['END_DATA', 'BEGIN_DATA_FORMAT', 'end_data'];
    const named: Reading = { ...reading, patches: reading.patches.map((p, i) => ({ ...p, id: names[i] })) };
    expect(read(writeCgats(named)).reading.patches.map((p) => p.id)).toEqual(names);
  });

  it('says when the file’s own Lab does not agree with its spectra', () => {
    const nms = Array.from({ length: 36 }, (_, i) => 380 + 10 * i);
    const { missing } = read(
      table(`SAMPLE_ID LAB_L LAB_A LAB_B ${nms.map((n) => `NM_${n}`).join(' ')}`, [
        `1 60 0 0 ${nms.map(() => 0.18).join(' ')}`,
      ]),
    );
    expect(missing.join()).toMatch(/lies \d+\.\d ΔE00 from its spectra/);
  });
});

describe('bad files', () => {
  const good = table(RGB_LAB, ROWS);
  it.each<[string, () => unknown, RegExp, number | undefined]>([
    ['empty', () => read(''), /empty/, undefined],
    [
      'binary',
      () => readingFromCgats(Uint8Array.from({ length: 4000 }, (_, i) => (i * 73) % 256)),
      /not a text file/,
      undefined,
    ],
    ['prose', () => read('Dear printer,\nplease find\n'), /does not begin like a CGATS file/, 1],
    ['cut short inside the data', () => read(good.slice(0, good.indexOf('3 255'))), /ends inside the block/, 11],
    ['cut short before the data', () => read(good.slice(0, good.indexOf('BEGIN_DATA\n'))), /no BEGIN_DATA/, undefined],
    ['a wrong count', () => read(table(RGB_LAB, ROWS, 4)), /promises 4 patches.*holds 3/, 9],
    [
      'a row short of a value',
      () => read(table(RGB_LAB, [ROWS[0], '2 0 0 0 4.1 0.1', ROWS[2]])),
      /has 6 values; 7 columns/,
      11,
    ],
    [
      'a word for a number',
      () => read(table(RGB_LAB, [ROWS[0], '2 0 0 0 dark 0.1 0.3'])),
      /“dark” is not a number/,
      11,
    ],
    ['no colour', () => read(table('SAMPLE_ID RGB_R RGB_G RGB_B', ['1 0 0 0'])), /no colour in this file/, undefined],
    ['half of Lab', () => read(table('SAMPLE_ID LAB_L LAB_A', ['1 50 0'])), /LAB columns are incomplete/, undefined],
    ['a negative device value', () => read(table(RGB_LAB, [ROWS[0], '2 -4 0 0 4 0 0'])), /outside 0–255/, 11],
    [
      'an impossible lightness',
      () => read(table(RGB_LAB, ['1 0 0 0 9610 0 0'])),
      /-1 to 110 is what a print may have/,
      10,
    ],
    ['no value', () => read(table(RGB_LAB, [ROWS[0], '2 0 0 0 N/A 0 0'])), /There is no value here: “N\/A”/, 11],
    [
      'a colour no print has',
      () => read(table(RGB_LAB, ['1 255 255 255 50 250 0'])),
      /-?200 is what a print may have/,
      10,
    ],
    [
      'gaps in the spectra',
      () =>
        read(
          table(`SAMPLE_ID ${[380, 390, 400, 420, 430, 440, 450, 460, 470].map((n) => `NM_${n}`).join(' ')}`, [
            '1 1 1 1 1 1 1 1 1 1',
          ]),
        ),
      /not evenly spaced: 400 nm is followed by 420/,
      undefined,
    ],
  ])('%s', (_, run, message, line) => {
    const error = fault(run);
    expect(error.message).toMatch(message);
    if (line !== undefined) expect(error.line).toBe(line);
    expect(error.remedy.length).toBeGreaterThan(10);
    expect(describeFault('x.txt', error)).toContain('x.txt');
    expect(describeFault('x.txt', error)).not.toContain('\n');
  });

  it('names the column', () => expect(fault(() => read(table(RGB_LAB, ['1 0 0 0 4.1 zero 0']))).field).toBe('LAB_A'));

  it('any cut of a real file is a clear error or a complete reading, and never anything else', () => {
    const whole = readFileSync(new URL('../../test/fixtures/fogra29l.cgats.txt', import.meta.url)).subarray(0, 6000);
    fc.assert(
      fc.property(fc.nat(whole.length), (n) => {
        const error = fault(() => readingFromCgats(whole.subarray(0, n)));
        expect(error.remedy).not.toBe('');
      }),
      { numRuns: 200 },
    );
  });

  it('random bytes never do harm', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 3000 }), (noise) => {
        expect(fault(() => readingFromCgats(noise))).toBeInstanceOf(FormatError);
      }),
    );
  });

  it('50 MB of garbage is refused within two seconds', () => {
    const random = seededRandom(1);
    const block = Uint8Array.from({ length: 1 << 20 }, () => 32 + Math.floor(random() * 90));
    const garbage = new Uint8Array(50 << 20);
    for (let i = 0; i < 50; i++) garbage.set(block, i << 20);
    const start = performance.now();
    expect(fault(() => readingFromCgats(garbage)).message).toMatch(/does not begin/);
    expect(performance.now() - start).toBeLessThan(2000);
  });
});

describe('what we write we read back', () => {
  it('any reading, to the written digits', () => {
    const unit = fc.double({ min: 0, max: 1, noNaN: true });
    const text = fc
      .string({ minLength: 1, maxLength: 12, unit: fc.constantFrom(...'ab c"#ü7'.split('')) })
      .filter((s) => s.trim() === s && !/\s{2}/.test(s));
    const readings = fc.record({
      ids: fc.array(text, { minLength: 4, maxLength: 8 }),
      device: fc.array(fc.tuple(unit, unit, unit), { minLength: 8, maxLength: 8 }),
      spectra: fc.array(fc.array(unit, { minLength: 36, maxLength: 36 }), { minLength: 8, maxLength: 8 }),
      instrument: text,
    });
    fc.assert(
      fc.property(readings, ({ ids, device, spectra, instrument }) => {
        const reading: Reading = {
          colourFrom: 'spectrum',
          deviceSpace: 'RGB',
          condition: 'M2',
          instrument,
          spectralGrid: { startNm: 380, stepNm: 10, count: 36 },
          patches: ids.map((id, i) => ({
            id,
            device: i === 0 ? [1, 1, 1] : device[i],
            lab: [50, 0, 0],
            xyz: [18, 18, 18],
            reflectance: i === 0 ? new Array(36).fill(0.9) : spectra[i],
          })),
        };
        const back = read(writeCgats(reading)).reading;
        expect(back.instrument).toBe(instrument);
        expect(back.condition).toBe('M2');
        expect(back.spectralGrid).toEqual(reading.spectralGrid);
        back.patches.forEach((p, i) => {
          expect(p.id).toBe(ids[i]);
          p.device!.forEach((v, c) => expect(v).toBeCloseTo(reading.patches[i].device![c], 5));
          p.reflectance!.forEach((v, c) => expect(v).toBeCloseTo(reading.patches[i].reflectance![c], 5));
        });
      }),
      { numRuns: 60 },
    );
  });
});
