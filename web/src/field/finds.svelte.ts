/** Finds that wait to be sent: kept on the device first, sent when the house can be reached. */
import { api, ask, onceKey, Problem, type Schemas } from '../api/client';
import { device, type WaitingFind } from './device';
import { alone } from './alone';

export type FindIn = Schemas['FindIn'];
export type Find = Schemas['Find'];

const RETRY = 3000; // ms between two tries, at first; each vain try doubles it
const LONGEST = 30_000;

class Finds {
  waiting = $state.raw<WaitingFind[]>([]);
  unkept = $state(false); // this device does not keep them: they live in this page alone until they are sent
  #wait = RETRY;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #sending: Promise<void> | undefined;
  #ready: Promise<void>;

  constructor() {
    this.#ready = device
      .finds()
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
  of(plant: number): WaitingFind[] {
    return this.waiting.filter((f) => f.body.plant_id === plant);
  }
  /** Keeps a find and sends it when it can: resolves with what the house kept, or with nothing while it cannot be reached. */
  async keep(body: FindIn, name: string): Promise<Find | undefined> {
    const f: WaitingFind = { key: onceKey()['Idempotency-Key'], body: JSON.parse(JSON.stringify(body)) as FindIn, name };
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
  #sent = new Map<string, Find>();
  async drop(key: string) {
    this.waiting = this.waiting.filter((f) => f.key !== key);
    await this.#write(() => device.dropFind(key));
  }
  async #put(f: WaitingFind) {
    this.waiting = [...this.waiting.filter((x) => x.key !== f.key), f];
    const { problem: _, ...kept } = f;
    await this.#write(() => device.keepFind(kept));
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
          const find = await ask(api.POST('/api/v1/finds', { body: f.body, params: { header: { 'Idempotency-Key': f.key } } }));
          this.#sent.set(f.key, find);
          await this.drop(f.key);
        } catch (e) {
          if (!(e instanceof Problem)) throw e;
          if (e.status === 0) return;
          if (e.status < 500) await this.#put({ ...f, refused: e.message, problem: e });
        }
      }
    }, 'mezzadro-finds');
    if (this.left) {
      this.#timer = setTimeout(() => void this.send(), this.#wait);
      this.#wait = Math.min(LONGEST, 2 * this.#wait);
    } else this.#wait = RETRY;
  }
}

export const finds = new Finds();
