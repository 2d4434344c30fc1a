import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import http from 'node:http';
import sharp from 'sharp';
import { blocks, bombPng, brokenProfileJpeg, liarTiff } from './files.ts';
import { condition, CONDITION, fixture, PAPER, picture, start, type Running } from './rakuen.ts';

let rakuen: Running;
let conditionId: string;
beforeAll(async () => {
  rakuen = await start();
  conditionId = await condition(rakuen);
});
afterAll(async () => void (await rakuen.stop()));

/** After each attack the server still serves and nothing half-imported stays. */
afterEach(async () => {
  expect(
    (await rakuen.call<{ readings: unknown[] }>('GET', `/api/conditions/${conditionId}`)).body.readings,
  ).toHaveLength(0);
  expect((await rakuen.call<unknown[]>('GET', '/api/pictures')).body).toHaveLength(0);
  expect(readdirSync(join(rakuen.data, 'incoming'))).toHaveLength(0);
});

const good = readFileSync(fixture('fogra29l.cgats.txt'), 'latin1');

describe('readings', () => {
  it.each<[string, string | Uint8Array, RegExp, object]>([
    ['truncated', good.slice(0, 40_000), /has \d+ values|ends inside/, { file: 'bad.txt' }],
    ['binary', Uint8Array.from({ length: 5000 }, (_, i) => (i * 131) % 256), /not a text file/, { file: 'bad.txt' }],
    ['empty', '', /empty/, { file: 'bad.txt' }],
    [
      'wrong counts',
      good.replace('NUMBER_OF_SETS 1485', 'NUMBER_OF_SETS 1617'),
      /promises 1617 patches.*holds 1485/,
      { line: expect.any(Number) },
    ],
    ['missing columns', good.replace('LAB_B', 'NOTE'), /LAB columns are incomplete/, { field: 'LAB_B' }],
    [
      'a word among the numbers',
      good.replace('95.71', 'white'),
      /“white” is not a number/,
      { line: 20, field: 'LAB_L' },
    ],
  ])('%s: a clear error with its place', async (_, bytes, message, place) => {
    for (const path of ['/api/readings/preview', `/api/conditions/${conditionId}/readings`]) {
      const { status, body } = await rakuen.upload<{ message: string; remedy: string }>(path, 'bad.txt', bytes);
      expect(status).toBe(422);
      expect(body.message).toMatch(message);
      expect(body).toMatchObject(place);
      expect(body.remedy.length).toBeGreaterThan(10);
    }
  });

  it('50 MB of garbage is stopped at the limit, which is a setting', async () => {
    const { status, body } = await rakuen.upload<{ message: string }>(
      '/api/readings/preview',
      'garbage.txt',
      new Uint8Array(50 * 2 ** 20).fill(65),
    );
    expect(status).toBe(413);
    expect(body.message).toContain('20 MB');
    const settings = (await rakuen.call<{ limits: object }>('GET', '/api/settings')).body;
    await rakuen.call('PUT', '/api/settings', {
      ...settings,
      limits: { ...settings.limits, readingBytes: 60 * 2 ** 20 },
    });
    const slow = rakuen.upload<{ message: string }>(
      '/api/readings/preview',
      'garbage.txt',
      new Uint8Array(50 * 2 ** 20).fill(65),
    );
    // Meanwhile the server answers others at once.
    const asked = performance.now();
    expect((await rakuen.call('GET', '/api/settings')).status).toBe(200);
    expect(performance.now() - asked).toBeLessThan(2000);
    expect((await slow).status).toBe(422);
  });

  it('a request without a file says so', async () => {
    const form = new FormData();
    form.append('measurementCondition', 'M1');
    const response = await fetch(`${rakuen.url}/api/readings/preview`, { method: 'POST', body: form });
    expect(response.status).toBe(400);
    expect(await response.json()).toMatchObject({ field: 'file' });
  });

  it('a print condition that is not there', async () => {
    expect(
      (await rakuen.upload('/api/conditions/00000000-0000-4000-8000-000000000000/readings', 'x.txt', good)).status,
    ).toBe(404);
  });
});

