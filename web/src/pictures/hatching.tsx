import { useId } from 'react';

/** A map over a picture, as an engraver hatches: the denser, the more. @param level 0–9 by tile, row by row */
export function Hatching({
  columns,
  rows,
  level,
  label,
}: {
  columns: number;
  rows: number;
  level: (tile: number) => number;
  label: string;
}) {
  const id = useId();
  const strokes: string[] = [];
  for (let tile = 0; tile < columns * rows; tile++) {
    const [x, y] = [(tile % columns) * 10, Math.floor(tile / columns) * 10];
    const n = Math.ceil(Math.max(0, Math.min(9, level(tile))) / 3);
    for (let i = 0; i < n; i++) {
      // Lines of neighbours meet: a hatched area reads as one.
      const at = (i * 10) / n;
      strokes.push(`M${x + at} ${y}L${x} ${y + at}M${x + 10} ${y + at}L${x + at} ${y + 10}`);
    }
    if (n === 3) strokes.push(`M${x} ${y}L${x + 10} ${y + 10}`);
  }
  const d = strokes.join('');
  return (
    <svg
      role="img"
      aria-labelledby={id}
      viewBox={`0 0 ${columns * 10} ${rows * 10}`}
      preserveAspectRatio="none"
      className="pointer-events-none absolute inset-0 size-full"
    >
      <title id={id}>{label}</title>
      <path d={d} stroke="#fff" strokeWidth="2.4" vectorEffect="non-scaling-stroke" fill="none" opacity="0.55" />
      <path d={d} stroke="#000" strokeWidth="1" vectorEffect="non-scaling-stroke" fill="none" />
    </svg>
  );
}
