/** Things of one kind that wait to be sent: each on its own, in their order. */
import { onceKey } from '../api/client';
import { Sender, Shelf, stumbled, unreached, type Store } from './sending.svelte';

/** One thing that waits. */
export interface Waits<B> {
  key: string;
  body: B;
  name: string; // for people
  made?: number; // ms; what was kept by an older program has none
  refused?: string; // the house would not take it
  problem?: Error; // with its fields; not kept
}

export class Queue<B, K> {
  #shelf: Shelf<Waits<B>>;
  #sender: Sender;
  #post: (body: B, key: string) => Promise<K>;
  #sent = new Map<string, K>();

  constructor(store: Store<Waits<B>>, lock: string, post: (body: B, key: string) => Promise<K>) {
    const keep = ({ problem: _, ...kept }: Waits<B>) => store.keep(kept);
    this.#shelf = new Shelf({ ...store, keep }, (w) => w.key);
    this.#post = post;
    this.#sender = new Sender({
      lock,
      shelves: [this.#shelf],
      open: () => this.left > 0,
      next: (later) => {
        const w = this.waiting.find((x) => !x.refused && !later.has(x.key));
        return w && { key: w.key, send: () => this.#sendOne(w) };
      },
    });
  }
  /** In the order in which they were kept. */
  get waiting(): Waits<B>[] {
    return this.#shelf.list.sort((a, b) => (a.made ?? 0) - (b.made ?? 0));
  }
  get unkept(): boolean {
    return this.#shelf.unkept;
  }
  /** Those that still can be sent. */
  get left(): number {
    return this.waiting.filter((f) => !f.refused).length;
  }
  /** Keeps a thing and sends it when it can: resolves with what the house kept, or with nothing while it cannot be reached. */
  async keep(body: B, name: string): Promise<K | undefined> {
    const key = onceKey()['Idempotency-Key'];
    body = JSON.parse(JSON.stringify(body)) as B;
    await this.#sender.ready;
    const made = Math.max(Date.now(), (this.waiting.at(-1)?.made ?? 0) + 1);
    await this.#shelf.put({ key, body, name, made });
    await this.#sender.send();
    const still = this.waiting.find((x) => x.key === key);
    if (still?.refused) {
      await this.drop(key);
      throw still.problem ?? new Error(still.refused);
    }
    return this.#sent.get(key);
  }
  drop(key: string): Promise<void> {
    return this.#shelf.drop(key);
  }
  send(): Promise<void> {
    return this.#sender.send();
  }
  async #sendOne(w: Waits<B>) {
    try {
      this.#sent.set(w.key, await this.#post(w.body, w.key));
    } catch (e) {
      if (unreached(e) || stumbled(e)) throw e;
      // Refused, or so broken that it cannot even be sent: it waits for its owner, and nothing behind it waits for it.
      const problem = e instanceof Error ? e : new Error(String(e));
      await this.#shelf.put({ ...w, refused: problem.message, problem });
      return;
    }
    await this.drop(w.key);
  }
}
