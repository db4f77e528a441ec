import type { Schemas } from '../api/client';

export type Purpose = Schemas['PruningOut']['purpose'];

/** What a cut is for, in words. */
export const purposes: [Purpose, string][] = [
  ['shape', 'keep its shape'],
  ['size', 'keep it smaller'],
  ['renew', 'renew old stems'],
  ['hedge', 'trim a hedge'],
  ['thin', 'thin it'],
  ['raise', 'raise the crown'],
  ['deadhead', 'take off faded heads'],
  ['clear dead', 'clear dead wood'],
  ['frost damage', 'cut out frost damage'],
  ['sanitation', 'cut out what is sick'],
  ['train', 'train it'],
  ['storm preparation', 'before storms'],
  ['before lifting', 'before it is lifted'],
];

export const purposeWords = (p: string) => purposes.find(([is]) => is === p)?.[1] ?? p;

/** The way to a plant's cut card. */
export function cardOf(plant: number, of: { purpose: string; cut_m?: number; part?: number }): string {
  const q = new URLSearchParams({ purpose: of.purpose });
  if (of.cut_m) q.set('cut', String(of.cut_m));
  if (of.part) q.set('part', String(of.part));
  return `#/card/${plant}?${q}`;
}
