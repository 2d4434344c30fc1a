import { expect, test } from './studio.ts';

test('the demo studio: measured papers, and pictures that want different papers', async ({ page, studio }) => {
  const get = async <T>(path: string) => (await (await page.request.get(studio.url + path)).json()) as T;
  type Condition = {
    id: string;
    paper: { id: string; maker: string };
    printMode: string;
    facts?: { figures: Record<string, { shape: string }> };
  };
  const conditions = (await get<Condition[]>('/api/conditions')).filter(
    (c) => c.facts?.figures.gamutVolume?.shape === 'scalar',
  );
  expect(conditions.length).toBeGreaterThanOrEqual(6);
  expect(new Set(conditions.map((c) => c.paper.id)).size).toBeGreaterThanOrEqual(4);
  const pictures = (
    await get<{ id: string; title: string; bitsPerChannel: number; profileAssumed: boolean }[]>('/api/pictures')
  ).filter((p) => p.bitsPerChannel === 16);
  expect(pictures.length).toBeGreaterThanOrEqual(3);
  const wanted = new Set<string>();
  for (const { id, profileAssumed } of pictures) {
    expect(profileAssumed).toBe(false);
    const match = await page.request.post(`${studio.url}/api/matches`, { data: { pictureId: id } });
    const { places } = (await match.json()) as { places: { conditionId: string }[] };
    wanted.add(conditions.find((c) => c.id === places[0].conditionId)!.paper.id);
  }
  expect(wanted.size).toBeGreaterThanOrEqual(3);
});
