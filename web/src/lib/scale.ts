import { nice, ticks } from 'd3-array';

/** A straight measure from amounts to px, and back. */
export interface Scale {
  (amount: number): number;
  back(px: number): number;
  /** About so many round amounts within it. */
  ticks(count: number): number[];
}

/** From two amounts to where they stand in px. With `steps`, the amounts are widened to round ones that so many steps have. */
export function scale([low, high]: [number, number], [start, end]: [number, number], steps?: number): Scale {
  const [from, to] = steps ? nice(low, high, steps) : [low, high];
  const per = to === from ? 0 : (end - start) / (to - from);
  return Object.assign((amount: number) => start + (amount - from) * per, {
    back: (px: number) => (per === 0 ? from : from + (px - start) / per),
    ticks: (count: number) => ticks(from, to, count),
  });
}

type Point = [x: number, y: number];
const tenth = (v: number) => Math.round(v * 10) / 10;
const through = (points: Point[]) => points.map(([x, y]) => `${tenth(x)} ${tenth(y)}`).join('L');

/** The runs of a list between its gaps. */
function runs<T>(list: readonly (T | undefined)[]): T[][] {
  const out: T[][] = [];
  let open: T[] | undefined;
  for (const v of list) {
    if (v === undefined) open = undefined;
    else if (open) open.push(v);
    else out.push((open = [v]));
  }
  return out;
}

/** The path of a line through points in px, broken where one is missing. */
export const lineThrough = (points: readonly (Point | undefined)[]) =>
  runs(points)
    .map((run) => 'M' + through(run) + (run.length === 1 ? 'Z' : ''))
    .join('');

/** The path of what lies between two lines, points as x, low and high in px, broken where one is missing. */
export const between = (points: readonly ([x: number, low: number, high: number] | undefined)[]) =>
  runs(points)
    .map((run) => {
      const there: Point[] = run.map(([x, , high]) => [x, high]);
      const back: Point[] = run.map(([x, low]) => [x, low]);
      return 'M' + through(there) + 'L' + through(back.reverse()) + 'Z';
    })
    .join('');
