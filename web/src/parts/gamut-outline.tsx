import { CartesianGrid, ReferenceLine, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts';
import type { OutlinePoint } from '@rakuen/core/gamut/outline';
import { AXIS } from './chart.ts';
import { MARKS } from './marks.ts';

const STEP = 40;

export interface NamedOutline {
  readonly id: string;
  readonly name: string;
  readonly points: readonly OutlinePoint[];
  /** Drawn heavier: in hand. */
  readonly strong: boolean;
}

/** The shadow each gamut throws on the a*b* plane. Told apart by line pattern and letter, in the order in which they are given. */
export function GamutOutline({ outlines, height = 400 }: { outlines: readonly NamedOutline[]; height?: number }) {
  const drawn = outlines.map((o, i) => ({ ...o, mark: MARKS[i] })).filter((d) => d.points.length > 0);
  const several = outlines.length > 1;
  const most = Math.max(STEP, ...drawn.flatMap((d) => d.points.map((p) => Math.max(Math.abs(p.a), Math.abs(p.b)))));
  const range = Math.ceil((most + 4) / STEP) * STEP;
  const ticks = Array.from({ length: (2 * range) / STEP + 1 }, (_, i) => -range + i * STEP);
  return (
    <figure>
      <figcaption className="mb-1">
        <h3 className="text-[1.1rem]">Gamut outline</h3>
        <p className="text-[13px] text-quiet">Greatest chroma at any lightness, CIELAB a* b*</p>
      </figcaption>
      <div
        role="img"
        aria-label={`Gamut outlines of ${drawn.map((d) => (several ? `${d.mark.letter}, ${d.name}` : d.name)).join('; ')}`}
      >
        <ResponsiveContainer width="100%" height={height}>
          <ScatterChart margin={{ top: 8, right: 12, bottom: 18, left: 0 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" />
            <XAxis
              type="number"
              dataKey="a"
              domain={[-range, range]}
              ticks={ticks}
              {...AXIS}
              label={{ value: 'a*  green to red', position: 'bottom', offset: 0, ...AXIS.label }}
            />
            <YAxis
              type="number"
              dataKey="b"
              domain={[-range, range]}
              ticks={ticks}
              width={44}
              {...AXIS}
              label={{ value: 'b*  blue to yellow', angle: -90, position: 'insideLeft', offset: 8, ...AXIS.label }}
            />
            <ReferenceLine x={0} stroke="var(--edge)" />
            <ReferenceLine y={0} stroke="var(--edge)" />
            {drawn.map((d, i) => {
              // Each letter at a hue of its own, where the outlines lie apart.
              const labelled = several ? (i * 12 + 3) % d.points.length : -1;
              return (
                <Scatter
                  key={d.id}
                  data={[...d.points, d.points[0]].map((p, n) => ({
                    ...p,
                    letter: n === labelled ? d.mark.letter : undefined,
                  }))}
                  line={{ stroke: 'var(--ink)', strokeWidth: d.strong ? 2.4 : 1.1, strokeDasharray: d.mark.dash }}
                  shape={OutlineMark as never}
                  isAnimationActive={false}
                />
              );
            })}
          </ScatterChart>
        </ResponsiveContainer>
      </div>
      {several && <Legend drawn={drawn} />}
    </figure>
  );
}

function Legend({ drawn }: { drawn: readonly (NamedOutline & { mark: (typeof MARKS)[number] })[] }) {
  return (
    <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
      {drawn.map((d) => (
        <li key={d.id} className="flex items-center gap-2">
          <svg width={34} height={10} aria-hidden>
            <line
              x1={0}
              x2={34}
              y1={5}
              y2={5}
              stroke="var(--ink)"
              strokeWidth={d.strong ? 2.4 : 1.1}
              strokeDasharray={d.mark.dash}
            />
          </svg>
          <span>
            <b className="font-serif">{d.mark.letter}</b> {d.name}
          </span>
        </li>
      ))}
    </ul>
  );
}

function OutlineMark({ cx, cy, payload }: { cx: number; cy: number; payload: { letter?: string } }) {
  if (!payload.letter) return <g />;
  return (
    <g>
      <circle cx={cx} cy={cy} r={9} fill="var(--ground)" stroke="var(--ink)" />
      <text
        x={cx}
        y={cy + 4}
        textAnchor="middle"
        fontSize={12}
        fontWeight={600}
        fill="var(--ink)"
        fontFamily="var(--font-serif)"
      >
        {payload.letter}
      </text>
    </g>
  );
}
