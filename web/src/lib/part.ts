import { house } from './house.svelte';

/** A part of a screen that is read when it is first shown. What keeps it from coming is said; it comes when it is shown anew. */
export function part<T>(read: () => Promise<T>): Promise<T> {
  return read().catch(() => {
    house.fail('This part is not on the device yet, and there is no connection. Come back to it when there is.');
    return new Promise<T>(() => {}); // what waits for it shows nothing
  });
}
