import type { Lab } from '@rakuen/core/colour/types';
import { screenColour } from './screen-colour.ts';

/** A colour as this screen can show it; a dashed edge where it can't. */
export function Swatch({ lab }: { lab: Lab }) {
  const { css, outside } = screenColour(lab);
  return (
    <span
      aria-hidden
      title={outside ? 'this screen can’t show it' : undefined}
      style={{ background: css }}
      className={`inline-block size-[10px] border align-[-1px] ${outside ? 'border-dashed border-ink' : 'border-edge'}`}
    />
  );
}
