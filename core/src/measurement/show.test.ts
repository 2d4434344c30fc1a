import fc from 'fast-check';
import { percent, sentenceCase } from '../match/words.ts';
import { bulk, COATING_CLASSES, isMatt } from '../paper.ts';
import { MEASURES } from './measures/registry.ts';
import { formatFigure, formatNumber, supportedDigits } from './show.ts';

describe('figures as they are shown', () => {
  it('a number read back lies within half of its last digit', () => {
    fc.assert(
      fc.property(fc.double({ min: -2e6, max: 2e6, noNaN: true }), fc.integer({ min: 0, max: 4 }), (value, digits) => {
        const back = Number(formatNumber(value, digits).replace('−', '-').replaceAll('\u2009', ''));
        expect(Math.abs(back - value)).toBeLessThanOrEqual(0.5 * 10 ** -digits + 1e-9);
      }),
    );
  });

  it('the noisier a figure, the fewer its digits; never more than its measure allows', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-6, max: 100, noNaN: true }),
        fc.double({ min: 1, max: 50, noNaN: true }),
        fc.integer({ min: 0, max: 4 }),
        (sd, times, most) => {
          expect(supportedDigits(sd * times, most)).toBeLessThanOrEqual(supportedDigits(sd, most));
          expect(supportedDigits(sd, most)).toBeLessThanOrEqual(most);
        },
      ),
    );
  });

  it('shares are never a false nought nor a false whole', () => {
    expect(percent(0)).toBe('0\u00a0%');
    expect(percent(0.0001)).toBe('under 0.1\u00a0%');
    expect(percent(0.086)).toBe('8.6\u00a0%');
    expect(percent(0.31)).toBe('31\u00a0%');
    expect(percent(0.9999)).toBe('over 99\u00a0%');
    expect(percent(1)).toBe('100\u00a0%');
    expect(sentenceCase('the reds')).toBe('The reds');
  });

  it('every measure says its unit, definition and source, has a key of its own, and echoes one that exists', () => {
    const keys = MEASURES.map((m) => m.key);
    expect(new Set(keys).size).toBe(keys.length);
    for (const m of MEASURES) {
      expect(m.definition).toMatch(/\.$/);
      expect(m.definition.length).toBeGreaterThan(20);
      expect(m.unit).not.toBe('');
      expect(m.source).not.toBe('');
      expect(m.words[0]).not.toBe(m.words[1]);
      if (m.echoes) expect(keys).toContain(m.echoes);
      expect(formatFigure(m, { shape: 'missing', why: 'x' })).toBe('—');
    }
  });

  it('bulk is thickness over weight; matt classes take matt black (practice)', () => {
    expect(bulk(400, 340)).toBeCloseTo(1.176, 3);
    expect(isMatt('cotton')).toBe(true);
    expect(isMatt('baryta')).toBe(false);
    for (const c of Object.values(COATING_CLASSES)) expect(['photo', 'matt']).toContain(c.blackInk);
  });
});
