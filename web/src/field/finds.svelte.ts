/** Finds that wait to be sent. */
import { api, ask, type Schemas } from '../api/client';
import { device } from './device';
import { Queue, type Waits } from './queue.svelte';

export type FindIn = Schemas['FindIn'];
export type Find = Schemas['Find'];

class Finds extends Queue<FindIn, Find> {
  constructor() {
    super(device.finds, 'mezzadro-finds', (body, key) =>
      ask(api.POST('/api/v1/finds', { body, params: { header: { 'Idempotency-Key': key } } })),
    );
  }
  of(plant: number): Waits<FindIn>[] {
    return this.waiting.filter((f) => f.body.plant_id === plant);
  }
}

export const finds = new Finds();

export type UnnamedIn = Schemas['UnnamedIn'];
export type Unnamed = Schemas['Unnamed'];

/** Finds that nobody could name, which wait to be sent. */
export const unnamed = new Queue<UnnamedIn, Unnamed>(device.unnamed, 'mezzadro-unnamed', (body, key) =>
  ask(api.POST('/api/v1/unnamed', { body, params: { header: { 'Idempotency-Key': key } } })),
);
