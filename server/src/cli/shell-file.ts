import { readFile, stat } from 'node:fs/promises';
import { FormatError } from '@rakuen/core/formats/format-error';

const MAX_BYTES = 64 * 2 ** 20;

/** Bytes of a file named in the shell. @throws FormatError where it can't be opened or is too large */
export async function shellFile(file: string): Promise<Uint8Array> {
  try {
    if ((await stat(file)).size > MAX_BYTES)
      throw new FormatError({
        message: 'The file is larger than 64 MB.',
        remedy: 'Readings and profiles are smaller; choose another file.',
      });
    return await readFile(file);
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError({
      message: `The file can’t be opened (${(error as NodeJS.ErrnoException).code ?? 'unknown'}).`,
      remedy: 'Check its name and your right to read it.',
    });
  }
}

/** Does the file claim to be an ICC profile? */
export const isProfile = (bytes: Uint8Array): boolean =>
  bytes.length >= 40 && String.fromCharCode(...bytes.subarray(36, 40)) === 'acsp';
