<script lang="ts">
  import { onMount } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, type Lane, type Property, type Season } from '../api/client';
  import { brief, daysBetween, inWords, plusDays } from '../lib/dates';
  import { attempt, house, keys } from '../lib/house.svelte';
  import Ribbon from '../lib/Ribbon.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { property?: string } } = $props();
  const only = $derived(Number(params?.property ?? 0));

  let properties = $state<Property[]>([]);
  let lanes = $state<Lane[]>();
  let more = $state(0);
  let season = $state<Season>();
  let pointed = $state<string>();
  let chosen = $state<number | string>();

  $effect(() => {
    const of = only;
    void attempt(async () => {
      if (!properties.length)
        properties = (await ask(api.GET('/api/v1/properties', { params: { query: { limit: 1000 } } }))).items ?? [];
      const y = await ask(api.GET('/api/v1/year', { params: { query: of ? { property: of } : {} } }));
      lanes = y.lanes ?? [];
      more = y.more;
      const show = of || properties[0]?.id;
      if (show) season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: show } } }));
      chosen = lanes[0]?.id;
      pointed = lanes[0]?.best_day || season?.today;
    });
  });
  onMount(() => {
    keys.screen = [
      { key: 'ArrowRight', does: 'a day on', run: () => move(1) },
      { key: 'ArrowLeft', does: 'a day back', run: () => move(-1) },
      { key: 'ArrowDown', does: 'next lane', run: () => lane(1) },
      { key: 'ArrowUp', does: 'lane before', run: () => lane(-1) },
      { key: 'Enter', does: 'put the job on a day', run: () => chosen !== undefined && void push(`/rounds/${chosen}`) },
    ];
    return () => (keys.screen = []);
  });
  function move(by: number) {
    if (pointed && season) {
      const next = plusDays(pointed, by);
      if (next >= season.from && next < season.to) pointed = next;
    }
  }
  function lane(by: number) {
    const list = lanes ?? [];
    const i = list.findIndex((l) => l.id === chosen);
    chosen = list[Math.max(0, Math.min(list.length - 1, i + by))]?.id;
  }
  const drawn = $derived(
    (lanes ?? []).map((l) => ({
      id: l.id,
      label: `${l.title}${l.label ? `, ${l.label}` : ''}`,
      note: only ? '' : l.property,
      start: l.start,
      costs: l.costs ?? [],
      windows: l.windows ?? [],
      day: l.day,
    })),
  );
  const picked = $derived(lanes?.find((l) => l.id === chosen));
  const cost = (l: Lane, day: string) => l.costs?.[daysBetween(l.start, day)];
  const why = (l: Lane, day: string) =>
    (l.reasons ?? []).map((r) => ({ text: r.text, cost: r.costs?.[daysBetween(l.start, day)] ?? 0 })).filter((r) => r.cost > 0);
  const told = (c: number | undefined) =>
    c === undefined ? 'outside its time' : c > 100 ? 'forbidden' : c === 0 ? '0, as good as it gets' : `${c} of 100`;
</script>

<svelte:head><title>Year · Mezzadro</title></svelte:head>

<div class="flex min-h-dvh flex-col max-md:min-h-0">
  <div class="flex flex-wrap items-center gap-3 px-5 py-2 max-md:px-3">
    <h1 class="flex-1">Year</h1>
    <label class="text-sm"
      >Property
      <select
        class="ml-1 min-h-11 rounded-sm border border-gray-400 bg-white px-2"
        value={only}
        onchange={(e) => push(e.currentTarget.value === '0' ? '/year' : `/year/${e.currentTarget.value}`)}
      >
        <option value={0}>All</option>
        {#each properties as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
      </select>
    </label>
  </div>
  <div class="flex-1 overflow-x-auto border-t border-rule bg-white">
    {#if !lanes}
      <Waiting />
    {:else}
      {#if season}<Ribbon
          {season}
          place={properties.find((p) => p.id === (only || properties[0]?.id))?.name}
          lanes={drawn}
          bind:pointed
          bind:chosen
          onpick={(_, id) => push(`/rounds/${id}`)}
        />{/if}
      {#if !lanes.length}
        <p class="p-5">
          No job hangs from the year yet. Jobs come from verdicts: <a href="#/walk">walk a property</a> and accept what the checks say.
        </p>
      {/if}
      {#if more}<p class="px-5 py-2 text-sm text-soft">{more} more; choose one property to see its lanes.</p>{/if}
    {/if}
  </div>
  {#if picked && pointed}
    <section
      aria-label="What this day costs"
      class="sticky bottom-0 grid gap-x-8 gap-y-1 border-t-2 border-ink bg-paper px-5 py-3 md:min-h-40 md:grid-cols-[1fr_1fr_auto] max-md:bottom-16"
    >
      <div aria-live="polite">
        <p class="text-lg font-bold">{inWords(pointed, house.today)}</p>
        <p>{picked.title}{picked.label ? `, ${picked.label}` : ''}</p>
        <p class="text-sm text-soft">{picked.property} · {picked.minutes} min</p>
        {#each picked.after ?? [] as g (g.kind)}<p class="text-sm text-soft">
            After the job “{g.kind}”{g.max_days ? `, within ${g.max_days} days` : `, ${g.min_days} days later at least`}.
          </p>{/each}
      </div>
      <div>
        <p class="font-semibold">Costs {told(cost(picked, pointed))}</p>
        <ul class="text-sm">
          {#each why(picked, pointed) as r (r.text)}<li class="flex gap-2">
              <b class="w-10 shrink-0 text-right">{r.cost > 100 ? '✕' : `+${r.cost}`}</b>{r.text}
            </li>{:else}<li>Nothing speaks against this day.</li>{/each}
        </ul>
      </div>
      <div class="text-sm">
        <p>Best {inWords(picked.best_day, house.today)}</p>
        {#each picked.windows ?? [] as w (w.from)}<p class="text-soft">Window {brief(w.from)} – {brief(w.to)}</p>{/each}
        {#if picked.day}<p class="font-semibold">On {inWords(picked.day, house.today)}</p>{/if}
        <a class="inline-flex min-h-11 items-center font-semibold" href="#/rounds/{picked.id}"
          >{picked.day ? 'Move it' : 'Put it on a day'}</a
        >
      </div>
    </section>
  {/if}
</div>
