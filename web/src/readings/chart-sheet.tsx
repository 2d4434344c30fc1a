import type { ChartDesign } from '@rakuen/core/chart/chart-design';
import { fromRgb16, type Rgb16 } from '@rakuen/core/chart/device16';

const CSS_PX_PER_MM = 96 / 25.4;

/** Device colour as this screen shows it; how it will print is for the instrument to say. */
export const deviceCss = (rgb16: Rgb16): string =>
  `rgb(${fromRgb16(rgb16)
    .map((v) => Math.round(v * 255))
    .join(' ')})`;

/** One sheet of a chart, drawn to scale: fitted to its place, or as large as life. */
export function ChartSheet({ design, page, lifeSize }: { design: ChartDesign; page: number; lifeSize: boolean }) {
  const { widthMm, heightMm, boxes, texts } = design.pages[page];
  const strips = design.strips.filter((s) => s.page === page);
  const { patchMm } = design.spec;
  const px = CSS_PX_PER_MM * widthMm;
  return (
    <svg
      role="img"
      aria-label={`Sheet ${page + 1} of ${design.pages.length}, ${widthMm} × ${Math.round(heightMm * 10) / 10} mm, ${strips.length} strips`}
      viewBox={`0 0 ${widthMm} ${heightMm}`}
      style={lifeSize ? { width: px, maxWidth: 'none' } : { width: '100%', maxHeight: 640 }}
      className="block border border-edge bg-[#fff]"
    >
      {boxes.map((b, i) => (
        <rect key={i} x={b.xMm} y={b.yMm} width={b.widthMm} height={b.heightMm} fill={deviceCss(b.rgb16)} />
      ))}
      {strips.map((s) =>
        s.patches.map((p) => (
          <rect key={p.id} x={p.xMm} y={p.yMm} width={patchMm} height={patchMm} fill={deviceCss(p.rgb16)}>
            <title>{`${p.id}, ${p.role}`}</title>
          </rect>
        )),
      )}
      {texts.map((t, i) => (
        <text
          key={i}
          x={t.xMm}
          y={t.yMm}
          fontSize={t.sizeMm}
          textAnchor={t.anchor}
          fill="#000"
          fontFamily="var(--font-sans)"
        >
          {t.text}
        </text>
      ))}
    </svg>
  );
}
