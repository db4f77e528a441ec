/** Pages of help: a screen in five lines each, with where on the screen each line is about. */
import all from './help.json';

export interface HelpPage {
  id: string;
  at: string; // the paths it is for, as a pattern; empty: of no screen
  name: string;
  lines: { say: string; box: [x: number, y: number, wide: number, high: number] }[];
}

export const pages: HelpPage[] = all as unknown as HelpPage[];

/** The page for where one stands; the general one where there is none. */
export const helpAt = (path: string): HelpPage =>
  pages.find((p) => p.at && new RegExp(p.at).test(path)) ?? pages.find((p) => p.id === 'general')!;

/** Pages that have all the words, each with its line that has most of them; all pages without words. */
export function search(words: string): { page: HelpPage; say: string }[] {
  const asked = words.toLowerCase().split(/\s+/).filter(Boolean);
  const hits = (text: string) => asked.filter((w) => text.toLowerCase().includes(w)).length;
  return pages
    .filter((p) => hits(p.name + ' ' + p.lines.map((l) => l.say).join(' ')) === asked.length)
    .map((page) => {
      const best = page.lines.reduce((a, b) => (hits(b.say) > hits(a.say) ? b : a));
      return { page, say: hits(best.say) ? best.say : '' };
    });
}
