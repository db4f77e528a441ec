<script lang="ts">
  /** What the jobs of a week, or of some, take along; with those that wait for a day it is what is to be bought. */
  import { api, ask, type Schemas } from '../api/client';
  import { brief, dayOfWeek, plusDays, span } from '../lib/dates';
  import { house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Pick from '../lib/Pick.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import LoadList from './LoadList.svelte';

  interface Props {
    from: string;
    weeks: number;
    waiting?: boolean;
    whole?: boolean; // from the first day of its week
  }
  let { from, weeks, waiting = false, whole = false }: Props = $props();
  let crew = $state(0);
  let crews = $state.raw<Schemas['Crew'][]>([]);
  let load = $state.raw<Schemas['Load']>();
  const [reads, readCrews] = [reading(), reading()];
  const start = $derived(whole ? plusDays(from, -((dayOfWeek(from) - (house.frame?.firm.week_start ?? 1) + 7) % 7)) : from);
  const to = $derived(plusDays(start, 7 * weeks - 1));
  $effect(() => {
    void readCrews(async (signal) => void (crews = (await ask(api.GET('/api/v1/crews', { signal }))).items));
  });
  $effect(() => {
    const query = { from: start, to, waiting, ...(crew ? { crew } : {}) };
    void reads(async (signal) => void (load = await ask(api.GET('/api/v1/rounds/load', { params: { query }, signal }))));
  });
</script>

<div class="flex flex-wrap items-end gap-3">
  <p class="min-w-40 flex-1 text-sm text-soft">
    {#if load}{load.jobs === 1 ? 'One job' : `${load.jobs} jobs`}{/if}
    {span(start, to)}. Amounts are estimates from the sizes of the plants; what waits for a look takes nothing yet.
  </p>
  {#if crews.length && !waiting}<Pick
      label="For"
      bind:value={crew}
      options={[[0, 'all crews'], ...crews.map((c): [number, string] => [c.id, c.name])]}
    />{/if}
</div>
{#if !load}<Waiting rows={3} />
{:else if load.items.length}<LoadList items={load.items} />
{:else}<p>Nothing is taken along for what stands in these days.</p>{/if}
