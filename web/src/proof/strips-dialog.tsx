import { useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { StripsView } from '@rakuen/contract/strips';
import { EDGE_MM } from '@rakuen/core/proof/strips';
import { RECIPE_PARTS, type RecipeKey } from '@rakuen/core/proof/recipe';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useLight } from '../compare/use-light.ts';
import { useWriteNoteMutation } from '../ledger/ledger-api.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { Download } from '../parts/download.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { conditionLine } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { ScanHeld } from './scan-held.tsx';
import { useStripsQuery } from './recipe-api.ts';
import { useRecipe } from './use-recipe.ts';

const LADDERS: Readonly<Record<RecipeKey, string>> = {
  liftStops: '0, 0.25, 0.5',
  contrast: '-0.2, 0, 0.2',
  shadows: '0, 0.3, 0.6',
  lights: '0, 0.3, 0.6',
  localFine: '0, 0.2, 0.4',
  localBroad: '0, 0.2, 0.4',
  saturation: '-0.1, 0, 0.1',
  sharpening: '0, 0.5, 1',
};

/**
 * Strips of the marked places on small sheets of every paper on the table; what the eye finds best is judged, and goes
 * into the recipe and the ledger.
 */
export function StripsDialog({
  picture,
  conditions,
  onClose,
}: {
  picture: PictureView;
  conditions: readonly ConditionHead[];
  onClose: () => void;
}) {
  const { lights } = useLight();
  const [part, setPart] = useState<RecipeKey>('liftStops');
  const [steps, setSteps] = useState(LADDERS.liftStops);
  const [crop, setCrop] = useState('');
  const [margin, setMargin] = useState(String(EDGE_MM));
  // Which light it was looked at in is said by whoever looked, and not taken as said.
  const [light, setLight] = useState('');
  const [by, setBy] = useState('');
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title="Strips on paper"
      description={`Crops of ${picture.title} at the size of its print, from its marked places`}
    >
      <div className="grid grid-cols-3 gap-3">
        <ChoiceField
          label="What climbs"
          value={part}
          onChange={(e) => {
            const next = e.target.value as RecipeKey;
            setPart(next);
            setSteps(LADDERS[next]);
          }}
          options={(Object.keys(RECIPE_PARTS) as RecipeKey[])
            .filter((key) => key !== 'sharpening')
            .map((key) => [key, RECIPE_PARTS[key].name] as const)}
        />
        <TextField label="Steps" unit="commas between" value={steps} onChange={(e) => setSteps(e.target.value)} />
        <TextField
          label="Crop"
          unit="mm; empty: as the sheet allows"
          inputMode="numeric"
          value={crop}
          onChange={(e) => setCrop(e.target.value)}
        />
        <TextField
          label="Unprintable margin"
          unit="mm"
          inputMode="decimal"
          value={margin}
          onChange={(e) => setMargin(e.target.value)}
        />
        <ChoiceField
          label="Judged in"
          value={light}
          onChange={(e) => setLight(e.target.value)}
          options={[['', 'not set'], ...lights.map((l) => [l.key, l.name] as const)]}
        />
        <TextField label="By" maxLength={80} value={by} onChange={(e) => setBy(e.target.value)} />
      </div>
      <HowPrinted />
      {conditions.map((c) => (
        <StripsOn
          key={`${c.id} ${part} ${steps}`}
          picture={picture}
          condition={c}
          asked={{
            conditionId: c.id,
            part,
            steps,
            margin,
            ...(crop.trim() ? { cropWidth: crop, cropHeight: crop } : { fit: 'sheet' }),
          }}
          judged={{ by, light: lights.find((l) => l.key === light)?.name }}
        />
      ))}
    </Dialog>
  );
}

/** What is in the files, and how they are printed. */
function HowPrinted() {
  return (
    <p className="mt-2 text-[13px] text-quiet">
      Not sharpened. A TIFF with the condition’s own profile, or a PDF of true size with the same values in 8 bits.
      Print with the driver’s colour management off, let it dry, and look at it in the light of the place.
    </p>
  );
}

interface Asked extends Record<string, string> {
  readonly conditionId: string;
  readonly part: RecipeKey;
  readonly steps: string;
}

interface OnePaper {
  picture: PictureView;
  condition: ConditionHead;
  asked: Asked;
}
interface Judged {
  readonly by: string;
  readonly light?: string;
}

