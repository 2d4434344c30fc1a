import type { LitCondition } from './use-light.ts';

const SIZE = 232;
const EDGE = 14;
const STEP = 40;
const LINES = ['', '5 3'] as const;
const HANDS = ['left', 'right'] as const;
/** Words over lines: the ground around each keeps them apart. */
const HALO = { stroke: 'var(--ground)', strokeWidth: 3, paintOrder: 'stroke' } as const;

/** The two in hand from above: the greatest chroma of each at every hue, the left sheet's line whole, the right one's broken. */
export function PairDrawn({ left, right }: { left: LitCondition; right: LitCondition }) {
  const outlines = [left, right].map((c) => c.facts?.outline ?? []);
  if (outlines.some((points) => points.length === 0)) return null;
  const reach = Math.max(...outlines.flat().map((p) => p.chroma));
  const range = Math.ceil((reach + 6) / 20) * 20;
  const scale = (SIZE / 2 - EDGE) / range;
  const at = ({ a, b }: { a: number; b: number }) =>
    [SIZE / 2 + a * scale, SIZE / 2 - b * scale].map((v) => v.toFixed(1)).join(' ');
  const rings = Array.from({ length: Math.floor(range / STEP) }, (_, i) => (i + 1) * STEP);
  return (
    <figure className="shrink-0">
      <svg
        width={SIZE}
        height={SIZE}
        viewBox={`0 0 ${SIZE} ${SIZE}`}
        role="img"
        aria-label={`Greatest chroma of ${left.paper.name}, a whole line, and ${right.paper.name}, a broken line, at every hue`}
      >
        {rings.map((c) => (
          <circle key={c} cx={SIZE / 2} cy={SIZE / 2} r={c * scale} fill="none" stroke="var(--line)" />
        ))}
        <path d={`M${EDGE} ${SIZE / 2}H${SIZE - EDGE}M${SIZE / 2} ${EDGE}V${SIZE - EDGE}`} stroke="var(--edge)" />
        {outlines.map((points, i) => (
          <path
            key={HANDS[i]}
            d={`M${points.map(at).join('L')}Z`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={i === 0 ? 2 : 1.6}
            strokeDasharray={LINES[i]}
          />
        ))}
        {HANDS.map((hand, i) => {
          // Named where it lies furthest out of the other, or else least within it: on that side of its line.
          const [own, other] = [outlines[i], outlines[1 - i]];
          const apart = own.map((p, k) => p.chroma - other[k].chroma);
          const most = Math.max(...apart);
          const p = own[apart.indexOf(most)];
          const side = most > 0 ? 1 : -1;
          const by = (p.chroma + (side * 11) / scale) / Math.max(1, p.chroma);
          const [x, y] = at({ a: p.a * by, b: p.b * by }).split(' ');
          return (
            <text
              key={hand}
              x={x}
              y={y}
              textAnchor={p.a * side < 0 ? 'end' : 'start'}
              className="fill-ink text-[11px]"
              {...HALO}
            >
              {hand}
            </text>
          );
        })}
        <g className="fill-quiet text-[10.5px]" {...HALO}>
          <text x={SIZE - EDGE + 2} y={SIZE / 2 - 4} textAnchor="end">
            a*
          </text>
          <text x={SIZE / 2 + 4} y={EDGE + 4}>
            b*
          </text>
          {rings.map((c) => (
            <text key={c} x={SIZE / 2 + c * scale - 2} y={SIZE / 2 + 11} textAnchor="end">
              {c}
            </text>
          ))}
        </g>
      </svg>
    </figure>
  );
}
