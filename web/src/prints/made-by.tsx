import type { PrintLook } from '@rakuen/contract/prints';
import { recipeChanges, recipeLine, PLAIN } from '@rakuen/core/proof/recipe';
import { QuietButton } from '../parts/button.tsx';
import { day } from '../parts/label.ts';

/** Digits of a hash that are shown; the whole is in the title. */
const SHOWN = 12;

/** What a print is made by: the recipe with its version, the print file and the profile by their hashes. */
export function MadeBy({
  look: { print, newerRecipe },
  onTake,
}: {
  look: PrintLook;
  onTake?: (recipeId: string) => void;
}) {
  const { recipe, fileName, fileHash, profileHash } = print;
  return (
    <section aria-label="Made by" className="text-[13px]">
      <p>
        <span className="text-quiet">Recipe</span>{' '}
        {recipe ? (
          <>
            {recipe.name && <b>{recipe.name} </b>}
            version {recipe.version}, {day(recipe.changedAt)}: {recipeLine({ ...PLAIN, ...recipe.values })}
          </>
        ) : print.state === 'waiting' ? (
          'none: nothing is done to the picture'
        ) : print.pictureHash ? (
          'none saved'
        ) : (
          'not recorded'
        )}
      </p>
      {newerRecipe && (
        <p className="border-l-2 border-ink pl-2">
          {newerRecipe.name ? `The recipe “${newerRecipe.name}”` : 'A recipe'} of {day(newerRecipe.changedAt)} is newer:{' '}
          {recipeChanges({ ...PLAIN, ...recipe?.values }, { ...PLAIN, ...newerRecipe.values }).join(', ') ||
            'its name alone'}
          . {onTake && <QuietButton onClick={() => onTake(newerRecipe.id)}>Print by the newer recipe</QuietButton>}
        </p>
      )}
      <Hashed name="Print file" text={fileName} hash={fileHash} />
      <Hashed name="Profile" hash={profileHash} />
      {print.passed && (
        <p>
          <span className="text-quiet">Printed without</span> {print.passed.checks.join(', ')}: {print.passed.reason}
        </p>
      )}
      {print.state === 'printed' && (
        <p>
          <span className="text-quiet">Record</span> <b className="tabular-nums">{print.code}</b>
        </p>
      )}
    </section>
  );
}

/** A file by its name and its SHA-256. */
function Hashed({ name, text, hash }: { name: string; text?: string; hash?: string }) {
  if (!hash) return null;
  return (
    <p>
      <span className="text-quiet">{name}</span> {text}{' '}
      <span className="text-quiet tabular-nums" title={`SHA-256 ${hash}`}>
        SHA-256 {hash.slice(0, SHOWN)}…
      </span>
    </p>
  );
}
