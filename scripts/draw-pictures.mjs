import { mkdirSync, writeFileSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { isMainThread, parentPort, Worker } from 'node:worker_threads';

const ROOT = fileURLToPath(new URL('../', import.meta.url));
const FOLDER = join(ROOT, 'demo/dist/drawn');
const { drawPicture, SCENES } = await import(pathToFileURL(join(ROOT, 'demo/dist/pictures/draw.js')).href);

/** Draws every picture of the invented studio into a file: a thread takes the next when it has drawn one. */
if (isMainThread) {
  mkdirSync(FOLDER, { recursive: true });
  const names = Object.keys(SCENES);
  for (let i = 0; i < Math.min(availableParallelism(), 4); i++) {
    const thread = new Worker(fileURLToPath(import.meta.url));
    const next = () => {
      const name = names.shift();
      if (name) thread.postMessage(name);
      else void thread.terminate();
    };
    thread.on('message', next);
    thread.on('error', (error) => {
      console.error(error);
      process.exit(1);
    });
    next();
  }
} else {
  parentPort.on('message', async (name) => {
    writeFileSync(join(FOLDER, `${name}.tif`), (await drawPicture(name)).tiff);
    parentPort.postMessage(name);
  });
}
