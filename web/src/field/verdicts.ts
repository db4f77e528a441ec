/** Judges plants on this device, by the same rules as the house, where the house cannot be reached. */
import { api, ask, type Answer, type Check, type Schemas } from '../api/client';
import { house } from '../lib/house.svelte';
import { deviceDay } from '../lib/dates';
import { asked, load, start } from './rules';

export type Ruling = Omit<Schemas['DecisionIn'], 'rev' | 'read' | '$schema'>;

let taken = ''; // the property whose plants the rules know, and since which start of theirs

const key = (property: number) => `${property} ${start()}`;

/** The day it is: the sample's, or else the device's own. */
export function today(): string {
  return house.frame?.movable && house.today ? house.today : deviceDay();
}

/** What the rules have to know of a property: from the house, or as the service worker kept it. */
export const kitOf = (property: number) => ask(api.GET('/api/v1/properties/{id}/along', { params: { path: { id: property } } }));

/** Has the rules know a property. */
export async function takeKit(property: number): Promise<void> {
  const [kit] = await Promise.all([kitOf(property), load()]);
  await asked('mezzadroTake', kit);
  taken = key(property);
}

/** What was found at a plant on a walk. */
export interface Seen {
  property: number;
  plant: number;
  day: string; // the walk's
  checks: Check[];
}

/** The verdict on what was found, and with a ruling the answer that stands after it; nothing where the plant was not taken along. */
export async function judge(of: Seen, ruling?: Ruling): Promise<Answer | undefined> {
  if (taken !== key(of.property)) await takeKit(of.property);
  try {
    return (await asked<{ answer: Answer }>('mezzadroJudge', { ...of, today: today(), ruling: ruling ?? null })).answer;
  } catch (e) {
    if (e instanceof Error && e.message.includes('was not taken along')) return undefined; // added since
    throw e;
  }
}
