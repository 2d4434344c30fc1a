import type { EyeCriterion } from '@rakuen/contract/vocabulary';

/** What the eye is asked, by its criterion; empty where the question is the hand’s own. */
export const QUESTIONS: Record<EyeCriterion, string> = {
  'deeper black': 'Which is the deeper black?',
  whiter: 'Which is whiter?',
  'more detail': 'Which shows more detail?',
  'better skin': 'Which renders the skin better?',
  'nicer in the hand': 'Which is nicer in the hand?',
  'which would you hang': 'Which would you hang?',
  'a question of my own': '',
};
