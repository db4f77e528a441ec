/** Civil dates are "YYYY-MM-DD" everywhere; these turn them into places on the year and words, as the reader's region writes them. */
export { degrees, metres } from './units';

const DAY = 86_400_000;

/** The words are English; whether the month comes first is the reader's. */
const parts = new Intl.DateTimeFormat(navigator.language, { day: 'numeric', month: 'long' }).formatToParts(0);
const monthFirst = parts.findIndex((p) => p.type === 'month') < parts.findIndex((p) => p.type === 'day');
const format = (o: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat('en-GB', { ...o, timeZone: 'UTC' });
const month = format({ month: 'long' });
const weekday = format({ weekday: 'short' });

export const utc = (iso: string) => Date.parse(iso + 'T00:00:00Z');
export const daysBetween = (from: string, to: string) => Math.round((utc(to) - utc(from)) / DAY);
export const plusDays = (iso: string, n: number) => new Date(utc(iso) + n * DAY).toISOString().slice(0, 10);
export const monthName = (iso: string) => month.format(utc(iso));
export const dayName = (iso: string) => weekday.format(utc(iso));
/** 0 Sunday to 6 Saturday */
export const dayOfWeek = (iso: string) => new Date(utc(iso)).getUTCDay();

const joined = (day: number, name: string) => (monthFirst ? `${name} ${day}` : `${day} ${name}`);

/** "Thu 18 March" or "Thu March 18"; with the year where it is not the one given. */
export function inWords(iso: string | undefined, thisYear?: string): string {
  if (!iso) return '';
  const d = new Date(utc(iso));
  const year = thisYear && !iso.startsWith(thisYear.slice(0, 4)) ? ` ${d.getUTCFullYear()}` : '';
  return `${dayName(iso)} ${joined(d.getUTCDate(), monthName(iso))}${year}`;
}

/** "18 Mar" or "Mar 18" */
export function brief(iso: string | undefined): string {
  if (!iso) return '';
  return joined(new Date(utc(iso)).getUTCDate(), monthName(iso).slice(0, 3));
}

/** A moment, with its hour, by the device's clock and as the reader's region writes it. */
export const moment = (t: string) => new Date(t).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });

export const hours = (minutes: number) =>
  minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h${minutes % 60 ? ` ${minutes % 60} min` : ''}`;

export const plantsOf = (n: number) => (n === 1 ? 'one plant or group' : `${n} plants or groups`);
