import type { Brought } from './inbox-api.ts';

/** So many files are taken at once: more is a disk and no folder of readings. */
const MOST = 2000;

/** Files of a drop, those in folders with their folders; must be asked while the drop is handled. */
export async function droppedFiles(transfer: DataTransfer): Promise<Brought[]> {
  // All are asked for before the first is waited for.
  const dropped = [...transfer.items]
    .filter((item) => item.kind === 'file')
    .map((item) => ({ entry: item.webkitGetAsEntry(), file: item.getAsFile() }));
  const found: Brought[] = [];
  for (const { entry, file } of dropped) {
    if (entry?.isDirectory) await gather(entry, '', found);
    else if (file) found.push({ file, path: file.name });
  }
  return found;
}

async function gather(entry: FileSystemEntry, folder: string, found: Brought[]): Promise<void> {
  if (found.length >= MOST || entry.name.startsWith('.')) return;
  const path = `${folder}${entry.name}`;
  if (entry.isFile) {
    const file = await new Promise<File>((done, fail) => (entry as FileSystemFileEntry).file(done, fail));
    found.push({ file, path });
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  // A reader gives its entries in portions, and none when it is done.
  for (;;) {
    const portion = await new Promise<FileSystemEntry[]>((done, fail) => reader.readEntries(done, fail));
    if (portion.length === 0) return;
    for (const inside of portion) await gather(inside, `${path}/`, found);
  }
}

/** Files of a picker, with their folders where a folder was picked. */
export const pickedFiles = (list: FileList | null): Brought[] =>
  [...(list ?? [])].map((file) => ({ file, path: file.webkitRelativePath || file.name }));
