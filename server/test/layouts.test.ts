import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pdfText } from './pdf-text.ts';
import { condition, start, type Running } from './rakuen.ts';

let rakuen: Running;
let rag: string;
beforeAll(async () => {
  rakuen = await start();
  rag = await condition(rakuen, 'Soft Rag');
});
afterAll(async () => void (await rakuen.stop()));

describe('a layout', () => {
  it('prints are laid on a sheet, waste in per cent and money, with the cuts; as PDF at true size', async () => {
    const asked = {
      stock: {
        kind: 'sheet',
        widthMm: 431.8,
        heightMm: 558.8,
        top: 3,
        right: 3,
        bottom: 3,
        left: 3,
        price: 9,
        currency: 'EUR',
      },
      pieces: [
        { name: 'Salt', widthMm: 203.2, heightMm: 254, copies: 4, mayTurn: true, border: 'equal', borderMm: 0 },
        { name: 'Card', widthMm: 85, heightMm: 35, copies: 2, mayTurn: true, border: 'equal', borderMm: 0 },
      ],
      gapMm: 4,
    };
    interface Layout {
      sheets: { placed: { xMm: number; yMm: number }[]; cuts: unknown[] }[];
      waste: number;
      wasted: number;
    }
    const { body } = await rakuen.call<Layout>('POST', '/api/layouts', asked);
    expect(body.sheets).toHaveLength(1);
    expect(body.sheets[0].placed).toHaveLength(6);
    expect(body.sheets[0].placed.every((p) => p.xMm >= 3 && p.yMm >= 3)).toBe(true);
    expect(body.sheets[0].cuts).toHaveLength(5);
    const used = (4 * 203.2 * 254 + 2 * 85 * 35) / (431.8 * 558.8);
    expect(body.waste).toBeCloseTo(1 - used, 9);
    expect(body.wasted).toBeCloseTo(9 * (1 - used), 6);
    const answer = await fetch(`${rakuen.url}/api/layouts/pdf`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(asked),
    });
    const folder = mkdtempSync(join(tmpdir(), 'rakuen-layout-'));
    writeFileSync(join(folder, 'x.pdf'), Buffer.from(await answer.arrayBuffer()));
    const size = spawnSync('pdfinfo', [join(folder, 'x.pdf')], { encoding: 'utf8' }).stdout;
    expect(size).toMatch(/Page size:\s+1224 x 1584 pts/);
  });

  it('by the grain, under a caption, with a torn edge kept', async () => {
    const edges = { top: 3, right: 3, bottom: 3, left: 3 };
    const piece = { name: 'Salt', widthMm: 100, heightMm: 150, copies: 1, mayTurn: true, border: 'equal', borderMm: 0 };
    const asked = {
      stock: { kind: 'sheet', widthMm: 210, heightMm: 297, ...edges, grain: 'height', deckle: ['top'] },
      pieces: [{ ...piece, grain: 'width', caption: '2/12 · Salt at noon · 2026' }],
      gapMm: 4,
    };
    interface Layout {
      sheets: { placed: { turned: boolean; widthMm: number; heightMm: number; yMm: number; borders: object }[] }[];
      notes: string[];
    }
    const { body } = await rakuen.call<Layout>('POST', '/api/layouts', asked);
    // 12 mm of caption under 150 mm of print; the torn edge keeps 10 mm.
    expect(body.sheets[0].placed[0]).toMatchObject({ turned: true, widthMm: 100, heightMm: 162, yMm: 10 });
    expect(body.notes).toEqual([
      expect.stringMatching(/grain, which runs along the height of the stock/),
      expect.stringMatching(/torn edge at the top/),
    ]);
    const answer = await fetch(`${rakuen.url}/api/layouts/pdf`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(asked),
    });
    expect(pdfText(Buffer.from(await answer.arrayBuffer()))).toContain('2/12 · Salt at noon · 2026');
    const unknown = await rakuen.call<Layout>('POST', '/api/layouts', {
      ...asked,
      stock: { ...asked.stock, grain: undefined },
    });
    expect(unknown.body.notes[0]).toMatch(/not said/);
  });

  it('without a border only where someone found that paper and printer can', async () => {
    const { body: condition } = await rakuen.call<{ paperId: string; printer: string }>(
      'GET',
      `/api/conditions/${rag}`,
    );
    const stock = {
      kind: 'sheet',
      widthMm: 210,
      heightMm: 297,
      top: 0,
      right: 0,
      bottom: 0,
      left: 0,
      paperId: condition.paperId,
    };
    const pieces = [
      { name: 'Whole', widthMm: 210, heightMm: 297, copies: 1, mayTurn: false, border: 'equal', borderMm: 0 },
    ];
    const lay = (printer: string) =>
      rakuen.call<{ notes: string[] }>('POST', '/api/layouts', { stock: { ...stock, printer }, pieces, gapMm: 4 });
    expect(await lay(condition.printer)).toMatchObject({ status: 409, body: { field: 'stock' } });
    const found = await rakuen.call('POST', `/api/conditions/${rag}/observations`, {
      observations: [
        {
          kind: 'feeding',
          value: {
            feed: 'rear',
            takes: 'well',
            headHeight: '',
            suction: '',
            corners: 0,
            borderless: true,
            customSizes: true,
          },
          takenAt: '2026-09-14T10:00:00Z',
          by: 'Hands',
          instrument: '',
          light: '',
        },
      ],
    });
    expect(found.status).toBe(201);
    const now = await lay(condition.printer);
    expect(now.status).toBe(200);
    expect(now.body.notes[0]).toMatch(/Printed to the edge: .*Hands/);
    expect((await lay('Another printer')).status).toBe(409);
  });
});
