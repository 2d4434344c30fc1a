import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const RUN = "import('./server/dist/bundle/main.js').then((m) => m.main(process.argv.slice(1)))";

export interface Api {
  readonly url: string;
  /** Status and parsed body of an API call. */
  call<T = never>(
    method: string,
    path: string,
    body?: unknown,
    headers?: Record<string, string>,
  ): Promise<{ status: number; body: T }>;
  upload<T = never>(
    path: string,
    name: string,
    bytes: Uint8Array | string,
    fields?: Record<string, string>,
  ): Promise<{ status: number; body: T }>;
}

/** The built server as a process of its own, on a free port, with a data folder of its own. */
export interface Running extends Api {
  readonly port: number;
  readonly data: string;
  stop(): Promise<number | null>;
  /** As a person stops it; what is kept stays. */
  end(): Promise<number | null>;
  kill(): Promise<void>;
}

export const fixture = (name: string): URL => new URL(`../../core/test/fixtures/${name}`, import.meta.url);

export function temporaryFolder(): string {
  return mkdtempSync(join(tmpdir(), 'rakuen-test-'));
}

/** The API at an address. */
export function apiOf(url: string): Api {
  const answer = async <T = never>(response: Response) => {
    const text = await response.text();
    return {
      status: response.status,
      body: (text && /[/+]json/.test(response.headers.get('content-type') ?? '') ? JSON.parse(text) : text) as T,
    };
  };
  return {
    url,
    async call(method, path, body, headers = {}) {
      return answer(
        await fetch(`${url}${path}`, {
          method,
          headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
          body: body === undefined ? undefined : JSON.stringify(body),
        }),
      );
    },
    async upload<T>(path: string, name: string, bytes: string | Uint8Array, fields: Record<string, string> = {}) {
      const send = async (over: Record<string, string>) => {
        const form = new FormData();
        for (const [key, value] of Object.entries({ ...fields, ...over })) form.append(key, value);
        form.append('file', new Blob([bytes as BlobPart]), name);
        return answer<T>(await fetch(`${url}${path}`, { method: 'POST', body: form }));
      };
      const sent = await send({});
      const condition = /^\/api\/conditions\/([^/]+)\/readings$/.exec(path)?.[1];
      if (!condition || sent.status !== 409 || (sent.body as { field?: string }).field !== 'keep') return sent;
      // Many tests print one simulated sheet on papers of several names: they mean it, and their readings give figures.
      const kept = await send({ keep: 'apart' });
      if (kept.status !== 201) return kept;
      const { readings } = kept.body as { readings: { id: string; importedAt: string }[] };
      const readingId = [...readings].sort((p, q) => q.importedAt.localeCompare(p.importedAt))[0].id;
      const joined = await fetch(`${url}/api/readings/${readingId}/apart`, { method: 'DELETE' });
      return { ...(await answer<T>(joined)), status: 201 };
    },
  };
}

/** Starts the server and gives what it printed when it could not. */
export function launch(args: string[], env: NodeJS.ProcessEnv = {}): ChildProcess {
  return spawn(process.execPath, ['-e', RUN, '--', ...args], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...env },
  });
}

export async function start(
  data = temporaryFolder(),
  args: string[] = ['--empty'],
  env: NodeJS.ProcessEnv = {},
): Promise<Running> {
  const child = launch(['--port', '0', '--data', data, ...args], env);
  let output = '';
  const url = await new Promise<string>((done, fail) => {
    const take = (chunk: Buffer) => {
      output += chunk.toString();
      const address = /Rakuen is at (http:\S+)/.exec(output)?.[1];
      if (address) done(address);
    };
    child.stdout!.on('data', take);
    child.stderr!.on('data', take);
    child.on('exit', (code) => fail(new Error(`the server stopped (${code}): ${output}`)));
  });
  const ended = new Promise<number | null>((done) => child.on('exit', (code) => done(code)));
  return {
    ...apiOf(url),
    port: Number(new URL(url).port),
    data,
    async stop() {
      child.kill('SIGINT');
      const code = await ended;
      rmSync(data, { recursive: true, force: true });
      return code;
    },
    async end() {
      child.kill('SIGINT');
      return ended;
    },
    async kill() {
      child.kill('SIGKILL');
      await ended;
    },
  };
}

export const PAPER = {
  maker: 'Testmill',
  name: 'Proof Sheet',
  coating: 'baryta',
  base: 'alpha cellulose',
  surface: 'smooth',
  brightenerClaim: 'none',
  weightGsm: 300,
  thicknessUm: 400,
  sizes: [{ label: 'A4', widthMm: 210, heightMm: 297, sheets: 25, packPrice: 50 }],
  currency: 'EUR',
};

export const CONDITION = {
  printer: 'Test Press',
  inkSet: 'four inks',
  blackInk: 'photo black',
  mediaSetting: 'Coated',
  resolution: '720 dpi',
  printMode: 'colour through a profile',
  profile: 'press.icc',
  blackOvercoat: false,
};

/** A paper with one print condition. @returns the condition's id */
export async function condition(rakuen: Api, name = 'Proof Sheet', coating = 'baryta'): Promise<string> {
  const paper = await rakuen.call<{ id: string }>('POST', '/api/papers', { ...PAPER, name, coating });
  return (await rakuen.call<{ id: string }>('POST', '/api/conditions', { ...CONDITION, paperId: paper.body.id })).body
    .id;
}

/** Adds a picture and waits until it is read or refused. */
export async function picture(rakuen: Api, name: string, bytes: Uint8Array, fields: Record<string, string> = {}) {
  type Job = {
    id: string;
    state: string;
    pictureId?: string;
    error?: { message: string; remedy?: string; field?: string; file?: string };
  };
  const begun = await rakuen.upload<Job>('/api/pictures', name, bytes, fields);
  if (begun.status !== 202) return { status: begun.status, job: begun.body };
  for (;;) {
    const { body } = await rakuen.call<Job>('GET', `/api/pictures/jobs/${begun.body.id}`);
    if (body.state !== 'waiting' && body.state !== 'reading') return { status: 202, job: body };
    await new Promise((done) => setTimeout(done, 40));
  }
}
