/** Figures in the firm's units: everything is kept and sent in SI, and shown and entered as the firm has chosen. */
import { understood } from './figures';
import { house } from './house.svelte';

export const imperial = () => house.frame?.firm.units === 'imperial';

const minus = (s: string) => (Number(s) === 0 ? s.replace('-', '') : s.replace('-', '−'));

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

/** Quantities that are one figure and one unit; `each` is how many of the imperial unit make one of the SI unit. */
const kinds = {
  length: { si: 'm', other: 'ft', each: 1 / 0.3048, places: 2 },
  elevation: { si: 'm', other: 'ft', each: 1 / 0.3048, places: 0 },
  shoot: { si: 'cm', other: 'in', each: 1 / 2.54, places: 1 },
  thickness: { si: 'mm', other: 'in', each: 1 / 25.4, places: 2 },
  area: { si: 'm²', other: 'ft²', each: 10.7639, places: 1 },
  volume: { si: 'L', other: 'gal', each: 0.264172, places: 1 },
  bulk: { si: 'm³', other: 'yd³', each: 1.30795, places: 2 },
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

/**
 * What was written into a field, as a figure in the firm's unit of its kind: with a comma or a point, grouped, as a
 * fraction, in feet and inches, or in any unit of that kind. NaN where it is not understood.
 */
export function read(text: string, kind?: Kind): number {
  const u = understood(text, kind ?? 'length'); // feet and inches are read wherever a figure stands
  if (!u) return NaN;
  if ('bare' in u) return u.bare;
  return kind ? Number(shown(kind, u.si).toPrecision(9)) : Number((u.si / 0.3048).toPrecision(9));
}

/** A figure that has no unit, 0 where there is none; NaN where it is not understood. */
export function bare(text: string): number {
  if (text.trim() === '') return 0;
  const u = understood(text);
  return u && 'bare' in u ? u.bare : NaN;
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
