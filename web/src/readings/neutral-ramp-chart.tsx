import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { RampStep } from '@rakuen/core/measurement/neutral-ramp';
import { AXIS } from '../parts/chart.ts';

/** The greys as printed: L* against step, and a* and b* beside it on their own scale. */
export function NeutralRampChart({ ramp }: { ramp: RampStep[] }) {
  const data = ramp.map((s) => ({ step: s.step * 100, L: s.lab[0], a: s.lab[1], b: s.lab[2] }));
  const most = Math.max(5, ...data.map((d) => Math.max(Math.abs(d.a), Math.abs(d.b))));
  const range = Math.ceil(most / 5) * 5;
  const worst = ramp.reduce((m, s) => (s.chromaOffLine > m.chromaOffLine ? s : m));
  return (
    <figure>
      <div
        className="grid grid-cols-2 gap-2"
        role="img"
        aria-label={`Neutral ramp of ${ramp.length} greys from L* ${ramp[0].lab[0].toFixed(1)} to ${ramp[ramp.length - 1].lab[0].toFixed(1)}; at most ${worst.chromaOffLine.toFixed(1)} ΔC* off the line, at step ${(worst.step * 100).toFixed(0)} %`}
      >
        <ResponsiveContainer width="100%" height={170}>
          <LineChart data={data} margin={{ top: 8, right: 8, bottom: 16, left: 0 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="step"
              type="number"
              domain={[0, 100]}
              ticks={[0, 25, 50, 75, 100]}
              {...AXIS}
              label={{ value: 'step, black to paper, %', position: 'bottom', offset: 0, ...AXIS.label }}
            />
            <YAxis domain={[0, 100]} ticks={[0, 25, 50, 75, 100]} width={34} {...AXIS} />
            <Line
              dataKey="L"
              stroke="var(--ink)"
              strokeWidth={1.6}
              dot={{ r: 1.6, fill: 'var(--ink)', stroke: 'none' }}
              isAnimationActive={false}
            />
          </LineChart>
        </ResponsiveContainer>
        <ResponsiveContainer width="100%" height={170}>
          <LineChart data={data} margin={{ top: 8, right: 18, bottom: 16, left: 0 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="step"
              type="number"
              domain={[0, 100]}
              ticks={[0, 25, 50, 75, 100]}
              {...AXIS}
              label={{ value: 'step, %', position: 'bottom', offset: 0, ...AXIS.label }}
            />
            <YAxis domain={[-range, range]} ticks={[-range, 0, range]} width={34} {...AXIS} />
            <Line dataKey="a" stroke="var(--ink)" strokeWidth={1.6} dot={false} isAnimationActive={false} />
            <Line
              dataKey="b"
              stroke="var(--ink)"
              strokeWidth={1.6}
              strokeDasharray="5 3"
              dot={false}
              isAnimationActive={false}
            />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="text-[13px] text-quiet">
        Left: L*. Right: a* solid, b* dashed. Furthest off the paper-to-black line: {worst.chromaOffLine.toFixed(1)} ΔC*
        at step {(worst.step * 100).toFixed(0)} %.
      </figcaption>
    </figure>
  );
}
