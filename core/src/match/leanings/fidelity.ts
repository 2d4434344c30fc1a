import { deltaE } from '../words.ts';
import type { Leaning } from './leaning.ts';

export const fidelity: Leaning = {
  key: 'fidelity',
  name: 'The picture as it is',
  holds: 'A sheet is the better, the nearer every colour of the picture comes out on it.',
  weight: 1,
  judge: ({ match }) => ({
    speaks: match.meanDeltaE < 1 ? 'for' : match.meanDeltaE > 3 ? 'against' : 'neither',
    sentence: `Over the whole picture the print lies ${deltaE(match.meanDeltaE)} from the file, on average, printed relative to the paper’s white with black laid on black.`,
    figures: [{ name: 'mean difference over the picture', value: match.meanDeltaE, unit: 'ΔE00' }],
    cost: match.meanDeltaE,
  }),
};
