import type { Page } from '@playwright/test';
import { test as base, type Studio } from './studio.ts';

/** What lies on the table, in whose hand, under which light. */
interface TableWanted {
  conditionIds: string[];
  leftHand?: string;
  rightHand?: string;
  light?: string;
  glass?: string;
}
const tableOf = async (page: Page, studio: Studio) =>
  (await (await page.request.get(`${studio.url}/api/table`)).json()) as TableWanted;

/** Makes the table what it should be, one deed after another. */
async function setTable(page: Page, studio: Studio, wanted: TableWanted): Promise<void> {
  const does = (deed: string, id?: string) =>
    page.request.post(`${studio.url}/api/table/deeds`, { data: { deed, id } });
  for (const id of (await tableOf(page, studio)).conditionIds) await does('put paper back', id);
  for (const id of wanted.conditionIds) await does('lay paper', id);
  if (wanted.leftHand) await does('left hand', wanted.leftHand);
  if (wanted.rightHand) await does('right hand', wanted.rightHand);
  await does('light', wanted.light ?? 'D50');
  await does('glass', wanted.glass ?? 'none');
}

/** Print conditions by paper and media setting. */
export async function idsOf(page: Page, studio: Studio, names: readonly string[]): Promise<string[]> {
  const conditions = (await (await page.request.get(`${studio.url}/api/conditions`)).json()) as {
    id: string;
    paper: { name: string };
    mediaSetting: string;
    printMode: string;
  }[];
  return names.map(
    (n) =>
      conditions.find((c) => `${c.paper.name}, ${c.mediaSetting}` === n && c.printMode === 'colour through a profile')!
        .id,
  );
}

/** Lays print conditions of these papers on the table, the first two in hand, under the reference light. */
export async function lay(page: Page, studio: Studio, names: readonly string[]): Promise<void> {
  const ids = await idsOf(page, studio, names);
  await setTable(page, studio, { conditionIds: ids, leftHand: ids[0], rightHand: ids[1], light: 'D50', glass: 'none' });
}

export const BRIGHT = 'Lantern Matt, Enhanced matt';
export const PLAIN = 'Chalk Rag, Fine art matt';
export const BARYTA = 'Slate Baryta, Heavy gloss fibre';

/** Tests of what lies on the table. The studio is shared: its table is left as it was found. */
export const test = base.extend<{ leavesTable: void }>({
  leavesTable: [
    async ({ page, studio }, use) => {
      const found = await tableOf(page, studio);
      await use();
      await setTable(page, studio, found);
    },
    { auto: true },
  ],
});
