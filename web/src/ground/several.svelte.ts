/** Parts of a plan taken together: picked by a frame, moved, copied, and put down on this plan or another property's. */
import { fresh, inside, kinds, least, middle, moved, near, type At, type Thing } from './plan';

/** What was copied last; it outlives the plan that it is of. */
export const copied = $state<{ things: Thing[]; from: string }>({ things: [], from: '' });

/** Things whose middle, or all of whose corners, lie within a frame of two corners. */
export function framed(things: Thing[], a: At, b: At): string[] {
  const [x0, x1, y0, y1] = [Math.min(a.x, b.x), Math.max(a.x, b.x), Math.min(a.y, b.y), Math.max(a.y, b.y)];
  const holds = (q: At) => q.x >= x0 && q.x <= x1 && q.y >= y0 && q.y <= y1;
  return things.filter((t) => (kinds[t.kind].form === 'area' ? t.points.every(holds) : holds(middle(t)))).map((t) => t.id);
}

/** What a copy of a thing is: a plant of the record stands once, so its copy is one to be planted; a grave has no copy. */
function copyOf(t: Thing): Thing[] {
  if (t.kind === 'grave') return [];
  const { plant_id: _, ...rest } = t;
  const own = rest.kind === 'plant' || !t.plant_id ? rest.name : undefined;
  return [{ ...rest, points: t.points.map((q) => ({ ...q })), name: own }];
}

export function copy(things: Thing[], ids: string[], from: string) {
  copied.things = things.filter((t) => ids.includes(t.id)).flatMap(copyOf);
  copied.from = from;
}

/** What was copied as new things of a plan, its middle at a place; nothing there is changed. */
export function putDown(onto: Thing[], at: At): Thing[] {
  const all = copied.things.flatMap((t) => t.points);
  const mid = { x: all.reduce((s, q) => s + q.x, 0) / all.length, y: all.reduce((s, q) => s + q.y, 0) / all.length };
  const out: Thing[] = [];
  for (const t of copied.things) {
    const id = fresh([...onto, ...out], t.kind);
    out.push({ ...moved($state.snapshot(t), near(at.x - mid.x), near(at.y - mid.y)), id });
  }
  return out;
}

/** How large an outline is, m². */
export const areaOf = (points: At[]) =>
  Math.abs(
    points.reduce((s, a, i) => {
      const b = points[(i + 1) % points.length]!;
      return s + (a.x * b.y - b.x * a.y) / 2;
    }, 0),
  );

/** Plants that stand within a bed's outline. */
export const within = (things: Thing[], bed: Thing) =>
  things.filter((t) => t.kind === 'plant' && bed.points.length >= least.area && inside(bed.points, t.points[0]!));

/** How far apart so many plants stand that fill an area evenly, m: set in gaps, each has the same ground. */
export const apart = (m2: number, count: number) => Math.sqrt((m2 / Math.max(1, count)) * (2 / Math.sqrt(3)));
