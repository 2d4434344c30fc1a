import { formatNumber } from '@rakuen/core/measurement/show';
import { screenColour } from '../parts/screen-colour.ts';

/**
 * The shadows of a sheet as a small wedge: greys of L* 0, 2 … 24 of the file as they are seen where the print will hang,
 * relative to its white. Steps that run into each other here run into each other there.
 */
export function ShadowWedge({ steps }: { steps: readonly number[] }) {
  return (
    <span
      role="img"
      aria-label={`Shadow steps as they print: L* 0 to 24 of the file become ${formatNumber(steps[0], 1)} to ${formatNumber(steps[steps.length - 1], 1)}`}
      title="L* 0, 2 … 24 of the file, as they are seen where it will hang"
      className="ml-1.5 inline-flex align-[-3px]"
    >
      {steps.map((L, i) => (
        <span key={i} className="inline-block h-4 w-2.5" style={{ background: screenColour([L, 0, 0]).css }} />
      ))}
    </span>
  );
}
