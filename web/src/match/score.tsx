import { formatNumber } from '@rakuen/core/measurement/show';

const STROKES = 10;

/** A score as ten pencil strokes, and as a number with its uncertainty. */
export function Score({ score, sd }: { score: number; sd: number }) {
  const words = `${formatNumber(score, 1)} of 10, give or take ${formatNumber(sd, 1)}`;
  return (
    <span
      className="inline-flex items-center gap-2 whitespace-nowrap"
      title={`${words}: 10 takes nothing from the picture, 0 would not be taken`}
    >
      <svg width={STROKES * 6} height={16} viewBox={`0 0 ${STROKES * 6} 16`} aria-hidden>
        {Array.from({ length: STROKES }, (_, i) => {
          const filled = Math.min(1, Math.max(0, score - i));
          return (
            <g key={i}>
              <path d={`M${i * 6 + 2} 15L${i * 6 + 4} 1`} stroke="var(--line)" strokeWidth="1" />
              {filled > 0 && (
                <path
                  d={`M${i * 6 + 2} 15L${i * 6 + 2 + 2 * filled} ${15 - 14 * filled}`}
                  stroke="var(--ink)"
                  strokeWidth="2.2"
                  strokeLinecap="round"
                />
              )}
            </g>
          );
        })}
      </svg>
      <span>
        {formatNumber(score, 1)} <span className="text-[12.5px] text-quiet">± {formatNumber(sd, 1)} of 10</span>
      </span>
    </span>
  );
}
