/** The kinds of check as the core tells them, so that they are known without signal: no rules of the job. */
import kinds from '../api/checks.json';
import type { Check, Plant } from '../api/client';
import { metres } from '../lib/dates';

export type Kind = Check['kind'];

export interface Words {
  kind: Kind;
  name: string;
  looks_at: string;
  how: string;
  found: string;
  height?: boolean; // made at a height
  forms?: string;
  results?: { key: string; word: string }[];
  amount?: { what: string; needs?: string[] };
  count?: { what: string };
  answer?: boolean;
  proposed?: boolean; // it may be asked for next
  keeps?: 'one' | 'height' | 'result'; // how many stand beside each other; any number when absent
}

const all = kinds as Words[];
export const words = Object.fromEntries(all.map((w) => [w.kind, w])) as Record<Kind, Words>;

export const shares: [number, string][] = [
  [0.25, '¼ round'],
  [0.5, '½ round'],
  [0.75, '¾ round'],
  [1, 'all round'],
];
export const lengths = [0.05, 0.1, 0.2, 0.4, 0.8];

/** Whether a kind of check can be made on a plant. */
export function fits(w: Words, p: Plant): boolean {
  return !w.forms || (w.forms === 'palm') === (p.form === 'palm');
}

/** The checks that can be made on a plant, beside the spear, which has buttons of its own, and the questions about its spot. */
export function beside(p: Plant): Kind[] {
  const first = (w: Words) => (w.kind === 'bark_ring' || w.kind === 'head' ? 0 : 1);
  return all
    .filter((w) => fits(w, p) && !['spear', 'spot'].includes(w.kind) && (w.kind !== 'sample' || p.count > 1))
    .sort((a, b) => first(a) - first(b))
    .map((w) => w.kind);
}

/** The kinds that can be noted as not looked at on a plant: those that are asked for. */
export function skippable(p: Plant): Kind[] {
  return all.filter((w) => w.proposed && fits(w, p)).map((w) => w.kind);
}

/** Whether a figure goes with a find of a kind. */
export function needsAmount(k: Kind, result: string): boolean {
  const a = words[k].amount;
  return !!a && (!a.needs || a.needs.includes(result));
}

/** What a check found, in a few words. */
export function found(c: Check): string {
  const of = words[c.kind];
  if (c.kind === 'shoot' && c.leaf && c.leaf !== 'unknown') return c.leaf === 'rootstock' ? 'rootstock' : 'true shoot';
  const amount = c.amount ?? 0;
  const said: Record<string, string | number> = {
    word: of.results?.find((r) => r.key === c.result)?.word ?? c.result ?? '',
    held: c.held ?? 0,
    broke: c.broke ?? 0,
    n: (c.held ?? 0) + (c.broke ?? 0),
    share: `${Math.round(100 * amount)} %`,
    length: metres(amount),
    answer: amount ? metres(amount) : (c.seen ?? ''),
    skipped: c.kind === 'not_looked' && c.result ? words[c.result as Kind].looks_at : '',
  };
  return of.found.replace(/\{(\w+)\}/g, (_, key: string) => String(said[key] ?? ''));
}
