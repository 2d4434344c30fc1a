/**
 * How papers on the table are told apart without colour: a letter, which is also their marker in charts, and a line
 * pattern, by their place.
 */
export const MARKS = [
  { letter: 'A', dash: undefined },
  { letter: 'B', dash: '7 4' },
  { letter: 'C', dash: '2 3' },
  { letter: 'D', dash: '10 3 2 3' },
  { letter: 'E', dash: '4 2' },
  { letter: 'F', dash: '12 5' },
] as const;
