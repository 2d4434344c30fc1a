import { useEffect, useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { holds, withMargin, type Part } from '@rakuen/core/proof/part';
import { labImage, type LabImage } from '../pictures/lab-image.ts';

/** A part of a picture, with pixels of its own. */
export interface Detail {
  readonly part: Part;
  readonly image: LabImage;
}
/** Drawn about what is looked at, so that a small move needs nothing new. */
const MARGIN = 0.25;
const STILL_MS = 160;

/** The part that is looked at with the file’s own pixels, fetched once the hand is still; absent where the whole is as fine. */
export function useDetail(picture: PictureView, whole: LabImage, part: Part): Detail | undefined {
  const [detail, setDetail] = useState<Detail>();
  const finer = picture.widthPx > whole.widthPx && part.width < 1;
  const there = detail !== undefined && holds(detail.part, part) && detail.part.width < part.width * (1 + 3 * MARGIN);
  useEffect(() => {
    if (!finer || there) return;
    let gone = false;
    const timer = setTimeout(() => {
      const wanted = withMargin(part, MARGIN);
      labImage(picture.id, wanted).then(
        (image) => !gone && setDetail({ part: wanted, image }),
        () => undefined,
      );
    }, STILL_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [finer, there, part, picture.id]);
  return finer ? detail : undefined;
}
