/** Figures in the firm's units: everything is kept and sent in SI, and shown and entered as the firm has chosen. */
import { house } from './house.svelte';

export const imperial = () => house.frame?.firm.units === 'imperial';

const minus = (s: string) => (Number(s) === 0 ? s.replace('-', '') : s.replace('-', '−'));

/** A height that is proposed, m, as one would name it: in feet by the half foot, below a yard by three inches. */
export function named(m: number): number {
  if (!imperial()) return m;
  const step = m > 0.9 ? 0.1524 : 0.0762;
  return Math.max(step, Math.round(m / step) * step);
}

/** A plant's measure: centimetres up to a metre, inches up to a yard. */
export function metres(m: number): string {
  if (!imperial())
    return m < 0.995
      ? `${Math.round(m * 100)} cm`
      : `${m < 10 ? m.toFixed(2).replace(/0$/, '') : m.toFixed(1).replace(/\.0$/, '')} m`;
  const inches = Math.round(m / 0.0254);
  if (inches < 36) return `${inches} in`;
  if (inches >= 120 || inches % 12 === 0) return `${Math.round(inches / 12)} ft`;
  return `${Math.floor(inches / 12)} ft ${inches % 12} in`;
}

export const degrees = (c: number, places = 1) =>
  imperial() ? minus((c * 1.8 + 32).toFixed(0)) + ' °F' : minus(c.toFixed(places)) + ' °C';
/** How far two temperatures lie apart. */
export const apart = (c: number, places = 1) =>
  imperial() ? minus((c * 1.8).toFixed(0)) + ' °F' : minus(c.toFixed(places)) + ' °C';

/** Degree-days, kept as °C·days, in the firm's scale. */
export const warmth = (v: number) => (imperial() ? v * 1.8 : v);

/** Quantities that are one figure and one unit; `each` is how many of the imperial unit make one of the SI unit. */
const kinds = {
  length: { si: 'm', other: 'ft', each: 1 / 0.3048, places: 2 },
  elevation: { si: 'm', other: 'ft', each: 1 / 0.3048, places: 0 },
  shoot: { si: 'cm', other: 'in', each: 1 / 2.54, places: 1 },
  thickness: { si: 'mm', other: 'in', each: 1 / 25.4, places: 2 },
  area: { si: 'm²', other: 'sq ft', each: 10.7639, places: 1 },
  volume: { si: 'L', other: 'gal', each: 0.264172, places: 1 },
  bulk: { si: 'm³', other: 'yd³', each: 1.30795, places: 2 },
  liquid: { si: 'mL', other: 'fl oz', each: 1 / 29.5735, places: 2 }, // of a product
  weight: { si: 'g', other: 'oz', each: 1 / 28.3495, places: 2 },
  rain: { si: 'mm', other: 'in', each: 1 / 25.4, places: 1 },
  wind: { si: 'm/s', other: 'mph', each: 2.23694, places: 0 },
  temperature: { si: '°C', other: '°F', each: 1.8, places: 1 },
} as const;
export type Kind = keyof typeof kinds;

export const unit = (k: Kind) => (imperial() ? kinds[k].other : kinds[k].si);

/** A figure in SI as it is shown in the firm's unit. */
export function shown(k: Kind, v: number): number {
  if (!imperial()) return v;
  return k === 'temperature' ? v * 1.8 + 32 : v * kinds[k].each;
}
/** A figure as it was entered, in SI, without more places than it was entered with. */
export function entered(k: Kind, v: number): number {
  if (!imperial()) return v;
  const si = k === 'temperature' ? (v - 32) / 1.8 : v / kinds[k].each;
  return Number(si.toPrecision(6));
}
/** What stands in a field for a figure in SI. */
export const inField = (k: Kind, v: number) => (imperial() ? String(Number(shown(k, v).toFixed(kinds[k].places))) : String(v));

// Figures as people write them: grouped, with fractions, with feet and inches, with a unit; read whole or not at all.

