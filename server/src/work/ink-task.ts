import { throughPrinted } from '@rakuen/core/characterisation/printed';
import { countedInk } from '@rakuen/core/cost/ink';
import { inkTaken } from '@rakuen/core/simulation/printer';
import { standIn, type StandInFacts } from '@rakuen/core/simulation/stand-in';
import { unpackSent, type PackedSent } from './lay-tasks.ts';

/**
 * Ink of a picture on a simulated printer, ml: what its model sends for each colour, and what the printer lays down
 * for that. @param task cells are L*, a*, b* and share
 */
export function countInk(task: {
  readonly facts: StandInFacts;
  readonly sent: PackedSent;
  readonly cells: Float32Array;
  readonly areaM2: number;
  readonly solidMlPerM2: number;
}): number {
  const { cells, areaM2, solidMlPerM2 } = task;
  const { grid, device } = unpackSent(task.sent);
  const lattice = { axes: 3, nodes: grid, values: device } as const;
  const inkOf = inkTaken(standIn(task.facts));
  const rgb = new Float32Array(3);
  const colours = Array.from({ length: cells.length / 4 }, (_, i) => {
    const [L, a, b, share] = cells.subarray(i * 4, i * 4 + 4);
    throughPrinted(lattice, [L, a, b], rgb);
    return { taken: inkOf([rgb[0], rgb[1], rgb[2]]), share };
  });
  return countedInk(colours, areaM2, inkOf([0, 0, 0]), solidMlPerM2);
}
