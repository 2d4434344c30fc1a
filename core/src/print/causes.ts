/** What spoils sheets, and the look before the sheet that catches it. */
export interface Cause {
  readonly name: string;
  /** Empty where no look would have caught it. */
  readonly look: string;
}

/** The list a studio begins with; it grows by what happens there (practice). */
export const STARTING_CAUSES: readonly Cause[] = [
  { name: 'printed on the back', look: 'coated side' },
  { name: 'wrong media setting', look: 'media setting' },
  { name: 'colour managed twice', look: 'colour management off' },
  { name: 'clogged nozzle', look: 'nozzle check' },
  { name: 'heads out of line', look: 'head alignment' },
  { name: 'head strike at a curled corner', look: 'flat corners' },
  { name: 'fed askew', look: 'flat corners' },
  { name: 'fingerprint or scuff', look: 'gloves' },
  { name: 'ink ran out', look: '' },
  { name: 'wrong file or size', look: '' },
];
