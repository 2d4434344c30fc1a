import { useEffect, useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import type { ApiError } from '@rakuen/contract/settings';
import type { MarkOnSheet } from '@rakuen/core/match/on-sheet';
import { percent, signedDegrees } from '@rakuen/core/match/words';
import { onSheetUrl } from '../pictures/picture-api.ts';

/** A colour may come out so far from its aim before its mark says so, ΔE00. */
const WORTH_A_MARK = 2;
/** A place of less C* has no chroma to keep. */
const GREY_C = 2;
/** Less of a picture is not worth a word. */
const WORTH_A_WORD = 0.002;

/** What becomes of the chroma and the hue of a place; nothing of a grey. */
function chromaWords({ fromC, toC, hueTurnDeg }: MarkOnSheet): string {
  if (fromC < GREY_C) return '';
  return `, chroma ${fromC.toFixed(0)} to ${toC.toFixed(0)}, hue ${signedDegrees(hueTurnDeg)}`;
}

/** Why the server gives no image, in its own words. */
async function whyNot(answer: Response): Promise<string> {
  const { message, remedy } = (await answer.json().catch(() => ({}))) as Partial<ApiError>;
  return ['It can’t be shown.', message, remedy].filter(Boolean).join(' ');
}

/** The picture as it would look on a sheet, where it will hang; marks where it loses something. */
export function SeenOnSheet({
  picture,
  conditionId,
  name,
  px,
  recipe,
  marks = [],
  shown,
  className = '',
}: {
  picture: PictureView;
  conditionId: string;
  name: string;
  px: number;
  /** A saved recipe it is printed by. */
  recipe?: { readonly id: string; readonly revision: number };
  marks?: readonly MarkOnSheet[];
  /** Which of them are drawn; where absent, those that lose something. */
  shown?: readonly number[];
  className?: string;
}) {
  const url = onSheetUrl(picture.id, conditionId, {
    ...picture.commission,
    px,
    recipe: recipe?.id,
    revision: recipe?.revision,
  });
  const [drawn, setDrawn] = useState<{ url: string; src?: string; beyond: number; fault?: string }>();
  useEffect(() => {
    let src: string | undefined;
    const stop = new AbortController();
    fetch(url, { signal: stop.signal })
      .then(async (answer) => {
        if (!answer.ok) return setDrawn({ url, beyond: 0, fault: await whyNot(answer) });
        src = URL.createObjectURL(await answer.blob());
        setDrawn({ url, src, beyond: Number(answer.headers.get('X-Beyond-Screen') ?? 0) });
      })
      .catch(() => stop.signal.aborted || setDrawn({ url, beyond: 0, fault: 'It could not be fetched.' }));
    return () => {
      stop.abort();
      if (src) URL.revokeObjectURL(src);
    };
  }, [url]);
  const current = drawn?.url === url ? drawn : undefined;
  const ratio = `${picture.widthPx} / ${picture.heightPx}`;
  return (
    <figure className={className}>
      <div className="relative bg-field" style={{ aspectRatio: ratio }}>
        {current?.src && (
          <img src={current.src} alt={`${picture.title} as it would look on ${name}`} className="size-full" />
        )}
        {marks.map((mark, i) =>
          (shown ? shown.includes(i) : mark.deltaE > WORTH_A_MARK || mark.stepsKept < 0.6) ? (
            <span
              key={i}
              title={`Mark ${i + 1}: ${mark.deltaE.toFixed(1)} ΔE00 from its aim, ${percent(mark.stepsKept)} of its steps kept${chromaWords(mark)}`}
              style={{ left: `${mark.x * 100}%`, top: `${mark.y * 100}%` }}
              className="absolute grid size-[17px] -translate-1/2 place-items-center rounded-full border border-[#fff] bg-[#000b] font-serif text-[11px] text-[#fff]"
            >
              {i + 1}
            </span>
          ) : null,
        )}
      </div>
      <figcaption className="text-[12px] leading-tight text-quiet">
        {current?.fault}
        {current && current.beyond > WORTH_A_WORD && `This screen can’t show ${percent(current.beyond)} of it.`}
      </figcaption>
    </figure>
  );
}
