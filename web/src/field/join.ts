/** Joining what two devices found at one plant. */
import type { Check } from '../api/client';

/** The checks of one list that another does not have, each as often as it is there more. */
export function beyond(list: Check[], other: Check[]): Check[] {
  const left = other.map((c) => JSON.stringify(sorted(c)));
  return list.filter((c) => {
    const i = left.indexOf(JSON.stringify(sorted(c)));
    if (i < 0) return true;
    left.splice(i, 1);
    return false;
  });
}

const sorted = (c: Check) => Object.fromEntries(Object.entries(c).sort(([a], [b]) => (a < b ? -1 : 1)));

/** What both found: theirs, and what was added here since the list both knew. */
export const joined = (known: Check[], mine: Check[], theirs: Check[]): Check[] => [...theirs, ...beyond(mine, known)];

/** Two notes as one. */
export const joinedNote = (mine: string, theirs: string): string =>
  !mine || theirs.includes(mine) ? theirs : !theirs || mine.includes(theirs) ? mine : `${theirs}\n${mine}`;
