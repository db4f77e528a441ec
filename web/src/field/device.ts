/** What is kept on this device: the walk's data at hand, and what waits to be sent. Nothing here judges. */
import { openDB, type DBSchema } from 'idb';
import type { Answer, Check, Plant, Schemas } from '../api/client';
import type { CountOf } from './counts.svelte';
import type { Waits } from './queue.svelte';
import type { Store } from './sending.svelte';
import type { ShotOf } from './shots.svelte';
import type { TickOf } from './ticks.svelte';
import type { Ruling } from './verdicts';

export type Look = Schemas['Look'];
export type Photo = Schemas['Photo'];

/** A property's walk as it was last read, with what was found since. */
export interface Walk {
  property: number;
  walk: number;
  day: string;
  read: string; // when, ISO time
  plants: Plant[];
  looks: Record<number, { checks: Check[]; note: string }>;
  revs: Record<number, number>; // of the looks as the house last told
  answers: Record<number, Answer>; // the last verdict on each
  own?: Record<number, string>; // of those formed on this device: the checks they are on, as one text
  photos: Photo[];
  skipped: number[];
}

/** What was found at a plant and waits to be sent. */
export interface Waiting {
  id: string; // walk:plant
  walk: number;
  property: number;
  plant: number;
  known: Check[]; // the checks the house is known to have, on which this is based
  base: number;
  checks: Check[];
  note: string;
  sent?: { key: string; checks: Check[]; note: string }; // under way, or its answer was lost: sent again under its key
  theirs?: Look; // another device wrote meanwhile: to be settled by hand
  refused?: string; // the house would not take it
}

/** What was decided about a plant and waits to be sent. */
export interface WaitingDecision {
  id: string; // walk:plant
  key: string;
  walk: number;
  property: number;
  plant: number;
  name: string; // for people
  day: string;
  made: number; // ms
  checks: string; // that it rests on, as one text
  rev: number; // of the look it rests on
  ruling: Ruling;
  read?: { kind: string; cut_m?: number }; // the verdict, where it was formed on this device
  kind: string; // of the verdict that stands
  sentence: string;
  until: string;
  refused?: string; // the house would not take it
}

/** A picture that waits to be sent. */
export interface WaitingPhoto {
  key: string;
  walk: number;
  plant: number;
  blob: Blob;
  taken: string; // empty: not to be kept
  place?: { latitude: number; longitude: number };
  refused?: string;
}

interface Device extends DBSchema {
  walks: { key: number; value: Walk };
  waiting: { key: string; value: Waiting };
  photos: { key: string; value: WaitingPhoto };
  decisions: { key: string; value: WaitingDecision };
  finds: { key: string; value: Waits<Schemas['FindIn']> };
  unnamed: { key: string; value: Waits<Schemas['UnnamedIn']> };
  ticks: { key: string; value: Waits<TickOf> };
  shots: { key: string; value: Waits<ShotOf> };
  counts: { key: string; value: Waits<CountOf> };
}

const db = openDB<Device>('mezzadro', 7, {
  upgrade(d, from) {
    if (from < 1) {
      d.createObjectStore('walks', { keyPath: 'property' });
      d.createObjectStore('waiting', { keyPath: 'id' });
      d.createObjectStore('photos', { keyPath: 'key' });
    }
    if (from < 2) d.createObjectStore('finds', { keyPath: 'key' });
    if (from < 3) d.createObjectStore('ticks', { keyPath: 'key' });
    if (from < 4) d.createObjectStore('shots', { keyPath: 'key' });
    if (from < 5) d.createObjectStore('unnamed', { keyPath: 'key' });
    if (from < 6) d.createObjectStore('decisions', { keyPath: 'id' });
    if (from < 7) d.createObjectStore('counts', { keyPath: 'key' });
  },
});

type Name = 'walks' | 'waiting' | 'photos' | 'decisions' | 'finds' | 'unnamed' | 'ticks' | 'shots' | 'counts';
/** What one of the device's stores holds, read and written through its shelf. */
const store = <N extends Exclude<Name, 'walks'>>(name: N): Store<Device[N]['value']> => ({
  all: async () => (await db).getAll(name),
  keep: async (thing) => void (await (await db).put(name, thing)),
  drop: async (key) => (await db).delete(name, key),
});

export const device = {
  walk: async (property: number) => (await db).get('walks', property),
  walks: {
    all: async () => (await db).getAll('walks'),
    keep: async (w: Walk) => void (await (await db).put('walks', w)),
    drop: async (property: string) => (await db).delete('walks', Number(property)),
  },
  looks: store('waiting'),
  photos: store('photos'),
  decisions: store('decisions'),
  finds: store('finds'),
  unnamed: store('unnamed'),
  ticks: store('ticks'),
  shots: store('shots'),
  counts: store('counts'),
};
