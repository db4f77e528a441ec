<script lang="ts">
  /** None of the causes fits: what is seen is kept in words, with what was sent where and when an answer is expected. */
  import { Button } from 'flowbite-svelte';
  import type { Problem } from '../api/client';
  import { unnamed, type Unnamed, type UnnamedIn } from '../field/finds.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import type { Case } from './case.svelte';
  import UnnamedFields from './UnnamedFields.svelte';
  import { noWords, removeUnnamed, wordsIn } from './unnamed';

  interface Props {
    kase: Case;
    at: { plant_id?: number; property_id?: number };
    onkept?: (u: Unnamed | undefined) => void;
  }
  let { kase, at, onkept }: Props = $props();
  let words = $state(noWords());
  let busy = $state(false);
  let open = $state(false);
  let problem = $state<Problem>();

  async function keep() {
    if (busy) return;
    busy = true;
    problem = await attempt(async () => {
      const body: UnnamedIn = {
        ...at,
        ...wordsIn($state.snapshot(words)),
        ...kase.looked(),
        share: kase.share,
      };
      const kept = await unnamed.keep(body, words.words.slice(0, 60));
      [words, open] = [noWords(), false];
      if (kept)
        house.say('Kept without a name. Its pictures go with it in the list of what ails the plant.', async () => {
          await removeUnnamed(kept);
          onkept?.(undefined);
        });
      else house.say('Kept on this device without a name, and sent when the house can be reached.');
      onkept?.(kept);
    });
    busy = false;
  }
</script>

<details class="mt-3 border-t border-rule" bind:open>
  <summary class="flex min-h-11 cursor-pointer items-center font-semibold text-moss">None of these</summary>
  <form
    class="space-y-3"
    aria-label="Save without a name"
    onsubmit={(e) => {
      e.preventDefault();
      void keep();
    }}
  >
    <UnnamedFields bind:words problem={problem?.fields} />
    <Button type="submit" disabled={busy}>Save it without a name</Button>
  </form>
</details>
