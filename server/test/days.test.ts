import sharp from 'sharp';
import { pdfText } from './pdf-text.ts';
import { condition, picture, start, temporaryFolder } from './rakuen.ts';

/** Of these, some have another day than UTC at every hour: 26 hours lie between the first and the last. */
const ZONES = ['Pacific/Kiritimati', 'America/New_York', 'America/St_Johns', 'Etc/GMT+12'];
const dayIn = (zone: string, at: Date) => at.toLocaleDateString('sv', { timeZone: zone });

it.each(ZONES)(
  '%s: a print, a decision and a number are of the day the wall shows, in the ledger, CSV and PDF',
  async (zone) => {
    const rakuen = await start(temporaryFolder(), ['--empty'], { TZ: zone });
    try {
      const sheet = await condition(rakuen);
      const grey = { create: { width: 60, height: 40, channels: 3 as const, background: { r: 40, g: 40, b: 40 } } };
      const { job } = await picture(rakuen, 'p.png', await sharp(grey).png().toBuffer(), { title: 'Dune' });
      const of = { pictureId: job.pictureId, conditionId: sheet };
      const before = dayIn(zone, new Date());
      const { body: print } = await rakuen.call<{ id: string; printedOn: string }>('POST', '/api/prints/begin', of);
      const { body: made } = await rakuen.call<{ printedOn: string }>('POST', `/api/prints/${print.id}/done`, {});
      await rakuen.call('POST', '/api/decisions', { ...of, stamp: 'chosen', reason: 'Holds the blacks.' });
      const after = dayIn(zone, new Date());
      expect([before, after]).toContain(made.printedOn);
      // Midnight may pass while it is asked: then either day is right.
      const day = made.printedOn;
      interface Ledger {
        entries: { kind: string; at: string }[];
      }
      const on = async (since: string, until: string) =>
        (await rakuen.call<Ledger>('GET', `/api/ledger?since=${since}&until=${until}`)).body.entries;
      // The decision, an instant, came last: it stands above the print of the same day, and both are found by that day.
      if (before === after) expect((await on(day, day)).map((e) => e.kind)).toEqual(['decision', 'print']);
      expect((await on('2020-01-01', '2020-12-31')).length).toBe(0);
      const csv = await (await fetch(`${rakuen.url}/api/ledger.csv?kind=print`)).text();
      expect(csv).toContain(`print,${day},Dune`);
      const label = await fetch(`${rakuen.url}/api/prints/labels.pdf?prints=${print.id}`);
      expect(pdfText(Buffer.from(await label.arrayBuffer()))).toContain(day);
      // A day is taken as it is sent, and an instant with an offset as it names its day.
      for (const [sent, kept] of [
        ['2026-03-29', '2026-03-29'],
        ['2026-12-02T23:30:00-03:30', '2026-12-02'],
      ]) {
        const { body: next } = await rakuen.call<{ id: string }>('POST', '/api/prints/begin', of);
        const done = await rakuen.call<{ printedOn: string }>('POST', `/api/prints/${next.id}/done`, {
          printedOn: sent,
        });
        expect(done.body.printedOn).toBe(kept);
        expect((await on(kept, kept)).map((e) => e.at)).toContain(kept);
      }
    } finally {
      await rakuen.stop();
    }
  },
  120_000,
);
