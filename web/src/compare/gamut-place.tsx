import { useEffect, useMemo, useState, type Dispatch, type SetStateAction } from 'react';
import { Progress, Slider } from 'radix-ui';
import { skipToken } from '@reduxjs/toolkit/query/react';
import { sliceAtHue, sliceAtLightness, type Segment } from '@rakuen/core/gamut/slices';
import { WORKING_SPACES, type WorkingSpace } from '@rakuen/core/gamut/working-spaces';
import type { Beyond } from '@rakuen/core/gamut/coverage';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import { abOutline } from '@rakuen/core/gamut/outline';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useAddProfileMutation, useProfileSolidQuery, useProfilesQuery, useRemoveProfileMutation } from '../api/api.ts';
import { QuietButton } from '../parts/button.tsx';
import { FileButton } from '../parts/file-button.tsx';
import { GamutOutline } from '../parts/gamut-outline.tsx';
import { MARKS } from '../parts/marks.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import type { Against } from './compare-worker.ts';
import type { CompareProps } from './compare-props.ts';
import { desk, proxy } from './desk.ts';
import { Solids, type NamedSolid } from './solids.tsx';
import { whyApart } from './why-apart.ts';

const SELECT = 'min-h-8 max-w-[30ch] rounded-[3px] border border-edge bg-field px-2';

/** The solids of the pair in hand and one beside them: turned, cut, and set against one another. */
export function GamutPlace({ laid, left, right, lit }: CompareProps) {
  const [beside, setBeside] = useState('');
  const [taken, setTaken] = useState('');
  const letter = (id: string) => letterOf(laid, id);
  const solids = useSolids({ laid, left, right, lit }, beside, taken);
  const without = [left, right].filter((c) => lit.ready && lit.settled && !lit.solids[c.id]);
  return (
    <div className="space-y-7">
      <div className="flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          <span className="text-quiet">Beside them</span>
          <BesideChoice
            value={beside}
            onChange={setBeside}
            others={laid
              .filter((c) => c.id !== left.id && c.id !== right.id)
              .map((c) => [c.id, `${letter(c.id)} ${c.paper.name}`] as const)}
          />
        </label>
        <ProfileIntake chosen={beside} onChoose={setBeside} />
      </div>
      {without.map((c) => (
        <p key={c.id} className="text-quiet">
          {c.paper.name}{' '}
          {c.underLight === 'no spectra'
            ? 'holds no spectra: its solid in this light is not known.'
            : 'encloses no gamut: it was printed in greys alone, or not read yet.'}
        </p>
      ))}
      {!lit.ready && <Waiting what="Fetching the solids" />}
      {solids.length > 0 && (
        <div className="grid grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)] gap-x-7 gap-y-6 max-[1150px]:grid-cols-1">
          <Solids solids={solids} onTake={setTaken} />
          <div className="space-y-5">
            {solids.slice(1).map((other) => (
              <Pair
                key={`${solids[0].id}/${other.id}`}
                first={solids[0]}
                second={other}
                apart={whyApart(solids[0], other, { laid, lit })}
              />
            ))}
          </div>
        </div>
      )}
      {solids.length > 0 && (
        <div className="grid grid-cols-2 gap-x-7 gap-y-6 max-[1150px]:grid-cols-1">
          <LightnessSlice solids={solids} />
          <HueSlice solids={solids} />
          <GamutOutline
            outlines={solids.map((s, i) => ({ id: s.id, name: s.name, points: abOutline(s.mesh), strong: i < 2 }))}
            height={340}
          />
        </div>
      )}
    </div>
  );
}

const letterOf = (laid: CompareProps['laid'], id: string) => MARKS[laid.findIndex((c) => c.id === id)]?.letter ?? '+';

