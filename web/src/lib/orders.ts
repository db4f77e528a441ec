/** What several places say of a job. */
import type { Order } from '../api/client';
import { brief, inWords } from './dates';

/** When an order is, or may well be, done: in a few words. */
export function when(o: Order, today: string): string {
  if (o.state === 'done') return `done ${inWords(o.ended, today)}${o.took_minutes ? `, ${o.took_minutes} min` : ''}`;
  if (o.state === 'skipped') return `skipped ${inWords(o.ended, today)}: ${o.note}`;
  if (o.overdue) return `was to be done ${inWords(o.day, today)}; today costs ${cost(o.day_cost)}`;
  if (o.day) return `on ${inWords(o.day, today)}, costs ${cost(o.day_cost)}`;
  if (o.passed) return 'the time for this has passed';
  if (o.window_from) return `${brief(o.window_from)} – ${brief(o.window_to)}, best ${brief(o.best_day)}`;
  return o.best_day ? `no good days; the best is ${brief(o.best_day)}, which costs ${cost(o.best_cost)}` : 'no day is allowed';
}

export const cost = (c: number) => (c > 100 ? 'more than allowed' : `${c} of 100`);

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
