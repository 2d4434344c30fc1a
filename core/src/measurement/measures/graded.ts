import { A_DAY_FROM_MINUTES, GRADES, latest, type RubObservation } from '../observations.ts';
import type { Figure } from '../figure.ts';
import type { BenchMeasure } from './measure.ts';

/** An eye grades to about half a grade (our own assumption). */
const GRADE_SD = 0.5;
/** Width of the finest sharp hairline by grade, mm; the lines the test page has. */
const HAIRLINES_MM = ['0.05', '0.1', '0.15', '0.2', '0.3'];
const graded = (grade: number): Figure => ({
  shape: 'scalar',
  value: grade,
  sd: GRADE_SD,
  note: GRADES[Math.round(grade)],
});

export const bronzing: BenchMeasure = {
  key: 'bronzing',
  name: 'Bronzing',
  unit: 'of 4',
  definition:
    'Coloured, metal-like sheen of dark areas at a slant, graded by eye from 0 to 4; it belongs to the ink set.',
  source: '(practice)',
  digits: 0,
  scale: 'unjudged',
  better: 'lower',
  judged: true,
  whole: true,
  words: ['more bronzed', 'less bronzed'],
  observe: (observations) => {
    const found = latest(observations, 'bronzing');
    return found ? graded(found.grade) : { shape: 'missing', why: 'Nobody has graded the bronzing yet.' };
  },
};

export const blockedRings: BenchMeasure = {
  ...bronzing,
  trial: true,
  key: 'blockedRings',
  name: 'Blocked rings',
  definition:
    'How far the rings of the test page are blocked or show false rings, graded by eye from 0 to 4: too much ink, or a wrong setting.',
  words: ['more blocked', 'less blocked'],
  observe: (observations) => {
    const found = latest(observations, 'rings');
    return found
      ? graded(found.grade)
      : { shape: 'missing', why: 'Nobody has looked at the rings of a test page yet.' };
  },
};

export const hairlines: BenchMeasure = {
  ...bronzing,
  key: 'hairlines',
  name: 'Spread hairlines',
  definition:
    'How wide a hairline of the test page must be to stand sharp, graded by eye: 0 for 0.05 mm, 1 for 0.1, 2 for 0.15, 3 for 0.2, 4 for 0.3 mm and more.',
  words: ['less sharp', 'sharper'],
  observe: (observations) => {
    const found = latest(observations, 'hairlines');
    return found
      ? { ...graded(found.grade), note: `sharp from ${HAIRLINES_MM[found.grade]} mm` }
      : { shape: 'missing', why: 'Nobody has looked at the hairlines of a test page yet.' };
  },
};

const rub = (key: string, name: string, when: string, fits: (o: RubObservation) => boolean): BenchMeasure => ({
  ...bronzing,
  key,
  name,
  definition: `How much full black comes off on a scrap of the same paper, ${when}, graded by eye from 0 to 4: how well the coating holds the ink out.`,
  words: ['quicker to rub off', 'slower to rub off'],
  observe: (observations) => {
    const found = latest(observations, 'rub', fits);
    return found ? graded(found.grade) : { shape: 'missing', why: `A rub ${when} is missing.` };
  },
});

export const rubAfterMinutes = rub(
  'rubAfterMinutes',
  'Rub after 10 minutes',
  '10 minutes after printing',
  (o) => o.minutesAfterPrinting < A_DAY_FROM_MINUTES,
);
export const rubAfterADay = rub(
  'rubAfterADay',
  'Rub after a day',
  'a day after printing',
  (o) => o.minutesAfterPrinting >= A_DAY_FROM_MINUTES,
);