/** The pair in hand and what lies beside it, as far as they are solids. */
function useSolids(
  { laid, left, right, lit }: Pick<CompareProps, 'laid' | 'left' | 'right' | 'lit'>,
  beside: string,
  taken: string,
): NamedSolid[] {
  const third = useBeside(beside, lit.solids);
  const letter = (id: string) => letterOf(laid, id);
  return useMemo(
    () =>
      [
        lit.solids[left.id] && {
          id: left.id,
          letter: letter(left.id),
          name: left.paper.name,
          mesh: lit.solids[left.id],
        },
        lit.solids[right.id] && {
          id: right.id,
          letter: letter(right.id),
          name: right.paper.name,
          mesh: lit.solids[right.id],
        },
        third.mesh && {
          id: beside,
          letter: laid.some((c) => c.id === beside) ? letter(beside) : '+',
          name: laid.find((c) => c.id === beside)?.paper.name ?? third.name ?? '',
          mesh: third.mesh,
        },
      ]
        .filter((s): s is NamedSolid => Boolean(s))
        // What is taken in hand is the body; the others lie about it as lines.
        .sort((p, q) => Number(q.id === taken) - Number(p.id === taken)),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [lit.solids[left.id], lit.solids[right.id], third.mesh, left.id, right.id, taken],
  );
}

/** Profiles that enclose a gamut; one that is known by its name alone does not. */
function useSolidProfiles() {
  const { data } = useProfilesQuery();
  return { data: useMemo(() => data?.filter((p) => p.volume !== undefined), [data]) };
}

/** The third solid: another paper of the table, a working space, or an imported profile. */
function useBeside(key: string, laid: Record<string, GamutMesh>): { mesh?: GamutMesh; name?: string } {
  const { data: profiles } = useSolidProfiles();
  const profile = profiles?.find((p) => p.id === key);
  const { currentData: solid } = useProfileSolidQuery(profile ? key : skipToken);
  const [space, setSpace] = useState<{ key: string; mesh: GamutMesh }>();
  const isSpace = key in WORKING_SPACES;
  useEffect(() => {
    if (!isSpace) return;
    let live = true;
    void desk()
      .space(key as WorkingSpace)
      .then((mesh) => live && setSpace({ key, mesh }));
    return () => void (live = false);
  }, [key, isSpace]);
  if (isSpace)
    return { mesh: space?.key === key ? space.mesh : undefined, name: WORKING_SPACES[key as WorkingSpace].name };
  if (profile) return { mesh: solid?.mesh, name: profile.name };
  return { mesh: laid[key] };
}

function BesideChoice({
  value,
  onChange,
  others,
}: {
  value: string;
  onChange: (key: string) => void;
  others: (readonly [string, string])[];
}) {
  const { data: profiles = [] } = useSolidProfiles();
  return (
    <select className={SELECT} value={value} onChange={(e) => onChange(e.target.value)}>
      <option value="">nothing</option>
      {others.length > 0 && (
        <optgroup label="On the table">
          {others.map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </optgroup>
      )}
      <optgroup label="Working spaces">
        {Object.entries(WORKING_SPACES).map(([key, s]) => (
          <option key={key} value={key}>
            {s.name}
          </option>
        ))}
      </optgroup>
      {profiles.length > 0 && (
        <optgroup label="Profiles">
          {profiles.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}, {p.space}
            </option>
          ))}
        </optgroup>
      )}
    </select>
  );
}

function ProfileIntake({ chosen, onChoose }: { chosen: string; onChoose: Dispatch<SetStateAction<string>> }) {
  const { data: profiles = [] } = useSolidProfiles();
  const [add, adding] = useAddProfileMutation();
  const [remove, removing] = useRemoveProfileMutation();
  return (
    <>
      <FileButton
        label="Bring a profile"
        accept=".icc,.icm"
        disabled={adding.isLoading}
        onFile={(file) => void add(file).then(({ data }) => data && onChoose(data.id))}
      />
      {profiles.some((p) => p.id === chosen) && (
        <QuietButton
          onClick={() =>
            // Another may have been chosen meanwhile.
            void remove(chosen).then(({ error }) => !error && onChoose((now) => (now === chosen ? '' : now)))
          }
        >
          Remove this profile
        </QuietButton>
      )}
      <ErrorNote error={adding.error ?? removing.error} />
    </>
  );
}

/** Two solids against one another, or why they are not held so. */
function Pair({ first, second, apart }: { first: NamedSolid; second: NamedSolid; apart?: string }) {
  return (
    <section aria-label={`${first.name} against ${second.name}`}>
      <h3 className="text-[1.1rem]">
        <b>{first.letter}</b> {first.name} against <b>{second.letter}</b> {second.name}
      </h3>
      {apart ? (
        <p className="mt-1 text-quiet">Drawn, and not held against each other: {apart}.</p>
      ) : (
        <AgainstEachOther first={first} second={second} />
      )}
    </section>
  );
}

