/** Civil dates are "YYYY-MM-DD" everywhere; these turn them into places on the year and words. */

const DAY = 86_400_000;
const months = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];
const weekdays = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];

export const utc = (iso: string) => Date.parse(iso + 'T00:00:00Z');
export const daysBetween = (from: string, to: string) => Math.round((utc(to) - utc(from)) / DAY);
export const plusDays = (iso: string, n: number) => new Date(utc(iso) + n * DAY).toISOString().slice(0, 10);
export const monthName = (iso: string) => months[new Date(utc(iso)).getUTCMonth()]!;

/** "Thu 18 March"; with the year where it is not the one given. */
export function inWords(iso: string | undefined, thisYear?: string): string {
  if (!iso) return '';
  const d = new Date(utc(iso));
  const year = thisYear && !iso.startsWith(thisYear.slice(0, 4)) ? ` ${d.getUTCFullYear()}` : '';
  return `${weekdays[d.getUTCDay()]} ${d.getUTCDate()} ${months[d.getUTCMonth()]}${year}`;
}

/** "18 Mar" */
export function brief(iso: string | undefined): string {
  if (!iso) return '';
  const d = new Date(utc(iso));
  return `${d.getUTCDate()} ${months[d.getUTCMonth()]!.slice(0, 3)}`;
}

export const hours = (minutes: number) =>
  minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h${minutes % 60 ? ` ${minutes % 60} min` : ''}`;

export const metres = (m: number) => (m < 1 ? `${Math.round(m * 100)} cm` : `${m.toFixed(m < 10 ? 2 : 1).replace(/0$/, '')} m`);

export const degrees = (c: number, places = 1) => c.toFixed(places).replace('-', '−') + ' °C';

export const plantsOf = (n: number) => (n === 1 ? 'one plant or group' : `${n} plants or groups`);
