/** Figures as people write them: grouped, with fractions, with feet and inches, with a unit; read whole or not at all. */

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
    floz: 0.0295735,
    'm³': 1000,
    m3: 1000,
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
  bulk: ['bulk', 1],
  wind: ['wind', 1],
};

/** A figure as it was understood: in SI where a unit stood with it, else bare, in whatever unit the field has. */
export type Understood = { si: number } | { bare: number };

/** What was written, as a figure of a kind of quantity; nothing where it is not understood. */
export function understood(text: string, kind?: string): Understood | undefined {
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
