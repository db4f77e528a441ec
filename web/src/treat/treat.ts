import { api, ask, type Schemas } from '../api/client';
import { imperial, product, shown, unit } from '../lib/units';

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

type Per = NonNullable<Schemas['TreatmentRate']['entered']>['per'];
/** What a rate is for, as labels of either side say it. */
export const pers: { si: [Per, string][]; other: [Per, string][] } = {
  si: [
    ['L', 'a litre of spray'],
    ['10 L', '10 litres of spray'],
    ['100 L', '100 litres of spray'],
    ['m2', 'a square metre'],
    ['100 m2', '100 square metres'],
    ['ha', 'a hectare'],
    ['plant', 'a plant'],
    ['m height', 'a metre of height'],
    ['cm girth', 'a centimetre of girth'],
    ['cm diameter', 'a centimetre of trunk diameter'],
  ],
  other: [
    ['gal', 'a gallon of spray'],
    ['100 gal', '100 gallons of spray'],
    ['1000 sq ft', '1,000 square feet'],
    ['acre', 'an acre'],
    ['plant', 'a plant'],
    ['ft height', 'a foot of height'],
    ['in diameter', 'an inch of trunk diameter'],
    ['in girth', 'an inch of girth'],
  ],
};

export const products = async (signal?: AbortSignal) => (await ask(api.GET('/api/v1/products', { signal }))).items;

export const treatmentOf = (find: number, signal?: AbortSignal) =>
  ask(api.GET('/api/v1/finds/{id}/treatment', { params: { path: { id: find } }, signal }));

/** A volume of spray: less than a quart in fluid ounces where one measures so. */
export const litres = (l: number) =>
  imperial() && shown('volume', l) < 0.25 ? product(1000 * l, 'mL') : `${plain(shown('volume', l))} ${unit('volume')}`;

/** A figure without places it does not have. */
export const plain = (v: number) => String(Number(v.toFixed(v < 10 ? 2 : v < 100 ? 1 : 0)));
