/** Counts a crown on a picture: by the same rules as the house, on this device. */
import type { Schemas } from '../api/client';
import { asked, load } from './rules';

export type Point = { x: number; y: number };
export type Class = 'green' | 'brown' | 'bare' | 'sky' | 'dark';
export interface Count {
  classes: Class[];
  unsure: number[];
  share: number;
  low: number;
  high: number;
  sure: number;
  text: string;
}
type Told = NonNullable<Schemas['CrownIn']['told']>;

/** Points that lie evenly in an outline. */
export async function lay(outline: Point[], want: number): Promise<Point[]> {
  await load();
  return (await asked<{ points: Point[] }>('mezzadroLay', { outline, want })).points;
}

/** The colours of points: each the mean of three by three pixels. */
export function coloursAt(canvas: HTMLCanvasElement, points: Point[]): number[][] {
  const pen = canvas.getContext('2d', { willReadFrequently: true })!;
  return points.map((p) => {
    const x = Math.min(canvas.width - 3, Math.max(0, Math.round(p.x) - 1));
    const y = Math.min(canvas.height - 3, Math.max(0, Math.round(p.y) - 1));
    const d = pen.getImageData(x, y, 3, 3).data;
    return [0, 1, 2].map((c) => {
      let sum = 0;
      for (let i = c; i < d.length; i += 4) sum += d[i]!;
      return Math.round(sum / 9);
    });
  });
}

/** What the points come to. */
export async function read(colours: number[][], lean: number, told: Told, looked: boolean): Promise<Count> {
  await load();
  return asked<Count>('mezzadroCount', { colours, lean, told, looked });
}
