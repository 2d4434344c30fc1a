import { createWriteStream } from 'node:fs';
import { mkdir, open, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yauzl from 'yauzl';
import yazl from 'yazl';

/** What goes into an archive: a file on the disk, or bytes, under a name. */
export interface ZipEntry {
  readonly name: string;
  readonly path?: string;
  readonly bytes?: Buffer;
}

/**
 * Writes an archive; it is there whole, on the disk for good, when this returns, or not at all.
 * @throws Error where a file can’t be read or written, or `signal` stops it
 */
export async function writeZip(to: string, entries: readonly ZipEntry[], signal?: AbortSignal): Promise<void> {
  const draft = `${to}.part`;
  await mkdir(dirname(to), { recursive: true });
  try {
    const zip = new yazl.ZipFile();
    // Kept files are pictures and the like: squeezing them again gains nothing.
    for (const { name, path, bytes } of entries)
      if (path !== undefined) zip.addFile(path, name, { compress: false });
      else zip.addBuffer(bytes ?? Buffer.alloc(0), name, { compress: true });
    zip.end();
    // A file that went away in the meantime is told by the archive, not by its stream; untold, it would end the server.
    const stream = zip.outputStream as Readable;
    zip.on('error', (error) => stream.destroy(error));
    await pipeline(stream, createWriteStream(draft, { mode: 0o600 }), { signal });
    const file = await open(draft, 'r+');
    await file.sync();
    await file.close();
    await rename(draft, to);
  } catch (error) {
    await rm(draft, { force: true });
    throw error;
  }
}

/** More than this in one archive is no studio of ours but something that wants to fill the disk, bytes. */
const MOST_BYTES = 200 * 2 ** 30;
const SAFE = /^[\w.-]+(\/[\w.-]+)*$/;

/** Unpacks an archive into a folder. @throws Error naming the entry that is not as it should be */
export async function readZip(from: string, folder: string): Promise<string[]> {
  const zip = await new Promise<yauzl.ZipFile>((done, fail) =>
    yauzl.open(from, { lazyEntries: true, validateEntrySizes: true }, (error, opened) =>
      error ? fail(error) : done(opened),
    ),
  );
  const names: string[] = [];
  let total = 0;
  try {
    for (;;) {
      const entry = await nextEntry(zip);
      if (!entry) return names;
      if (!SAFE.test(entry.fileName) || entry.fileName.split('/').includes('..'))
        throw new Error(`“${entry.fileName.slice(0, 80)}” has no place in a studio`);
      total += entry.uncompressedSize;
      if (total > MOST_BYTES) throw new Error('it holds more than any studio');
      const to = join(folder, entry.fileName);
      await mkdir(dirname(to), { recursive: true });
      const stream = await new Promise<NodeJS.ReadableStream>((done, fail) =>
        zip.openReadStream(entry, (error, opened) => (error ? fail(error) : done(opened))),
      );
      await pipeline(stream, createWriteStream(to, { mode: 0o600 }));
      names.push(entry.fileName);
    }
  } finally {
    zip.close();
  }
}

function nextEntry(zip: yauzl.ZipFile): Promise<yauzl.Entry | undefined> {
  return new Promise((done, fail) => {
    const stop = () => {
      zip.off('entry', onEntry);
      zip.off('end', onEnd);
      zip.off('error', onError);
    };
    const onEntry = (entry: yauzl.Entry) => (stop(), done(entry));
    const onEnd = () => (stop(), done(undefined));
    const onError = (error: Error) => (stop(), fail(error));
    zip.on('entry', onEntry).on('end', onEnd).on('error', onError);
    zip.readEntry();
  });
}
