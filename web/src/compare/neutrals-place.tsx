import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { unlike } from '@rakuen/core/measurement/basis';
import { neutrality } from '@rakuen/core/measurement/measures/neutral-ramp';
import { firstSeparate, type Separation } from '@rakuen/core/measurement/measures/separation';
import type { RampStep } from '@rakuen/core/measurement/neutral-ramp';
import { formatNumber, supportedDigits } from '@rakuen/core/measurement/show';
import { AXIS } from '../parts/chart.ts';
import { conditionLine, settingLine } from '../parts/label.ts';
import { MARKS } from '../parts/marks.ts';
import { screenColour } from '../parts/screen-colour.ts';
import type { CompareProps } from './compare-props.ts';
import type { LitCondition } from './use-light.ts';

type WithRamp = LitCondition & { ramp: readonly RampStep[]; mark: (typeof MARKS)[number] };

/** The greys of all that lies on the table: how light, how neutral, and where the steps at both ends can be told apart. */
export function NeutralsPlace({ laid, left, right, thresholds }: CompareProps) {
  const shown = laid.flatMap((c, i): WithRamp[] =>
    c.facts?.ramp ? [{ ...c, ramp: c.facts.ramp, mark: MARKS[i] }] : [],
  );
  const without = laid.filter((c) => !c.facts?.ramp);
  const strong = (c: LitCondition) => c.id === left.id || c.id === right.id;
  if (shown.length === 0)
    return <p>None of these papers holds a neutral ramp of five greys or more that can be shown in this light.</p>;
  return (
    <div className="space-y-6">
      <div className="grid grid-cols-2 gap-x-6 gap-y-4">
        <RampChart
          title="Lightness"
          note="L* against step, black to paper"
          shown={shown}
          strong={strong}
          value={(s) => s.lab[0]}
          range={[0, 100]}
        />
        <RampChart
          title="Off the line"
          note="distance from the straight line between paper and black, ΔC*"
          shown={shown}
          strong={strong}
          value={(s) => s.chromaOffLine}
        />
        <RampChart
          title="Green to red"
          note="a* off the paper-to-black line"
          shown={shown}
          strong={strong}
          value={(s) => s.offLine[0]}
          centred
        />
        <RampChart
          title="Blue to yellow"
          note="b* off the paper-to-black line"
          shown={shown}
          strong={strong}
          value={(s) => s.offLine[1]}
          centred
        />
      </div>
      <Legend shown={shown} strong={strong} />
      <DrawnTogether shown={shown} />
      <section aria-label="Steps at both ends">
        <h3 className="text-[1.1rem]">Steps at both ends</h3>
        <p className="mb-2 text-[13px] text-quiet">
          The darkest and the lightest greys that were read, as far as this screen can show them; the mark stands under
          the first that is told from its end (ΔE00 {formatNumber(thresholds.deltaE.edgeToEdge, 1)}, your own
          threshold).
        </p>
        <div className="grid grid-cols-[auto_1fr_1fr] items-center gap-x-5 gap-y-3">
          {shown.map((c) => (
            <Ends key={c.id} condition={c} threshold={thresholds.deltaE.edgeToEdge} />
          ))}
        </div>
      </section>
      {without.length > 0 && (
        <p className="text-quiet">
          No neutral ramp, or none for this light: {without.map((c) => c.paper.name).join(', ')}.
        </p>
      )}
    </div>
  );
}

/** Ramps that rest on other things than the first one's are drawn all the same, and that is said. */
function DrawnTogether({ shown: [first, ...others] }: { shown: readonly WithRamp[] }) {
  return others.map((c) => {
    const why = unlike(neutrality, first, c);
    return (
      why && (
        <p key={c.id} className="text-quiet">
          {first.paper.name} and {c.paper.name} are drawn together, and not to be held against each other: {why}.
        </p>
      )
    );
  });
}

