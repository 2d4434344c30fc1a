/* global fetch */
import { performance } from 'node:perf_hooks';
import { inFolder, measured, photograph, serve } from './studio.mjs';

const PRINTS = 30;
const INKS = ['photo black', 'matt black'];
const FEEDS = [
  ['auto feeder', 'each stack'],
  ['front straight path', 'each copy'],
  ['roll', 'feed change'],
];

/** Thirty prints of two inks and three feeds, from one copy to five. */
const waiting = Array.from({ length: PRINTS }, (_, i) => {
  const [feed, hand] = FEEDS[(i * 7) % FEEDS.length];
  return {
    id: `${i}`,
    blackInk: INKS[(i * 5) % 3 === 0 ? 1 : 0],
    feed,
    hand,
    copies: 1 + (i % 5),
    minutesEach: 3 + ((i * 11) % 9),
    stack: 10,
    dryMinutes: 30,
  };
});

/** @returns ms that the order of thirty prints takes with two times at the printer, where no order is known to be the best */
export function runOfThirty({ runOrder }) {
  const present = [
    { fromMin: 0, toMin: 240 },
    { fromMin: 360, toMin: 900 },
  ];
  const began = performance.now();
  const { steps, unplaced } = runOrder({ prints: waiting, begins: { blackInk: INKS[0] }, present });
  if (steps.length + unplaced.length !== PRINTS) throw new Error('A print was lost in the run.');
  return performance.now() - began;
}

/** @returns ms from a sheet that was just read to the first picture of it on that sheet */
export async function firstProof(files) {
  return inFolder(async (data) => {
    const studio = await serve(data);
    try {
      const picture = await photograph(studio);
      // A first sheet, so that no thread has to start.
      const warm = await measured(studio, 'Sheet 0', files(0));
      await (await fetch(`${studio.url}/api/pictures/${picture}/on/${warm}`)).arrayBuffer();
      const id = await measured(studio, 'Sheet 1', files(1));
      const began = performance.now();
      const answer = await fetch(`${studio.url}/api/pictures/${picture}/on/${id}`);
      if (!answer.ok) throw new Error(await answer.text());
      await answer.arrayBuffer();
      return performance.now() - began;
    } finally {
      await studio.stop();
    }
  });
}
