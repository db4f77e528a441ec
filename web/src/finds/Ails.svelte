<script lang="ts">
  /** What ails a plant: what is seen on it, the question that parts the look-alikes, and the causes with what speaks for each. */
  import { onMount } from 'svelte';
  import { small } from '../lib/words';
  import { api, ask, type Plant, type Species } from '../api/client';
  import { Case, type Sign } from './case.svelte';
  import Causes from './Causes.svelte';
  import FindList from './FindList.svelte';
  import InSight from './InSight.svelte';
  import KeepFind from './KeepFind.svelte';
  import NoneOfThese from './NoneOfThese.svelte';
  import Signs from './Signs.svelte';
  import { reading } from '../lib/reading';
  import SpeciesPick from '../lib/SpeciesPick.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { plant?: string } } = $props();
  const plantId = $derived(Number(params?.plant ?? 0));

  let signs = $state<Sign[]>();
  let species = $state<Species[]>([]);
  let plant = $state<Plant>();
  let name = $state('');
  let keeping = $state<KeepFind>();
  let keeps = $state('');
  const [reads, readPlant] = [reading(), reading()];

  onMount(() => {
    void reads(async (signal) => {
      signs = (await ask(api.GET('/api/v1/signs', { signal }))).items;
      species = (await ask(api.GET('/api/v1/species', { signal }))).items;
    });
  });
  $effect(() => {
    const id = plantId;
    plant = undefined;
    if (!id) return;
    void readPlant(async (signal) => {
      plant = await ask(api.GET('/api/v1/plants/{id}', { params: { path: { id } }, signal }));
    });
  });
  const kind = $derived(species.find((s) => `${s.common} (${s.botanical})` === name)?.id);
  const kase = new Case(() => {
    if (plantId) return plant ? { plant: plant.id, property: plant.property_id, species: plant.species } : undefined;
    return { species: kind };
  });
</script>

<svelte:head><title>What ails it · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  <h1>
    What ails {#if plant}the <a href="#/plant/{plant.id}">{small(plant.common)}{plant.label ? `, ${plant.label}` : ''}</a
      >{:else}it{/if}?
  </h1>
  <p class="text-soft">Say what is seen; what nobody has looked at stays open. (The chances are estimates.)</p>
  {#if !signs}
    <Waiting />
  {:else}
    <div class="mt-3 grid items-start gap-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <section aria-label="What is seen" class="min-w-0">
        {#if !plantId}<SpeciesPick {species} bind:value={name} />{/if}
        <Signs {kase} {signs} {plant} />
      </section>
      <div class="min-w-0 space-y-4 lg:sticky lg:top-4">
        <Causes {kase}>
          {#snippet end()}
            {#if plant}<KeepFind
                bind:this={keeping}
                bind:keeps
                {kase}
                at={{ plant_id: plant.id }}
                how="look"
                onkept={(_, more) => more || kase.clear()}
              />
            {:else}<p class="mt-3 text-sm text-soft">
                To keep it, ask from the plant: its page and its walk have the same questions.
              </p>{/if}
          {/snippet}
        </Causes>
        {#if plant}<NoneOfThese {kase} at={{ plant_id: plant.id }} onkept={(u) => u && kase.clear()} />
          <FindList plant={plant.id} />{/if}
      </div>
    </div>
    <InSight
      class="sticky bottom-12 z-10 -mx-4 border-t border-ink md:bottom-0"
      {kase}
      keeps={plant ? keeps : ''}
      onkeep={() => void keeping?.keep()}
    />
  {/if}
</div>
