/** Crowns that were counted and wait to be sent. */
import { api, ask, type Schemas } from '../api/client';
import { device } from './device';
import { Queue, type Waits } from './queue.svelte';

export type Counted = Schemas['CrownCount'];
export interface CountOf {
  plant: number;
  count: Schemas['CrownIn'];
}

class Counts extends Queue<CountOf, Counted> {
  constructor() {
    super(device.counts, 'mezzadro-counts', ({ plant, count }, key) =>
      ask(
        api.POST('/api/v1/plants/{id}/crown-counts', {
          params: { path: { id: plant }, header: { 'Idempotency-Key': key } },
          body: count,
        }),
      ),
    );
  }
  of(plant: number): Waits<CountOf>[] {
    return this.waiting.filter((w) => w.body.plant === plant);
  }
}

export const counts = new Counts();

export const countsOf = (plant: number, signal?: AbortSignal) =>
  ask(api.GET('/api/v1/plants/{id}/crown-counts', { params: { path: { id: plant } }, signal })).then((r) => r.items);
