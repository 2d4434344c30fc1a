import { useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import { RECIPE_PARTS, recipeLine, toneOf, turned, type Recipe, type RecipeKey } from '@rakuen/core/proof/recipe';
import { Button, QuietButton } from '../parts/button.tsx';
import { Conflict } from '../parts/conflict.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { ForThisPicture } from './for-this-picture.tsx';
import { SurroundLine } from './surround-line.tsx';
import { useRemoveRecipeMutation, useSuggestedQuery } from './recipe-api.ts';
import type { RecipeAtHand } from './use-recipe.ts';

const KEYS = Object.keys(RECIPE_PARTS) as RecipeKey[];

/** The recipe of the print file as a note in pencil: a line a part, turned by steps. */
export function RecipeNote({
  pictureId,
  condition,
  at,
  before,
  against,
  onBefore,
  onAgainst,
}: {
  pictureId: string;
  condition: ConditionHead;
  at: RecipeAtHand;
  /** The picture is shown as it was before anything was done. */
  before: boolean;
  /** Kept version that the recipe is held against. */
  against?: string;
  onBefore: (before: boolean) => void;
  onAgainst: (id: string | undefined) => void;
}) {
  const { recipe } = at;
  const [naming, setNaming] = useState(false);
  return (
    <section aria-label={`Recipe for ${condition.paper.name}`} className="mt-3 border border-edge bg-field px-4 py-2.5">
      <div className="flex flex-wrap items-center justify-between gap-x-4">
        <h2 className="text-[1.05rem]">
          Recipe{' '}
          <span className="font-sans text-[13px] text-quiet">
            for {condition.paper.name}; the picture’s file stays as it is
          </span>
        </h2>
        <div className="flex flex-wrap gap-x-1">
          <QuietButton disabled={!at.undo} onClick={at.undo}>
            Undo
          </QuietButton>
          <QuietButton disabled={!at.redo} onClick={at.redo}>
            Redo
          </QuietButton>
          <QuietButton aria-pressed={before} onClick={() => onBefore(!before)}>
            {before ? 'Show with recipe' : 'Show original'}
          </QuietButton>
          <QuietButton onClick={() => setNaming(!naming)}>Save version</QuietButton>
        </div>
      </div>
      <Parts at={at} />
      <SurroundLine pictureId={pictureId} recipe={recipe} onSet={at.set} />
      {recipe.sharpening > 0 && (
        <p className="text-[12.5px] text-quiet">
          Sharpened in the written copy, {recipe.radiusMm.toFixed(2)} mm on paper; too fine for this screen, and not
          drawn here.
        </p>
      )}
      {naming && <NameIt onName={(name) => void at.keepAs(name).then(() => setNaming(false))} />}
      {at.kept.length > 0 && <Kept at={at} against={against} onAgainst={onAgainst} />}
      {at.conflict ? (
        <Conflict
          mine={recipe}
          theirs={at.conflict.theirs}
          onMine={at.conflict.keepMine}
          onTheirs={at.conflict.takeTheirs}
        />
      ) : (
        <ErrorNote error={at.error} />
      )}
      <Suggested pictureId={pictureId} conditionId={condition.id} at={at} />
    </section>
  );
}

/** Each part in its line, turned by steps, and the curve they make. */
function Parts({ at }: { at: RecipeAtHand }) {
  const { recipe } = at;
  return (
    <div className="mt-1 flex gap-x-6">
      <ul className="flex flex-wrap content-start gap-x-6 gap-y-1">
        {KEYS.map((key) => (
          <li key={key} className="flex items-center gap-1">
            <span className="text-quiet">{RECIPE_PARTS[key].name}</span>
            <Turn sign="−" label={`${RECIPE_PARTS[key].name} less`} onClick={() => at.set(turned(recipe, key, -1))} />
            <output aria-label={RECIPE_PARTS[key].name} className="min-w-[10.5ch] text-center font-serif tabular-nums">
              {RECIPE_PARTS[key].written(recipe[key])}
            </output>
            <Turn sign="+" label={`${RECIPE_PARTS[key].name} more`} onClick={() => at.set(turned(recipe, key, 1))} />
          </li>
        ))}
      </ul>
      <ToneDrawn recipe={recipe} />
    </div>
  );
}

function NameIt({ onName }: { onName: (name: string) => void }) {
  return (
    <form
      className="mt-1 flex items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const name = String(new FormData(e.currentTarget).get('name')).trim();
        if (name) onName(name);
      }}
    >
      <input
        name="name"
        aria-label="Name of this version"
        maxLength={80}
        autoFocus
        className="min-h-8 w-64 rounded-[3px] border border-edge bg-field px-2"
      />
      <Button type="submit">Save this version</Button>
    </form>
  );
}

