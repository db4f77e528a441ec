/** Where one was on a screen: who comes back by the browser's way finds it as far down as it was left; another screen
    begins at its top. */
const PATIENCE = 20_000; // ms, for a list that is still being read
const HELD = 1500; // ms that it has to stand there

const places = new Map<number, number>(); // how far down, by the entry of the browser's history
let entries = 0;
let here = -1;
let room = '';
let going = -1; // the try that is under way: until it ends nothing is kept of where one is
let tries = 0; // of going back down: what is pressed or scrolled ends it

const first = () => location.hash.split('/')[1] ?? '';
const most = () => document.documentElement.scrollHeight - innerHeight;

/** Goes down to a place as soon as the screen is long enough for it, and stays there until that has held for a while: the
    screen before may be as long, and makes room for one that is still being read. */
function down(to: number) {
  const mine = ++tries;
  going = mine;
  const until = performance.now() + PATIENCE;
  let since = 0; // it has stood there since
  const step = () => {
    if (mine !== tries) return;
    const now = performance.now();
    if (now > until) {
      window.scrollTo(0, to); // as far as it goes
      going = -1;
      return;
    }
    if (most() < to) since = 0;
    else if (Math.abs(window.scrollY - to) > 1) {
      window.scrollTo(0, to);
      since = now;
    } else since ||= now;
    if (since && now - since > HELD) going = -1;
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
  window.addEventListener(
    'scroll',
    () => {
      if (going !== tries) places.set(here, window.scrollY);
    },
    { passive: true },
  );
  for (const e of ['wheel', 'touchmove', 'keydown', 'pointerdown'])
    window.addEventListener(e, () => tries++, { passive: true, capture: true });
}
