import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));

/** The built parts, as they run: a helper thread is a file of its own. */
const PROGRAM = `(async () => {
const { CubeOnTwo } = await import('./server/dist/work/cube-helper.js');
const { throughCodes } = await import('./core/dist/characterisation/code-cube.js');
const nodes = 9;
const cube = { nodes, values: Float32Array.from({ length: nodes ** 3 * 3 }, (_, i) => (i * 7919) % 65536) };
const two = new CubeOnTwo(cube, 65535, 30000);
let [runs, same, helped] = [0, 0, 0];
// The helper opens meanwhile, as slowly as the machine will have it.
for (const until = Date.now() + 20000; runs < 40 || (helped < 20 && Date.now() < until); runs++) {
  const samples = Uint16Array.from({ length: runs % 2 ? 30000 : 9993 }, (_, i) => (i * 2654435761 + runs) % 65536);
  const [got, wanted] = [new Uint16Array(samples.length), new Uint16Array(samples.length)];
  helped += two.ready ? 1 : 0;
  two.look(samples, got);
  throughCodes(cube, samples, 65535, wanted);
  same += got.every((v, i) => v === wanted[i]) ? 1 : 0;
  await new Promise((done) => setTimeout(done, 5));
}
two.close();
console.log(JSON.stringify({ runs, same, helped }));
})()`;

it('a lattice looked up on two threads gives what one gives, from the first run on, and lets the process end', () => {
  const { stdout, status } = spawnSync(process.execPath, ['-e', PROGRAM], {
    cwd: ROOT,
    encoding: 'utf8',
    timeout: 30_000,
  });
  expect(status).toBe(0);
  const { runs, same, helped } = JSON.parse(stdout) as Record<string, number>;
  expect(same).toBe(runs);
  expect(helped).toBeGreaterThan(0);
});
