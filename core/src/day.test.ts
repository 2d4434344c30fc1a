import { spawnSync } from 'node:child_process';

/** Days as a machine in a time zone has them: Node reads its zone once, so each is asked in a process of its own. */
function inZone<T>(zone: string, expression: string): T {
  const { stdout, stderr } = spawnSync(
    process.execPath,
    [
      '--no-warnings',
      '--input-type=module',
      '-e',
      `const { dayOf, dayAt, noonOf } = await import(${JSON.stringify(new URL('../dist/day.js', import.meta.url).href)});
       console.log(JSON.stringify(${expression}))`,
    ],
    { env: { ...process.env, TZ: zone }, encoding: 'utf8' },
  );
  if (!stdout) throw new Error(stderr);
  return JSON.parse(stdout) as T;
}

describe('a day is a day', () => {
  // Half past eleven in the evening, and half past midnight, by the clock on each wall.
  it.each([
    ['America/New_York', '2026-12-03T04:30:00Z', '2026-12-02', '2026-12-03T05:30:00Z', '2026-12-03'],
    ['America/St_Johns', '2026-12-03T03:00:00Z', '2026-12-02', '2026-12-03T04:00:00Z', '2026-12-03'],
    ['Pacific/Kiritimati', '2026-12-02T09:30:00Z', '2026-12-02', '2026-12-02T10:30:00Z', '2026-12-03'],
    ['Europe/Berlin', '2026-12-02T22:30:00Z', '2026-12-02', '2026-12-02T23:30:00Z', '2026-12-03'],
  ])('%s: on both sides of midnight', (zone, before, dayBefore, after, dayAfter) => {
    expect(inZone(zone, `[dayOf('${before}'), dayOf('${after}')]`)).toEqual([dayBefore, dayAfter]);
    // A day stays itself, and is shown as itself.
    expect(inZone(zone, `[dayOf('2026-12-02'), dayAt(noonOf('2026-12-02'))]`)).toEqual(['2026-12-02', '2026-12-02']);
  });

  it.each(['America/New_York', 'America/St_Johns', 'Pacific/Kiritimati', 'Europe/Berlin'])(
    '%s: every day of a year is shown as itself, changes of the clock among them',
    (zone) => {
      const days = Array.from({ length: 366 }, (_, i) => new Date(Date.UTC(2024, 0, 1 + i)).toISOString().slice(0, 10));
      expect(inZone(zone, `${JSON.stringify(days)}.map((d) => dayAt(noonOf(d)))`)).toEqual(days);
    },
  );

  it('an instant with an offset of its own is of the day it names, wherever it is read', () => {
    for (const zone of ['America/New_York', 'Pacific/Kiritimati'])
      expect(inZone(zone, `dayOf('2026-12-02T23:30:00-03:30')`)).toBe('2026-12-02');
    expect(inZone('Europe/Berlin', `dayOf('about 1998')`)).toBe('about 1998');
  });
});
