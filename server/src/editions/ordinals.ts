/** Same picture, same paper, sizes within a millimetre: of editions `e` and `o`. */
export const SAME = `o.pictureId = e.pictureId AND abs(o.widthMm - e.widthMm) <= 1 AND abs(o.heightMm - e.heightMm) <= 1
  AND (SELECT paperId FROM conditions WHERE id = o.conditionId) = (SELECT paperId FROM conditions WHERE id = e.conditionId)`;

/** Earlier editions of the same as `e`. */
export const EARLIER = `(SELECT COUNT(*) FROM editions o WHERE (o.createdAt, o.rowid) < (e.createdAt, e.rowid) AND ${SAME})`;
