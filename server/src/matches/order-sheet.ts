import { RENDERING_NAMES } from '@rakuen/core/characterisation/renderings';
import { surroundOf, type SurroundLaid } from '@rakuen/core/proof/surround';
import { BORDER_STYLES } from '@rakuen/core/layout/borders';
import { PLAIN, RECIPE_PARTS, recipeLine, type Recipe } from '@rakuen/core/proof/recipe';
import { brokenLines, finishedPdf, newPdf, POINTS_PER_MM, setLine } from '../drawing/pdf.ts';

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

const PAGE_MM = { width: 210, height: 297, margin: 18 };

/** Bare paper as it is in the file: what stands in it may ask for more than was said. */
const borderWords = ({ borders }: SurroundLaid, { borderMm, borders: style }: Recipe): string =>
  `${borders.left} mm, ${BORDER_STYLES[style]}${borders.left > borderMm ? ', for what stands in it' : ''}`;

/** The sheet that goes to a lab with the file, A4: what is asked for, what was done already, what to look at. */
export function orderSheet(o: Order): Promise<Uint8Array> {
  const { rendering, caption, trimMarks } = o.recipe;
  const laid = surroundOf(o.recipe);
  // What lies around it and the rendering have lines of their own.
  const done = { ...o.recipe, rendering: PLAIN.rendering, borderMm: 0, caption: '', trimMarks: false };
  const document = newPdf();
  const mm = POINTS_PER_MM;
  document.addPage({ size: [PAGE_MM.width * mm, PAGE_MM.height * mm], margin: 0 });
  const x = PAGE_MM.margin * mm;
  const most = (PAGE_MM.width - 2 * PAGE_MM.margin) * mm;
  let y = PAGE_MM.margin * mm;
  const line = (text: string, size: number, face: 'serif' | 'sans', at = x, room = most) => {
    for (const part of brokenLines(document, text, size, face, room)) {
      setLine(document, part, { x: at, y, size, face, most: room + 1 });
      y += size * 1.35;
    }
  };
  setLine(document, 'Order to the lab', { x, y, size: 9, face: 'sans' });
  y += 6 * mm;
  line(o.title, 20, 'serif');
  document.image(o.preview, x, y + 2 * mm, { fit: [70 * mm, 60 * mm] });
  y += 66 * mm;
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
  for (const [name, value] of rows) {
    const from = y;
    setLine(document, name, { x, y, size: 9, face: 'sans' });
    line(value, 10, 'serif', x + 38 * mm, most - 38 * mm);
    y = Math.max(y, from + 14) + 3;
  }
  y += 4 * mm;
  setLine(document, 'Look at', { x, y, size: 9, face: 'sans' });
  y += 5 * mm;
  for (const [i, text] of o.lookAt.entries()) line(`${i + 1}  ${text}`, 10, 'serif');
  return finishedPdf(document);
}
