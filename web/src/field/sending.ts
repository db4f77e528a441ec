/** What all that is kept first and sent later has in common. */
import { Problem } from '../api/client';

export const RETRY = 3000; // ms between two tries to reach the house, at first; each vain try doubles it
export const LONGEST = 30_000; // ms between two tries at most

/** Whether the house could not be reached: nothing else will get there either. */
export const unreached = (e: unknown) => e instanceof Problem && e.status === 0;

/** Answers that say nothing of what was sent: called off, too slow, too early, too many. */
const passing = [408, 425, 429, 499];
/** Whether it stumbled over this one: it is tried again later, and the others are sent meanwhile. */
export const stumbled = (e: unknown) => e instanceof Problem && (e.status >= 500 || passing.includes(e.status));
