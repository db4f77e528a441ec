/** Kept first, sent later: all that is found or done without a connection stands on shelves and is sent by a sender. */
import { Problem } from '../api/client';
import { house } from '../lib/house.svelte';

const RETRY = 3000; // ms between two tries to reach the house, at first; each vain try doubles it
const LONGEST = 30_000; // ms between two tries at most

/** Whether the house could not be reached: nothing else will get there either. */
export const unreached = (e: unknown) => e instanceof Problem && e.status === 0;

/** Answers that say nothing of what was sent: called off, too slow, too early, too many. */
const passing = [408, 425, 429, 499];
/** Whether it stumbled over this one: it is tried again later, and the others are sent meanwhile. */
export const stumbled = (e: unknown) => e instanceof Problem && (e.status >= 500 || passing.includes(e.status));

/** Where things are kept on the device. */
export interface Store<T> {
  all: () => Promise<T[]>;
  keep: (thing: T) => Promise<void>;
  drop: (key: string) => Promise<void>;
}

/** Things that wait, by their keys: here and on the device alike, also where another page of it has sent or kept some. */
export class Shelf<T> {
  things = $state.raw<Record<string, T>>({});
  unkept = $state(false); // this device does not keep them: its storage is full or shut, and they live in this page alone
  #store: Store<T>;
  #key: (thing: T) => string;
  #writes = 0; // begun and ended
  #writing = new Map<string, number>(); // on their way to the device

  constructor(store: Store<T>, key: (thing: T) => string) {
    this.#store = store;
    this.#key = key;
  }
  get list(): T[] {
    return Object.values(this.things);
  }
  put(thing: T): Promise<void> {
    const key = this.#key(thing);
    this.things = { ...this.things, [key]: thing };
    return this.#write(key, () => this.#store.keep(thing));
  }
  drop(key: string): Promise<void> {
    const { [key]: _, ...rest } = this.things;
    this.things = rest;
    return this.#write(key, () => this.#store.drop(key));
  }
  /** Takes what waits from the device: another page may have sent some of it, or kept more. What is being written stands. */
  async reread(): Promise<void> {
    try {
      for (let before = -1; before !== this.#writes;) {
        before = this.#writes;
        const kept = Object.fromEntries((await this.#store.all()).map((t) => [this.#key(t), t]));
        if (before !== this.#writes) continue;
        for (const key of this.unkept ? Object.keys(this.things) : this.#writing.keys()) {
          const here = this.things[key];
          if (here) kept[key] = here;
          else delete kept[key];
        }
        this.things = kept;
      }
    } catch {
      this.unkept = true;
    }
  }
  async #write(key: string, f: () => Promise<void>) {
    this.#writing.set(key, (this.#writing.get(key) ?? 0) + 1);
    this.#writes++;
    try {
      await f();
      this.unkept = false;
    } catch {
      this.unkept = true;
    } finally {
      this.#writes++;
      const n = (this.#writing.get(key) ?? 1) - 1;
      if (n) this.#writing.set(key, n);
      else this.#writing.delete(key);
    }
  }
}

/** Runs f while no other page of this device sends; false where another does. Without locks there is no telling. */
async function alone(lock: string, f: () => Promise<void>): Promise<boolean> {
  if (!navigator.locks) return f().then(() => true);
  return navigator.locks.request(lock, { ifAvailable: true }, async (held) => {
    if (held) await f();
    return !!held;
  });
}

/** One thing to send. Where its send throws, it waits: what is refused for good has to be marked by send itself. */
interface Next {
  key: string;
  send: () => Promise<void>;
}

/** What a sender is told by who keeps the things. */
interface Box {
  lock: string; // of the pages of one device, one sends
  shelves: Pick<Shelf<unknown>, 'reread'>[];
  open: () => boolean; // whether anything can still be sent
  next: (later: Set<string>) => Next | undefined; // later: what is not tried again in this round
  before?: (later: Set<string>) => Promise<void>; // must be sent first
}

/** Sends what waits, each once, when the house can be reached: at once, on coming back, and after growing waits. */
export class Sender {
  away = $state(false); // the house could not be reached at the last try
  ready: Promise<void>; // what the device has kept is here
  #box: Box;
  #wait = RETRY;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #sending: Promise<void> | undefined;

  constructor(box: Box) {
    this.#box = box;
    this.ready = this.#reread();
    void this.ready.then(() => this.send());
    window.addEventListener('online', () => {
      this.#wait = RETRY;
      void this.send();
    });
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState !== 'hidden') void this.send();
    });
  }
  /** Waits until all that can be sent is sent. */
  send(): Promise<void> {
    this.#sending ??= this.#send().finally(() => (this.#sending = undefined));
    return this.#sending;
  }
  /** Waits for a sending that is under way. */
  async still(): Promise<void> {
    await this.#sending;
  }
  async #reread() {
    await Promise.all(this.#box.shelves.map((s) => s.reread()));
  }
  async #send() {
    await this.ready;
    clearTimeout(this.#timer);
    if (!this.#box.open()) return; // nothing that would tell whether the house can be reached
    const later = new Set<string>();
    try {
      const mine = await alone(this.#box.lock, () => this.#sendAll(later));
      this.away = later.size > 0;
      if (mine && !this.away) this.#wait = RETRY;
      if (house.ondevice) void house.refresh();
    } catch (e) {
      if (!unreached(e)) throw e;
      this.away = true;
    } finally {
      if (this.#box.open()) {
        this.#timer = setTimeout(() => void this.send(), this.#wait);
        this.#wait = Math.min(LONGEST, 2 * this.#wait);
      }
    }
  }
  async #sendAll(later: Set<string>) {
    await this.#reread();
    await this.#box.before?.(later);
    for (let n = this.#box.next(later); n; n = this.#box.next(later)) {
      try {
        await n.send();
      } catch (e) {
        if (unreached(e)) throw e;
        if (!stumbled(e)) house.fail(e); // a fault of ours: told, and nothing behind it waits for it
        later.add(n.key);
      }
    }
  }
}

/** When a plant is asked about again that could not be. */
export const ASK_AGAIN = RETRY;
