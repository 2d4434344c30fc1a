import { useState } from 'react';
import { labToXyz } from '@rakuen/core/colour/lab';
import type { Lab } from '@rakuen/core/colour/types';
import { formatNumber } from '@rakuen/core/measurement/show';
import { roomLevel, SCREEN_CD_M2 } from '@rakuen/core/proof/room-level';
import { decimal } from '../parts/decimal.ts';
import { useRemembered } from '../parts/remembered.ts';

/** The light where it will hang, against this screen's. */
export interface Room {
  readonly on: boolean;
  readonly lux: string;
  readonly screen: string;
  /** By how much light is multiplied, 0–1. */
  readonly dim: number;
  /** What is written is a level. */
  readonly known?: { readonly lux: number; readonly screenCdM2: number };
  turn(on: boolean): void;
  setLux(lux: string): void;
  setScreen(cdM2: string): void;
}

/** @param commissioned lux of the room the picture is made for */
export function useRoom(commissioned: number): Room {
  const [on, turn] = useState(false);
  const [lux, setLux] = useState(String(commissioned));
  const [screen, setScreen] = useRemembered('screen-white', String(SCREEN_CD_M2));
  const [E, white] = [decimal(lux), decimal(screen)];
  const known = E > 0 && white > 0 ? { lux: E, screenCdM2: white } : undefined;
  return {
    on,
    lux,
    screen,
    dim: on && known ? roomLevel(1, known.lux, known.screenCdM2).dim : 1,
    known,
    turn,
    setLux,
    setScreen,
  };
}

const FIELD = 'min-h-8 w-16 rounded-[3px] border border-edge bg-field px-2';

/** Shows the sheets as bright as they will hang, and says where the screen can't. */
export function RoomLine({
  room,
  whites,
  names,
}: {
  room: Room;
  whites: readonly [Lab, Lab];
  names: readonly [string, string];
}) {
  const { known } = room;
  const levels = known && whites.map((white) => roomLevel(labToXyz(white)[1] / 100, known.lux, known.screenCdM2));
  return (
    <>
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="size-4 accent-ink"
          checked={room.on}
          onChange={(e) => room.turn(e.target.checked)}
        />
        as bright as the room
      </label>
      {room.on && (
        <>
          <label className="flex items-center gap-1.5">
            <input
              aria-label="Light of the room, lux"
              inputMode="decimal"
              className={FIELD}
              value={room.lux}
              onChange={(e) => room.setLux(e.target.value)}
            />
            lx, this screen
            <input
              aria-label="White of this screen, candela a square metre"
              inputMode="decimal"
              className={FIELD}
              value={room.screen}
              onChange={(e) => room.setScreen(e.target.value)}
            />
            cd/m²
          </label>
          <p role="status" className="basis-full text-[13px]">
            {levels
              ? levels
                  .filter((_, i) => i === 0 || whites[1] !== whites[0])
                  .map(
                    (l, i) =>
                      `${names[i]}: its white has ${formatNumber(l.paperCdM2, 0)} cd/m² there${l.darker ? ', more than this screen can show: it is drawn darker than it will hang' : ''}`,
                  )
                  .join('; ') + '.'
              : 'Say both levels as numbers above nothing.'}
          </p>
        </>
      )}
    </>
  );
}