describe('pictures', () => {
  it.each<[string, string, () => Promise<Uint8Array> | Uint8Array, RegExp, string | undefined]>([
    [
      'a TIFF that claims 10 gigapixels',
      'huge.tif',
      () => liarTiff(100_000, 100_000),
      /claims 100000 × 100000 pixels.*10000 megapixels; 250 is the most/,
      'width, height',
    ],
    ['a PNG bomb', 'bomb.png', () => bombPng(20_000), /400 megapixels; 250 is the most/, 'width, height'],
    [
      'an SVG renamed',
      'photo.jpg',
      () =>
        Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect width="9" height="9"/></svg>'),
      /not a JPEG, PNG or TIFF/,
      'file type',
    ],
    [
      'a broken profile in a good picture',
      'profile.jpg',
      brokenProfileJpeg,
      /embedded profile can’t be used/,
      'embedded profile',
    ],
    [
      'a picture cut short',
      'cut.tif',
      async () =>
        (
          await blocks([
            [0.2, 0.4, 0.6],
            [0.9, 0.8, 0.7],
          ])
        ).subarray(0, 2500),
      /damaged or cut short/,
      'image data',
    ],
    [
      'a JPEG cut short',
      'cut.jpg',
      async () =>
        (
          await sharp({
            create: {
              width: 900,
              height: 900,
              channels: 3,
              background: '#345',
              noise: { type: 'gaussian', mean: 120, sigma: 40 },
            },
          })
            .jpeg()
            .toBuffer()
        ).subarray(0, 60_000),
      /damaged or cut short/,
      'image data',
    ],
    [
      'CMYK',
      'cmyk.tif',
      () =>
        sharp({ create: { width: 20, height: 20, channels: 3, background: '#345' } })
          .toColourspace('cmyk')
          .tiff()
          .toBuffer(),
      /in CMYK; RGB and grey/,
      'colour space',
    ],
    ['an empty file', 'nothing.png', () => new Uint8Array(0), /empty/, undefined],
  ])('%s: a clear error, and the server goes on', async (_, name, make, message, field) => {
    const { job } = await picture(rakuen, name, await make());
    expect(job.state).toBe('failed');
    expect(job.error?.message).toMatch(message);
    expect(job.error?.field).toBe(field);
    expect(job.error?.remedy?.length).toBeGreaterThan(10);
    expect(job.error?.file).toBe(name);
  });

  it('a broken profile can be set aside on purpose', async () => {
    const { job } = await picture(rakuen, 'profile.jpg', await brokenProfileJpeg(), { assumeSrgb: 'yes' });
    expect(job.state).toBe('done');
    const { body } = await rakuen.call<{ profileAssumed: boolean }>('GET', `/api/pictures/${job.pictureId}`);
    expect(body.profileAssumed).toBe(true);
    expect((await rakuen.call('DELETE', `/api/pictures/${job.pictureId}`)).status).toBe(204);
  });

  it('a reading can be stopped', async () => {
    const slow = await sharp({
      create: {
        width: 6000,
        height: 4000,
        channels: 3,
        background: '#345',
        noise: { type: 'gaussian', mean: 120, sigma: 40 },
      },
    })
      .jpeg()
      .toBuffer();
    const begun = await rakuen.upload<{ id: string }>('/api/pictures', 'slow.jpg', slow);
    await rakuen.call('DELETE', `/api/pictures/jobs/${begun.body.id}`);
    for (;;) {
      const { body } = await rakuen.call<{ state: string }>('GET', `/api/pictures/jobs/${begun.body.id}`);
      if (body.state === 'cancelled') break;
      expect(['waiting', 'reading']).toContain(body.state);
      await new Promise((done) => setTimeout(done, 30));
    }
  });
});

describe('requests', () => {
  it('unknown fields are refused and named', async () => {
    const { status, body } = await rakuen.call<{ field: string }>('POST', '/api/papers', {
      ...PAPER,
      name: 'X',
      gamut: 900_000,
    });
    expect(status).toBe(400);
    expect(body.field).toContain('gamut');
  });

  it.each<[string, object, string]>([
    ['a paper without a name', { ...PAPER, name: '  ' }, 'name'],
    ['a negative weight', { ...PAPER, weightGsm: -3 }, 'weightGsm'],
    ['an unknown coating', { ...PAPER, coating: 'velvet' }, 'coating'],
    ['a bad size inside', { ...PAPER, sizes: [{ ...PAPER.sizes[0], sheets: 0.5 }] }, 'sizes.0.sheets'],
  ])('%s is refused at its field', async (_, input, field) => {
    const { status, body } = await rakuen.call<{ field: string }>('POST', '/api/papers', input);
    expect(status).toBe(400);
    expect(body.field).toContain(field);
  });

  it('broken JSON, an id that is none, an address that is none', async () => {
    const broken = await fetch(`${rakuen.url}/api/papers`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"name":',
    });
    expect(broken.status).toBe(400);
    expect(await broken.json()).toMatchObject({ statusCode: 400, remedy: expect.any(String) });
    expect((await rakuen.call('GET', '/api/conditions/1%20OR%201')).status).toBe(400);
    expect((await rakuen.call('GET', '/api/nothing')).status).toBe(404);
    expect(
      (await rakuen.call('POST', '/api/conditions', { ...CONDITION, paperId: '00000000-0000-4000-8000-000000000000' }))
        .status,
    ).toBe(404);
  });
});

