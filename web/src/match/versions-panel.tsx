import { useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { RENDERING_NAMES, type RenderingKey } from '@rakuen/core/characterisation/renderings';
import { PLAIN, RECIPE_PARTS, recipeLine } from '@rakuen/core/proof/recipe';
import { Button } from '../parts/button.tsx';
import { decimal } from '../parts/decimal.ts';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useSuggestedQuery, useWriteRecipeMutation } from '../proof/recipe-api.ts';
import type { Ranked } from './use-ranking.ts';
import type { Versions } from './use-versions.ts';

/** Two renderings, two lifts, two recipes of one paper: each can stand as a place of its own. */
export function VersionsPanel({
  at,
  places,
  picture,
  versions,
}: Pick<Ranked, 'at' | 'places'> & { picture: PictureView; versions: Versions }) {
  const papers = places.flatMap((p) => (at.versionOf(p.id) ? [] : [p.id]));
  const own = versions.recipes.filter((r) => papers.includes(r.conditionId));
  return (
    <section aria-label="Versions" className="grid grid-cols-2 gap-x-8 gap-y-4 max-[1000px]:grid-cols-1">
      <div>
        <h3>Saved recipes of this picture</h3>
        {own.length === 0 && <p className="text-[13px] text-quiet">None yet on the papers that are ranked.</p>}
        <ul>
          {own.map((r) => (
            <li key={r.id} className="border-t border-line text-[13px]">
              <TickField
                label={`Rank ${at.conditionOf(r.conditionId)?.paper.name ?? 'a removed paper'}, ${r.name || 'working recipe'}`}
                checked={versions.chosen.includes(r.id)}
                onChange={(e) => versions.choose(r.id, e.target.checked)}
              />
              <p className="pb-1 pl-6 text-quiet">{recipeLine(r.values)}</p>
            </li>
          ))}
        </ul>
      </div>
      <NewVersion {...{ at, papers, picture }} onSaved={(id) => versions.choose(id, true)} />
    </section>
  );
}

const { least, most } = RECIPE_PARTS.liftStops;

function NewVersion({
  at,
  papers,
  picture,
  onSaved,
}: Pick<Ranked, 'at'> & { papers: readonly string[]; picture: PictureView; onSaved: (id: string) => void }) {
  const [conditionId, setConditionId] = useState(papers[0] ?? '');
  const [name, setName] = useState('');
  const [rendering, setRendering] = useState<RenderingKey>('relative');
  const [lift, setLift] = useState('0');
  const [suggested, setSuggested] = useState(false);
  const { data, isFetching } = useSuggestedQuery({ pictureId: picture.id, conditionId }, { skip: !suggested });
  const [write, { error, isLoading }] = useWriteRecipeMutation();
  const liftStops = decimal(lift);
  const wrong = lift.trim() === '' || !(liftStops >= least && liftStops <= most);
  const save = () =>
    void write({
      recipe: {
        pictureId: picture.id,
        conditionId,
        name: name.trim(),
        values: { ...PLAIN, ...(suggested && data?.best?.parts), rendering, liftStops },
      },
      from: 0,
    })
      .unwrap()
      .then(
        (kept) => {
          onSaved(kept.id);
          setName('');
        },
        () => undefined,
      );
  return (
    <form
      className="grid grid-cols-2 content-start gap-x-4 gap-y-2"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <h3 className="col-span-2">A new version</h3>
      <ChoiceField
        label="Paper"
        value={conditionId}
        options={papers.map((id) => [id, at.conditionOf(id)?.paper.name ?? ''] as const)}
        onChange={(e) => setConditionId(e.target.value)}
      />
      <TextField label="Name" needed maxLength={80} value={name} onChange={(e) => setName(e.target.value)} />
      <ChoiceField
        label="Rendering"
        value={rendering}
        options={Object.entries(RENDERING_NAMES)}
        onChange={(e) => setRendering(e.target.value as RenderingKey)}
      />
      <TextField
        label="Lift"
        unit="stops"
        inputMode="decimal"
        value={lift}
        error={wrong ? `A number from ${least} to ${most}` : undefined}
        onChange={(e) => setLift(e.target.value)}
      />
      <TickField
        label="With the suggested recipe"
        className="col-span-2"
        checked={suggested}
        onChange={(e) => setSuggested(e.target.checked)}
      />
      <div className="col-span-2">
        <ErrorNote error={error} />
        <Button type="submit" disabled={name.trim() === '' || wrong || isLoading || (suggested && isFetching)}>
          Add version
        </Button>
      </div>
    </form>
  );
}
