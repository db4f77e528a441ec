import { onDestroy } from 'svelte';
import type { Problem } from '../api/client';
import { attempt } from './house.svelte';

/** Reads, and gives back the problem where there is one. What it asks for is asked with the signal. */
export type Reads = (read: (signal: AbortSignal) => Promise<void>) => Promise<Problem | undefined>;

/**
 * What a screen reads, one reading at a time. A newer reading calls off the one before, and leaving the screen does so too:
 * what is called off changes nothing and says nothing. Made while a component is set up; it may have several.
 */
export function reading(): Reads {
  let left = false;
  let now = new AbortController();
  onDestroy(() => {
    left = true;
    now.abort();
  });
  return async (read) => {
    if (left) return undefined;
    now.abort();
    const { signal } = (now = new AbortController());
    return attempt(async () => {
      try {
        await read(signal);
      } catch (e) {
        if (!signal.aborted) throw e;
      }
    });
  };
}
