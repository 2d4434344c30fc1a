import { createHash } from 'node:crypto';
import type { Lab } from '@rakuen/core/colour/types';
import { condition, start, type Running } from './rakuen.ts';
import { read } from './sheet-read.ts';

let rakuen: Running;
beforeAll(async () => void (rakuen = await start()));
afterAll(async () => void (await rakuen.stop()));

type Figures = Record<string, { shape: string; value: number; lab: Lab; why: string; note?: string }>;
type View = {
  id: string;
  paperId: string;
  facts?: { figures: Figures; source?: string; readingId: string; gamutMethod: string };
  readings: { id: string; source: string; batch: string; measurementCondition?: string; patchCount?: number }[];
  figuresFrom?: string;
  observations: { kind: string }[];
};

describe('a paper as one file', () => {
  type Bundle = {
    format: string;
    paper: { name: string };
    conditions: {
      readings: { contentHash: string }[];
      observations: { value: object }[];
      figures: Record<string, { name: string; unit: string }>;
    }[];
    files: Record<string, string>;
  };
  let bundle: Bundle;
  let before: View;
  const sent = (b: unknown) =>
    rakuen.upload<{ id: string; message: string; field: string }>(
      '/api/papers/bundle',
      'paper.json',
      typeof b === 'string' ? b : JSON.stringify(b),
    );
  const papers = async () => (await rakuen.call<{ name: string }[]>('GET', '/api/papers')).body.map((p) => p.name);

  beforeAll(async () => {
    const id = await condition(rakuen, 'Whole');
    await rakuen.upload(
      `/api/conditions/${id}/readings`,
      'first.cxf',
      read((s) => s, '2026-03-01T10:00:00Z', 3),
      { printedAt: '2026-02-28T10:00:00Z' },
    );
    await rakuen.upload(
      `/api/conditions/${id}/readings`,
      'later.cxf',
      read((s) => ({ ...s, inkHold: 0.9 }), '2026-09-01T10:00:00Z', 4),
      { batch: 'autumn' },
    );
    const { entries } = (
      await rakuen.call<{ entries: { readingId: string }[] }>('GET', `/api/conditions/${id}/history`)
    ).body;
    await rakuen.call('PUT', `/api/conditions/${id}/figures-from`, { readingId: entries[0].readingId });
    await rakuen.call('POST', `/api/conditions/${id}/scans/simulated`, { by: 'Ines' });
    const weighed = await rakuen.call<View>('POST', `/api/conditions/${id}/observations`, {
      observations: [
        {
          kind: 'weight',
          value: { grams: [18.7], widthMm: 210, heightMm: 297 },
          takenAt: '2026-03-01T10:00:00Z',
          by: 'Ines',
          instrument: 'Scale',
        },
      ],
    });
    before = weighed.body;
    bundle = (await rakuen.call<Bundle>('GET', `/api/papers/${before.paperId}/bundle`)).body;
  });

  it('holds everything, each figure with its name and unit, each file under its own hash', () => {
    expect(bundle.conditions[0].readings).toHaveLength(2);
    expect(bundle.conditions[0].observations).toHaveLength(2);
    expect(bundle.conditions[0].figures.dmax).toMatchObject({
      name: 'Dmax',
      unit: 'D',
      value: before.facts!.figures.dmax.value,
    });
    for (const [hash, content] of Object.entries(bundle.files))
      expect(createHash('sha256').update(Buffer.from(content, 'base64')).digest('hex')).toBe(hash);
    expect(Object.keys(bundle.files)).toHaveLength(3);
  });

  it('comes back in another drawer with the same figures, observations, history and choice', async () => {
    const other = await start();
    const taken = await other.upload<{ id: string }>('/api/papers/bundle', 'paper.json', JSON.stringify(bundle));
    expect(taken.status).toBe(201);
    const [{ id: backId }] = (await other.call<View[]>('GET', '/api/conditions')).body;
    const back = (await other.call<View>('GET', `/api/conditions/${backId}`)).body;
    expect(back.facts!.figures).toEqual(before.facts!.figures);
    expect(back.observations.map((o) => o.kind)).toEqual(before.observations.map((o) => o.kind));
    expect(back.readings.map((r) => [r.batch, r.measurementCondition]).sort()).toEqual(
      before.readings.map((r) => [r.batch, r.measurementCondition]).sort(),
    );
    expect(back.figuresFrom).toBeTruthy();
    const again = (await other.call<Bundle>('GET', `/api/papers/${taken.body.id}/bundle`)).body;
    expect({ ...again, writtenAt: '' }).toEqual({ ...bundle, writtenAt: '' });
    await other.stop();
  });

  it.each([
    ['that is there already', (b: Bundle) => b, 409],
    [
      'whose file was changed',
      (b: Bundle) => ({
        ...b,
        paper: { ...b.paper, name: 'Changed' },
        files: { ...b.files, [b.conditions[0].readings[0].contentHash]: Buffer.from('CGATS.17').toString('base64') },
      }),
      422,
    ],
    ['that lacks a file', (b: Bundle) => ({ ...b, paper: { ...b.paper, name: 'Lacking' }, files: {} }), 422],
    ['with a field nobody knows', (b: Bundle) => ({ ...b, paper: { ...b.paper, name: 'Odd', colour: 'red' } }), 422],
    [
      'with an observation that can’t be',
      (b: Bundle) => ({
        ...b,
        paper: { ...b.paper, name: 'Odd' },
        conditions: [
          { ...b.conditions[0], observations: [{ ...b.conditions[0].observations[0], value: { grams: -1 } }] },
        ],
      }),
      422,
    ],
    [
      'whose condition is a list',
      (b: Bundle) => ({ ...b, paper: { ...b.paper, name: 'List' }, conditions: [[]] }),
      422,
    ],
    [
      'that holds one set twice',
      (b: Bundle) => ({
        ...b,
        paper: { ...b.paper, name: 'Twice' },
        conditions: [{ ...b.conditions[0], readings: [b.conditions[0].readings[0], b.conditions[0].readings[0]] }],
      }),
      422,
    ],
    [
      'with a texture without its scan',
      (b: Bundle) => ({
        ...b,
        paper: { ...b.paper, name: 'Unscanned' },
        conditions: [
          {
            ...b.conditions[0],
            observations: [
              {
                ...b.conditions[0].observations[0],
                kind: 'texture',
                value: { wavelengthMm: 1, wavelengthSd: 0.1, amplitudeL: 1, amplitudeSd: 0.1, ppi: 600 },
                scanHash: undefined,
              },
            ],
          },
        ],
      }),
      422,
    ],
    ['of another kind', () => ({ format: 'something' }), 422],
    ['that is no JSON', () => '{', 422],
  ])('one %s is refused, and nothing of it stays', async (_, change, status) => {
    const there = await papers();
    const answer = await sent(change(bundle));
    expect(answer.status).toBe(status);
    expect(answer.body.message).toBeTruthy();
    expect(await papers()).toEqual(there);
  });
});
