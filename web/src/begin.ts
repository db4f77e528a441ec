/**
 * Asks for what the first screen needs while the program itself still comes: for its files, by what the address names, and for
 * what it reads first. It runs by itself before the program (see vite.begin.ts); api/client.ts takes the answers up.
 */
export function begin(files: Record<string, string[]>) {
  const [, screen = 'lookout', of = ''] = /^#\/(\w+)(?:\/(\d+))?/.exec(location.hash) ?? [];
  for (const href of files[screen] ?? []) {
    const link = document.createElement('link');
    link.rel = 'modulepreload';
    link.crossOrigin = '';
    link.href = href;
    document.head.append(link);
  }
  if (['client', 'invite', 'owner'].includes(screen)) return; // somebody from outside: nothing else is asked
  const reads: Record<string, string> = {
    lookout: 'lookout',
    walk: of ? `plants?property=${of}&limit=1000` : 'lookout',
    rounds: of ? '' : 'rounds?days=14&week=true',
  };
  window.begun = new Map();
  for (const path of ['me', 'frame', reads[screen]]) {
    if (!path) continue;
    const answer = fetch('/api/v1/' + path);
    answer.catch(() => undefined); // whoever takes it up says so
    window.begun.set('/api/v1/' + path, answer);
  }
}
