/** White of a calibrated screen, cd/m² (practice: 80 to 120). */
export const SCREEN_CD_M2 = 100;

export interface RoomLevel {
  /** What the sheet's white has in the room, cd/m². */
  readonly paperCdM2: number;
  /** By how much light is multiplied on the screen, 0–1. */
  readonly dim: number;
  /** The room is brighter than the screen can be: it shows the sheet darker than it will hang. */
  readonly darker: boolean;
}

/**
 * How bright a sheet is in a room, and on a screen that shows it so. A diffuse white of luminance factor Y under E lux
 * has Y·E/π cd/m² (CIE S 017, a perfect diffuser).
 * @param whiteY luminance factor of the sheet's white as it is seen there, 0–1
 * @throws RangeError where a level is not above nothing
 */
export function roomLevel(whiteY: number, lux: number, screenCdM2: number): RoomLevel {
  if (!(lux > 0) || !(screenCdM2 > 0)) throw new RangeError('Room and screen have some light.');
  const paperCdM2 = (whiteY * lux) / Math.PI;
  // The screen's own white stands for the perfect diffuser.
  const dim = lux / Math.PI / screenCdM2;
  return { paperCdM2, dim: Math.min(1, dim), darker: dim > 1 };
}
