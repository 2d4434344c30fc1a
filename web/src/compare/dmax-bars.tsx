import { Bar, BarChart, CartesianGrid, Cell, ErrorBar, LabelList, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { comparable } from '@rakuen/core/measurement/basis';
import type { LitCondition } from './use-light.ts';
import { dmax } from '@rakuen/core/measurement/measures/dmax';
import { formatFigure } from '@rakuen/core/measurement/show';
import { AXIS } from '../parts/chart.ts';
import { MARKS } from '../parts/marks.ts';
import { screenColour } from '../parts/screen-colour.ts';

const TICK_D = 0.5;

/** Dmax of each paper, blackest first. Each bar is filled with that paper's own black, as far as the screen can show it. */
export function DmaxBars({ laid, inHand }: { laid: LitCondition[]; inHand: (c: LitCondition) => boolean }) {
  // Blacks in another light, or read otherwise, are not put in one order.
  const alike = new Set(comparable(dmax, laid));
  const data = laid
    .flatMap((c, i) => {
      const figures = alike.has(c) ? c.facts?.figures : undefined;
      if (figures?.dmax.shape !== 'scalar' || figures.black.shape !== 'colour') return [];
      return [
        {
          id: c.id,
          name: `${MARKS[i].letter}  ${c.paper.name}`,
          value: figures.dmax.value,
          spread: 1.96 * figures.dmax.sd,
          text: `${formatFigure(dmax, figures.dmax)} D`,
          css: screenColour(figures.black.lab).css,
          inHand: inHand(c),
        },
      ];
    })
    .sort((p, q) => q.value - p.value);
  if (data.length === 0) return null;
  const top = data[0].value + TICK_D / 2;
  return (
    <figure>
      <figcaption className="mb-1">
        <h3 className="text-[1.1rem]">Blackest black</h3>
        <p className="text-[13px] text-quiet">Dmax, absolute visual density; each bar in its own black</p>
      </figcaption>
      <div role="img" aria-label={data.map((d) => `${d.name}: ${d.text}`).join('; ')}>
        <ResponsiveContainer width="100%" height={data.length * 50 + 44}>
          <BarChart
            data={data}
            layout="vertical"
            margin={{ top: 4, right: 56, bottom: 18, left: 0 }}
            accessibilityLayer={false}
          >
            <CartesianGrid stroke="var(--line)" horizontal={false} />
            <XAxis
              type="number"
              domain={[0, top]}
              ticks={Array.from({ length: Math.floor(top / TICK_D) + 1 }, (_, i) => i * TICK_D)}
              {...AXIS}
              label={{ value: 'D', position: 'bottom', offset: 0, ...AXIS.label }}
            />
            <YAxis
              type="category"
              dataKey="name"
              width={132}
              {...AXIS}
              tick={{ ...AXIS.tick, fontSize: 13, fontFamily: 'var(--font-serif)' }}
            />
            <Bar dataKey="value" barSize={24} isAnimationActive={false}>
              {data.map((d) => (
                <Cell key={d.id} fill={d.css} stroke="var(--ink)" strokeWidth={d.inHand ? 2 : 0} />
              ))}
              <ErrorBar dataKey="spread" direction="x" stroke="var(--edge)" width={5} />
              <LabelList dataKey="text" position="right" fill="var(--ink)" fontSize={13} />
            </Bar>
          </BarChart>
        </ResponsiveContainer>
      </div>
    </figure>
  );
}
