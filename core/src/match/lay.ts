import { nodeLab } from '../characterisation/lab-axes.ts';
import { estimatedSpectra, litModel } from '../characterisation/lit-model.ts';
import type { ColourLattice } from '../characterisation/lattice.ts';
import { nodePlaces } from '../characterisation/lattice.ts';
import { printed, type SentLattice } from '../characterisation/printed.ts';
import type { PrintModel } from '../characterisation/print-model.ts';
import { compensated } from '../characterisation/renderings.ts';
import { relativeToWhite } from '../colour/relative.ts';
import type { Lab } from '../colour/types.ts';
import { mapMesh, type GamutMesh } from '../gamut/mesh.ts';
import { indexMesh } from '../gamut/mesh-index.ts';
import { ROOM, type Glass } from '../light/glass.ts';
import { illuminantWhite } from '../colour/spectrum.ts';
import { labToXyz, xyzToLab } from '../colour/lab.ts';
import { COATING_CLASSES, type CoatingClass } from '../paper.ts';
import type { ViewingLight } from '../light/table-lights.ts';
import type { EstimatedWhite } from '../characterisation/packed.ts';
import { lighting, litLabs, litXyz, withGlow } from '../light/lit-sheet.ts';
import type { PrintedSheet, SheetQualities } from './sheet.ts';

/** A bare sheet with sheen mirrors so much of the room, at the angles from which a print is looked at (our own estimate). */
export const MIRRORS = 0.04 * 0.25;

/** A lattice of absolute colours, relative to its white. @param white as the eye or the instrument has it */
function relative(lattice: ColourLattice, white: Lab): PrintedSheet {
  const toRelative = relativeToWhite(white);
  const values = new Float32Array(lattice.values.length);
  for (let n = 0; n < values.length; n += 3)
    values.set(toRelative([lattice.values[n]!, lattice.values[n + 1]!, lattice.values[n + 2]!]), n);
  return { lattice: { ...lattice, values }, white, blackL: blackOf(lattice.nodes, values) };
}

/** L* at the file's black: L* 0, a* and b* in the middle. */
function blackOf(nodes: number, values: Float32Array): number {
  const middle = (nodes - 1) / 2;
  return Math.max(0, values[(middle * nodes + middle) * 3]!);
}

const whiteOf = ({ values }: ColourLattice): Lab => [
  values[values.length - 3]!,
  values[values.length - 2]!,
  values[values.length - 1]!,
];

/** As an instrument reads it. */
export const layBare = (sent: SentLattice, model: PrintModel): PrintedSheet =>
  relative(printed(sent, model.labs), whiteOf(model.labs));

/**
 * As it is seen where it will hang: in that light, behind that glass, with what the room's light lays over it.
 * @throws ModelFault where the readings hold no spectra
 */
export function laySeen(
  sent: SentLattice,
  model: PrintModel,
  { light, glass, coating }: { light: ViewingLight; glass: Glass; coating?: CoatingClass },
): PrintedSheet {
  const reference = light.key === 'D50' && glass.key === 'none';
  const lit = reference ? model.labs : litModel(model, light.power, glass);
  const sheen = glass.key === 'none' && coating ? COATING_CLASSES[coating].sheen * MIRRORS * ROOM : 0;
  const estimatedWhite = reference ? undefined : whiteBetween(model, light, glass);
  return { ...relative(printed(sent, sheen > 0 ? veiled(lit, sheen) : lit), whiteOf(lit)), estimatedWhite };
}

/** Where the white's b* lies nine times in ten; undefined where its brightener was read, or can't be estimated. */
function whiteBetween(model: PrintModel, light: ViewingLight, glass: Glass): EstimatedWhite | undefined {
  const sheet = estimatedSpectra(model);
  if (!sheet?.estimated || !sheet.luminous) return undefined;
  const { bands, estimated } = sheet;
  const from = sheet.reflected.length - bands;
  const white = { ...sheet, reflected: sheet.reflected.slice(from), luminous: sheet.luminous.slice(from) };
  const under = lighting(light.power, glass, white);
  const [p, q] = [estimated.least, estimated.most].map(
    (share) => litLabs(litXyz(withGlow(white, share), under), under)[0]![2],
  ) as [number, number];
  return { between: [Math.min(p, q), Math.max(p, q)], startsLate: estimated.startsLate };
}

/** What is known of a brightener that was not read, in a light that bears on it: an estimate, or nothing. */
export const brightenerKnown = (
  unread: boolean,
  { estimatedWhite }: Pick<PrintedSheet, 'estimatedWhite'>,
): Pick<SheetQualities, 'brightenerUnknown' | 'estimatedWhite'> =>
  unread ? (estimatedWhite ? { estimatedWhite } : { brightenerUnknown: true }) : {};

/** Colours with a share of the room's white over them. */
function veiled(lattice: ColourLattice, share: number): ColourLattice {
  const white = illuminantWhite();
  const values = new Float32Array(lattice.values.length);
  for (let n = 0; n < values.length; n += 3) {
    const xyz = labToXyz([lattice.values[n]!, lattice.values[n + 1]!, lattice.values[n + 2]!]);
    values.set(xyzToLab([xyz[0] + share * white[0], xyz[1] + share * white[1], xyz[2] + share * white[2]]), n);
  }
  return { ...lattice, values };
}

/**
 * A sheet of which only the solid of its colours is known (CMYK sets, sets without device values): what lies within
 * comes out, the rest at the nearest colour of its surface.
 */
export function laySolid(mesh: GamutMesh, white: Lab, black: Lab, grid = 33): PrintedSheet {
  const toRelative = relativeToWhite(white);
  const gamut = indexMesh(mapMesh(mesh, toRelative));
  const blackL = Math.max(0, toRelative(black)[0]);
  const aim = compensated(0, blackL);
  const values = new Float32Array(grid ** 3 * 3);
  let n = 0;
  for (const at of nodePlaces(3, grid)) {
    const wanted = aim(nodeLab(at));
    values.set(gamut.contains(wanted) ? wanted : gamut.nearest(wanted).lab, n * 3);
    n++;
  }
  return { lattice: { axes: 3, nodes: grid, values }, white, blackL };
}
