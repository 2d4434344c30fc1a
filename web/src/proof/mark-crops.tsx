import { useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { markName, type Mark } from '@rakuen/core/picture/marks';
import { squareAbout } from '@rakuen/core/proof/part';
import { sentenceCase } from '@rakuen/core/match/words';
import { Dialog } from '../parts/dialog.tsx';
import { cropUrl, onSheetUrl, type Where } from '../pictures/picture-api.ts';
import { ScreenScale, useScreenScale } from './screen-scale.tsx';

/** Sides of a crop on paper, mm. */
const SIDES_MM = [20, 35, 50] as const;
/** Pixels of the image for one of the screen: a fine screen shows more. */
const FINER = 2;

/** A paper in the row. */
export interface CropSheet {
  readonly key: string;
  readonly conditionId: string;
  readonly name: string;
  /** The saved recipe it is printed by. */
  readonly recipe?: { readonly id: string; readonly revision: number };
}

/** The marked places at true size, from every paper in a row; the file as this screen shows it comes first. */
export function MarkCrops({
  picture,
  sheets,
  where,
  onClose,
}: {
  picture: PictureView;
  sheets: readonly CropSheet[];
  where: Where;
  onClose: () => void;
}) {
  const [sideMm, setSideMm] = useState<number>(SIDES_MM[1]);
  const scale = useScreenScale();
  const perPx = picture.commission.longSideMm / Math.max(picture.widthPx, picture.heightPx);
  const printMm = [picture.widthPx * perPx, picture.heightPx * perPx] as const;
  return (
    <Dialog
      open
      full
      onClose={onClose}
      title="Marked places at print size"
      description={`${picture.title}, as it will hang. The first of each row is the file as this screen shows it.`}
    >
      <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-1">
        <div role="radiogroup" aria-label="Side of the crops on paper" className="flex gap-4">
          {SIDES_MM.map((mm) => (
            <label key={mm} className="flex min-h-8 items-center gap-1.5">
              <input
                type="radio"
                name="crop-side"
                className="accent-ink"
                checked={sideMm === mm}
                onChange={() => setSideMm(mm)}
              />
              {mm} mm
            </label>
          ))}
        </div>
        <ScreenScale scale={scale} />
      </div>
      {sheets.some((s) => s.recipe) && (
        <p className="mb-2 text-[13px] text-quiet">Printed by their recipes; sharpening is not drawn here.</p>
      )}
      {picture.marks.length === 0 && (
        <p className="text-quiet">This picture has no marked place. Add one in Pictures.</p>
      )}
      <div className="overflow-x-auto">
        <table className="text-left text-[13px]">
          <thead>
            <tr className="align-bottom">
              <th scope="col">
                <span className="sr-only">Place</span>
              </th>
              <th scope="col" className="px-2 font-serif font-normal">
                The file
              </th>
              {sheets.map((s) => (
                <th key={s.key} scope="col" className="px-2 font-serif font-normal">
                  {s.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {picture.marks.map((mark, i) => (
              <CropRow
                key={i}
                number={i + 1}
                {...{ mark, picture, sheets, where, sideMm, printMm, mmPerPx: scale.mmPerPx }}
              />
            ))}
          </tbody>
        </table>
      </div>
    </Dialog>
  );
}

function CropRow({
  mark,
  number,
  picture,
  sheets,
  where,
  sideMm,
  printMm,
  mmPerPx,
}: {
  mark: Mark;
  number: number;
  picture: PictureView;
  sheets: readonly CropSheet[];
  where: Where;
  sideMm: number;
  printMm: readonly [number, number];
  mmPerPx: number;
}) {
  const part = squareAbout(mark, sideMm, printMm);
  const sizePx = [(part.width * printMm[0]) / mmPerPx, (part.height * printMm[1]) / mmPerPx] as const;
  const px = Math.min(1280, Math.max(40, Math.round(Math.max(...sizePx) * FINER)));
  const name = `mark ${number}, ${markName(mark)}`;
  return (
    <tr className="align-top">
      <th scope="row" className="w-[16ch] py-1 pr-3 font-normal">
        <span className="font-serif">{number}</span> {sentenceCase(markName(mark))}
      </th>
      <Crop src={cropUrl(picture.id, part, px)} alt={`The file, ${name}`} sizePx={sizePx} />
      {sheets.map((s) => (
        <Crop
          key={s.key}
          src={onSheetUrl(picture.id, s.conditionId, {
            ...where,
            px,
            recipe: s.recipe?.id,
            revision: s.recipe?.revision,
            part,
          })}
          alt={`${s.name}, ${name}`}
          sizePx={sizePx}
        />
      ))}
    </tr>
  );
}

function Crop({ src, alt, sizePx: [w, h] }: { src: string; alt: string; sizePx: readonly [number, number] }) {
  const [fault, setFault] = useState<string>();
  return (
    <td className="px-2 py-1" style={{ minWidth: w + 16 }}>
      {fault === src ? (
        <p className="text-quiet" style={{ width: w }}>
          It can’t be shown.
        </p>
      ) : (
        <img
          src={src}
          alt={alt}
          width={w}
          height={h}
          style={{ width: w, height: h, maxWidth: 'none' }}
          onError={() => setFault(src)}
        />
      )}
    </td>
  );
}
