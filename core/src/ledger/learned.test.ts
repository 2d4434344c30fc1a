import { lessons, type Judged } from './learned.ts';

let made = 0;
const print = (verdict: string, reason: string, over: Partial<Judged> = {}): Judged => ({
  paperId: 'rag',
  paper: 'Chalk Rag',
  pictureId: `${++made}`,
  trait: 'low-key',
  verdict,
  reason,
  ...over,
});

it('three of five low-key prints were rejected, and the word that was said of them is told', () => {
  const found = lessons([
    print('rejected', 'Muddy shadows.'),
    print('rejected', 'The plain is muddy.'),
    print('rejected', 'muddy and flat'),
    print('good', ''),
    print('good enough', 'A little soft'),
    print('not yet judged', 'Muddy?'),
  ]);
  expect(found.map((l) => l.sentence)).toEqual([
    'On Chalk Rag three of five low-key prints were rejected; “muddy” was said of three.',
  ]);
});

it('nothing is learned from two prints, from good ones, nor across papers or kinds', () => {
  const two = [print('rejected', 'muddy'), print('rejected', 'muddy')];
  expect(lessons(two)).toEqual([]);
  expect(lessons([...two, print('rejected', 'muddy', { paperId: 'baryta' })])).toEqual([]);
  expect(lessons([...two, print('rejected', 'muddy', { trait: 'high-key' })])).toEqual([]);
  expect(lessons([...two, print('good', ''), print('good', ''), print('good', '')])).toEqual([]);
});

it('reasons that share no word are not given one', () => {
  const [lesson] = lessons([print('rejected', 'too dark'), print('rejected', 'posterised'), print('good', '')]);
  expect(lesson.sentence).toBe('On Chalk Rag two of three low-key prints were rejected.');
});

it('prints of one picture alone are told to be', () => {
  const [lesson] = lessons(['a', 'b', 'c'].map((reason) => print('rejected', reason, { pictureId: 'night' })));
  expect(lesson.sentence).toBe('On Chalk Rag three of three low-key prints were rejected, all of one picture.');
});
