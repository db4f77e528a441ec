import type { Schemas } from '../api/client';

export type Thing = Schemas['SiteThing'];
export type At = Schemas['SiteAt'];
export type Kind = Thing['kind'];

/** How the ground of a plan lies, and what lies under its drawing. */
export type Lie = Pick<
  Schemas['SitePlan'],
  'north_deg' | 'slope_pct' | 'falls_to_deg' | 'horizon_deg' | 'wind_from' | 'underlay'
>;
/** Directions, from north over east. */
export const winds = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const;

/** How a kind is drawn, and what it is when it is new. */
export const kinds: Record<Kind, { form: 'point' | 'line' | 'area'; name: string; height?: number; spread?: number }> = {
  building: { form: 'area', name: 'House', height: 6 },
  wall: { form: 'line', name: 'Wall', height: 2 },
  fence: { form: 'line', name: 'Fence', height: 1.5 },
  hedge: { form: 'line', name: 'Hedge', height: 2, spread: 0.8 },
  tree: { form: 'point', name: 'Tree', height: 8, spread: 5 },
  bed: { form: 'area', name: 'Bed' },
  lawn: { form: 'area', name: 'Lawn' },
  path: { form: 'line', name: 'Path' },
  wire: { form: 'line', name: 'Wire', height: 5 },
  drain: { form: 'line', name: 'Drain' },
  door: { form: 'point', name: 'Door' },
  gate: { form: 'point', name: 'Gate' },
  window: { form: 'point', name: 'Window', height: 0.9 },
  water: { form: 'area', name: 'Standing water' },
  hollow: { form: 'area', name: 'Hollow' },
  sprinkler: { form: 'point', name: 'Sprinkler' },
  grave: { form: 'point', name: 'Where one died' },
  ground: { form: 'area', name: 'Ground' },
  plant: { form: 'point', name: 'Plant' },
};

/** What can be added from the list of tools, in that order; plants come from the property. */
export const tools = Object.keys(kinds).filter((k) => k !== 'plant') as Kind[];

/** Corners that a thing of a form needs. */
export const least = { point: 1, line: 2, area: 3 };

export const stands = (t: Thing) => ['plant', 'tree', 'hedge', 'wall', 'fence', 'building'].includes(t.kind);
export const snap = (v: number, to = 0.1) => Math.round(v / to) * to;
export const near = (v: number) => Math.round(v * 100) / 100;
export const distance = (a: At, b: At) => Math.hypot(a.x - b.x, a.y - b.y);
export const moved = (t: Thing, dx: number, dy: number): Thing => ({
  ...t,
  points: t.points.map((q) => ({ x: near(q.x + dx), y: near(q.y + dy) })),
});
export const middle = (t: Thing): At => {
  const n = t.points?.length ?? 0;
  if (!n) return { x: 0, y: 0 };
  return { x: t.points!.reduce((s, q) => s + q.x, 0) / n, y: t.points!.reduce((s, q) => s + q.y, 0) / n };
};
/** How long a line is, m. */
export const lengthOf = (points: At[]) => points.slice(1).reduce((s, q, i) => s + distance(points[i]!, q), 0);

/** The place on a leg that is nearest to another. */
function nearestOn(a: At, b: At, q: At): At {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const l = dx * dx + dy * dy;
  const k = l ? Math.max(0, Math.min(1, ((q.x - a.x) * dx + (q.y - a.y) * dy) / l)) : 0;
  return { x: a.x + k * dx, y: a.y + k * dy };
}
const solid = (t: Thing) => t.kind === 'wall' || t.kind === 'building' || t.kind === 'fence';
const legs = (t: Thing): [At, At][] =>
  t.points.flatMap((q, i): [At, At][] =>
    i + 1 < t.points.length ? [[q, t.points[i + 1]!]] : kinds[t.kind].form === 'area' ? [[q, t.points[0]!]] : [],
  );
const rounded = (q: At): At => ({ x: near(q.x), y: near(q.y) });

/** A corner that is drawn close to one of what stands, or to its line, is that one: walls meet, hedges run along them. */
export function snapped(things: Thing[], q: At, reach: number): At {
  let [best, far] = [q, reach];
  for (const c of things.filter((t) => solid(t) || t.kind === 'hedge').flatMap((t) => t.points)) {
    const d = distance(c, q);
    if (d < far) [best, far] = [c, d];
  }
  if (best !== q) return best;
  for (const [a, b] of things.filter(solid).flatMap(legs)) {
    const n = nearestOn(a, b, q);
    const d = distance(n, q);
    if (d < far) [best, far] = [rounded(n), d];
  }
  return best;
}

const BEFORE = 0.3; // m, of a plant's stem before a wall
const ON_IT = 0.5; // m, up to which a plant pressed into a house is meant to stand at its wall
export function inside(points: At[], q: At): boolean {
  let is = false;
  for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
    const [a, b] = [points[i]!, points[j]!];
    if (a.y > q.y !== b.y > q.y && q.x < ((b.x - a.x) * (q.y - a.y)) / (b.y - a.y) + a.x) is = !is;
  }
  return is;
}
/** A plant on a wall stands before it; one that would stand well inside a house says in which. */
export function stood(things: Thing[], q: At): { at: At; within?: Thing } {
  const house = things.find((t) => t.kind === 'building' && inside(t.points, q));
  let [foot, far] = [q, Infinity];
  for (const [a, b] of (house ? [house] : things.filter(solid)).flatMap(legs)) {
    const n = nearestOn(a, b, q);
    const d = distance(n, q);
    if (d < far) [foot, far] = [n, d];
  }
  if (house && far > ON_IT) return { at: q, within: house };
  if (!house && far >= BEFORE) return { at: q };
  // Out of the wall: away from the house, else to the side that was pressed.
  const [dx, dy] = house ? [foot.x - q.x, foot.y - q.y] : [q.x - foot.x, q.y - foot.y];
  const l = Math.hypot(dx, dy);
  return { at: rounded(l ? { x: foot.x + (BEFORE * dx) / l, y: foot.y + (BEFORE * dy) / l } : { x: q.x, y: q.y - BEFORE }) };
}

/** An id that no other thing has. */
export function fresh(things: Thing[], kind: Kind): string {
  let n = 1;
  while (things.some((t) => t.id === `${kind}-${n}`)) n++;
  return `${kind}-${n}`;
}

export interface View {
  x0: number; // metres at the left edge
  y1: number; // metres at the upper edge
  scale: number; // px a metre
}
/** A view that shows all that is on a plan. */
export function fit(things: Thing[], wide: number, high: number): View {
  const all = things.flatMap((t) =>
    t.points.flatMap((q) => {
      const r = (t.kind === 'plant' || t.kind === 'tree') && t.spread_m ? t.spread_m / 2 : 0;
      return [
        { x: q.x - r, y: q.y - r },
        { x: q.x + r, y: q.y + r },
      ];
    }),
  );
  const xs = all.map((q) => q.x).concat(all.length ? [] : [-12, 12]);
  const ys = all.map((q) => q.y).concat(all.length ? [] : [-9, 9]);
  const [x0, x1, y0, y1] = [Math.min(...xs) - 2, Math.max(...xs) + 2, Math.min(...ys) - 2, Math.max(...ys) + 2];
  const scale = Math.min(wide / (x1 - x0), high / (y1 - y0), 60);
  return { x0: x0 - (wide / scale - (x1 - x0)) / 2, y1: y1 + (high / scale - (y1 - y0)) / 2, scale };
}
export const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
