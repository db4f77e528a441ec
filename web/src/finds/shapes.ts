/** What drawings of signs are made of: lines, areas and discs in a square of 64, and the colours of plants. */
export interface Shape {
  d: string;
  fill?: string;
  stroke?: string;
  w?: number;
}

export const ink = 'var(--color-ink)';
export const green = '#9dbb93';
export const pale = '#f3eec6';
export const brown = '#8a5a2b';
export const wood = '#cbb594';
export const hue: Record<string, string> = {
  pale,
  brown,
  dark: '#2a2622',
  orange: '#cf6f1c',
  red: '#a8403a',
  silver: '#d3dade',
  green: '#5f8f3f',
};

export const line = (d: string, stroke = ink, w = 1.5): Shape => ({ d, stroke, w, fill: 'none' });
export const area = (d: string, fill: string, stroke?: string): Shape => ({ d, fill, stroke, w: 1.2 });
export const disc = (x: number, y: number, r: number) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;
export const discs = (at: number[][], r: number, fill: string, stroke?: string): Shape =>
  area(at.map(([x, y, own]) => disc(x!, y!, own ?? r)).join(''), fill, stroke);
/** n points strewn over a leaf, always the same ones. */
export const strewn = (n: number, r = 15): number[][] =>
  Array.from({ length: n }, (_, i) => {
    const a = i * 2.39996;
    const d = r * Math.sqrt((i + 0.5) / n);
    return [32 + 0.8 * d * Math.cos(a), 32 + 1.15 * d * Math.sin(a)];
  });

export const leafLine = 'M32 5C51 15 55 38 32 59C9 38 13 15 32 5Z';
export const veins = 'M32 8V62M32 20L43 14M32 20L21 14M32 31L47 24M32 31L17 24M32 42L44 36M32 42L20 36';
export const leaf = (fill: string): Shape[] => [area(leafLine, fill, ink), line(veins, ink, 0.8)];
export const leaves = (fill: string, at: number[][]): Shape =>
  area(at.map(([x, y, s]) => `M${x} ${y}q${s! * 9} -8 ${s! * 16} 0q${-s! * 7} 8 ${-s! * 16} 0z`).join(''), fill, ink);
export const pairs = [
  [32, 48, 1],
  [32, 44, -1],
  [32, 34, 1],
  [32, 30, -1],
  [32, 20, 1],
  [32, 17, -1],
];
export const crown = (fill: string): Shape => area(disc(32, 24, 19), fill, ink);
export const trunk: Shape[] = [area('M20 2V62H44V2Z', wood), line('M20 2V62M44 2V62')];
export const soil = line('M2 50H62', ink, 2);

export type Mark = (how: string) => Shape[];
