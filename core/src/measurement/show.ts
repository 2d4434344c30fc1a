import type { Figure } from './figure.ts';
import type { Measure } from './measures/measure.ts';

/** Digits after the point that a standard deviation supports: the last digit shown is about as large as the deviation. */
export function supportedDigits(sd: number, most: number): number {
  if (!(sd > 0)) return most;
  return Math.max(0, Math.min(most, Math.ceil(-Math.log10(sd * 1.5))));
}

/** A number with no digits beyond its repeatability, a true minus sign and thin spaces between thousands. */
export function formatNumber(value: number, digits: number): string {
  const text = Math.abs(value).toFixed(digits);
  const [whole, part] = text.split('.');
  const grouped = whole!.length > 4 ? whole!.replace(/\B(?=(\d{3})+$)/g, '\u2009') : whole;
  const zero = Number(text) === 0;
  return `${value < 0 && !zero ? '−' : ''}${grouped}${part ? `.${part}` : ''}`;
}

/** A figure as it is shown, without its unit. A volume is rounded to the hundreds its repeatability supports. */
export function formatFigure(measure: Measure, figure: Figure): string {
  if (figure.shape === 'missing') return '—';
  if (figure.shape === 'colour') {
    const digits = supportedDigits(figure.sd, measure.digits);
    return figure.lab.map((v) => formatNumber(v, digits)).join('  ');
  }
  if (figure.sd > 5) {
    const unit = 10 ** Math.floor(Math.log10(figure.sd));
    return formatNumber(Math.round(figure.value / unit) * unit, 0);
  }
  return formatNumber(figure.value, supportedDigits(figure.sd, measure.digits));
}

/** Between what an estimated figure lies, in the measure's own digits: "2.1 to 4.5"; of a colour, its b*. */
export function formatBetween(measure: Measure, [low, high]: readonly [number, number]): string {
  const [from, to] = [low, high].map((v) => formatNumber(v, measure.digits));
  return `${from} to ${to}`;
}
