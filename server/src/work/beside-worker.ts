import { parentPort, workerData } from 'node:worker_threads';
import { CodeBins } from '@rakuen/core/picture/bins';
import { blocksOf, BlockTally } from '@rakuen/core/picture/blocks';
import { openColours } from './picture-colours.ts';
import type { PictureBeside, Run, Told } from './read-beside.ts';

/** Entry of the thread that reads a picture by place, and counts a part of its colours, beside the one that counts the rest. */
const { kind, colours } = workerData as PictureBeside;
const tally = new BlockTally(kind);
const bins = new CodeBins(kind);
const opened = openColours(colours);

const tell = (told: Told) => parentPort!.postMessage(told);

parentPort!.on('message', (run: Run | 'all') => {
  if (run === 'all') return void finish();
  for (const stretch of run.stretches) tally.addStretch(run.samples, stretch);
  if (run.whole) bins.add(run.samples);
  tell('added');
});

async function finish(): Promise<void> {
  tell({ counted: bins.counted() });
  const { labOf, close } = await opened;
  tell({ blocks: blocksOf(tally.tallied, labOf) });
  close();
}