describe('who may ask', () => {
  const ask = (headers: Record<string, string>) =>
    new Promise<number>((done, fail) => {
      http
        .get({ host: '127.0.0.1', port: rakuen.port, path: '/api/papers', headers }, (r) =>
          done(r.resume().statusCode!),
        )
        .on('error', fail);
    });

  it('foreign hosts and origins are refused; its own are served', async () => {
    expect(await ask({ host: `127.0.0.1:${rakuen.port}` })).toBe(200);
    expect(await ask({ host: `localhost:${rakuen.port}`, origin: `http://localhost:${rakuen.port}` })).toBe(200);
    expect(await ask({ host: 'rebound.example:80' })).toBe(403);
    expect(await ask({ host: `127.0.0.1:${rakuen.port}`, origin: 'https://elsewhere.example' })).toBe(403);
    expect(await ask({ host: `127.0.0.1:${rakuen.port}`, origin: 'null' })).toBe(403);
    expect(await ask({ host: `127.0.0.1:${rakuen.port}`, 'sec-fetch-site': 'cross-site' })).toBe(403);
  });

  it('the content policy allows nothing from elsewhere and nothing inline', async () => {
    const policy = (await fetch(`${rakuen.url}/api/papers`)).headers.get('content-security-policy')!;
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain("script-src 'self'");
    expect(policy).not.toMatch(/unsafe|https?:|\*/);
  });

  it('stored files are named by their content, never by the client', async () => {
    const { job } = await picture(rakuen, '../../../../evil.png', await blocks([[0.5, 0.5, 0.5]], undefined, 'png'));
    expect(job.state).toBe('done');
    const names = readdirSync(join(rakuen.data, 'files'), { recursive: true }) as string[];
    for (const name of names) expect(name).toMatch(/^[0-9a-f]{2}(\/[0-9a-f]{64})?$/);
    expect((await rakuen.call('DELETE', `/api/pictures/${job.pictureId}`)).status).toBe(204);
  });

  it('JSON that is too deep, or has too much in it, is refused before it is parsed; messages stay short', async () => {
    const post = async (body: string) => {
      const response = await fetch(`${rakuen.url}/api/papers`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body,
      });
      const text = await response.text();
      expect(text.length).toBeLessThan(4000);
      return { status: response.status, body: JSON.parse(text) as { message: string; remedy: string } };
    };
    expect(await post('['.repeat(200_000) + ']'.repeat(200_000))).toMatchObject({
      status: 413,
      body: { message: expect.stringMatching(/nested more than/) },
    });
    expect(await post(`[${'1,'.repeat(90_000)}1]`)).toMatchObject({
      status: 413,
      body: { message: expect.stringMatching(/more than 50000 values/) },
    });
    const many = Object.fromEntries(Array.from({ length: 5000 }, (_, i) => [`field${i}`, 1]));
    expect((await post(JSON.stringify(many))).status).toBe(400);
  });

  it('no answer is kept on the way; an address that is none is told in the one shape', async () => {
    const response = await fetch(`${rakuen.url}/api/papers`);
    expect(response.headers.get('cache-control')).toBe('no-store');
    for (const path of ['/api/nothing', '/api/papers/a/b/c', '/nothing.js'])
      expect(await rakuen.call('GET', path)).toMatchObject({
        status: 404,
        body: { statusCode: 404, message: 'There is no such address.' },
      });
  });

  it.each(['2026-W05', '2199-01-01', '1931-05-01', '2026-02-30'])('a print of %s is refused', async (printedOn) => {
    const { status, body } = await rakuen.call<{ field: string }>('POST', '/api/prints', { printedOn });
    expect(status).toBe(400);
    expect(body.field).toContain('printedOn');
  });

  it('names with signs nobody sees, and currencies nobody pays in, are refused', async () => {
    for (const over of [{ name: 'a\u202eb' }, { name: 'a\u0007b' }, { name: 'two\nlines' }, { currency: 'ABC' }])
      expect((await rakuen.call('POST', '/api/papers', { ...PAPER, ...over })).status).toBe(400);
  });
});
