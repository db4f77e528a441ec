/** Civil dates are "YYYY-MM-DD" everywhere; these turn them into places on the year and words, as the reader's region writes them. */
import { house } from './house.svelte';

export { degrees, metres } from './units';

const DAY = 86_400_000;

/** The words are English; whether the month comes first, and by what clock hours are told, is the firm's, else the reader's. */
const parts = new Intl.DateTimeFormat(navigator.language, { day: 'numeric', month: 'long' }).formatToParts(0);
const readers = parts.findIndex((p) => p.type === 'month') < parts.findIndex((p) => p.type === 'day') ? 'month' : 'day';
const monthFirst = () => (house.frame?.firm?.day_order || readers) === 'month';
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

const joined = (day: number, name: string) => (monthFirst() ? `${name} ${day}` : `${day} ${name}`);

/** The device's own day. */
export const deviceDay = () => new Date(Date.now() - new Date().getTimezoneOffset() * 60_000).toISOString().slice(0, 10);

/** The year of a day where it is another than today's: a day of another year carries it everywhere. */
const yearOf = (iso: string, always = false) =>
  always || iso.slice(0, 4) !== (house.today || deviceDay()).slice(0, 4) ? `${monthFirst() ? ',' : ''} ${iso.slice(0, 4)}` : '';

/** "Thu 18 March" or "Thu March 18", with its year where that is not this one, or always. */
export function inWords(iso: string | undefined, always = false): string {
  if (!iso) return '';
  return `${dayName(iso)} ${joined(new Date(utc(iso)).getUTCDate(), monthName(iso))}${yearOf(iso, always)}`;
}

/** "18 Mar" or "Mar 18", with its year where that is not this one, or always. */
export const brief = (iso: string | undefined, always = false) => (iso ? short(iso) + yearOf(iso, always) : '');

const short = (iso: string) => joined(new Date(utc(iso)).getUTCDate(), monthName(iso).slice(0, 3));

/** "18 Mar – 4 Apr": of one year, it stands once, at the end. */
export const span = (from: string | undefined, to: string | undefined, always = false) =>
  from && to && from.slice(0, 4) === to.slice(0, 4)
    ? `${short(from)} – ${short(to)}${yearOf(to, always)}`
    : `${brief(from, true)} – ${brief(to, true)}`;

const readersTwelve = new Intl.DateTimeFormat(navigator.language, { hour: 'numeric' }).resolvedOptions().hour12;
const twelve = () => (house.frame?.firm?.clock ? house.frame.firm.clock === '12' : readersTwelve);

/** A moment, with its hour, by the device's own time. */
export function moment(t: string): string {
  const at = new Date(t);
  const day = new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 10);
  return `${brief(day, true)}, ${atHour(at.getHours() * 60 + at.getMinutes())}`;
}

/** Minutes since midnight as the reader's region writes an hour: "08:30" or "8:30 am". */
export function atHour(minutes: number): string {
  const [h, m] = [Math.floor(minutes / 60) % 24, String(Math.round(minutes) % 60).padStart(2, '0')];
  return twelve() ? `${h % 12 || 12}:${m} ${h < 12 ? 'am' : 'pm'}` : `${String(h).padStart(2, '0')}:${m}`;
}

/** An hour of a day as the house writes it, "06:30", as the reader's region writes it. */
export const clock = (hour: string) => atHour(60 * Number(hour.slice(0, 2)) + Number(hour.slice(3, 5)));

export const hours = (minutes: number) =>
  minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h${minutes % 60 ? ` ${minutes % 60} min` : ''}`;

export const plantsOf = (n: number) => (n === 1 ? 'one plant or group' : `${n} plants or groups`);
