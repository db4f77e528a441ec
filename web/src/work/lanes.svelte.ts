import { api, ask, type Lane } from '../api/client';
import { attempt } from '../lib/house.svelte';

/** Which jobs the year shows, and in which order. */
export interface Asked {
  property: number; // 0: all
  by: 'time' | 'property' | 'plant' | 'kind';
  kind: string; // '': all
  care: boolean; // after-care among them
  closing: boolean; // only what closes soon
  text: string;
}

/** What closes soon closes within so many days. */
export const closesIn = 21;

const chunk = 60;

/** The lanes of the year, read a stretch at a time where one looks. */
export class Lanes {
  total = $state<number>();
  at = $state.raw(new Map<number, Lane>()); // by place in the list
  #reading = new Set<number>();
  #asked?: Asked;
  #turn = 0;

  /** Other lanes are wanted: the first stretch is read. */
  async want(asked: Asked) {
    this.#asked = asked;
    this.#turn++;
    this.#reading.clear();
    await this.#read(0, true);
  }

  /** A stretch comes into sight. */
  see(first: number, last: number) {
    for (let c = Math.floor(Math.max(0, first) / chunk); c * chunk <= last && c * chunk < (this.total ?? 0); c++)
      void this.#read(c);
  }

  /** A lane has changed. */
  change(lane: Lane) {
    for (const [i, l] of this.at) if (l.id === lane.id) this.at = new Map(this.at).set(i, lane);
  }

  async #read(c: number, anew = false) {
    const asked = this.#asked;
    if (!asked || this.#reading.has(c)) return;
    this.#reading.add(c);
    const turn = this.#turn;
    const fault = await attempt(async () => {
      const y = await ask(
        api.GET('/api/v1/year', {
          params: {
            query: {
              from: c * chunk,
              limit: chunk,
              by: asked.by,
              ...(asked.property ? { property: asked.property } : {}),
              ...(asked.kind ? { kind: asked.kind } : {}),
              ...(asked.care ? {} : { no_care: true }),
              ...(asked.closing ? { closing: closesIn } : {}),
              ...(asked.text ? { text: asked.text } : {}),
            },
          },
        }),
      );
      if (turn !== this.#turn) return;
      const at = new Map(anew ? [] : this.at);
      y.items?.forEach((l, i) => at.set(c * chunk + i, l));
      this.at = at;
      this.total = y.total;
    });
    if (fault) this.#reading.delete(c); // it is asked for again when it is seen again
  }
}
