/** Pictures taken at jobs that wait to be sent. */
import { answerOf, counted, type Schemas } from '../api/client';
import { device } from './device';
import { Queue, type Waits } from './queue.svelte';

/** A picture: the job, and the picture itself as a data address. */
export interface ShotOf {
  order: number;
  data: string;
}

async function post({ order, data }: ShotOf, key: string): Promise<Schemas['OrderPhoto']> {
  const bytes = Uint8Array.from(atob(data.slice(data.indexOf(',') + 1)), (c) => c.charCodeAt(0));
  return answerOf(
    counted(`/api/v1/orders/${order}/photos`, {
      method: 'POST',
      headers: { 'Content-Type': 'image/jpeg', 'Idempotency-Key': key },
      body: new Blob([bytes], { type: 'image/jpeg' }),
    }),
  );
}

class Shots extends Queue<ShotOf, Schemas['OrderPhoto']> {
  constructor() {
    super(device.shots, 'mezzadro-shots', post);
  }
  of(order: number): Waits<ShotOf>[] {
    return this.waiting.filter((w) => w.body.order === order);
  }
}

export const shots = new Shots();

/** A picture as a data address, so that it can wait on the device. */
export const address = (blob: Blob) =>
  new Promise<string>((done, fail) => {
    const r = new FileReader();
    r.onload = () => done(r.result as string);
    r.onerror = () => fail(new Error('The picture cannot be read.'));
    r.readAsDataURL(blob);
  });