/** The point or comma that the reader's region writes before decimals. */
const decimal = () =>
  new Intl.NumberFormat(navigator.language).formatToParts(1.5).find((p) => p.type === 'decimal')?.value ?? '.';

const fractions: Record<string, number> = {
  '½': 1 / 2,
  '¼': 1 / 4,
  '¾': 3 / 4,
  '⅓': 1 / 3,
  '⅔': 2 / 3,
  '⅛': 1 / 8,
  '⅜': 3 / 8,
  '⅝': 5 / 8,
  '⅞': 7 / 8,
};

/** One way to write each sign. */
function plain(text: string): string {
  return text
    .trim()
    .replace(/[\u00a0\u2007\u2009\u202f]/g, ' ')
    .replace(/[−–—]/g, '-')
    .replace(/[’′`´]/g, "'")
    .replace(/[”″“]|''/g, '"')
    .replace(/\s+/g, ' ');
}

/** A number without a unit; NaN where it is none. A comma before three digits groups, where the region writes points. */
function numberOf(text: string): number {
  let t = text.trim().replace(/,$/, ''); // on the way to a decimal
  const frac = /^(-?)(?:(\d+)[ -]?)?(?:([½¼¾⅓⅔⅛⅜⅝⅞])|(\d+)\s?[/⁄]\s?(\d+))$/.exec(t);
  if (frac && (frac[3] || Number(frac[5]) > 0)) {
    const v = Number(frac[2] ?? 0) + (frac[3] ? fractions[frac[3]]! : Number(frac[4]) / Number(frac[5]));
    return frac[1] ? -v : v;
  }
  if (/^-?\d{1,3}(?:[ ']\d{3})+(?:[.,]\d+)?$/.test(t)) t = t.replace(/[ ']/g, '').replace(',', '.');
  else if (/^-?\d{1,3}(?:,\d{3})+\.\d+$/.test(t) || /^-?\d{1,3}(?:,\d{3}){2,}$/.test(t)) t = t.replace(/,/g, '');
  else if (/^-?\d{1,3}(?:\.\d{3})+,\d+$/.test(t) || /^-?\d{1,3}(?:\.\d{3}){2,}$/.test(t))
    t = t.replace(/\./g, '').replace(',', '.');
  else if (/^-?[1-9]\d{0,2},\d{3}$/.test(t)) t = decimal() === ',' ? t.replace(',', '.') : t.replace(',', '');
  else if (/^-?\d*,\d+$/.test(t)) t = t.replace(',', '.');
  return /^-?(?:\d+\.?\d*|\.\d+)$/.test(t) ? Number(t) : NaN;
}

/** How many of the SI unit each unit is, by what is measured. */
const of: Record<string, Record<string, number>> = {
  length: {
    m: 1,
    meter: 1,
    meters: 1,
    metre: 1,
    metres: 1,
    cm: 0.01,
    mm: 0.001,
    km: 1000,
    ft: 0.3048,
    foot: 0.3048,
    feet: 0.3048,
    "'": 0.3048,
    in: 0.0254,
    inch: 0.0254,
    inches: 0.0254,
    '"': 0.0254,
    yd: 0.9144,
    yard: 0.9144,
    yards: 0.9144,
  },
  area: {
    'm²': 1,
    m2: 1,
    'sq m': 1,
    sqm: 1,
    ha: 10000,
    'ft²': 0.09290304,
    ft2: 0.09290304,
    'sq ft': 0.09290304,
    sqft: 0.09290304,
    'yd²': 0.83612736,
    yd2: 0.83612736,
    'sq yd': 0.83612736,
    acre: 4046.8564,
    acres: 4046.8564,
  },
  volume: {
    l: 1,
    liter: 1,
    liters: 1,
    litre: 1,
    litres: 1,
    ml: 0.001,
    cl: 0.01,
    gal: 3.785412,
    gallon: 3.785412,
    gallons: 3.785412,
    qt: 0.946353,
    quart: 0.946353,
    quarts: 0.946353,
    pt: 0.473176,
    pint: 0.473176,
    pints: 0.473176,
    'fl oz': 0.0295735,
    'fl. oz': 0.0295735,
    floz: 0.0295735,
    tbsp: 0.0147868,
    tsp: 0.00492892,
    'm³': 1000,
    m3: 1000,
  },
  weight: {
    g: 1,
    gram: 1,
    grams: 1,
    kg: 1000,
    mg: 0.001,
    oz: 28.3495,
    ounce: 28.3495,
    ounces: 28.3495,
    lb: 453.592,
    lbs: 453.592,
    pound: 453.592,
    pounds: 453.592,
  },
  bulk: {
    'm³': 1,
    m3: 1,
    'cu m': 1,
    l: 0.001,
    liter: 0.001,
    liters: 0.001,
    litre: 0.001,
    litres: 0.001,
    gal: 0.003785412,
    'yd³': 0.764555,
    yd3: 0.764555,
    'cu yd': 0.764555,
    yd: 0.764555,
    'ft³': 0.0283168,
    ft3: 0.0283168,
    'cu ft': 0.0283168,
  },
  wind: {
    'm/s': 1,
    ms: 1,
    'km/h': 1 / 3.6,
    kmh: 1 / 3.6,
    kph: 1 / 3.6,
    mph: 0.44704,
    kn: 0.514444,
    kt: 0.514444,
    knots: 0.514444,
  },
};

/** What is measured in the same units, and how many of its own SI unit a base unit is. */
const like: Record<string, [keyof typeof of, number]> = {
  length: ['length', 1],
  elevation: ['length', 1],
  shoot: ['length', 100],
  thickness: ['length', 1000],
  rain: ['length', 1000],
  area: ['area', 1],
  volume: ['volume', 1],
  liquid: ['volume', 1000],
  weight: ['weight', 1],
  bulk: ['bulk', 1],
  wind: ['wind', 1],
};

/** A figure as it was understood: in SI where a unit stood with it, else bare, in whatever unit the field has. */
type Understood = { si: number } | { bare: number };

/** What was written, as a figure of a kind of quantity; nothing where it is not understood. */
function understood(text: string, kind?: string): Understood | undefined {
  const t = plain(text);
  if (t === '') return undefined;
  const bare = numberOf(t);
  if (!Number.isNaN(bare)) return { bare };
  if (kind === 'temperature') {
    const m = /^(.+?)\s?°?\s?([cf])$/i.exec(t) ?? /^(.+?)\s?°()$/.exec(t);
    const v = m ? numberOf(m[1]!) : NaN;
    if (Number.isNaN(v)) return undefined;
    return m![2] === '' ? { bare: v } : { si: /c/i.test(m![2]!) ? v : (v - 32) / 1.8 };
  }
  const [units, times] = kind && like[kind] ? [of[like[kind][0]]!, like[kind][1]] : [undefined, 1];
  if (!units) return undefined;
  const both = /^(.+?)\s?(?:'|ft|foot|feet)\.?\s?(.+?)\s?(?:"|in|inch|inches)?\.?$/i.exec(t);
  if (units === of.length && both) {
    const [feet, inches] = [numberOf(both[1]!), numberOf(both[2]!)];
    if (!Number.isNaN(feet) && inches >= 0 && inches < 12)
      return { si: (feet * 12 + Math.sign(feet || 1) * inches) * 0.0254 * times };
  }
  const m = /^(.*?[\d½¼¾⅓⅔⅛⅜⅝⅞.])\s?([a-z'"].*?)\.?$/i.exec(t);
  const [v, each] = m ? [numberOf(m[1]!), units[m[2]!.toLowerCase()]] : [NaN, undefined];
  return Number.isNaN(v) || !each ? undefined : { si: v * each * times };
}

/**
 * What was written into a field, as a figure in the firm's unit of its kind: with a comma or a point, grouped, as a
 * fraction, in feet and inches, or in any unit of that kind; without a kind no unit is read. NaN where it is not
 * understood, and where nothing stands.
 */
export function read(text: string, kind?: Kind): number {
  const u = understood(text, kind);
  if (!u) return NaN;
  if ('bare' in u) return u.bare;
  return kind ? Number(shown(kind, u.si).toPrecision(9)) : NaN;
}

/** A figure that has no unit, 0 where there is none; NaN where it is not understood. */
export function bare(text: string): number {
  return text.trim() === '' ? 0 : read(text);
}

/** Two ways to write a figure of a kind, for one that was not understood. */
export function examples(kind?: Kind): string {
  switch (kind) {
    case 'temperature':
      return imperial() ? '14 or −10 °C' : '−10 or 14 °F';
    case 'length':
    case 'elevation':
      return imperial() ? '5 1/2 or 5 ft 6 in' : '1.65 or 5 ft 6 in';
    case undefined:
      return '12 or 1.5';
  }
  return `1.5 or 2 ${unit(kind)}`;
}

const FOOT = 0.3048;
/** The marks of a rule beside something so high, m: round in the firm's unit, the first with its name. */
export function ruler(top: number): { m: number; text: string }[] {
  const feet = top > 12 ? 10 : top > 5 ? 5 : top > 2.4 ? 2 : 1;
  const step = imperial() ? (top < 0.9 ? 0.5 : feet) * FOOT : top > 8 ? 2 : top > 3 ? 1 : top > 1.2 ? 0.5 : 0.2;
  const [each, name] = !imperial() ? [1, 'm'] : top < 0.9 ? [FOOT / 12, 'in'] : [FOOT, 'ft'];
  return Array.from({ length: Math.floor(top / step + 1e-9) + 1 }, (_, i) => ({
    m: i * step,
    text: `${Number(((i * step) / each).toFixed(1))}${i ? '' : ` ${name}`}`,
  }));
}
/** The distance between the lines of a plan drawn at so many pixels a metre: its length, m, and in words. */
export function gridOf(scale: number): { m: number; text: string } {
  const at = scale > 25 ? 0 : scale > 6 ? 1 : 2;
  if (!imperial()) return { m: [1, 5, 20][at]!, text: `${[1, 5, 20][at]} m` };
  return { m: [5, 20, 50][at]! * FOOT, text: `${[5, 20, 50][at]} ft` };
}

/** The kind of quantity in which a product is measured; nothing for pieces. */
export const productKind = (of: string): Kind | undefined => (of === 'mL' ? 'liquid' : of === 'g' ? 'weight' : undefined);

/** How much of a product, in the firm's units: "890 mL", "6.5 fl oz", "2 pieces". */
export function product(v: number, of: string): string {
  const kind = productKind(of);
  const n = kind ? shown(kind, v) : v;
  const text = String(Number(n.toFixed(n < 10 ? 2 : n < 100 ? 1 : 0)));
  return `${text} ${kind ? unit(kind) : of === 'piece' ? (v === 1 ? 'piece' : 'pieces') : of}`;
}

/** A figure the house gave with its unit. */
export function figure(v: number, of: string): string {
  if (of === '°C') return degrees(v);
  if (of === 'm/s') return `${Math.round(shown('wind', v))} ${unit('wind')}`;
  if (of === 'mm') return `${imperial() ? shown('rain', v).toFixed(1) : Math.round(v)} ${unit('rain')}`;
  if (of === 'm³') {
    const b = shown('bulk', v);
    return `${b.toFixed(b < 0.095 ? 2 : b < 9.95 ? 1 : 0)} ${unit('bulk')}`;
  }
  if (of === 'kg' && imperial()) return `${Math.round(v * 2.20462)} lb`;
  const kind = of === 'm²' ? 'area' : of === 'L' ? 'volume' : undefined;
  if (kind) {
    const b = shown(kind, v);
    return `${b.toFixed(b < 9.95 ? 1 : 0).replace(/\.0$/, '')} ${unit(kind)}`;
  }
  return `${Math.round(v)} ${of}`;
}
/** A way between places. */
export const distant = (km: number) => (imperial() ? `${Math.round(km / 1.609344)} mi` : `${Math.round(km)} km`);
