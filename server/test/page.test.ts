import { begin, a4, bare, columns, type Page } from '@rakuen/server/drawing/page';
import { comparisonPdf, type ComparisonPage } from '@rakuen/server/drawing/comparison-pdf';
import { finishedPdf, newPdf } from '@rakuen/server/drawing/pdf';
import { orderSheet, type Order } from '@rakuen/server/matches/order-sheet';
import { PLAIN } from '@rakuen/core/proof/recipe';
import sharp from 'sharp';
import { pdfText } from './pdf-text.ts';

/** Pages of a PDF, as the words another program reads on each. */
const pages = (bytes: Uint8Array) => pdfText(bytes).split('\f').slice(0, -1);
const told = (page: string) => page.split(/\s+/).filter(Boolean).join(' ');
const HAND = { size: 10, face: 'serif' } as const;

describe('a page of words', () => {
  it('goes on to the next where it ends, under the same head, and loses no word', async () => {
    const words = Array.from({ length: 900 }, (_, i) => `word${i}`);
    const document = newPdf();
    const page = begin(document, a4(20), (p) => {
      p.set('The head', p.left, p.y, { size: 9, face: 'sans' });
      p.y += 8;
    });
    page.say(words.join(' '), { ...HAND, size: 14 });
    const found = pages(await finishedPdf(document)).map(told);
    expect(found.length).toBeGreaterThan(1);
    for (const text of found) expect(text.startsWith('The head ')).toBe(true);
    expect(found.map((t) => t.slice('The head '.length)).join(' ')).toBe(words.join(' '));
  });

  it('keeps together what must not be parted, and names what is said of a thing', async () => {
    const document = newPdf();
    const page = begin(document, a4(20));
    page.y = 270;
    page.keep(10);
    expect(page.y).toBe(20);
    page.keep(250);
    expect(page.y).toBe(20);
    page.pair('paper', 'a sheet', { fromMm: 30, stepMm: 5, afterMm: 2 });
    expect(page.y).toBe(27);
    const [first, second] = pages(await finishedPdf(document));
    expect([told(first), told(second)]).toEqual(['', 'paper a sheet']);
  });

  it('is parted into columns that fill it', () => {
    const page = { left: 20, width: 170 } as Page;
    const { at, width } = columns(page, 3, 5);
    expect(at(0)).toBe(20);
    expect(at(2) + width).toBeCloseTo(190, 9);
    expect(at(1) - at(0) - width).toBeCloseTo(5, 9);
  });

  it('is no longer than a PDF allows', () => {
    expect(bare(newPdf(), 1117.6, 9000)).toEqual([expect.closeTo(3168, 0), 14_400]);
  });
});

const preview = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#776655' } })
  .png()
  .toBuffer();
const ORDER: Order = {
  title: 'Low water',
  fileName: 'low-water.tif',
  sizeMm: [420, 280],
  paper: 'Testmill Deep Sheet 310 g/m²',
  profile: 'deep.icc',
  working: false,
  ppi: 300,
  copies: 2,
  recipe: PLAIN,
  lookAt: ['the lamp', 'the shadow under the quay'],
  wishes: 'Please wrap flat.',
  preview,
};

describe('an order to the lab', () => {
  it('is one page where little is asked', async () => {
    const found = pages(await orderSheet(ORDER));
    expect(found).toHaveLength(1);
    for (const words of ['Low water', '420 × 280 mm', 'deep.icc', 'Please wrap flat.', '2  the shadow under the quay'])
      expect(told(found[0])).toContain(told(words));
  });

  it('loses nothing where much is asked: it goes on to a further page', async () => {
    const lookAt = Array.from({ length: 70 }, (_, i) => `place ${i + 1} by the ${'long '.repeat(12)}wall`);
    const found = pages(await orderSheet({ ...ORDER, lookAt, wishes: 'Wrapped flat. '.repeat(60) }));
    expect(found.length).toBeGreaterThan(1);
    const all = told(found.join(' '));
    for (let i = 1; i <= 70; i++) expect(all).toContain(`${i} place ${i} by`);
    expect(all.match(/Wrapped flat\./g)).toHaveLength(60);
  });
});

const COMPARED: ComparisonPage = {
  date: '2026-11-26',
  light: 'CIELAB, D50, 2°, as measured',
  papers: ['Deep Sheet', 'Quiet Sheet', 'Long-named Sheet of a small mill by the river'].map((name, i) => ({
    name,
    line: 'Test Press, Coated',
    ramp: [0, 0.5, 1].map((step) => ({ step, lab: [10 + 80 * step, 0, i] as const, chromaOffLine: i / 2 })),
    outline: [0, 1, 2, 3].map((k) => ({
      a: 40 * Math.cos(k * 1.6),
      b: 40 * Math.sin(k * 1.6),
      hueDegrees: k * 92,
      chroma: 40,
    })),
    white: [96, 0, 0],
    black: [8, 0, 0],
    dmax: 2.3 - i / 10,
  })),
  sentences: ['The first is whiter.'],
  notes: ['The second was read in another light.'],
  groups: [
    {
      name: 'White',
      rows: [{ name: 'Paper white', unit: 'L*', judged: false, cells: ['96.0', '95.1', '94.0'] }],
    },
  ],
  signs: ['† As measured under D50.'],
};

describe('a comparison on paper', () => {
  it('holds names, sentences, figures and signs; every measure under the names of the papers', async () => {
    const found = pages(await comparisonPdf(COMPARED)).map(told);
    expect(found).toHaveLength(2);
    expect(found[0]).toContain('The first is whiter.');
    expect(found[0]).toContain('2.20 D');
    expect(found[1]).toContain('A Deep Sheet');
    expect(found[1]).toMatch(/Paper white, L\* 96\.0 95\.1 94\.0/);
    expect(found[1]).toContain('† As measured under D50.');
  });

  it('names the papers again on every page the measures take', async () => {
    const rows = Array.from({ length: 120 }, (_, i) => ({
      name: `Measure ${i}`,
      unit: 'L*',
      judged: i % 2 === 0,
      cells: [`${i}.1`, `${i}.2`, `${i}.3`],
    }));
    const [, ...found] = pages(await comparisonPdf({ ...COMPARED, groups: [{ name: 'White', rows }] })).map(told);
    expect(found.length).toBeGreaterThan(2);
    for (const text of found) expect(text).toContain('B Quiet Sheet');
    for (let i = 0; i < 120; i++) expect(found.join(' ')).toContain(`${i}.1 ${i}.2 ${i}.3`);
  });

  it('notes without end push the drawings to a page of their own', async () => {
    const notes = Array.from({ length: 60 }, (_, i) => `Note ${i} of what was left out.`);
    const found = pages(await comparisonPdf({ ...COMPARED, notes })).map(told);
    expect(found).toHaveLength(3);
    expect(found[1]).toContain('Blackest black, Dmax');
    for (let i = 0; i < 60; i++) expect(found.join(' ')).toContain(`Note ${i} of`);
  });
});
