import type { SpectralGrid } from '../measurement/reading.ts';
import type { PrintModel } from './print-model.ts';

/**
 * A model's spectra, luminescence included, at any device value and on any grid: between its nodes axis by axis,
 * between its bands linearly.
 * @param model of an RGB condition with spectra
 */
export function spectraOf(
  { spectra, nodes }: PrintModel,
  to: SpectralGrid,
): { readonly print: (device: readonly number[]) => Float64Array } {
  const { grid, reflected, luminous } = spectra!;
  const parts = [reflected, luminous].flatMap((p) =>
    p
      ? [
          {
            amounts: p.amounts,
            // Bands are taken over once for each component, not for each colour.
            directions: p.basis.directions.map((d) => onGrid(d, grid, to)),
          },
        ]
      : [],
  );
  return {
    print: (device) => {
      const out = new Float64Array(to.count);
      const place = device.map((v) => Math.min(1, Math.max(0, v)) * (nodes - 1));
      const low = place.map((p) => Math.min(nodes - 2, Math.floor(p)));
      for (let corner = 0; corner < 8; corner++) {
        let weight = 1;
        let node = 0;
        for (let x = 0; x < 3; x++) {
          const far = (corner >> x) & 1;
          const share = place[x]! - low[x]!;
          weight *= far ? share : 1 - share;
          node = node * nodes + low[x]! + far;
        }
        if (weight === 0) continue;
        for (const { amounts, directions } of parts) {
          const size = directions.length;
          for (let c = 0; c < size; c++) {
            const amount = weight * amounts[node * size + c]!;
            const d = directions[c]!;
            for (let i = 0; i < out.length; i++) out[i]! += amount * d[i]!;
          }
        }
      }
      return out;
    },
  };
}

function onGrid(values: ArrayLike<number>, from: SpectralGrid, to: SpectralGrid): Float64Array {
  return Float64Array.from({ length: to.count }, (_, i) => {
    const place = Math.min(from.count - 1, Math.max(0, (to.startNm + i * to.stepNm - from.startNm) / from.stepNm));
    const low = Math.min(from.count - 2, Math.floor(place));
    return values[low]! * (1 - (place - low)) + values[low + 1]! * (place - low);
  });
}
