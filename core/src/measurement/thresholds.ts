/** From which difference on something can be seen: edge to edge in strong light, and across a room. */
export interface SeenFrom {
  readonly edgeToEdge: number;
  readonly acrossRoom: number;
}

/** The printmaker's own thresholds, by scale. */
export interface Thresholds {
  /** ΔE00. */
  readonly deltaE: SeenFrom;
  /** Density. */
  readonly density: SeenFrom;
  /** Percent of the sheet it is compared with. */
  readonly percent: SeenFrom;
}

/**
 * Where to start (practice): ΔE00 1 edge to edge and 2 across a table, 0.03 D in strong light and 0.1 in a room, 5 % of gamut
 * volume. Twice that for a gamut across the room is our own choice.
 */
export const DEFAULT_THRESHOLDS: Thresholds = {
  deltaE: { edgeToEdge: 1, acrossRoom: 2 },
  density: { edgeToEdge: 0.03, acrossRoom: 0.1 },
  percent: { edgeToEdge: 5, acrossRoom: 10 },
};
