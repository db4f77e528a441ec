/** Coordinates as people paste them: from a map's address, a message, a plan; in degrees, or with minutes and seconds. */
export type Coordinates = { latitude: number; longitude: number };

/** One of the two, in degrees; nothing where it is none. South and west are below zero. */
function angle(text: string): number {
  const parts = (text.match(/\d+(?:[.,]\d+)?/g) ?? []).map((p) => Number(p.replace(',', '.')));
  if (!parts.length || parts.length > 3 || parts.slice(1).some((p) => p >= 60)) return NaN;
  const size = parts.reduce((sum, p, i) => sum + p / 60 ** i, 0);
  return /^\s*[-−–]|[SW]/i.test(text) ? -size : size;
}

/** The two halves of what was pasted, by its letters, or by what stands between. */
function halves(text: string): string[] {
  const lettered = text.match(/[NSEW][^NSEW]*\d[^NSEW]*|[^NSEW]*\d[^NSEW]*[NSEW]/gi);
  if (/[NSEW]/i.test(text)) return lettered?.length === 2 ? lettered : [];
  for (const between of [/\s*;\s*/, /,\s+/, /\s+/, /,/]) {
    const parts = text.trim().split(between);
    if (parts.length === 2) return parts;
  }
  return [];
}

/** Latitude and longitude that a text gives; undefined where it gives none. */
export function coordinates(text: string): Coordinates | undefined {
  const bare = text.replace(/^geo:/i, '').replace(/[;?](u|q|z|crs)=.*$/i, '');
  const pair = bare.match(/([-−]?\d{1,2}\.\d{3,})\s*,\s*([-−]?\d{1,3}\.\d{3,})/); // within an address of a map
  const two = pair ? pair.slice(1) : halves(bare);
  if (two.length !== 2) return undefined;
  const turned = /[EW]/i.test(two[0]!) && !/[EW]/i.test(two[1]!);
  const [latitude, longitude] = (turned ? [two[1]!, two[0]!] : [two[0]!, two[1]!]).map(angle) as [number, number];
  if (!(Math.abs(latitude) <= 90 && Math.abs(longitude) <= 180)) return undefined;
  const rounded = (v: number) => Number(v.toFixed(6));
  return { latitude: rounded(latitude), longitude: rounded(longitude) };
}
