import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { ReadingSpectra } from '@rakuen/core/measurement/reading-spectra';
import { AXIS } from '../parts/chart.ts';

const TICKS_NM = [400, 500, 600, 700];

/** Spectra of the white and the black; where the paper was read without UV too, what the brightener adds stands between the two whites. */
export function SpectraChart({ spectra }: { spectra: ReadingSpectra }) {
  const { startNm, stepNm, white, black, whiteWithoutUv } = spectra;
  const data = white.map((w, i) => ({ nm: startNm + i * stepNm, white: w * 100, black: black[i] * 100, withoutUv: whiteWithoutUv && whiteWithoutUv[i] * 100 }));
  const top = Math.max(100, Math.ceil(Math.max(...data.map((d) => d.white)) / 10) * 10);
  return (
    <figure>
      <div role="img" aria-label={`Reflectance of white and black from ${startNm} nm; the white reaches ${Math.max(...data.map((d) => d.white)).toFixed(0)} %, the black ${Math.max(...data.map((d) => d.black)).toFixed(1)} %`}>
        <ResponsiveContainer width="100%" height={180}>
          <LineChart data={data} margin={{ top: 8, right: 18, bottom: 16, left: 0 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis dataKey="nm" type="number" domain={[startNm, startNm + stepNm * (white.length - 1)]} ticks={TICKS_NM} {...AXIS} label={{ value: 'nm', position: 'bottom', offset: 0, ...AXIS.label }} />
            <YAxis domain={[0, top]} ticks={[0, 25, 50, 75, 100]} width={34} {...AXIS} />
            <Line dataKey="white" stroke="var(--ink)" strokeWidth={1.8} dot={false} isAnimationActive={false} />
            {whiteWithoutUv && <Line dataKey="withoutUv" stroke="var(--ink)" strokeWidth={1.2} strokeDasharray="5 3" dot={false} isAnimationActive={false} />}
            <Line dataKey="black" stroke="var(--ink)" strokeWidth={1.2} strokeDasharray="1.5 2.5" dot={false} isAnimationActive={false} />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="text-[13px] text-quiet">Reflectance in %. White solid{whiteWithoutUv && ', white without UV dashed'}, black dotted.</figcaption>
    </figure>
  );
}
