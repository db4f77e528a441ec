import { api, ask, type Schemas } from '../api/client';

export type Treatment = Schemas['Treatment'];
export type Product = Schemas['Product'];

/** The rungs of the ladder, in words. */
export const rungs: Record<string, string> = {
  none: 'leave it',
  habitat: 'place and care',
  hands: 'by hand',
  water: 'water',
  barriers: 'traps and barriers',
  cutting: 'cut out',
  soft: 'soft means',
  strong: 'stronger means',
  replace: 'replace',
};

/** What a rate is for. */
export const pers: [Schemas['TreatmentRate']['per'], string][] = [
  ['L', 'a litre of spray'],
  ['m2', 'a square metre'],
  ['plant', 'a plant'],
  ['m height', 'a metre of height'],
  ['cm girth', 'a centimetre of girth'],
];

export const products = async (signal?: AbortSignal) => (await ask(api.GET('/api/v1/products', { signal }))).items;

export const treatmentOf = (find: number, signal?: AbortSignal) =>
  ask(api.GET('/api/v1/finds/{id}/treatment', { params: { path: { id: find } }, signal }));

/** A figure without places it does not have. */
export const plain = (v: number) => String(Number(v.toFixed(v < 10 ? 2 : v < 100 ? 1 : 0)));
