/** What several places say of a job. */
import type { Order } from '../api/client';
import { brief, daysBetween, hours, inWords, span } from '../lib/dates';
import { house } from '../lib/house.svelte';

/** A window longer than this many days is any time. */
export const anyTime = 300;

/** When an order is, or may well be, done: in a few words. */
export function when(o: Order, today: string): string {
  if (o.state === 'done') return `done ${inWords(o.ended)}${o.took_minutes ? `, ${hours(o.took_minutes)}` : ''}`;
  if (o.state === 'skipped') return `not needed, said ${inWords(o.ended)}: ${o.note}`;
  if (o.hold && !o.hold.anyway) return o.hold.until ? `waits until ${inWords(o.hold.until)}` : 'waits for a look';
  if (o.overdue) return `was to be done ${inWords(o.day)}; today is ${costWord(o.day_cost, today, o)}`;
  if (o.day) return `on ${inWords(o.day)}, ${costWord(o.day_cost, o.day, o)}`;
  if (o.passed) return 'the time for this has passed';
  if (o.window_from) {
    const within = o.best_day && o.best_day >= o.window_from && o.best_day <= o.window_to;
    if (daysBetween(o.window_from, o.window_to) > anyTime) return `any time${within ? `, best ${brief(o.best_day)}` : ''}`;
    return `${span(o.window_from, o.window_to)}${within ? `, best ${brief(o.best_day)}` : ''}`;
  }
  return o.best_day ? `no good day; ${brief(o.best_day)} is the least bad` : 'no day is allowed';
}

const level = (c: number) => house.frame?.levels?.find((l) => c <= l.up_to);

/** What a kind of work is called. */
export const kindWord = (kind: string) => (kind === 'prune' ? 'cut' : kind === 'other' ? 'odd jobs' : kind);

/** Whether a day costs so little that it is good for the work. */
export const isGood = (c: number) => level(c)?.good ?? false;

/** What a day costs, in the house's word for it; the number is told on asking. */
export function costWord(c: number | undefined, day?: string, o?: Pick<Order, 'window_from' | 'window_to' | 'best_day'>): string {
  if (c === undefined) return 'outside its time';
  const early = !!day && !!o && (o.window_from ? day < o.window_from : !!o.best_day && day < o.best_day);
  return level(c)?.word.replace('{when}', early ? 'early' : 'late') ?? '';
}

/** The number behind the word. */
export const costOf = (c: number | undefined) =>
  c === undefined ? '' : c > 100 ? 'more than is allowed' : `costs ${c} of 100, 0 being best`;

/** What it is for: the plant's place, how many plants, or the property itself. */
export const forWhat = (o: Order) => (o.label ? o.label : o.plants > 1 ? `${o.plants} plants or groups` : '');

export const titled = (o: Order) => `${o.title}${o.label ? `, ${o.label}` : ''}`;

/** Where an order comes from, for people. */
export const origin: Record<string, string> = {
  verdict: 'a verdict',
  'after-care': 'after-care',
  'taking in': 'taking in before frost',
  plan: 'a plan',
  programme: 'a programme',
  planting: 'a planting',
  hand: 'entered by hand',
};