/** The small sheets of one paper, and what was best on them. */
function StripsOn({ judged, ...on }: OnePaper & { judged: Judged }) {
  const { picture, condition, asked } = on;
  const { data, error } = useStripsQuery({ pictureId: picture.id, ...asked });
  const [note, noting] = useWriteNoteMutation();
  return (
    <section aria-label={`Strips on ${condition.paper.name}`} className="mt-3 border-t border-line pt-2">
      <h3>
        {condition.paper.name} <span className="text-[13px] text-quiet">{conditionLine(condition)}</span>
      </h3>
      <ErrorNote error={error ?? noting.error} />
      {data && !error && (
        <>
          <SmallSheets {...on} strips={data} />
          <BestByEye {...on} judged={judged} />
          <ScanHeld
            pictureId={picture.id}
            asked={asked}
            sheets={data.sheets}
            paper={condition.paper.name}
            onEnter={(text) =>
              note({
                text,
                ...(judged.by.trim() && { by: judged.by }),
                pictureId: picture.id,
                conditionId: condition.id,
              }).unwrap()
            }
          />
        </>
      )}
    </section>
  );
}

/** How many there are, what lies on each, and their files. */
function SmallSheets({ picture, condition, asked, strips: data }: OnePaper & { strips: StripsView }) {
  const query = new URLSearchParams(asked).toString();
  return (
    <>
      <p>
        {data.sheets === 1 ? 'One small sheet' : `${data.sheets} small sheets`} of {formatNumber(data.sheetMm.width, 0)}{' '}
        × {formatNumber(data.sheetMm.height, 0)} mm, crops of {formatNumber(data.cropMm.width, 0)} ×{' '}
        {formatNumber(data.cropMm.height, 0)} mm
        {data.used.length > 0 &&
          `, ${formatNumber((data.used.reduce((a, b) => a + b, 0) / data.used.length) * 100, 0)} % of them printed on`}
        .
      </p>
      <ul>
        {data.on.map((s, i) => (
          <li key={i} className="flex flex-wrap items-baseline gap-x-4">
            {(['tif', 'pdf'] as const).map((as) => (
              <Download
                key={as}
                href={`/api/pictures/${picture.id}/strips.${as}?${query}&page=${i}`}
                label={`Write sheet ${i + 1} of the strips on ${condition.paper.name} as ${KINDS[as]}`}
              >
                Sheet {i + 1} as {KINDS[as]}
              </Download>
            ))}
            <span className="text-[13px] text-quiet">{s.places.join(', ')}</span>
          </li>
        ))}
      </ul>
      {data.lacking.length > 0 && (
        <p role="alert" className="font-semibold">
          Too wide for the sheet: {data.lacking.join(', ')}. Fewer steps, or a smaller crop.
        </p>
      )}
    </>
  );
}

/** The step that was best on paper: taken into the recipe, and entered in the ledger. */
function BestByEye({ picture, condition, asked, judged }: OnePaper & { judged: Judged }) {
  const at = useRecipe(picture.id, condition.id);
  const [write, writing] = useWriteNoteMutation();
  const [found, setFound] = useState<number>();
  const { part } = asked;
  const { name, written } = RECIPE_PARTS[part];
  const values = asked.steps.split(',').map((v) => Number(v.trim()));
  const take = (value: number) => {
    setFound(value);
    // Another word is another entry.
    writing.reset();
    at.set({ ...at.recipe, [part]: value });
  };
  const enter = () =>
    void write({
      text: `Best of the strips ${values.map(written).join(', ')}: ${name.toLowerCase()} ${written(found!)}. Judged by eye${judged.light ? ` in ${judged.light}` : ', the light not said'}.`,
      ...(judged.by.trim() && { by: judged.by }),
      pictureId: picture.id,
      conditionId: condition.id,
      finding: { part, value: found!, steps: asked.steps, ...(judged.light && { light: judged.light }) },
    });
  return (
    <>
      <ErrorNote error={writing.error} />
      <p className="-ml-1.5 flex flex-wrap items-baseline">
        <span className="ml-1.5 text-quiet">Best by eye:</span>
        {values
          .filter((v) => Number.isFinite(v))
          .map((v) => (
            <QuietButton
              key={v}
              aria-label={`${name} ${written(v)} was best on ${condition.paper.name}`}
              aria-pressed={at.recipe[part] === v}
              onClick={() => take(v)}
            >
              {name} {written(v)}
            </QuietButton>
          ))}
        {found !== undefined && (
          <Button disabled={writing.isLoading || writing.isSuccess} onClick={enter}>
            {writing.isSuccess ? 'It is in the ledger' : 'Enter it in the ledger'}
          </Button>
        )}
      </p>
    </>
  );
}

const KINDS = { tif: 'TIFF', pdf: 'PDF' } as const;