/** Versions that were kept under a name. */
function Kept({
  at,
  against,
  onAgainst,
}: {
  at: RecipeAtHand;
  against?: string;
  onAgainst: (id: string | undefined) => void;
}) {
  const [remove, { error }] = useRemoveRecipeMutation();
  return (
    <>
      <ul aria-label="Kept versions" className="mt-1 text-[13px]">
        {at.kept.map((r) => (
          <li key={r.id}>
            <QuietButton onClick={() => at.set(r.values)}>{r.name}</QuietButton>
            <span className="text-quiet"> {recipeLine(r.values)} </span>
            <QuietButton
              aria-pressed={against === r.id}
              onClick={() => onAgainst(against === r.id ? undefined : r.id)}
              aria-label={`Compare with the version ${r.name}`}
            >
              {against === r.id ? 'Stop comparing' : 'Compare'}
            </QuietButton>
            <QuietButton onClick={() => void remove(r.id)} aria-label={`Remove the version ${r.name}`}>
              Remove
            </QuietButton>
          </li>
        ))}
      </ul>
      <ErrorNote error={error} />
    </>
  );
}

/** Places a curve is drawn by. */
const DRAWN_BY = 40;

/** The tones a recipe makes of those of the picture: what is below the thin line is darker than it was. */
function ToneDrawn({ recipe }: { recipe: Recipe }) {
  const at = Array.from({ length: DRAWN_BY + 1 }, (_, i) => (100 * i) / DRAWN_BY);
  const moved = at.map((l) => toneOf(recipe, l) - l);
  const furthest = moved.reduce((far, v, i) => (Math.abs(v) > Math.abs(moved[far]) ? i : far), 0);
  const words =
    Math.abs(moved[furthest]) < 0.05
      ? 'Every tone stays as it is'
      : `Most of all L* ${at[furthest].toFixed(0)} becomes ${(at[furthest] + moved[furthest]).toFixed(0)}`;
  return (
    <figure className="ml-auto w-[128px] shrink-0">
      <svg role="img" aria-label={`Tone curve. ${words}.`} viewBox="-2 -2 104 104" className="w-[76px]">
        <path d="M0 100L100 0" stroke="var(--line)" strokeWidth="1.5" />
        <path d="M0 0V100H100" stroke="var(--edge)" strokeWidth="1.5" fill="none" />
        <path
          d={at.map((l, i) => `${i === 0 ? 'M' : 'L'}${l.toFixed(1)} ${(100 - l - moved[i]).toFixed(2)}`).join('')}
          stroke="var(--ink)"
          strokeWidth="2.5"
          fill="none"
        />
      </svg>
      <figcaption className="text-[12px] leading-tight text-quiet">{words}</figcaption>
    </figure>
  );
}

function Turn({ sign, label, onClick }: { sign: string; label: string; onClick: () => void }) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={onClick}
      className="size-7 rounded-[3px] border border-edge bg-sheet text-center leading-none hover:bg-field"
    >
      {sign}
    </button>
  );
}

function Suggested({ pictureId, conditionId, at }: { pictureId: string; conditionId: string; at: RecipeAtHand }) {
  const { data } = useSuggestedQuery({ pictureId, conditionId });
  const open = data?.suggestions.filter((s) => at.recipe[s.key] !== s.value) ?? [];
  return (
    <>
      {data?.best && <ForThisPicture best={data.best} at={at} />}
      {open.length > 0 && (
        <details className="mt-1">
          <summary className="min-h-7 cursor-pointer text-[13px] text-quiet">
            For the room and the size: {open.length}
          </summary>
          <ul aria-label="Suggested">
            {open.map((s) => (
              <li key={s.key} className="flex items-baseline gap-3 py-0.5">
                <QuietButton
                  className="shrink-0"
                  onClick={() =>
                    at.set({
                      ...at.recipe,
                      [s.key]: s.value,
                      ...(s.radiusMm !== undefined && { radiusMm: s.radiusMm }),
                    })
                  }
                >
                  {RECIPE_PARTS[s.key].name} {RECIPE_PARTS[s.key].written(s.value)}
                </QuietButton>
                <span className="max-w-[88ch] font-serif text-[13px]">{s.sentence}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
