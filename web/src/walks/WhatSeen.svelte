<script lang="ts">
  /** On the walk: what is seen on a plant beside what the weather did, with or without a connection. */
  import { Modal } from 'flowbite-svelte';
  import { api, ask, Problem, type Plant, type Schemas } from '../api/client';
  import { Case, type Sign } from '../finds/case.svelte';
  import Causes from '../finds/Causes.svelte';
  import KeepFind from '../finds/KeepFind.svelte';
  import Signs from '../finds/Signs.svelte';
  import { inWords, plusDays } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
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
  // What a client told of the plant lies beside it, to be confirmed: what was told is not yet seen.
  let told = $state.raw<Schemas['Call']>();
  const reads = reading();
  $effect(() => {
    told = undefined;
    if (!open) return;
    const { id, property_id } = plant;
    void reads(async (signal) => {
      try {
        const list = (await ask(api.GET('/api/v1/calls', { params: { query: { property: property_id } }, signal }))).items;
        const since = plusDays(house.today, -120);
        told = list.filter((c) => c.plant_id === id && c.seen.length && c.day >= since).sort((a, b) => b.id - a.id)[0];
      } catch (e) {
        if (!(e instanceof Problem) || e.status !== 0) throw e; // without signal it is not told
      }
    });
  });
  const nameOf = (id: string) => signs?.find((s) => s.id === id)?.name ?? id;
  function confirm(c: Schemas['Call']) {
    for (const s of c.seen) kase.set(s, 'seen');
    for (const s of c.not_seen) kase.set(s, 'absent');
    told = undefined;
  }
</script>

<Modal bind:open title="What do you see on the {plant.common.toLowerCase()}?" size="lg" class="text-ink">
  {#if open}
    {#if missing}<p>The signs are not on this device yet. Open a walk once while there is a connection.</p>
    {:else if !signs}<Waiting />{:else}
      {#if told}<section class="border-l-4 border-water bg-white py-1 pl-3" aria-label="As told">
          <p>
            <b>As told{told.caller ? ` by ${told.caller}` : ''}, {inWords(told.day, house.today)}:</b>
            {told.seen.map(nameOf).join(', ').toLowerCase()}.
          </p>
          <button class="min-h-11 text-moss underline" onclick={() => confirm(told!)}
            >Tick what was told, and take off what is not there</button
          >
        </section>{/if}
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
