import { Area, AreaChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { PictureFigures } from '@rakuen/core/picture/tally';
import { AXIS } from '../parts/chart.ts';

/** How much of the picture lies at each L*; a square-root scale, so that small shares still show. */
export function LightnessHistogram({ figures }: { figures: PictureFigures }) {
  const data = figures.lightness.map((share, L) => ({ L, height: Math.sqrt(share) }));
  return (
    <div
      role="img"
      aria-label={`Distribution of L*: from ${figures.darkL} to ${figures.lightL}, median ${figures.medianL}`}
      className="mt-3"
    >
      <ResponsiveContainer width="100%" height={130}>
        <AreaChart data={data} margin={{ top: 4, right: 8, bottom: 16, left: 8 }} accessibilityLayer={false}>
          <XAxis
            dataKey="L"
            type="number"
            domain={[0, 100]}
            ticks={[0, 25, 50, 75, 100]}
            {...AXIS}
            label={{
              value: 'L*, share of the picture on a square-root scale',
              position: 'bottom',
              offset: 0,
              ...AXIS.label,
            }}
          />
          <YAxis hide domain={[0, 'dataMax']} />
          <Area
            dataKey="height"
            type="step"
            stroke="var(--ink)"
            fill="var(--edge)"
            fillOpacity={0.55}
            isAnimationActive={false}
          />
        </AreaChart>
      </ResponsiveContainer>
    </div>
  );
}
