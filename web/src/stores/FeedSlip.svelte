<script lang="ts">
  /** When and with what a plant is fed. */
  import { onDestroy } from 'svelte';
  import { api, ask, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';

  let { plant, hurt = false }: { plant: number; hurt?: boolean } = $props();
  let feed = $state.raw<Schemas['TreatmentFeeding']>();
  let turn = 0;
  onDestroy(() => turn++);
  $effect(() => {
    const [body, mine] = [{ plant, hurt }, ++turn];
    feed = undefined;
    void attempt(async () => {
      const f = await ask(api.POST('/api/v1/reckon/feeding', { body }));
      if (mine === turn) feed = f;
    });
  });
</script>

{#if feed}
  <section aria-label="Feeding" class="border border-rule bg-white px-3 py-2">
    <p class="text-xs font-semibold text-soft">Feeding {feed.class}</p>
    <p class="font-semibold" data-testid="feed">{feed.text}</p>
    {#if feed.foliar?.length}<p class="text-sm">
        The new leaves are wetted with a weak feed to dripping: {feed.foliar.map((d) => inWords(d, house.today)).join(', ')}.
      </p>{/if}
    {#each feed.says ?? [] as s (s)}<p class="text-sm">{s}</p>{/each}
    {#each feed.rules ?? [] as r (r)}<p class="text-sm text-soft">House rule: {r}.</p>{/each}
    {#if !feed.none}<p class="text-sm text-soft">How much is the label’s.</p>{/if}
  </section>
{/if}
