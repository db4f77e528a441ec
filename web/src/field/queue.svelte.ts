/** What waits to be sent: kept on the device first, sent when the house can be reached, each once. */
import { onceKey } from '../api/client';
import { alone } from './alone';
import { LONGEST, RETRY, stumbled, unreached } from './sending';

/** One thing that waits. */
export interface Waits<B> {
  key: string;
  body: B;
  name: string; // for people
  refused?: string; // the house would not take it
  problem?: Error; // with its fields; not kept
}

/** Where things that wait are kept. */
interface Shelf<B> {
  all: () => Promise<Waits<B>[]>;
  keep: (w: Waits<B>) => Promise<void>;
  drop: (key: string) => Promise<void>;
}

export class Queue<B, K> {
  waiting = $state.raw<Waits<B>[]>([]);
  unkept = $state(false); // this device does not keep them: they live in this page alone until they are sent
  #shelf: Shelf<B>;
  #lock: string;
  #post: (body: B, key: string) => Promise<K>;
  #wait = RETRY;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #sending: Promise<void> | undefined;
  #ready: Promise<void>;
  #sent = new Map<string, K>();

  constructor(shelf: Shelf<B>, lock: string, post: (body: B, key: string) => Promise<K>) {
    this.#shelf = shelf;
    this.#lock = lock;
    this.#post = post;
    this.#ready = shelf
      .all()
      .then((f) => void (this.waiting = f))
      .catch(() => void (this.unkept = true));
    void this.#ready.then(() => {
      if (this.waiting.length) void this.send();
    });
    window.addEventListener('online', () => {
      this.#wait = RETRY;
      void this.send();
    });
  }
  /** Those that still can be sent. */
  get left(): number {
    return this.waiting.filter((f) => !f.refused).length;
  }
  /** Keeps a thing and sends it when it can: resolves with what the house kept, or with nothing while it cannot be reached. */
  async keep(body: B, name: string): Promise<K | undefined> {
    const f: Waits<B> = { key: onceKey()['Idempotency-Key'], body: JSON.parse(JSON.stringify(body)) as B, name };
    await this.#ready;
    await this.#put(f);
    await this.send();
    const still = this.waiting.find((x) => x.key === f.key);
    if (still?.refused) {
      await this.drop(f.key);
      throw still.problem ?? new Error(still.refused);
    }
    return this.#sent.get(f.key);
  }
  async drop(key: string) {
    this.waiting = this.waiting.filter((f) => f.key !== key);
    await this.#write(() => this.#shelf.drop(key));
  }
  async #put(f: Waits<B>) {
    this.waiting = [...this.waiting.filter((x) => x.key !== f.key), f];
    const { problem: _, ...kept } = f;
    await this.#write(() => this.#shelf.keep(kept));
  }
  async #write(f: () => Promise<unknown>) {
    try {
      await f();
      this.unkept = false;
    } catch {
      this.unkept = true;
    }
  }
  send(): Promise<void> {
    this.#sending ??= this.#send().finally(() => (this.#sending = undefined));
    return this.#sending;
  }
  async #send() {
    await this.#ready;
    clearTimeout(this.#timer);
    await alone(async () => {
      for (const f of this.waiting.filter((x) => !x.refused)) {
        try {
          this.#sent.set(f.key, await this.#post(f.body, f.key));
          await this.drop(f.key);
        } catch (e) {
          if (unreached(e)) return;
          if (stumbled(e)) continue;
          // Refused, or so broken that it cannot even be sent: it waits for its owner, and nothing behind it waits for it.
          const problem = e instanceof Error ? e : new Error(String(e));
          await this.#put({ ...f, refused: problem.message, problem });
        }
      }
    }, this.#lock);
    if (this.left) {
      this.#timer = setTimeout(() => void this.send(), this.#wait);
      this.#wait = Math.min(LONGEST, 2 * this.#wait);
    } else this.#wait = RETRY;
  }
}
