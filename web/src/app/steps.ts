/** The steps of the work, in the order in which it is done. They are the navigation. */
export const STEPS = [
  { path: '/papers', name: 'Papers', question: 'What lies in the drawer, and how does it print?' },
  { path: '/readings', name: 'Readings', question: 'What did the instrument say?' },
  { path: '/compare', name: 'Compare', question: 'Which is blacker, whiter, wider, and could anyone see it?' },
  { path: '/pictures', name: 'Pictures', question: 'What does the picture ask of a paper?' },
  { path: '/match', name: 'Match', question: 'Which paper for this picture, and why?' },
  { path: '/proof', name: 'Proof', question: 'How will it look on the sheet, in the light where it will hang?' },
  { path: '/prints', name: 'Prints', question: 'How was it printed, and was it right?' },
  { path: '/ledger', name: 'Ledger', question: 'What was decided, and when?' },
] as const;

/** The question a step answers. */
export const questionOf = (path: (typeof STEPS)[number]['path']): string =>
  STEPS.find((s) => s.path === path)!.question;
