import type { PlannedSheet } from '@rakuen/core/layout/pack-plan';
import { formatNumber } from '@rakuen/core/measurement/show';
import { TickField } from '../parts/form.tsx';

const PX_PER_MM = 0.42;
/** Numbers of what lies on a sheet; their names stand under it. */
const NUMBER_PX = 13;
/** Names keep this much room under a small sheet. */
const LEAST_PX = 88;

/** Sheets to scale: what lies where, what is printed, what is blank. */
export function PackSheets({
  sheets,
  left,
  width,
  height,
  printed,
  onPrinted,
}: {
  sheets: readonly PlannedSheet[];
  left: number;
  width: number;
  height: number;
  printed?: (n: number) => boolean;
  onPrinted?: (n: number, is: boolean) => void;
}) {
  return (
    <ol className="flex flex-wrap gap-4">
      {sheets.map((s, n) => (
        <li key={n}>
          <Drawn sheet={s} n={n} width={width} height={height} />
          <ol className="mt-1 text-[12.5px] leading-tight" style={{ width: Math.max(LEAST_PX, width * PX_PER_MM) }}>
            {s.items.map((i, at) => (
              <li key={i.key}>
                <span className="font-serif">{at + 1}</span> {i.name}
              </li>
            ))}
          </ol>
          {onPrinted && (
            <TickField
              label="printed"
              aria-label={`Sheet ${n + 1}, printed`}
              checked={printed?.(n) ?? false}
              onChange={(e) => onPrinted(n, e.target.checked)}
            />
          )}
        </li>
      ))}
      {Array.from({ length: Math.min(left, 6) }, (_, n) => (
        <li key={`left-${n}`}>
          <svg
            aria-hidden
            width={width * PX_PER_MM}
            height={height * PX_PER_MM}
            className="block border border-dashed border-edge"
          />
        </li>
      ))}
    </ol>
  );
}

/** A sheet with what lies on it. */
function Drawn({ sheet: s, n, width, height }: { sheet: PlannedSheet; n: number; width: number; height: number }) {
  return (
    <svg
      role="img"
      aria-label={`Sheet ${n + 1}: ${s.items.map((i) => i.name).join(', ')}; ${formatNumber(100 * s.used, 0)} % used`}
      width={width * PX_PER_MM}
      height={height * PX_PER_MM}
      viewBox={`0 0 ${width} ${height}`}
      className="block border border-edge bg-field"
    >
      {s.items.map((i, at) => {
        const [w, h] = i.turned ? [i.heightMm, i.widthMm] : [i.widthMm, i.heightMm];
        return (
          <g key={i.key}>
            <rect
              x={i.xMm}
              y={i.yMm}
              width={w}
              height={h}
              fill={i.kind === 'crop' ? 'var(--sheet)' : 'var(--ground)'}
              stroke="var(--ink)"
              strokeWidth={1.4}
              strokeDasharray={i.kind === 'chart' ? undefined : i.kind === 'test page' ? '8 4' : '3 3'}
            />
            <text
              x={i.xMm + w / 2}
              y={i.yMm + h / 2}
              fontSize={NUMBER_PX / PX_PER_MM}
              textAnchor="middle"
              dominantBaseline="central"
              fill="var(--ink)"
              fontFamily="var(--font-serif)"
            >
              {at + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
