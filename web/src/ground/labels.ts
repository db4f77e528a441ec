/** Where the names on a plan stand: beside what they name and not on each other, shortened last, led by a line where it is full. */

export interface Named {
  id: string;
  text: string;
  x: number; // px, of the middle of what is named
  y: number;
  r: number; // px, how far it reaches
  inside: boolean; // an area or line: its name may stand on it
  size: number; // of the letters, px
  first?: boolean; // placed before all others
}
export interface Placed {
  id: string;
  text: string;
  x: number; // of the middle of the name's baseline
  y: number;
  led: boolean; // too far off to be read without a line
}
interface Box {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}

const GAP = 2;
/** Widths of letters, as a share of their size: near enough for a box. */
export const widthOf = (text: string, size: number) =>
  [...text].reduce((w, c) => w + (/[ilj.,'’ ]/.test(c) ? 0.3 : /[mwMW]/.test(c) ? 0.85 : 0.57), 0) * size;

const boxAt = (x: number, y: number, w: number, size: number): Box => ({
  x0: x - w / 2 - GAP,
  x1: x + w / 2 + GAP,
  y0: y - size * 0.8 - GAP,
  y1: y + size * 0.25 + GAP,
});
const apart = (a: Box, b: Box) => a.x1 <= b.x0 || b.x1 <= a.x0 || a.y1 <= b.y0 || b.y1 <= a.y0;

/** Places from the nearest to the farthest: on it, above, below, beside, at its corners. */
function spots(n: Named, w: number): [number, number][] {
  const up = n.y - n.r - 3;
  const down = n.y + n.r + 3 + n.size * 0.8;
  const mid = n.y + n.size * 0.3;
  const side = n.r + 5 + w / 2;
  const own: [number, number][] = n.inside
    ? [0, 1, -1, 2, -2, 3, -3].map((k): [number, number] => [n.x, mid + k * (n.size + 2 * GAP)])
    : [];
  return [
    ...own,
    [n.x, up],
    [n.x, down],
    [n.x + side, mid],
    [n.x - side, mid],
    [n.x + side, up],
    [n.x - side, up],
    [n.x + side, down],
    [n.x - side, down],
  ];
}
/** Places farther off, round about. */
function far(n: Named, w: number): [number, number][] {
  const out: [number, number][] = [];
  for (const d of [22, 38, 56, 80])
    for (let k = 0; k < 12; k++) {
      const a = (k * Math.PI) / 6 - Math.PI / 2;
      out.push([n.x + Math.cos(a) * (n.r + d + w / 3), n.y + Math.sin(a) * (n.r + d)]);
    }
  return out;
}
const shorter = (text: string) => {
  const out = [text];
  if (text.includes(',')) out.push(text.split(',')[0]!);
  for (const most of [16, 11, 8]) if (text.length > most) out.push(text.slice(0, most - 1).trimEnd() + '…');
  return out;
};

/** The names that find a place, each in one; dots are what no name may cover. */
export function placed(names: Named[], wide: number, high: number): Placed[] {
  const taken: Box[] = names.filter((n) => !n.inside).map((n) => ({ x0: n.x - 3, x1: n.x + 3, y0: n.y - 3, y1: n.y + 3 }));
  const out: Placed[] = [];
  const order = [...names].sort(
    (a, b) => Number(b.first ?? false) - Number(a.first ?? false) || Number(a.inside) - Number(b.inside) || b.r - a.r,
  );
  for (const n of order) {
    const free = ([x, y]: [number, number], w: number) => {
      const b = boxAt(x, y, w, n.size);
      return b.x0 >= 0 && b.x1 <= wide && b.y0 >= 0 && b.y1 <= high && taken.every((t) => apart(t, b));
    };
    const texts = shorter(n.text);
    let found: Placed | undefined;
    // In full nearby, then shortened nearby, then farther off with a line.
    for (const text of texts) {
      const w = widthOf(text, n.size);
      const at = spots(n, w).find((q) => free(q, w));
      if (at) {
        found = { id: n.id, text, x: at[0], y: at[1], led: false };
        break;
      }
    }
    for (const text of found ? [] : texts) {
      const w = widthOf(text, n.size);
      const at = far(n, w).find((q) => free(q, w));
      if (at) {
        found = { id: n.id, text, x: at[0], y: at[1], led: true };
        break;
      }
    }
    if (!found) continue;
    taken.push(boxAt(found.x, found.y, widthOf(found.text, n.size), n.size));
    out.push(found);
  }
  return out;
}
