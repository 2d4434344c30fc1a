import { useEffect, useMemo, useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { useTable } from '../table/use-table.ts';
import { Hatching } from './hatching.tsx';
import { labImage, type LabImage } from './lab-image.ts';
import { useLaidQuery } from './picture-api.ts';
import { sheetMaps } from './sheet-maps.ts';

const MAPS = {
  none: 'bare',
  busy: 'busy detail',
  smooth: 'plain areas',
  reach: 'out of reach',
  closed: 'closed shadows',
} as const;
type MapKey = keyof typeof MAPS;
/** Maps of what a sheet does: that in the left hand. */
const OF_A_SHEET: readonly MapKey[] = ['reach', 'closed'];

/** A map over a picture: of its own detail, or of what the sheet in the left hand does to it. */
export function useMap(picture: PictureView) {
  const { structure } = picture.figures;
  const [map, setMap] = useState<MapKey>('none');
  const { left } = useTable();
  const ofSheet = OF_A_SHEET.includes(map);
  const { currentData: laid, error } = useLaidQuery(
    { conditionId: left?.id ?? '', light: picture.commission.light, glass: picture.commission.glass },
    { skip: !ofSheet || !left },
  );
  const [image, setImage] = useState<LabImage>();
  useEffect(() => {
    if (!ofSheet) return;
    void labImage(picture.id).then(setImage, () => undefined);
  }, [ofSheet, picture.id]);
  const maps = useMemo(
    () => (ofSheet && image && laid && structure ? sheetMaps(image, laid.seen, structure.map) : undefined),
    [ofSheet, image, laid, structure],
  );
  const words = ofSheet ? `${MAPS[map]} on ${left?.paper.name}, where it will hang` : MAPS[map];
  const levels = structure && [...structure.map.busy].map(Number);
  const level = (tile: number): number => {
    switch (map) {
      case 'busy':
        return levels![tile];
      case 'smooth':
        return levels![tile] === 0 ? 6 : levels![tile] === 1 ? 3 : 0;
      case 'reach':
        return maps && maps.outOfReach[tile] > 1 ? maps.outOfReach[tile] : 0;
      case 'closed':
        return maps && maps.closed[tile] > 0.15 ? maps.closed[tile] * 9 : 0;
      default:
        return 0;
    }
  };
  return {
    map,
    setMap,
    /** Those there are for this picture. */
    choices: structure ? (Object.keys(MAPS) as MapKey[]).filter((key) => left || !OF_A_SHEET.includes(key)) : [],
    ofSheet,
    words,
    error,
    drawn: structure && map !== 'none' && (!ofSheet || maps) && (
      <Hatching
        columns={structure.map.columns}
        rows={structure.map.rows}
        label={`Map: ${words}, the denser the more`}
        level={level}
      />
    ),
  };
}

/** Chooses among the maps there are. */
export function MapChoice({ at }: { at: ReturnType<typeof useMap> }) {
  return (
    <div role="radiogroup" aria-label="Map over the picture" className="flex gap-3 text-[13px]">
      {at.choices.map((key) => (
        <label key={key} className="flex items-center gap-1">
          <input
            type="radio"
            name="map"
            className="accent-ink"
            checked={at.map === key}
            onChange={() => at.setMap(key)}
          />
          {MAPS[key]}
        </label>
      ))}
    </div>
  );
}
