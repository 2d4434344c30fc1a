import type { PictureFigures } from '@rakuen/core/picture/tally';

const [WIDTH, HEIGHT] = [180, 56];

/** How the tones lie, as one pencil line: share of the picture darker than each L*. */
export function ToneCurve({ figures }: { figures: PictureFigures }) {
  let sum = 0;
  const line = figures.lightness.map((share, L) => {
    sum += share;
    return `${L === 0 ? 'M' : 'L'}${((L / 100) * WIDTH).toFixed(1)} ${(HEIGHT - sum * HEIGHT).toFixed(1)}`;
  });
  const middle = (figures.medianL / 100) * WIDTH;
  return (
    <figure>
      <svg
        viewBox={`-2 -2 ${WIDTH + 4} ${HEIGHT + 18}`}
        width={WIDTH + 4}
        height={HEIGHT + 20}
        role="img"
        aria-label={`Tones: half of the picture is darker than L* ${figures.medianL.toFixed(1)}; 2 % is darker than L* ${figures.darkL.toFixed(0)}, 2 % lighter than L* ${figures.lightL.toFixed(0)}`}
      >
        <path d={`M0 ${HEIGHT}H${WIDTH}`} stroke="var(--edge)" fill="none" />
        <path d={line.join('')} stroke="var(--ink)" strokeWidth="1.4" fill="none" />
        <path d={`M${middle} ${HEIGHT}V${HEIGHT / 2}`} stroke="var(--ink)" strokeDasharray="2 2" fill="none" />
        <text x={0} y={HEIGHT + 13} fontSize="11" fill="var(--quiet)">
          L* 0
        </text>
        <text
          x={Math.min(WIDTH - 60, Math.max(60, middle))}
          y={HEIGHT + 13}
          fontSize="11"
          textAnchor="middle"
          fill="var(--ink)"
        >
          half below {figures.medianL.toFixed(0)}
        </text>
        <text x={WIDTH} y={HEIGHT + 13} fontSize="11" textAnchor="end" fill="var(--quiet)">
          100
        </text>
      </svg>
    </figure>
  );
}
