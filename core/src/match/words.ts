import { formatNumber } from '../measurement/show.ts';

/** A share in percent, with one digit below ten percent; "under 0.1 %" rather than a false nought. */
export function percent(share: number): string {
  const p = share * 100;
  if (p > 0 && p < 0.05) return 'under 0.1\u00a0%';
  if (p >= 99.5 && p < 100) return 'over 99\u00a0%';
  return `${formatNumber(p, p < 10 && p > 0 ? 1 : 0)}\u00a0%`;
}

export const deltaE = (v: number): string => `${formatNumber(v, 1)}\u00a0ΔE00`;
export const oneDigit = (v: number): string => formatNumber(v, 1);

/** A size on paper: a digit below ten millimetres. */
export const mmWords = (mm: number): string => `${formatNumber(mm, mm < 9.95 ? 1 : 0)}\u00a0mm`;

export function sentenceCase(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** "+12°", "−3°", "0°". */
export function signedDegrees(deg: number): string {
  const whole = Math.round(deg);
  return `${whole > 0 ? '+' : whole < 0 ? '−' : ''}${Math.abs(whole)}°`;
}