/** Volumes, coverage each way, and where one reaches beyond the other; computed beside the screen. */
function AgainstEachOther({ first, second }: { first: NamedSolid; second: NamedSolid }) {
  const [share, setShare] = useState(0);
  const [against, setAgainst] = useState<Against>();
  useEffect(() => {
    let live = true;
    setShare(0);
    void desk()
      .against(
        first.mesh,
        second.mesh,
        // Word of what is done may come after the last word.
        proxy((done: number) => live && setShare((now) => Math.max(now, done))),
      )
      .then((found) => live && (setAgainst(found), setShare(1)));
    return () => void (live = false);
  }, [first.mesh, second.mesh]);
  const [p, q] = [`${first.letter} ${first.name}`, `${second.letter} ${second.name}`];
  return (
    <div aria-busy={share < 1}>
      {share < 1 && (
        <Progress.Root
          value={share}
          max={1}
          aria-label="Cutting the solids"
          className="h-2 overflow-hidden border border-edge bg-field"
        >
          <Progress.Indicator className="h-full bg-ink" style={{ width: `${100 * share}%` }} />
        </Progress.Root>
      )}
      {against && (
        <>
          <dl className="grid grid-cols-[1fr_auto] border-t border-edge">
            {(
              [
                [`Volume of ${p}`, `${cubic(against.volumes[0])} cubic Lab units`],
                [`Volume of ${q}`, `${cubic(against.volumes[1])} cubic Lab units`],
                ['In common', `${cubic(against.intersection)} cubic Lab units`],
                [`${first.letter} covers of ${second.letter}`, `${formatNumber(100 * against.firstCoversSecond, 1)} %`],
                [`${second.letter} covers of ${first.letter}`, `${formatNumber(100 * against.secondCoversFirst, 1)} %`],
              ] as const
            ).map(([what, figure]) => (
              <div key={what} className="contents [&>*]:border-b [&>*]:border-line [&>*]:py-1">
                <dt>{what}</dt>
                <dd className="text-right whitespace-nowrap">{figure}</dd>
              </div>
            ))}
          </dl>
          <ReachesBeyond one={first} other={second} beyond={against.firstBeyond} volume={against.volumes[0]} />
          <ReachesBeyond one={second} other={first} beyond={against.secondBeyond} volume={against.volumes[1]} />
        </>
      )}
    </div>
  );
}

const cubic = (v: number) => formatNumber(Math.round(v / 100) * 100, 0);
/** Less of a solid than this share is not worth a word. */
const WORTH_A_WORD = 0.004;
const MOST_WORDS = 4;

function ReachesBeyond({
  one,
  other,
  beyond,
  volume,
}: {
  one: NamedSolid;
  other: NamedSolid;
  beyond: readonly Beyond[];
  volume: number;
}) {
  const told = beyond.filter((b) => b.volume > WORTH_A_WORD * volume).slice(0, MOST_WORDS);
  return (
    <p className="mt-2 font-serif text-[1.05rem] leading-snug">
      {told.length === 0
        ? `${one.name} has nothing to speak of that ${other.name} has not.`
        : `${one.name} reaches beyond ${other.name} in ${told.map((b) => `${b.words} (L* ${formatNumber(Math.max(0, b.lowL), 0)}–${formatNumber(b.highL, 0)}, ${formatNumber((100 * b.volume) / volume, 1)} % of it)`).join(', ')}.`}
    </p>
  );
}

function SliceSlider({
  id,
  label,
  value,
  max,
  onChange,
}: {
  id: string;
  label: string;
  value: number;
  max: number;
  onChange: (v: number) => void;
}) {
  return (
    <div className="flex items-center gap-3">
      <span id={id} className="w-28 whitespace-nowrap">
        {label}
      </span>
      <Slider.Root
        className="relative flex h-6 flex-1 touch-none items-center"
        min={0}
        max={max}
        step={1}
        value={[value]}
        onValueChange={([v]) => onChange(v)}
      >
        <Slider.Track className="relative h-1 w-full bg-edge">
          <Slider.Range className="absolute h-full bg-ink" />
        </Slider.Track>
        <Slider.Thumb aria-labelledby={id} className="block size-5 rounded-full border-2 border-ink bg-field" />
      </Slider.Root>
    </div>
  );
}

