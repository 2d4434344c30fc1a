/** Small sheets, mm: how many strips lie on one is a matter of whole numbers. */
const SHEETS = [
  [148, 105],
  [210, 148],
  [297, 210],
];
const CROPS_MM = [30, 48, 60];
const STEPS = [1, 2, 3];
const MOST_PLACES = 6;

/** @returns [small sheets the plan takes, the fewest there can be], summed over every case of up to six crops that finds room */
export function stripLayout({ planStrips, CAPTION_MM, EDGE_MM, GAP_MM, MARK_BAND_MM }, PLAIN) {
  let [taken, least] = [0, 0];
  for (const [widthMm, heightMm] of SHEETS)
    for (const crop of CROPS_MM)
      for (const steps of STEPS)
        for (let places = 1; places <= MOST_PLACES; places++) {
          const { sheets, lacking } = planStrips({
            places: Array.from({ length: places }, (_, i) => ({ name: `${i}`, x: 0.5, y: 0.5 })),
            ladder: { key: 'liftStops', values: Array.from({ length: steps }, (_, i) => i / 4) },
            recipe: PLAIN,
            cropMm: { width: crop, height: crop },
            printMm: { width: 420, height: 280 },
            sheet: { widthMm, heightMm },
          });
          // Strips of one size lie in rows and columns: so many to a sheet, and no more.
          const along = (whole, piece) => Math.floor((whole - 2 * EDGE_MM - MARK_BAND_MM + GAP_MM) / (piece + GAP_MM));
          const each = along(widthMm, crop * steps) * along(heightMm, crop + CAPTION_MM);
          if (each === 0) continue;
          if (lacking.length > 0) throw new Error('A strip that has room was left out.');
          taken += sheets.length;
          least += Math.ceil(places / each);
        }
  return [taken, least];
}
