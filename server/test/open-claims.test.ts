import sharp from 'sharp';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { PrintSettings } from '@rakuen/contract/prints';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readChart } from '@rakuen/core/simulation/instrument';
import { cautionsFor } from '@rakuen/server/prints/cautions';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { CONDITION, picture, start, type Running } from './rakuen.ts';

let rakuen: Running;
beforeAll(async () => {
  rakuen = await start();
});
afterAll(() => rakuen.stop());

const OPEN = { maker: 'Aldermoor', name: 'Unsaid', brightenerClaim: 'not stated', sizes: [], currency: 'EUR' };
interface Paper {
  id: string;
  weightGsm?: number;
  coating?: string;
  revision: number;
}
let paper: Paper;
let conditionId: string;

describe('a paper of which nothing is claimed but maker and name', () => {
  it('is kept without what nobody said, and there is one of its name', async () => {
    const made = await rakuen.call<Paper>('POST', '/api/papers', OPEN);
    expect(made.status).toBe(201);
    paper = made.body;
    for (const claim of ['coating', 'base', 'surface', 'weightGsm', 'thicknessUm'])
      expect(paper).not.toHaveProperty(claim);
    const twin = await rakuen.call<{ message: string }>('POST', '/api/papers', { ...OPEN, name: 'unsaid' });
    expect([twin.status, twin.body.message]).toEqual([409, 'Aldermoor unsaid is in the drawer already.']);
    expect((await rakuen.call('POST', '/api/papers', { ...OPEN, weightGsm: 90 })).status).toBe(201);
  });

  it('takes readings and gives figures, and no stand-in reads what nobody knows', async () => {
    conditionId = (await rakuen.call<{ id: string }>('POST', '/api/conditions', { ...CONDITION, paperId: paper.id }))
      .body.id;
    const chart = writeCgats(readChart(SHEETS.cotton, scatteredChart(460), 'M1', 5));
    expect((await rakuen.upload(`/api/conditions/${conditionId}/readings`, 'chart.txt', chart)).status).toBe(201);
    const { body } = await rakuen.call<{ facts: { figures: Record<string, { shape: string }> }; paper: Paper }>(
      'GET',
      `/api/conditions/${conditionId}`,
    );
    expect(body.facts.figures.gamutVolume.shape).toBe('scalar');
    expect(body.paper).not.toHaveProperty('weightGsm');
    const read = await rakuen.call<{ message: string }>('POST', `/api/conditions/${conditionId}/bench`, {
      kind: 'weight',
    });
    expect([read.status, read.body.message]).toEqual([
      409,
      'What kind of sheet Unsaid is was not said: nothing can stand in for it.',
    ]);
  });

  it('is warned of where its weight would matter', async () => {
    const { body } = await rakuen.call<ConditionView>('GET', `/api/conditions/${conditionId}`);
    const settings = { printMode: 'colour through a profile', blackInk: 'matt black', feed: 'rear' } as PrintSettings;
    const cautions = cautionsFor({ settings }, body).join(' ');
    expect(cautions).toMatch(/Its weight is not known: bend a corner\. A heavy sheet wants the straight path/);
    expect(cautions).not.toMatch(/does not hold on/);
    const heavy = cautionsFor({ settings }, { ...body, paper: { ...body.paper, weightGsm: 300, coating: 'gloss' } });
    expect(heavy.join(' ')).toMatch(/A heavy sheet: straight path/);
    expect(heavy.join(' ')).toMatch(/matt black does not hold on a gloss sheet/);
    const light = cautionsFor({ settings }, { ...body, paper: { ...body.paper, weightGsm: 90 } });
    expect(light.join(' ')).not.toMatch(/heavy/);
  });

  it('costs what its picture, its prices and the hours come to: its ink is told from what is seen', async () => {
    const box = {
      paperId: paper.id,
      label: 'A4',
      kind: 'sheet',
      widthMm: 210,
      heightMm: 297,
      sheets: 25,
      batch: '',
      price: 30,
      currency: 'EUR',
      boughtOn: '2026-10-01',
    };
    expect((await rakuen.call('POST', '/api/boxes', box)).status).toBe(201);
    const { job } = await picture(
      rakuen,
      'ramp.png',
      await sharp({ create: { width: 64, height: 48, channels: 3, background: '#806040' } })
        .png()
        .toBuffer(),
    );
    const cost = await rakuen.call<{ inkFrom: string; inkMl: number }>(
      'GET',
      `/api/costs?pictureId=${job.pictureId}&conditionId=${conditionId}&widthMm=180&heightMm=135`,
    );
    expect([cost.status, cost.body.inkFrom]).toEqual([200, 'picture and sheet']);
    expect(cost.body.inkMl).toBeGreaterThan(0);
  });

  it('what is claimed later stands; what is taken back is not claimed any more', async () => {
    const change = (claims: object) => rakuen.call<Paper>('PUT', `/api/papers/${paper.id}`, { ...OPEN, ...claims });
    expect((await change({ weightGsm: 305, coating: 'cotton' })).body).toMatchObject({
      weightGsm: 305,
      coating: 'cotton',
    });
    const back = (await change({ coating: 'cotton' })).body;
    expect(back.coating).toBe('cotton');
    expect(back).not.toHaveProperty('weightGsm');
  });
});
