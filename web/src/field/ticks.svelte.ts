/** Jobs that were ticked off and wait to be sent. */
import { api, ask, type OrderDetail, type Schemas } from '../api/client';
import { device } from './device';
import { Queue, type Waits } from './queue.svelte';

/** A tick: the job, as it was known, and what is said of it. */
export interface TickOf {
  id: number;
  state: 'done' | 'skipped' | 'partly done' | 'not today';
  version: number;
  on: string;
  took_minutes: number;
  note: string;
  use?: Schemas['UseIn'];
  helped?: 'gone' | 'less' | 'same'; // of a look after a treatment
  left_minutes?: number; // partly done: what is left
  reason?: string; // not today: why
  never_again?: boolean; // skipped: it does not come again
}

class Ticks extends Queue<TickOf, OrderDetail> {
  constructor() {
    super(device.ticks, 'mezzadro-ticks', ({ id, ...body }, key) =>
      ask(api.PUT('/api/v1/orders/{id}/state', { params: { path: { id }, header: { 'Idempotency-Key': key } }, body })),
    );
  }
  of(order: number): Waits<TickOf> | undefined {
    return this.waiting.find((t) => t.body.id === order);
  }
}

export const ticks = new Ticks();
