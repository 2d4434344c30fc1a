import { rmSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import sharp from 'sharp';
import { picture, start } from './rakuen.ts';

interface View {
  id: string;
  figures: { version?: number; medianL: number };
}

it('a picture whose figures an earlier version gave is read again after the start', async () => {
  const first = await start();
  const png = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#808080' } })
    .png()
    .toBuffer();
  const id = (await picture(first, 'grey.png', png)).job.pictureId!;
  const before = (await first.call<View>('GET', `/api/pictures/${id}`)).body.figures;
  await first.kill();
  const database = new Database(join(first.data, 'rakuen.sqlite'));
  const { version: _, ...old } = { ...before, medianL: 12 };
  database.prepare('UPDATE pictures SET figures = ? WHERE id = ?').run(JSON.stringify(old), id);
  database.close();

  const second = await start(first.data);
  try {
    let now = old as View['figures'];
    for (let i = 0; i < 100 && now.version !== before.version; i++) {
      await new Promise((done) => setTimeout(done, 100));
      now = (await second.call<View>('GET', `/api/pictures/${id}`)).body.figures;
    }
    expect(now).toEqual(before);
  } finally {
    await second.stop();
    rmSync(first.data, { recursive: true, force: true });
  }
});
