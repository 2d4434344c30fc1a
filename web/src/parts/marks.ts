/** How papers on the table are told apart without colour: a letter, a line pattern and a marker, by their place. */
export const MARKS = [
  { letter: 'A', dash: undefined, marker: 'circle' },
  { letter: 'B', dash: '7 4', marker: 'square' },
  { letter: 'C', dash: '2 3', marker: 'triangle' },
  { letter: 'D', dash: '10 3 2 3', marker: 'diamond' },
  { letter: 'E', dash: '4 2', marker: 'cross' },
  { letter: 'F', dash: '12 5', marker: 'star' },
] as const;
