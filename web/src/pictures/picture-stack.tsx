import type { PictureView } from '@rakuen/contract/pictures';
import { sentenceCase } from '@rakuen/core/match/words';
import { QuietButton } from '../parts/button.tsx';
import { Draggable } from '../parts/draggable.tsx';
import { moveFocus } from '../parts/use-keys.ts';
import { useTable } from '../table/use-table.ts';

/** The other pictures, as a stack of which one is drawn. */
export function PictureStack({
  pictures,
  chosen,
  onChoose,
}: {
  pictures: readonly PictureView[];
  chosen?: string;
  onChoose: (id: string) => void;
}) {
  const table = useTable();
  return (
    <section aria-label="The stack" className="mt-6">
      <h3 className="mb-1">The stack</h3>
      <ul
        onKeyDown={moveFocus}
        aria-label="All pictures"
        className="grid grid-cols-2 gap-x-8 border-t border-line min-[1600px]:grid-cols-3"
      >
        {pictures.map((p) => (
          <li key={p.id} className={`border-b border-line ${p.id === chosen ? 'bg-field' : ''}`}>
            <Draggable kind="picture" id={p.id} name={p.title} className="flex items-baseline gap-2">
              <button
                type="button"
                data-row
                data-kind="picture"
                data-id={p.id}
                data-name={p.title}
                aria-pressed={p.id === chosen}
                onClick={() => onChoose(p.id)}
                className="min-w-0 flex-1 py-1 text-left"
              >
                <span className="mr-2 font-serif">{p.title}</span>
                <span className="text-[12.5px] text-quiet">
                  {sentenceCase(p.figures.structure?.subject.key ?? p.figures.key)}, {p.figures.colour}
                </span>
              </button>
              <QuietButton
                onClick={() => table.togglePicture(p.id, p.title)}
                aria-label={table.has(p.id) ? `Put ${p.title} back` : `Lay ${p.title} on the table`}
              >
                {table.has(p.id) ? 'Put back' : 'Lay out'}
              </QuietButton>
            </Draggable>
          </li>
        ))}
      </ul>
    </section>
  );
}