function RampChart({
  title,
  note,
  shown,
  strong,
  value,
  range,
  centred = false,
}: {
  title: string;
  note: string;
  shown: WithRamp[];
  strong: (c: LitCondition) => boolean;
  value: (s: RampStep) => number;
  range?: [number, number];
  centred?: boolean;
}) {
  const most = Math.max(1, ...shown.flatMap((c) => c.ramp.map((s) => Math.abs(value(s)))));
  const top = most <= 2 ? 2 : Math.ceil(most / 2) * 2;
  const domain = range ?? (centred ? [-top, top] : [0, top]);
  const ticks = range ? [0, 25, 50, 75, 100] : centred ? [-top, 0, top] : [0, top / 2, top];
  return (
    <figure>
      <figcaption>
        <h3 className="text-[1.1rem]">{title}</h3>
        <p className="text-[13px] text-quiet">{note}</p>
      </figcaption>
      <div
        role="img"
        aria-label={`${title}: ${shown.map((c) => `${c.mark.letter}, ${c.paper.name}, at most ${formatNumber(Math.max(...c.ramp.map((s) => Math.abs(value(s)))), 1)}`).join('; ')}`}
      >
        <ResponsiveContainer width="100%" height={190}>
          <LineChart margin={{ top: 8, right: 14, bottom: 16, left: 0 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="step"
              type="number"
              domain={[0, 100]}
              ticks={[0, 25, 50, 75, 100]}
              {...AXIS}
              label={{ value: 'step, %', position: 'bottom', offset: 0, ...AXIS.label }}
              allowDuplicatedCategory={false}
            />
            <YAxis domain={domain} ticks={ticks} width={34} {...AXIS} />
            {shown.map((c) => (
              <Line
                key={c.id}
                data={c.ramp.map((s) => ({ step: s.step * 100, value: value(s) }))}
                dataKey="value"
                stroke="var(--ink)"
                strokeWidth={strong(c) ? 2.2 : 1}
                strokeDasharray={c.mark.dash}
                dot={false}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
    </figure>
  );
}

function Legend({ shown, strong }: { shown: WithRamp[]; strong: (c: LitCondition) => boolean }) {
  return (
    <ul className="flex flex-wrap gap-x-6 gap-y-1">
      {shown.map((c) => (
        <li key={c.id} className="flex items-center gap-2">
          <svg width={34} height={10} aria-hidden>
            <line
              x1={0}
              x2={34}
              y1={5}
              y2={5}
              stroke="var(--ink)"
              strokeWidth={strong(c) ? 2.2 : 1}
              strokeDasharray={c.mark.dash}
            />
          </svg>
          <span>
            <b className="font-serif">{c.mark.letter}</b> {c.paper.name}
            {c.printMode !== 'colour through a profile' && <span className="text-quiet">, {c.printMode}</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** So much of the ramp counts as an end. */
const END = 0.16;

function Ends({ condition: c, threshold }: { condition: WithRamp; threshold: number }) {
  const dark = c.ramp.filter((s) => s.step <= END);
  const light = c.ramp.filter((s) => s.step >= 1 - END);
  return (
    <>
      <p className="min-w-0">
        <b className="font-serif">{c.mark.letter}</b> <span className="font-serif">{c.paper.name}</span>
        <span className="block max-w-48 truncate text-[12px] text-quiet" title={conditionLine(c)}>
          {settingLine(c)}
          {c.printMode !== 'colour through a profile' && `, ${c.printMode}`}
        </span>
      </p>
      <Steps steps={dark} first={firstSeparate(c.ramp, 'black', threshold)} end="black" />
      <Steps steps={light} first={firstSeparate(c.ramp, 'white', threshold)} end="white" />
    </>
  );
}

function Steps({ steps, first, end }: { steps: readonly RampStep[]; first?: Separation; end: 'black' | 'white' }) {
  const from = (s: RampStep) => (end === 'black' ? s.step : 1 - s.step) * 100;
  const words = first
    ? `first separate at ${formatNumber(first.percent, supportedDigits(first.gap / 2, 1))} % from ${end}, read in steps of ${formatNumber(first.gap, 1)} %`
    : `no step can be told from ${end}`;
  // The steps run dark to light at either end; the marked one is the first, from that end, that lies beyond.
  const beyond = steps.filter((s) => first !== undefined && from(s) >= first.percent - 1e-6);
  const marked = beyond.at(end === 'black' ? 0 : -1);
  return (
    <div className="min-w-0">
      <div className="flex" role="img" aria-label={`Steps from ${end}: ${words}`}>
        {steps.map((s) => {
          const isFirst = s === marked;
          return (
            <div key={s.step} className="min-w-0 flex-1">
              <div
                className="h-9"
                style={{ background: screenColour(s.lab).css }}
                title={`step ${formatNumber(s.step * 100, 1)} %, L* ${formatNumber(s.lab[0], 1)}`}
              />
              <div className="h-3 text-center text-[11px] leading-3">{isFirst && '▲'}</div>
            </div>
          );
        })}
      </div>
      <p className="text-[12.5px] text-quiet">{words}</p>
    </div>
  );
}
