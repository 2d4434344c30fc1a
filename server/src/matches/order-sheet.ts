import { RENDERING_NAMES } from '@rakuen/core/characterisation/renderings';
import { surroundOf, type SurroundLaid } from '@rakuen/core/proof/surround';
import { BORDER_STYLES } from '@rakuen/core/layout/borders';
import { PLAIN, RECIPE_PARTS, recipeLine, type Recipe } from '@rakuen/core/proof/recipe';
import { a4, begin } from '../drawing/page.ts';
import { finishedPdf, newPdf, POINTS_PER_MM } from '../drawing/pdf.ts';

/** What a lab is asked for. */
export interface Order {
  readonly title: string;
  readonly fileName: string;
  readonly sizeMm: readonly [number, number];
  readonly paper: string;
  readonly profile: string;
  /** The file is in values of a working space, and not of the printer. */
  readonly working: boolean;
  readonly ppi: number;
  readonly copies: number;
  readonly recipe: Recipe;
  /** Marked places, and what to look at there. */
  readonly lookAt: readonly string[];
  readonly wishes: string;
  readonly preview: Buffer;
}

/** What is asked for stands beside its name, so far from the edge; mm. */
const BESIDE_MM = 38;
const PREVIEW_MM = { width: 70, height: 60 };

/** Bare paper as it is in the file: what stands in it may ask for more than was said. */
const borderWords = ({ borders }: SurroundLaid, { borderMm, borders: style }: Recipe): string =>
  `${borders.left} mm, ${BORDER_STYLES[style]}${borders.left > borderMm ? ', for what stands in it' : ''}`;

/**
 * The sheet that goes to a lab with the file, A4, and further ones where much is asked: what is asked for, what was
 * done already, what to look at.
 */
export function orderSheet(o: Order): Promise<Uint8Array> {
  const { rendering, caption, trimMarks } = o.recipe;
  const laid = surroundOf(o.recipe);
  // What lies around it and the rendering have lines of their own.
  const done = { ...o.recipe, rendering: PLAIN.rendering, borderMm: 0, caption: '', trimMarks: false };
  const document = newPdf();
  const page = begin(document, a4(18));
  page.set('Order to the lab', page.left, page.y, { size: 9, face: 'sans' });
  page.y += 6;
  page.say(o.title, { size: 20, face: 'serif' });
  const mm = POINTS_PER_MM;
  const fit: [number, number] = [PREVIEW_MM.width * mm, PREVIEW_MM.height * mm];
  document.image(o.preview, page.left * mm, (page.y + 2) * mm, { fit });
  page.y += PREVIEW_MM.height + 6;
  const rows: [string, string][] = [
    ['file', o.fileName],
    ['picture on paper', `${Math.round(o.sizeMm[0])} × ${Math.round(o.sizeMm[1])} mm, not cropped, not enlarged again`],
    ['paper', o.paper],
    ['copies', String(o.copies)],
    ['border', laid ? `${borderWords(laid, o.recipe)}${trimMarks ? '; marks to trim by' : ''}` : 'none'],
    ...(caption ? [['caption', `${caption} (in the file already)`] as [string, string]] : []),
    ...(o.working
      ? ([
          ['profile', `${o.profile}, embedded; to be converted once, for the printer and paper above`],
          ['rendering', RENDERING_NAMES[rendering]],
        ] as [string, string][])
      : ([
          ['profile', `${o.profile}, embedded; the file is in its device values: no colour management after it`],
          ['rendering', `${RENDERING_NAMES[rendering]}, done already`],
        ] as [string, string][])),
    ['resolution', `${o.ppi} ppi, 16 bits a channel`],
    [
      'done to it',
      `${recipeLine(done)}; ${o.recipe.sharpening > 0 ? RECIPE_PARTS.sharpening.name.toLowerCase() + ' is in the file, none to be added' : 'not sharpened'}`,
    ],
    ...(o.wishes ? [['wishes', o.wishes] as [string, string]] : []),
  ];
  for (const [name, value] of rows) page.pair(name, value, { fromMm: BESIDE_MM, stepMm: 4.8, afterMm: 1.2 });
  page.y += 4;
  page.keep(10);
  page.set('Look at', page.left, page.y, { size: 9, face: 'sans' });
  page.y += 5;
  for (const [i, text] of o.lookAt.entries()) page.say(`${i + 1}  ${text}`, { size: 10, face: 'serif' });
  return finishedPdf(document);
}
