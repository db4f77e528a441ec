/** Money as the house keeps it: whole numbers of a currency's smallest unit; written and read as the reader's region does. */
import type { Schemas } from '../api/client';

export type Range = Pick<Schemas['EstimatePart'], 'from' | 'amount' | 'to'>;
export type Line = Schemas['EstimateLine'];
export type Part = Schemas['EstimatePart'];
export type Estimate = Schemas['Estimate'];

/** An amount with its currency, such as €1,234.50. */
export function amount(minor: number, currency: string, digits: number): string {
  const v = minor / 10 ** digits;
  if (!currency) return v.toFixed(digits);
  return new Intl.NumberFormat(undefined, {
    style: 'currency',
    currency,
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  }).format(v);
}

/** From–to, or the one amount where both ends are it. */
export const range = (r: Range, currency: string, digits: number) =>
  r.from === r.to
    ? amount(r.amount, currency, digits)
    : `${amount(r.from, currency, digits)} – ${amount(r.to, currency, digits)}`;

/** What stands in a field for an amount. */
export const inField = (minor: number, digits: number) => (minor / 10 ** digits).toFixed(digits);

/** What was typed as an amount, in the smallest unit; NaN where it is none. A comma before the last digits is a point. */
export function read(text: string, digits: number): number {
  let t = text.replace(/[\s\u00a0'’]/g, '').replace(/[^\d.,-]/g, '');
  if (!/\d/.test(t)) return text.trim() ? NaN : 0;
  const last = Math.max(t.lastIndexOf('.'), t.lastIndexOf(','));
  const decimals = last >= 0 && t.length - last - 1 <= Math.max(2, digits) && t.length - last - 1 !== 3;
  t =
    decimals || (last >= 0 && digits === 3)
      ? t.slice(0, last).replace(/[.,]/g, '') + '.' + t.slice(last + 1)
      : t.replace(/[.,]/g, '');
  return Math.round(Number(t) * 10 ** digits);
}

/** A share in hundredths of a per cent, as a figure in per cent and back. */
export const percent = (share: number) => String(share / 100);
export const shareOf = (text: string) => Math.round(Number(text.replace(',', '.')) * 100);

const add = (a: Range, b: Range): Range => ({ from: a.from + b.from, amount: a.amount + b.amount, to: a.to + b.to });
/** What a line's parts come to. */
export const sumOf = (parts: Range[]): Range => parts.reduce<Range>(add, { from: 0, amount: 0, to: 0 });

/** How many of an estimate's lines are answered. */
export const answered = (e: Estimate) => e.lines.filter((l) => l.answer).length;
export const stateOf = (e: Estimate) =>
  e.state === 'draft'
    ? 'draft'
    : e.state === 'withdrawn'
      ? 'withdrawn'
      : e.over
        ? 'run out'
        : e.answers === 'open'
          ? `${answered(e)} of ${e.lines.length} answered`
          : e.answers;
