<script lang="ts">
  /** On the walk: what is seen on a plant beside what the weather did, with or without a connection. */
  import { Modal } from 'flowbite-svelte';
  import { api, ask, type Plant } from '../api/client';
  import { Case, type Sign } from '../finds/case.svelte';
  import Causes from '../finds/Causes.svelte';
  import KeepFind from '../finds/KeepFind.svelte';
  import Signs from '../finds/Signs.svelte';
  import { attempt } from '../lib/house.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let { open = $bindable(false), plant }: { open: boolean; plant: Plant } = $props();
  let signs = $state<Sign[]>();
  let missing = $state(false);
  $effect(() => {
    if (!open || signs) return;
    void attempt(async () => {
      signs = (await ask(api.GET('/api/v1/signs'))).items;
    }).then((p) => (missing = p?.status === 0));
  });
  const kase = new Case(() => (open ? { plant: plant.id, property: plant.property_id, species: plant.species } : undefined));
  let of = 0;
  $effect(() => {
    if (plant.id === of) return;
    of = plant.id;
    kase.clear();
  });
</script>

<Modal bind:open title="What do you see on the {plant.common.toLowerCase()}?" size="lg" class="text-ink">
  {#if open}
    {#if missing}<p>The signs are not on this device yet. Open a walk once while there is a connection.</p>
    {:else if !signs}<Waiting />{:else}
      {#if kase.answer && kase.seen.length}<p
          class="border-l-4 border-moss pl-3 text-lg font-bold"
          aria-live="polite"
          data-testid="so-far"
        >
          {kase.answer.text}
        </p>{/if}
      <Signs {kase} {signs} {plant} />
      {#if kase.seen.length}<Causes {kase}>
          {#snippet end()}<KeepFind
              {kase}
              at={{ plant_id: plant.id }}
              how="walk"
              onkept={() => (kase.clear(), (open = false))}
            />{/snippet}
        </Causes>{/if}
    {/if}
  {/if}
</Modal>
