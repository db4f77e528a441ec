import { untrack } from 'svelte';
import { api, ask, Problem, reach, type Schemas } from '../api/client';

/** What every screen shares: the frame, messages at the foot, and the reading mode. */
class House {
  frame = $state<Schemas['Frame'] | undefined>();
  notes = $state<{ id: number; text: string; bad: boolean; undo?: () => Promise<void> }[]>([]);
  placed = $state(false); // the place in sight shows the messages where it has room for them
  glare = $state(localStorage.getItem('glare') === 'on');
  ondevice = $state(false); // what was read last came from this device: the house cannot be reached
  me = $state.raw<Schemas['Me'] | undefined>(); // who is signed in, and whether anybody has to be
  #last = 0;
  #due = false;

  constructor() {
    reach.ondevice = (is) => (this.ondevice = is);
    reach.signin = () => (this.me = { needs: 'sign-in' });
    reach.wrote = () => this.#stale();
    void this.readMe();
    // Once the worker keeps what is read, the frame is read again, so that it is there without signal.
    navigator.serviceWorker?.addEventListener('controllerchange', () => void this.refresh());
    setInterval(() => this.ondevice && void this.refresh(), 5000);
  }

  get today(): string {
    return this.frame?.today ?? '';
  }

  async readMe() {
    try {
      this.me = await ask(api.GET('/api/v1/me'));
    } catch (e) {
      if (!(e instanceof Problem) || e.status !== 0) this.fail(e); // without signal one stays who one was
    }
  }

  /** Whether who is signed in may do what a role may; all may where nobody has to sign in. */
  may(role: 'planner' | 'owner'): boolean {
    const mine = this.me?.account?.role;
    return !mine || mine === 'owner' || mine === role;
  }

  async refresh() {
    try {
      this.frame = await ask(api.GET('/api/v1/frame'));
    } catch (e) {
      if (this.me?.needs === 'sign-in') return; // it is asked for
      if (e instanceof Problem && e.status === 0)
        this.ondevice = true; // the banner says so
      else this.fail(e);
    }
  }

  /** Something was written: the frame is read anew, once for all that is written together. */
  #stale() {
    if (this.#due) return;
    this.#due = true;
    queueMicrotask(() => {
      this.#due = false;
      void this.refresh();
    });
  }

  /** Says something at the foot of the screen, with a way back where there is one. */
  say(text: string, undo?: () => Promise<void>) {
    const id = ++this.#last;
    this.notes = [...this.notes.filter((n) => n.bad), { id, text, bad: false, undo }];
    // What can be taken back stays for a minute, or until the next thing is done; whoever drives the page can hold it.
    if (!undo || !('holdNotices' in window)) setTimeout(() => this.drop(id), undo ? 60_000 : 6_000);
  }

  fail(e: unknown) {
    const text = e instanceof Problem || e instanceof Error ? e.message : String(e);
    if (this.notes.some((n) => n.text === text)) return;
    const id = ++this.#last;
    this.notes = [...this.notes.slice(-1), { id, text, bad: true }];
    setTimeout(() => this.drop(id), 20_000);
  }

  /** What went wrong before is no longer news. */
  clear() {
    this.notes = this.notes.filter((n) => !n.bad);
  }

  drop(id: number) {
    this.notes = this.notes.filter((n) => n.id !== id);
  }

  setGlare(on: boolean) {
    this.glare = on;
    localStorage.setItem('glare', on ? 'on' : 'off');
    document.documentElement.classList.toggle('glare', on);
  }
}

export const house = new House();
document.documentElement.classList.toggle('glare', house.glare);

/** Runs what the user asked for; a problem is said at the foot and given back for the form. */
export async function attempt(f: () => Promise<void>): Promise<Problem | undefined> {
  // What is asked for inside an effect must not make the effect hang on the messages, nor on what f reads.
  untrack(() => house.clear());
  try {
    await untrack(f);
    return undefined;
  } catch (e) {
    house.fail(e);
    return e instanceof Problem ? e : new Problem(0, { detail: String(e) });
  }
}

/** Keys of the screen in sight: the place sets them, the frame listens and lists them. */
export type Key = { key: string; does: string; run: () => void };
export type Keys = Key[];
export const keys = $state<{ screen: Keys; ribbon: Keys }>({ screen: [], ribbon: [] });
