/** An amount in a currency, as it was on a day. Amounts of two currencies are never added. */
export interface Money {
  readonly amount: number;
  /** ISO 4217. */
  readonly currency: string;
}

export class MixedCurrencies extends Error {
  constructor(readonly currencies: readonly string[]) {
    super(`Prices in ${currencies.join(' and ')} can’t be added: no rate is known here.`);
  }
}

/** The sum; zero of nothing in `currency`. */
export function sum(list: readonly Money[], currency = list[0]?.currency ?? ''): Money {
  const found = [...new Set([...(currency ? [currency] : []), ...list.map((m) => m.currency)])];
  if (found.length > 1) throw new MixedCurrencies(found);
  return { amount: list.reduce((total, m) => total + m.amount, 0), currency };
}

/** An amount to the cent, as its currency is written. */
export const shown = ({ amount, currency }: Money): string =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency, currencyDisplay: 'code' }).format(amount);
