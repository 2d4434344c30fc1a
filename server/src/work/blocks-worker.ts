import { parentPort, workerData } from 'node:worker_threads';
import { blocksOf, BlockTally } from '@rakuen/core/picture/blocks';
import type { PictureBeside, Rows } from './blocks-helper.ts';
import { openColours } from './picture-colours.ts';

/** Entry of the thread that reads a picture by place while another counts its colours. */
const { kind, colours } = workerData as PictureBeside;
const tally = new BlockTally(kind);
const opened = openColours(colours);

parentPort!.on('message', (rows: Rows | 'all') => {
  if (rows === 'all') return void finish();
  for (const stretch of rows.stretches) tally.addStretch(rows.samples, stretch);
  parentPort!.postMessage('added');
});

async function finish(): Promise<void> {
  const { labOf, close } = await opened;
  parentPort!.postMessage(blocksOf(tally.tallied, labOf));
  close();
}
