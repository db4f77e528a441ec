/** The words of the checks: what each is called, how it is made, and what can be found. No rules of the job. */
import type { Check, Plant } from '../api/client';
import { metres } from './dates';

export type Kind = Check['kind'];

export interface Words {
  name: string;
  how: string;
  placed?: boolean; // made at a height
  results?: [value: string, word: string][];
  share?: boolean; // a share of the girth goes with it
}

export const words: Record<Kind, Words> = {
  bud_rub: {
    name: 'Rub buds',
    how: 'Rub eight buds lightly between finger and thumb. A living one holds; a dead one crumbles or falls.',
    placed: true,
  },
  scratch: {
    name: 'Scratch the bark',
    how: 'Scratch a spot as wide as a fingernail. Green and moist lives; brown and dry is dead.',
    placed: true,
    results: [
      ['green', 'green'],
      ['brown', 'brown'],
      ['unclear', 'unclear'],
    ],
  },
  shoot: {
    name: 'Shoot and its leaf',
    how: 'Find a swelling bud or a shoot. On a grafted plant hold its leaf beside the variety’s: does it differ?',
    placed: true,
  },
  crown: {
    name: 'Crown under the soil',
    how: 'Draw the soil back with a finger at the foot. Firm, with buds: it comes again. Soft and brown: it does not.',
    results: [
      ['firm_buds', 'firm, budded'],
      ['firm', 'firm'],
      ['soft', 'soft'],
    ],
  },
  bark_ring: {
    name: 'Bark gone round the stem',
    how: 'How far round is the wood bare? Follow it all round: does a strip of living bark still lead across?',
    placed: true,
    share: true,
    results: [
      ['bridge', 'a bridge is left'],
      ['no_bridge', 'no bridge left'],
    ],
  },
  split_bark: {
    name: 'Split bark',
    how: 'Press beside the split. Tight bark closes; bark that gives and sounds hollow has come off the wood: how far round?',
    placed: true,
    share: true,
    results: [
      ['tight', 'tight'],
      ['loose', 'loose'],
    ],
  },
  tip_dead: { name: 'Dead tips', how: 'Bend the shoots from the tip down. Dead ones snap; measure to where they bend.' },
  leaf: {
    name: 'Leaves',
    how: 'Look at the leaves here. A twig casts its leaves only while it lives; brown ones that cling hang on a dead twig.',
    placed: true,
    results: [
      ['healthy', 'sound'],
      ['scorched_margin', 'edges scorched'],
      ['bleached', 'bleached'],
      ['bronzed', 'bronzed'],
      ['dropped', 'cast'],
      ['clinging', 'brown, clinging'],
    ],
  },
  base: {
    name: 'Foot of the stem',
    how: 'Press the bark at the ground with a thumb, then rock the stem gently.',
    results: [
      ['sound', 'firm and sound'],
      ['soft_bark', 'soft and brown'],
      ['rocking', 'rocks in its hole'],
    ],
  },
  spear: {
    name: 'Spear pull',
    how: 'Pull the youngest, folded leaf gently upward. If it slides out, the heart below it rots.',
    results: [
      ['held', 'held'],
      ['pulled', 'came out'],
    ],
  },
  head: {
    name: 'Head of the palm',
    how: 'Look at the whole head. Old leaves stay green for months; a head that hangs has lost its heart.',
    results: [
      ['green', 'green'],
      ['browned', 'leaves browned'],
      ['collapsed', 'collapsed'],
    ],
  },
  danger: {
    name: 'From a distance: danger',
    how: 'Stand back and look up for hanging and split limbs, down for lifted roots and fungus, before going under it.',
    results: [
      ['none', 'nothing loose'],
      ['hanging_limb', 'hanging limb'],
      ['split_stem', 'split stem'],
      ['fungus_at_base', 'fungus at the base'],
      ['roots_lifted', 'lifted roots'],
    ],
  },
  spot: { name: 'The spot', how: 'Answer what is asked about the spot it grows in.' },
  growth: {
    name: 'Growth of the last season',
    how: 'Find where last season began, a ring of scars on the shoot, and measure the longest shoots from there.',
  },
  sample: { name: 'The rest of the group', how: 'Look at some more of the group: how many are like the one you checked?' },
  not_looked: {
    name: 'Could not be looked at',
    how: 'Out of reach, under snow, or no time: it is not asked for again, and nothing is concluded.',
  },
};

export const shares: [number, string][] = [
  [0.25, '¼ round'],
  [0.5, '½ round'],
  [0.75, '¾ round'],
  [1, 'all round'],
];
export const lengths = [0.05, 0.1, 0.2, 0.4, 0.8];

/** The checks that can be made on a plant, beside those with buttons of their own. */
export function beside(p: Plant): Kind[] {
  const more: Kind[] =
    p.form === 'palm'
      ? ['head', 'base', 'danger']
      : ['bark_ring', 'split_bark', 'tip_dead', 'leaf', 'base', 'shoot', 'scratch', 'bud_rub', 'crown', 'growth', 'danger'];
  return [...more, ...(p.count > 1 ? (['sample'] as Kind[]) : []), 'not_looked'];
}

/** What a check found, in a few words. */
export function found(c: Check): string {
  const of = words[c.kind];
  const word = of.results?.find(([v]) => v === c.result)?.[1] ?? c.result ?? '';
  switch (c.kind) {
    case 'bud_rub':
      return `${c.held ?? 0}/${(c.held ?? 0) + (c.broke ?? 0)} held`;
    case 'shoot':
      return c.leaf === 'rootstock' ? 'rootstock' : c.leaf === 'true' ? 'true shoot' : 'shoot';
    case 'bark_ring':
      return `bark gone ${Math.round(100 * (c.amount ?? 0))} %`;
    case 'split_bark':
      return `split, ${word}`;
    case 'tip_dead':
      return `tips dead ${metres(c.amount ?? 0)}`;
    case 'leaf':
      return `leaves ${word}`;
    case 'crown':
      return `crown ${word}`;
    case 'base':
      return `foot ${word}`;
    case 'head':
      return `head ${word}`;
    case 'spear':
      return `spear ${word}`;
    case 'growth':
      return `grew ${metres(c.amount ?? 0)}`;
    case 'sample':
      return `${c.held ?? 0} alike, ${c.broke ?? 0} not`;
    case 'spot':
      return `${(c.result ?? '').replaceAll('_', ' ')}: ${c.amount ? metres(c.amount) : c.seen}`;
    case 'not_looked':
      return `not looked at: ${words[(c.result ?? 'scratch') as Kind].name.toLowerCase()}`;
  }
  return word;
}
