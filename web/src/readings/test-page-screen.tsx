import { useEffect, useState } from 'react';
import { SHEET_SIZES } from '@rakuen/core/chart/sheet-sizes';
import { TEST_PAGE_SHEETS } from '@rakuen/core/chart/test-page';
import type { ConditionHead } from '@rakuen/contract/conditions';
import { useConditionsQuery } from '../api/api.ts';
import { Download } from '../parts/download.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { Caution, Waiting } from '../parts/messages.tsx';
import { useTable } from '../table/use-table.ts';
import { BenchHead } from './bench-head.tsx';

const SHEETS = TEST_PAGE_SHEETS.map((key) => [key, SHEET_SIZES[key].name] as const);
const SETTLE_MS = 350;
/** Coarse: to look at on the screen. */
const LOOK_DPI = '100';

const BOXES = [
  ['paper', 'Paper'],
  ['printer', 'Printer'],
  ['mediaSetting', 'Media setting'],
  ['printMode', 'Print mode'],
  ['resolution', 'Resolution'],
  ['date', 'Date'],
] as const;
type Settings = Record<(typeof BOXES)[number][0], string>;

const NOTHING: Settings = {
  paper: '',
  printer: '',
  mediaSetting: '',
  printMode: '',
  resolution: '',
  date: day(new Date().toISOString()),
};
const settingsOf = (c: ConditionHead): Settings => ({
  ...NOTHING,
  paper: `${c.paper.maker} ${c.paper.name}`,
  printer: c.printer,
  mediaSetting: c.mediaSetting,
  printMode: c.blackOvercoat ? `${c.printMode}, black overcoat` : c.printMode,
  resolution: c.resolution,
});

/** The test page for the eye, with what it is printed with in its margin. */
export function TestPageScreen() {
  const { data: conditions, isLoading } = useConditionsQuery();
  const { left } = useTable();
  if (isLoading) return <Waiting what="Fetching the print conditions" />;
  return <TestPage conditions={conditions ?? []} start={left ?? conditions?.[0]} />;
}

function TestPage({ conditions, start }: { conditions: ConditionHead[]; start?: ConditionHead }) {
  const [chosen, setChosen] = useState(start?.id ?? '');
  const [settings, setSettings] = useState(start ? settingsOf(start) : NOTHING);
  const [sheet, setSheet] = useState<string>('A4');
  const [dpi, setDpi] = useState('360');
  const asked = useSettled(new URLSearchParams({ sheet, ...settings }).toString());
  const valid = Number.isInteger(Number(dpi)) && Number(dpi) >= 72 && Number(dpi) <= 400;
  const choose = (id: string) => {
    setChosen(id);
    const condition = conditions.find((c) => c.id === id);
    if (condition) setSettings(settingsOf(condition));
  };
  const file = (as: string) => `/api/test-page?as=${as}&dpi=${dpi}&${asked}`;
  return (
    <>
      <BenchHead title="Test page" question="What does the eye find on this sheet, before any instrument?" />
      <div className="grid grid-cols-[minmax(0,0.8fr)_minmax(0,1fr)] gap-x-8 gap-y-6">
        <form aria-label="Test page" className="space-y-3" onSubmit={(e) => e.preventDefault()}>
          {conditions.length > 0 && (
            <ChoiceField
              label="For"
              value={chosen}
              onChange={(e) => choose(e.target.value)}
              options={[
                ...(chosen ? [] : [['', 'no print condition'] as const]),
                ...conditions.map((c) => [c.id, `${c.paper.name}, ${conditionLine(c)}`] as const),
              ]}
            />
          )}
          <Margin settings={settings} onWrite={setSettings} />
          <div className="grid grid-cols-2 gap-x-4">
            <ChoiceField label="Sheet" options={SHEETS} value={sheet} onChange={(e) => setSheet(e.target.value)} />
            <TextField
              label="Resolution of the file"
              unit="dpi"
              inputMode="numeric"
              value={dpi}
              onChange={(e) => setDpi(e.target.value)}
              error={valid ? undefined : 'A whole number from 72 to 400.'}
            />
          </div>
          {valid && <TakeAway file={file} />}
          <LookFor />
          <Caution>Print heads and cutters move without warning: power off before you reach in.</Caution>
        </form>
        <figure>
          <img
            src={`/api/test-page?as=png&dpi=${LOOK_DPI}&${asked}`}
            alt={`The test page on ${sheet}, with its settings in the margin`}
            className="w-full border border-edge"
          />
          <figcaption className="mt-1 text-[13px] text-quiet">
            Device values as this screen shows them, at {LOOK_DPI} dpi: fine rings and hairlines are truer in the file.
          </figcaption>
        </figure>
      </div>
    </>
  );
}

function Margin({ settings, onWrite }: { settings: Settings; onWrite: (settings: Settings) => void }) {
  return (
    <fieldset>
      <legend className="mb-1 font-serif text-[1.05rem]">In its margin</legend>
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        {BOXES.map(([key, label]) => (
          <TextField
            key={key}
            label={label}
            maxLength={key === 'date' || key === 'resolution' ? 40 : 120}
            value={settings[key]}
            onChange={(e) => onWrite({ ...settings, [key]: e.target.value })}
          />
        ))}
      </div>
    </fieldset>
  );
}

function TakeAway({ file }: { file: (as: string) => string }) {
  return (
    <p className="flex flex-wrap gap-x-4">
      Save as:
      <Download href={file('tiff')} label="Test page as TIFF">
        TIFF, 16 bits, no profile
      </Download>
      <Download href={file('pdf')} label="Test page as PDF">
        PDF
      </Download>
      <Download href={file('cgats')} label="Reference of the test page’s bar of greys, CGATS">
        reference of its greys
      </Download>
    </p>
  );
}

function LookFor() {
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 border-t border-line pt-3 text-[13px]">
      {LOOK_FOR.map(([what, look]) => (
        <div key={what} className="contents">
          <dt className="font-semibold">{what}</dt>
          <dd>{look}</dd>
        </div>
      ))}
    </dl>
  );
}

/** What to look for, in the order of the page (practice). */
const LOOK_FOR = [
  ['Rings', 'clean to the middle; blocked or with false rings: too much ink, or a wrong setting'],
  ['Steps at both ends', 'the first that stands clear of black, the last that stands clear of paper'],
  ['Type and hairlines', 'closed up: the ink spreads; broken: too little of it'],
  ['Greys', 'one hue from end to end; a turn on the way is a crossover'],
  ['Sweeps', 'no bands, no sudden change of hue'],
  ['Skins and memory colours', 'as the eye knows them, in the light they will hang in'],
] as const;

/** A value once it has stood still. */
function useSettled(value: string): string {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), SETTLE_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}
