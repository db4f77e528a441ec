<script lang="ts">
  /** On the walk: what is seen on a plant beside what the weather did, with or without a connection. */
  import { Modal } from 'flowbite-svelte';
  import { untrack } from 'svelte';
  import { api, ask, Problem, type Plant, type Schemas } from '../api/client';
  import { Case, type Sign } from '../finds/case.svelte';
  import Causes from '../finds/Causes.svelte';
  import { findsOf } from '../finds/finds';
  import InSight from '../finds/InSight.svelte';
  import KeepFind from '../finds/KeepFind.svelte';
  import NoneOfThese from '../finds/NoneOfThese.svelte';
  import Signs from '../finds/Signs.svelte';
  import { inWords, plusDays } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { small } from '../lib/words';
  import Waiting from '../lib/Waiting.svelte';

  let { open = $bindable(false), told = $bindable(), plant }: { open: boolean; told?: Schemas['Call']; plant: Plant } = $props();
  let signs = $state<Sign[]>();
  let missing = $state(false);
  let keeping = $state<KeepFind>();
  let keeps = $state('');
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
  // What a client told of the plant is ticked as told, to be confirmed; what was found since settles it.
  const reads = reading();
  $effect(() => {
    told = undefined;
    const { id, property_id } = plant;
    if (!house.today) return; // read again once the day is known
    void reads(async (signal) => {
      try {
        const list = (await ask(api.GET('/api/v1/calls', { params: { query: { property: property_id } }, signal }))).items;
        const since = plusDays(house.today, -120);
        const call = list.filter((c) => c.plant_id === id && c.seen.length && c.day >= since).sort((a, b) => b.id - a.id)[0];
        if (!call) return;
        const found = await findsOf({ plant: id }, signal);
        if (!found.some((f) => f.day >= call.day && f.how !== 'call')) told = call;
      } catch (e) {
        if (!(e instanceof Problem) || e.status !== 0) throw e; // without signal it is not told
      }
    });
  });
  let ticked = 0; // the call whose signs are ticked
  $effect(() => {
    const c = told;
    if (!open || !c || ticked === c.id) return;
    ticked = c.id;
    untrack(() => {
      for (const s of c.seen) kase.set(s, 'seen');
      for (const s of c.not_seen) kase.set(s, 'absent');
      kase.told = [...c.seen, ...c.not_seen];
    });
  });
</script>

{#snippet none()}<NoneOfThese
    {kase}
    at={{ plant_id: plant.id }}
    onkept={(u) => {
      if (!u) return;
      kase.clear();
      open = false;
    }}
  />{/snippet}
{#snippet inSight()}<InSight class="w-full" {kase} {keeps} onkeep={() => void keeping?.keep()} />{/snippet}
<Modal
  bind:open
  title="What do you see on the {small(plant.common)}?"
  size="lg"
  class="text-ink!"
  classes={{ footer: 'p-0 md:p-0 lg:hidden' }}
  footer={kase.seen.length ? inSight : undefined}
>
  {#if open}
    {#if missing}<p>The signs are not on this device yet. Open a walk once while there is a connection.</p>
    {:else if !signs}<Waiting />{:else}
      {#if told && kase.told.length}<p class="border-l-4 border-water bg-white py-1 pl-3" aria-label="As told">
          <b>Ticked as told{told.caller ? ` by ${told.caller}` : ''}, {inWords(told.day)}.</b> Look at each: press
          <i>It is so</i>, or take it back.
        </p>{/if}
      {#if kase.answer && kase.seen.length}<p
          class="border-l-4 border-moss pl-3 text-lg font-bold max-lg:sr-only"
          aria-live="polite"
          data-testid="so-far"
        >
          {kase.answer.text}
        </p>{/if}
      <Signs {kase} {signs} {plant} />
      {#if kase.seen.length}<Causes {kase} {plant}>
          {#snippet end()}<KeepFind
              bind:this={keeping}
              bind:keeps
              {kase}
              at={{ plant_id: plant.id }}
              how="walk"
              onkept={(_, more) => more || (kase.clear(), (open = false))}
            />
            {@render none()}{/snippet}
        </Causes>{:else}{@render none()}{/if}
    {/if}
  {/if}
</Modal>
