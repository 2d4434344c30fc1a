import { labToXyz, xyzToLab } from '../colour/lab.ts';
import { mapThree } from '../colour/three.ts';
import type { Lab, Rgb } from '../colour/types.ts';
import type { Mistake } from './mistakes.ts';

/** What was sent instead of a strip's own device values. */
export interface MistakenDevices {
  readonly mistake: Mistake;
  readonly which?: string;
  readonly devices: readonly Rgb[];
}

const INKS = ['cyan', 'magenta', 'yellow'] as const;
/** Luma of BT.709: what a driver makes of colour in its black-and-white mode. */
const LUMA = [0.2126, 0.7152, 0.0722] as const;

/** Mistakes at the printer that change what is sent: its black-and-white mode, or an ink that does not print. */
export function mistakenDevices(devices: readonly Rgb[]): MistakenDevices[] {
  const grey = (d: Rgb): Rgb => {
    const luma = d[0] * LUMA[0] + d[1] * LUMA[1] + d[2] * LUMA[2];
    return [luma, luma, luma];
  };
  return [
    { mistake: 'black and white', devices: devices.map(grey) },
    ...INKS.map((which, c): MistakenDevices => ({
      mistake: 'missing ink',
      which,
      // A device channel of full light lays down none of its ink.
      devices: devices.map((d) => mapThree(d, (v, i) => (i === c ? 1 : v))),
    })),
  ];
}

/** Mistakes at the instrument: the strip turned, or begun a patch too early or too late. @param white the bare sheet */
export function mistakenOrder(labs: readonly Lab[], white: Lab): { mistake: Mistake; which?: string; labs: Lab[] }[] {
  return [
    { mistake: 'turned', labs: [...labs].reverse() },
    { mistake: 'shifted', which: 'one patch too late', labs: [...labs.slice(1), white] },
    { mistake: 'shifted', which: 'one patch too early', labs: [white, ...labs.slice(0, -1)] },
  ];
}

/** How much density the other black ink lacks at full black, as a share (our own estimate). */
const BLACK_LACKS = 0.3;

/**
 * What patches would read like with the other black ink: photo black on a matt coating, or matt black on a glossy one,
 * lacks density where black is laid down, and little elsewhere.
 * @param white the bare sheet
 */
export function withOtherBlack(labs: readonly Lab[], white: Lab): Lab[] {
  const paper = labToXyz(white);
  return labs.map((lab) => {
    const dark = Math.max(0, 1 - lab[0] / white[0]) ** 2;
    return xyzToLab(
      mapThree(labToXyz(lab), (v, i) => paper[i]! * Math.max(1e-6, v / paper[i]!) ** (1 - BLACK_LACKS * dark)),
    );
  });
}
