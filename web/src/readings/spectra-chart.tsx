import type { ReactNode } from 'react';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { formatNumber } from '@rakuen/core/measurement/show';
import type { ReadingSpectra } from '@rakuen/core/measurement/reading-spectra';
import { AXIS } from '../parts/chart.ts';

const TICKS_NM = [400, 500, 600, 700];
/** Tops a black's own axis may have, percent. */
const BLACK_TOPS = [0.5, 1, 2, 4, 10, 20, 100];

interface Band {
  readonly nm: number;
  readonly white: number;
  readonly black: number;
  readonly withoutUv?: number;
}

/**
 * Spectra of the white and, on an axis of its own, the black; where the paper was read without UV too, what the
 * brightener adds stands between the two whites.
 */
export function SpectraChart({ spectra }: { spectra: ReadingSpectra }) {
  const { startNm, stepNm, white, black, whiteWithoutUv } = spectra;
  const data = white.map((w, i): Band => ({
    nm: startNm + i * stepNm,
    white: w * 100,
    black: black[i] * 100,
    withoutUv: whiteWithoutUv && whiteWithoutUv[i] * 100,
  }));
  const peak = (key: 'white' | 'black') => Math.max(...data.map((d) => d[key]));
  const whiteTop = Math.max(100, Math.ceil(peak('white') / 10) * 10);
  const blackTop = BLACK_TOPS.find((top) => top >= peak('black')) ?? 100;
  return (
    <figure>
      <div
        role="img"
        aria-label={`Reflectance of white and black from ${startNm} nm; the white reaches ${peak('white').toFixed(0)} %, the black ${peak('black').toFixed(1)} %`}
        className="grid grid-cols-[1.5fr_1fr] gap-3"
      >
        <Chart data={data} top={whiteTop} ticks={[0, 25, 50, 75, 100]}>
          <Line dataKey="white" stroke="var(--ink)" strokeWidth={1.8} dot={false} isAnimationActive={false} />
          {whiteWithoutUv && (
            <Line
              dataKey="withoutUv"
              stroke="var(--ink)"
              strokeWidth={1.2}
              strokeDasharray="5 3"
              dot={false}
              isAnimationActive={false}
            />
          )}
        </Chart>
        <Chart data={data} top={blackTop} ticks={[0, blackTop / 2, blackTop]}>
          <Line dataKey="black" stroke="var(--ink)" strokeWidth={1.8} dot={false} isAnimationActive={false} />
        </Chart>
      </div>
      <figcaption className="text-[13px] text-quiet">
        Reflectance in %. Left: white solid{whiteWithoutUv && ', white without UV dashed'}. Right: black, on a scale of
        its own to {blackTop} %.
      </figcaption>
    </figure>
  );
}

/** Digits after the point that the finest of the ticks needs. */
const digitsOf = (ticks: readonly number[]) => Math.max(...ticks.map((v) => String(v).split('.')[1]?.length ?? 0));

function Chart({ data, top, ticks, children }: { data: Band[]; top: number; ticks: number[]; children: ReactNode }) {
  return (
    <ResponsiveContainer width="100%" height={180}>
      <LineChart data={data} margin={{ top: 8, right: 12, bottom: 16, left: 0 }} accessibilityLayer={false}>
        <CartesianGrid stroke="var(--line)" vertical={false} />
        <XAxis
          dataKey="nm"
          type="number"
          domain={[data[0].nm, data[data.length - 1].nm]}
          ticks={TICKS_NM}
          {...AXIS}
          label={{ value: 'nm', position: 'bottom', offset: 0, ...AXIS.label }}
        />
        <YAxis
          {...AXIS}
          domain={[0, top]}
          ticks={ticks}
          width={34}
          tickFormatter={(v: number) => formatNumber(v, digitsOf(ticks))}
        />
        {children}
      </LineChart>
    </ResponsiveContainer>
  );
}
