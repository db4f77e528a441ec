/** Taking back what was done to visits. */
import { api, ask, onceKey, type Schemas } from '../api/client';
import { attempt } from '../lib/house.svelte';

/** Has all jobs of a change stand as they did. */
export async function visitBack(done: Schemas['VisitChanged'], onkept: () => void): Promise<void> {
  await attempt(async () => {
    await ask(api.POST('/api/v1/rounds/visits/back', { params: { header: onceKey() }, body: { was: done.was } }));
    onkept();
  });
}
