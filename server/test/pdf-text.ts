import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** The words of a PDF as another program reads them, page breaks as form feeds. */
export function pdfText(bytes: Uint8Array): string {
  const path = join(mkdtempSync(join(tmpdir(), 'rakuen-pdf-')), 'x.pdf');
  writeFileSync(path, bytes);
  return spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' }).stdout;
}
