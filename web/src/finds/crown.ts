/** Words for crowns that were counted, and what is done with them once the house has them. */
import { api, ask, onceKey, type Schemas } from '../api/client';
import type { Class } from '../field/crown';

export type Side = Schemas['CrownCount']['side'];

export const sides: [Side, string][] = [
  ['', 'not told'],
  ['north', 'the north'],
  ['north-east', 'the north-east'],
  ['east', 'the east'],
  ['south-east', 'the south-east'],
  ['south', 'the south'],
  ['south-west', 'the south-west'],
  ['west', 'the west'],
  ['north-west', 'the north-west'],
  ['above', 'above'],
];

export const crownShows: Record<Class, string> = {
  green: 'living leaf',
  brown: 'dead leaf',
  bare: 'bare wood',
  sky: 'seen through',
  dark: 'too dark to tell',
};

export const removeCount = (id: number) =>
  ask(api.DELETE('/api/v1/crown-counts/{id}', { params: { path: { id }, header: onceKey() } }));
export const restoreCount = (id: number) =>
  ask(api.POST('/api/v1/crown-counts/{id}/restore', { params: { path: { id }, header: onceKey() } }));
