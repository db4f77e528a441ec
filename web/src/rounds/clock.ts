import type { Schemas } from '../api/client';

export type Span = Schemas['RoundsSpan'];
export type Crew = Schemas['Crew'];
export type Proposal = Schemas['Proposal'];
export type Visit = Schemas['ProposedVisit'];

/** "08:30" of minutes after midnight, and back. */
export const clock = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(Math.round(minutes) % 60).padStart(2, '0')}`;
export function minutesOf(text: string): number {
  const m = /^(\d{1,2}):(\d{2})$/.exec(text);
  return m ? Number(m[1]) * 60 + Number(m[2]) : 0;
}

export const weekdays = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];

/** The days of a week in the order the firm counts them. */
export const inOrder = (first: number) => [0, 1, 2, 3, 4, 5, 6].map((i) => (i + first) % 7);

/** Monday to Friday, from eight to five. */
export const usualWeek = (): Span[] =>
  [0, 1, 2, 3, 4, 5, 6].map((d) => (d > 0 && d < 6 ? { from: 480, to: 1020 } : { from: 0, to: 0 }));