function LightnessSlice({ solids }: { solids: NamedSolid[] }) {
  const [L, setL] = useState(50);
  return (
    <figure>
      <figcaption>
        <h3 className="text-[1.1rem]">Cut at a lightness</h3>
      </figcaption>
      <SliceSlider id="slice-lightness" label={`L* ${L}`} value={L} max={100} onChange={setL} />
      <SliceDrawing
        solids={solids}
        cut={(m) => sliceAtLightness(m, L)}
        box={[-130, -130, 260, 260]}
        axes={['a*', 'b*']}
        ticks={[-100, -50, 0, 50, 100]}
        label={`Cut at L* ${L}`}
      />
    </figure>
  );
}

function HueSlice({ solids }: { solids: NamedSolid[] }) {
  const [hue, setHue] = useState(40);
  return (
    <figure>
      <figcaption>
        <h3 className="text-[1.1rem]">Cut at a hue</h3>
      </figcaption>
      <SliceSlider id="slice-hue" label={`hue ${hue}°`} value={hue} max={359} onChange={setHue} />
      <SliceDrawing
        solids={solids}
        cut={(m) => sliceAtHue(m, hue)}
        box={[-8, -8, 150, 116]}
        axes={['C*', 'L*']}
        ticks={[0, 25, 50, 75, 100]}
        label={`Cut at hue ${hue} degrees`}
      />
    </figure>
  );
}

/** A cut drawn in the plane's own coordinates, up being more. */
function SliceDrawing({
  solids,
  cut,
  box,
  axes,
  ticks,
  label,
}: {
  solids: NamedSolid[];
  cut: (mesh: GamutMesh) => Segment[];
  box: [number, number, number, number];
  axes: [string, string];
  ticks: number[];
  label: string;
}) {
  const [x, y, w, h] = box;
  const path = (segments: Segment[]) =>
    segments
      .map(([x0, y0, x1, y1]) => `M${x0.toFixed(2)} ${(-y0).toFixed(2)}L${x1.toFixed(2)} ${(-y1).toFixed(2)}`)
      .join('');
  return (
    <svg
      role="img"
      aria-label={`${label}: ${solids.map((s) => `${s.letter} ${s.name}`).join(', ')}`}
      viewBox={`${x} ${-(y + h)} ${w} ${h}`}
      className="max-h-[340px] w-full"
    >
      {ticks.map((t) => (
        <g key={t}>
          <line x1={t} x2={t} y1={-(y + h)} y2={-y} stroke="var(--line)" strokeWidth={w / 700} />
          <line x1={x} x2={x + w} y1={-t} y2={-t} stroke="var(--line)" strokeWidth={w / 700} />
          <text x={t} y={-y - h * 0.008} fontSize={h / 30} textAnchor="middle" fill="var(--ink)">
            {formatNumber(t, 0)}
          </text>
          {t !== 0 && (
            <text x={x + w * 0.005} y={-t + h / 90} fontSize={h / 30} fill="var(--ink)">
              {formatNumber(t, 0)}
            </text>
          )}
        </g>
      ))}
      <text x={x + w - w * 0.01} y={-y - h * 0.05} fontSize={h / 26} textAnchor="end" fill="var(--ink)">
        {axes[0]}
      </text>
      <text x={x + w * 0.01} y={-(y + h) + h / 22} fontSize={h / 26} fill="var(--ink)">
        {axes[1]}
      </text>
      {solids.map((s, i) => {
        const dash = MARKS[i].dash
          ?.split(' ')
          .map((d) => (Number(d) * w) / 700)
          .join(' ');
        return (
          <path
            key={s.id}
            d={path(cut(s.mesh))}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={(w / 700) * (i === 0 ? 2.6 : 1.8)}
            strokeDasharray={dash}
            strokeLinecap="round"
          />
        );
      })}
    </svg>
  );
}
