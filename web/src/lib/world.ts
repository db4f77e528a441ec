/** The outlines of the world's lands, for pressing a place: read when a map is opened, drawn by the page itself. */
import { feature } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';
import outlines from 'world-atlas/countries-50m.json?url';

type Ring = [number, number][];
export interface Land {
  name: string;
  rings: Ring[];
  box: [number, number, number, number]; // west, south, east, north of its largest part
  at: [number, number]; // where its name is written
  boxes: [number, number, number, number][]; // of each ring
}

/** A map as it is seen: what lies in its middle, and how many pixels a degree of latitude takes. */
export interface Seen {
  latitude: number;
  longitude: number;
  scale: number;
}

const boxOf = (r: Ring): [number, number, number, number] => [
  Math.min(...r.map((q) => q[0])),
  Math.min(...r.map((q) => q[1])),
  Math.max(...r.map((q) => q[0])),
  Math.max(...r.map((q) => q[1])),
];
/** A ring that goes over the edge of the map goes on beyond it, in place of back across the world. */
function unbroken(r: Ring): Ring {
  let turn = 0;
  return r.map((q, i) => {
    const step = i ? q[0] - r[i - 1]![0] : 0;
    if (Math.abs(step) > 180) turn -= 360 * Math.sign(step);
    return [q[0] + turn, q[1]];
  });
}
const size = (b: [number, number, number, number]) => (b[2] - b[0]) * (b[3] - b[1]);

export async function lands(): Promise<Land[]> {
  const r = await fetch(outlines);
  if (!r.ok) throw new Error(`The map did not come (${r.status}).`);
  const world = (await r.json()) as Topology<{ countries: GeometryCollection<{ name: string }> }>;
  return feature(world, world.objects.countries).features.flatMap((f) => {
    const g = f.geometry;
    if ((g.type !== 'Polygon' && g.type !== 'MultiPolygon') || f.properties.name === 'Antarctica') return [];
    const parts = (g.type === 'Polygon' ? [g.coordinates] : g.coordinates) as Ring[][];
    const rings = parts.flat().map(unbroken);
    const boxes = rings.map(boxOf);
    const box = boxes.reduce((a, b) => (size(b) > size(a) ? b : a));
    return [
      { name: f.properties.name, rings, boxes, box, at: [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2] as [number, number] },
    ];
  });
}

// Widths shrink towards the poles as they do on the ground, so that a garden's surroundings keep their shape.
const narrow = (s: Seen) => Math.max(0.2, Math.cos((s.latitude * Math.PI) / 180));

/** Where a place lies on a map of a size, px from its upper left corner. */
export function onMap(s: Seen, wide: number, high: number, latitude: number, longitude: number): [number, number] {
  return [wide / 2 + (longitude - s.longitude) * s.scale * narrow(s), high / 2 - (latitude - s.latitude) * s.scale];
}

/** The place that lies at a point of a map; longitudes go round the world, latitudes end at the poles. */
export function atMap(s: Seen, wide: number, high: number, x: number, y: number): { latitude: number; longitude: number } {
  const latitude = s.latitude - (y - high / 2) / s.scale;
  const longitude = s.longitude + (x - wide / 2) / (s.scale * narrow(s));
  const digits = Math.max(0, Math.ceil(Math.log10(s.scale)));
  const rounded = (v: number) => Number(v.toFixed(digits));
  return {
    latitude: rounded(Math.max(-90, Math.min(90, latitude))),
    longitude: rounded(((((longitude + 180) % 360) + 360) % 360) - 180),
  };
}

/** Draws the lands that are in sight. */
export function draw(
  c: CanvasRenderingContext2D,
  all: Land[],
  s: Seen,
  wide: number,
  high: number,
  ink: Record<'land' | 'line' | 'word', string>,
) {
  c.clearRect(0, 0, wide, high);
  const k = s.scale * narrow(s);
  const [west, east] = [s.longitude - wide / 2 / k, s.longitude + wide / 2 / k];
  const [south, north] = [s.latitude - high / 2 / s.scale, s.latitude + high / 2 / s.scale];
  c.fillStyle = ink.land;
  c.strokeStyle = ink.line;
  c.lineWidth = 0.7;
  // A world on either side of the first, where the view goes over its edge.
  for (const turn of [-360, 0, 360]) {
    for (const l of all) {
      c.beginPath();
      l.rings.forEach((ring, i) => {
        const b = l.boxes[i]!;
        if (b[2] + turn < west || b[0] + turn > east || b[3] < south || b[1] > north) return;
        ring.forEach(([x, y], n) => {
          const [px, py] = onMap(s, wide, high, y, x + turn);
          if (n) c.lineTo(px, py);
          else c.moveTo(px, py);
        });
        c.closePath();
      });
      c.fill();
      c.stroke();
    }
  }
  c.fillStyle = ink.word;
  c.font = '12px sans-serif';
  c.textAlign = 'center';
  for (const l of all) {
    const [x, y] = onMap(s, wide, high, l.at[1], l.at[0]);
    if (c.measureText(l.name).width < (l.box[2] - l.box[0]) * k && x > 0 && x < wide && y > 0 && y < high)
      c.fillText(l.name, x, y);
  }
}
