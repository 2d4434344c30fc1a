import type { Commission } from '@rakuen/core/match/commission';
import type { Hint } from '@rakuen/core/picture/hints';
import type { SceneName } from './pictures/draw.ts';

/** Where the pictures of the invented studio will live: an exhibition in the old receiver hall, a book, and a drawing to be reproduced. */
export const COMMISSIONS: Readonly<Record<SceneName, Partial<Commission>>> = {
  nightDish: { longSideMm: 420, glass: 'museum', light: 'led-warm', lux: 150, editionOf: 3, copies: 3, mustLast: true },
  saltCrust: { longSideMm: 420, light: 'D50', lux: 300, editionOf: 8, copies: 8 },
  fogPylons: { longSideMm: 254, glass: 'plain', light: 'led-cool', lux: 150, copies: 40 },
  controlRoom: { longSideMm: 400, light: 'D50', lux: 500, editionOf: 8, copies: 8 },
  lichen: { longSideMm: 254, handled: true, viewingMm: 350, copies: 1 },
  rustStruts: { longSideMm: 254, glass: 'plain', lux: 150, light: 'led-warm', copies: 40 },
  insulator: { longSideMm: 254, light: 'museum', lux: 50, editionOf: 8, copies: 8, mustLast: true },
  blueprint: { longSideMm: 254, viewingMm: 400, originalGround: [90.4, 0.4, 9.6], signedOffBy: 'I. Tamsin' },
  panorama: { longSideMm: 480, viewingMm: 1200, light: 'window', lux: 500, copies: 12 },
  tonedHall: { longSideMm: 254, light: 'museum', lux: 100, editionOf: 8, copies: 8, mustLast: true },
};

/** What the printmaker said the pictures are of, where the guess was not enough. */
export const HINTS_SAID: Partial<Record<SceneName, Hint[]>> = {
  saltCrust: [],
  lichen: ['bark or stone'],
  insulator: ['metal or polished stone'],
  nightDish: ['night', 'sky'],
};

/** Which of them lie on the table when the studio is first opened. */
export const ON_THE_TABLE: readonly SceneName[] = ['nightDish', 'saltCrust', 'controlRoom', 'tonedHall'];
