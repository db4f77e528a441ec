<script lang="ts">
  /** What a plant can be guarded against before it is there, and what it is guarded against. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Pick from '../lib/Pick.svelte';

  let { plant }: { plant: number } = $props();
  let list = $state.raw<Schemas['Guard'][]>([]);
  let chosen = $state('');
  let busy = $state(false);
  const reads = reading();
  const read = (of: number) =>
    reads(async (signal) => {
      list = (await ask(api.GET('/api/v1/plants/{id}/guards', { params: { path: { id: of } }, signal }))).items;
    });
  $effect(() => {
    list = [];
    chosen = '';
    void read(plant);
  });
  const wished = $derived(list.filter((g) => g.find_id));
  const open = $derived(list.filter((g) => !g.find_id));
  const picked = $derived(open.find((g) => g.cause === chosen));
  async function guard() {
    const g = picked;
    if (!g || busy) return;
    busy = true;
    await attempt(async () => {
      const f = await ask(
        api.POST('/api/v1/finds', {
          params: { header: onceKey() },
          body: { plant_id: plant, cause: g.cause, certainty: 1, prevent: true },
        }),
      );
      location.hash = `#/treat/${f.id}`;
    });
    busy = false;
  }
  async function stop(g: Schemas['Guard']) {
    await attempt(async () => {
      const path = { id: g.find_id! };
      await ask(api.DELETE('/api/v1/finds/{id}', { params: { path, header: onceKey() } }));
      house.say(`${g.name}: no longer guarded against. Its jobs stay till they are dropped.`, async () => {
        await ask(api.POST('/api/v1/finds/{id}/restore', { params: { path, header: onceKey() } }));
        await read(plant);
      });
      await read(plant);
    });
  }
</script>

{#if list.length}
  <section aria-label="Guard against" class="border border-rule bg-white px-3 py-2">
    <p class="text-xs font-semibold text-soft">Before it is there</p>
    {#each wished as g (g.cause)}
      <p class="flex flex-wrap items-baseline gap-x-3">
        <a class="font-semibold" href="#/treat/{g.find_id}">Guarded against {g.name.toLowerCase()}</a>
        <button class="min-h-11 text-sm text-moss underline" onclick={() => stop(g)}
          >No longer<span class="sr-only">: {g.name}</span></button
        >
      </p>
    {/each}
    {#if open.length}
      <Pick
        label="Guard it against"
        off="Choose"
        bind:value={chosen}
        options={open.map((g): [string, string] => [g.cause, g.name])}
      />
      {#if picked}
        <p class="mt-1 text-sm">{inWords(picked.day)}: {picked.do}</p>
        <Button class="mt-2" size="sm" disabled={busy} onclick={guard}>See what that takes</Button>
      {/if}
    {/if}
  </section>
{/if}
