import { packLab } from '@rakuen/core/characterisation/packed';
import { nodeLab } from '@rakuen/core/characterisation/lab-axes';
import { nodePlaces } from '@rakuen/core/characterisation/lattice';
import type { SeenSheet } from './proof-canvas.ts';

/** Nodes along each axis: between two of them no colour is off by more than 0.03 ΔE*ab. */
const NODES = 65;
const BYTES_AT_ONCE = 0x8000;

let known: SeenSheet | undefined;

/** The file as it is, drawn like a sheet: every colour gives itself, its white is 100, 0, 0 and its black 0. Made once. */
export const fileSheet = (): SeenSheet => (known ??= made());

function made(): SeenSheet {
  const values = new Float32Array(NODES ** 3 * 3);
  let n = 0;
  for (const at of nodePlaces(3, NODES)) {
    values.set(nodeLab(at), n);
    n += 3;
  }
  const bytes = new Uint8Array(packLab({ axes: 3, nodes: NODES, values }).buffer);
  let text = '';
  for (let i = 0; i < bytes.length; i += BYTES_AT_ONCE)
    text += String.fromCharCode(...bytes.subarray(i, i + BYTES_AT_ONCE));
  return { nodes: NODES, white: [100, 0, 0], blackL: 0, lab: btoa(text) };
}
