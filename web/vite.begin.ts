import type { Plugin, Rolldown } from 'vite';
import { begin } from './src/begin.ts';

/** Screens that somebody may open first, by how their addresses begin: all but the Lookout come in files of their own. */
const screens: Record<string, string> = {
  walk: 'walks/Walk',
  rounds: 'rounds/Rounds',
  day: 'rounds/DaySheet',
  year: 'work/Year',
  grounds: 'garden/Grounds',
  plant: 'garden/PlantPage',
  stores: 'treat/Stores',
  ledger: 'ledger/Ledger',
  client: 'firm/ClientPage',
};

/** The letters of all screens: they come with the program, so that nothing moves when they are there. */
const letters = /^atkinson.*-latin-wght-normal\.woff2$/;

/** A small script before the program, which begins to read what the first screen needs: src/begin.ts with their files. */
export function begins(): Plugin {
  const name = 'begin.js';
  return {
    name: 'begin',
    apply: 'build',
    generateBundle: {
      order: 'pre',
      handler(_, bundle) {
        this.emitFile({ type: 'asset', name, source: `(${begin})(${JSON.stringify(filesOf(bundle))})` });
      },
    },
    transformIndexHtml: {
      order: 'post',
      handler(_, { bundle }) {
        const named = (which: (name: string) => boolean) => {
          const file = Object.values(bundle ?? {}).find((f) => f.type === 'asset' && f.names.some(which));
          if (!file) throw new Error('a file that the first page names was not made');
          return `/${file.fileName}`;
        };
        const font = { rel: 'preload', as: 'font', type: 'font/woff2', crossorigin: true, href: named((n) => letters.test(n)) };
        return [
          { tag: 'script', attrs: { async: true, src: named((n) => n === name) }, injectTo: 'head' },
          { tag: 'link', attrs: font, injectTo: 'head' },
        ];
      },
    },
  };
}

/** The files of each screen that do not come with the program anyway. */
function filesOf(bundle: Rolldown.OutputBundle): Record<string, string[]> {
  const chunks = Object.values(bundle).filter((f) => f.type === 'chunk');
  const withImports = (of: Rolldown.OutputChunk, seen = new Set<string>()): Set<string> => {
    if (seen.has(of.fileName)) return seen;
    seen.add(of.fileName);
    for (const c of chunks) if (of.imports.includes(c.fileName)) withImports(c, seen);
    return seen;
  };
  const first = withImports(chunks.find((c) => c.isEntry)!);
  const files: Record<string, string[]> = {};
  for (const [name, source] of Object.entries(screens)) {
    const chunk = chunks.find((c) => c.facadeModuleId?.endsWith(`/src/${source}.svelte`));
    if (!chunk) throw new Error(`${source}.svelte is no file of its own`);
    files[name] = [...withImports(chunk)].filter((f) => !first.has(f)).map((f) => `/${f}`);
  }
  return files;
}
