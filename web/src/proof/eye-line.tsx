import { lightXyz } from '@rakuen/core/colour/temperature';
import type { ViewingLight } from '@rakuen/core/light/table-lights';
import { formatNumber } from '@rakuen/core/measurement/show';
import { besideScreen, isWhite, SCREEN_WHITES, type BesideScreen, type Xy } from '@rakuen/core/proof/screen-white';
import { decimal } from '../parts/decimal.ts';
import { useRemembered } from '../parts/remembered.ts';
import { screenSpace } from './proof-canvas.ts';
import { LineChoice, optionsOf } from './line-choice.tsx';

/** What the eye has settled on. */
export const EYES = {
  light: 'settled in that light',
  paper: 'settled on the paper',
  screen: 'on this screen, the print beside it',
} as const;
export type Eye = keyof typeof EYES;

const WHITES = [...Object.keys(SCREEN_WHITES), 'measured'];

/** This screen's white, kept with this browser. */
export function useScreenWhite() {
  const [key, setKey] = useRemembered('screen-white-kind', 'D65');
  const [xy, setXy] = useRemembered('screen-white-xy', '0.3127 0.3290');
  const [x, y] = xy
    .trim()
    .split(/[\s;]+/)
    .map((v) => decimal(v));
  const white = key === 'D65' || key === 'D50' ? SCREEN_WHITES[key] : { x, y };
  return { key, setKey, xy, setXy, white: isWhite(white) ? white : undefined };
}
export type ScreenWhite = ReturnType<typeof useScreenWhite>;

/** How a print is drawn for an eye that has settled on the screen; nothing for the others. */
export const besideOf = (eye: Eye, white: Xy | undefined, light: ViewingLight | undefined): BesideScreen | undefined =>
  eye === 'screen' && white && light ? besideScreen(screenSpace(), white, lightXyz(light.power)) : undefined;

/** What the eye has settled on, and for a print held beside the screen the white the screen is set to. */
export function EyeLine({
  eye,
  onEye,
  screen,
  light,
}: {
  eye: Eye;
  onEye: (eye: Eye) => void;
  screen: ScreenWhite;
  light: ViewingLight | undefined;
}) {
  const shown = besideOf(eye, screen.white, light);
  return (
    <>
      <LineChoice
        word="Eye"
        label="What the eye has settled on"
        widthCh={26}
        value={eye}
        options={optionsOf(EYES)}
        onChoose={onEye}
      />
      {eye === 'screen' && (
        <>
          <LineChoice
            word="This screen’s white"
            label="This screen’s white"
            value={screen.key}
            options={WHITES.map((key) => [key, key])}
            onChoose={screen.setKey}
          />
          {screen.key === 'measured' && (
            <input
              aria-label="Measured white of this screen, x and y"
              className="min-h-8 w-32 rounded-[3px] border border-edge bg-field px-2"
              value={screen.xy}
              onChange={(e) => screen.setXy(e.target.value)}
            />
          )}
          <p role="status" className="basis-full text-[13px]">
            {shown && light
              ? `In ${light.name} the print keeps that light’s own colour against a screen of x ${screen.white!.x.toFixed(4)}, y ${screen.white!.y.toFixed(4)}${shown.fit < 0.995 ? `; all of it is drawn at ${formatNumber(shown.fit * 100, 0)} % so that a perfect white fits` : ''}${shown.beyond ? '; the lamp’s own colour is more than this screen can show' : ''}.`
              : 'Write x and y of its white as two numbers, as 0.3127 0.3290.'}
          </p>
        </>
      )}
    </>
  );
}
