/** Where one was on a screen: who comes back by the browser's way finds it as far down as it was left; another screen
    begins at its top. */
const PATIENCE = 20_000; // ms, for a list that is still being read

const places = new Map<number, number>(); // how far down, by the entry of the browser's history
let entries = 0;
let here = -1;
let room = '';
let tries = 0; // of going back down: what is pressed or scrolled ends it

const first = () => location.hash.split('/')[1] ?? '';
const most = () => document.documentElement.scrollHeight - innerHeight;

/** Goes down to a place as soon as the screen is long enough for it. */
function down(to: number) {
  const mine = ++tries;
  const until = performance.now() + PATIENCE;
  const step = () => {
    if (mine !== tries) return;
    if (most() >= to || performance.now() > until) window.scrollTo(0, to);
    else requestAnimationFrame(step);
  };
  requestAnimationFrame(step);
}

function arrived() {
  history.scrollRestoration = 'manual'; // the router sets it to what it does without
  const known = (history.state as { entry?: number } | null)?.entry;
  const from = room;
  room = first();
  if (known !== undefined && places.has(known)) {
    here = known;
    if (places.get(known)! > 0) down(places.get(known)!);
    return;
  }
  here = known ?? entries++;
  if (known === undefined) history.replaceState({ ...(history.state as object), entry: here }, '');
  tries++;
  if (from !== room) window.scrollTo(0, 0);
}

export function keepPlaces() {
  history.scrollRestoration = 'manual';
  entries = Date.now(); // entries of a page that was read anew are not taken for these
  arrived();
  window.addEventListener('popstate', arrived);
  window.addEventListener('scroll', () => places.set(here, window.scrollY), { passive: true });
  for (const e of ['wheel', 'touchmove', 'keydown', 'pointerdown'])
    window.addEventListener(e, () => tries++, { passive: true, capture: true });
}
