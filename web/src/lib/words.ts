/** A text as it begins a sentence. */
export const capital = (t: string) => t.charAt(0).toUpperCase() + t.slice(1);
/** A name as it stands within a sentence. */
export const small = (t: string) => t.charAt(0).toLowerCase() + t.slice(1);

/** Whether two words differ by a slip or two of the pen: a letter more, less, or another. */
export function misspelt(a: string, b: string): boolean {
  const most = Math.min(a.length, b.length) > 7 ? 2 : 1;
  if (Math.abs(a.length - b.length) > most) return false;
  const row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    let before = row[0]!;
    row[0] = i;
    for (let j = 1; j <= b.length; j++) {
      const was = row[j]!;
      row[j] = Math.min(was + 1, row[j - 1]! + 1, before + (a[i - 1] === b[j - 1] ? 0 : 1));
      before = was;
    }
  }
  return row[b.length]! <= most;
}
