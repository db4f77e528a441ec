<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { allProperties, api, ask, type Lane, type OrderDetail, type Property, type Season } from '../api/client';
  import { brief, daysBetween, inWords, plusDays } from '../lib/dates';
  import { attempt, house, keys } from '../lib/house.svelte';
  import { titled, costOf, costWord } from '../lib/orders';
  import Ribbon from '../lib/Ribbon.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { property?: string } } = $props();
  const only = $derived(Number(params?.property ?? 0));
  const page = 40;

  let properties = $state<Property[]>([]);
  let lanes = $state<Lane[]>();
  let next = $state('');
  let season = $state<Season>();
  let pointed = $state<string>();
  let chosen = $state<number | string>();
  let details = $state<Record<number, OrderDetail>>({});
  let gone = false; // one has left for another place
  let care = $state(true); // after-care among them

  async function read(of: number, cursor?: string) {
    return ask(api.GET('/api/v1/year', { params: { query: { limit: page, cursor, ...(of ? { property: of } : {}) } } }));
  }
  $effect(() => {
    const of = only;
    void attempt(async () => {
      if (!properties.length) properties = await allProperties();
      const y = await read(of);
      if (gone || of !== only) return;
      lanes = y.items ?? [];
      next = y.next;
      const show = of || properties[0]?.id;
      if (show) season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: show } } }));
      chosen = lanes[0]?.id;
      pointed = lanes[0]?.best_day || season?.today;
    });
  });
  const more = () =>
    attempt(async () => {
      const y = await read(only, next);
      lanes = [...(lanes ?? []), ...(y.items ?? [])];
      next = y.next;
    });
  // Why days cost what they cost is read of the lane that is pointed at.
  let asking: ReturnType<typeof setTimeout> | undefined;
  $effect(() => {
    const id = Number(chosen);
    clearTimeout(asking);
    if (!id || details[id]) return;
    asking = setTimeout(
      () =>
        void attempt(async () => {
          details[id] = await ask(api.GET('/api/v1/orders/{id}', { params: { path: { id } } }));
        }),
      120,
    );
  });
  onMount(() => {
    keys.screen = [
      { key: 'ArrowRight', does: 'a day on', run: () => move(1) },
      { key: 'ArrowLeft', does: 'a day back', run: () => move(-1) },
      { key: 'ArrowDown', does: 'next lane', run: () => lane(1) },
      { key: 'ArrowUp', does: 'lane before', run: () => lane(-1) },
      { key: 'Enter', does: 'put the job on a day', run: () => chosen !== undefined && void push(`/rounds/${chosen}`) },
    ];
    return () => {
      gone = true;
      keys.screen = [];
    };
  });
  function move(by: number) {
    if (pointed && season) {
      const to = plusDays(pointed, by);
      if (to >= season.from && to < season.to) pointed = to;
    }
  }
  const seen = $derived((lanes ?? []).filter((l) => care || l.origin !== 'after-care'));
  function lane(by: number) {
    const i = seen.findIndex((l) => l.id === chosen);
    chosen = seen[Math.max(0, Math.min(seen.length - 1, i + by))]?.id;
  }
  const drawn = $derived(
    seen
      .filter((l) => !l.passed)
      .map((l) => ({
        id: l.id,
        label: titled(l),
        note: only ? '' : l.property,
        start: l.start,
        costs: l.costs ?? [],
        windows: l.windows ?? [],
        day: l.day || undefined,
      })),
  );
  const passed = $derived(seen.filter((l) => l.passed));
  const picked = $derived(lanes?.find((l) => l.id === chosen));
  const told_of = $derived(picked ? details[picked.id] : undefined);
  const cost = (l: Lane, day: string) => l.costs?.[daysBetween(l.start, day)];
  const why = (l: OrderDetail, day: string) =>
    (l.reasons ?? []).map((r) => ({ text: r.text, cost: r.costs?.[daysBetween(l.start, day)] ?? 0 })).filter((r) => r.cost > 0);
</script>

<svelte:head><title>Year · Mezzadro</title></svelte:head>

<div class="flex min-h-dvh flex-col max-md:min-h-0">
  <div class="flex flex-wrap items-center gap-3 px-5 py-2 max-md:px-3">
    <h1 class="flex-1">Year</h1>
    <label class="flex min-h-11 items-center gap-2 text-sm"
      ><input type="checkbox" class="size-5 accent-moss" bind:checked={care} /> After-care</label
    >
    <label class="text-sm"
      >Property
      <select
        class="ml-1 min-h-11 max-w-[min(20rem,60vw)] rounded-sm border border-gray-400 bg-white px-2"
        value={only}
        onchange={(e) => push(e.currentTarget.value === '0' ? '/year' : `/year/${e.currentTarget.value}`)}
      >
        <option value={0}>All</option>
        {#each properties as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
      </select>
    </label>
  </div>
  <div class="flex-1 border-t border-rule max-lg:overflow-x-auto">
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
          No job hangs from the year yet. Jobs come from verdicts: <a href="#/walk">walk a property</a> and accept what the checks
          say, or <a href="#/rounds">enter one by hand</a>.
        </p>
      {/if}
      {#if passed.length}
        <section class="px-5 py-2 text-sm" aria-label="Past their time">
          <h2>The time for these has passed</h2>
          <ul class="grid gap-x-6 sm:grid-cols-2">
            {#each passed as l (l.id)}<li>
                <a class="flex min-h-9 items-center" href="#/rounds/{l.id}">{titled(l)}</a>
              </li>{/each}
          </ul>
        </section>
      {/if}
      {#if next}<div class="px-5 py-2"><Button color="light" onclick={more}>Show more</Button></div>{/if}
    {/if}
  </div>
  {#if picked && pointed}
    <section
      aria-label="What this day costs"
      class="sticky bottom-0 grid gap-x-8 gap-y-1 border-t-2 border-ink bg-paper px-5 py-3 md:min-h-40 md:grid-cols-[1fr_1fr_auto] max-md:bottom-12"
    >
      <div aria-live="polite">
        <p class="text-lg font-bold">{inWords(pointed, house.today)}</p>
        <p>{titled(picked)}</p>
        <p class="text-sm text-soft">{picked.property} · {picked.minutes} min</p>
        {#each told_of?.after ?? [] as g (g.id)}<p class="text-sm text-soft">
            After “{g.title}”{g.max_days
              ? `, within ${g.max_days} days`
              : g.min_days
                ? `, ${g.min_days} days later at least`
                : ''}{g.day ? `, ${brief(g.day)}` : ''}.
          </p>{/each}
      </div>
      <div>
        <p class="font-semibold">
          {costWord(cost(picked, pointed), pointed, picked).replace(/^./, (c) => c.toUpperCase())}
          <span class="font-normal text-soft">{costOf(cost(picked, pointed))}</span>
        </p>
        <ul class="text-sm">
          {#if told_of}{#each why(told_of, pointed) as r (r.text)}<li class="flex gap-2">
                <b class="w-10 shrink-0 text-right">{r.cost > 100 ? '✕' : `+${r.cost}`}</b>{r.text}
              </li>{:else}<li>Nothing speaks against this day.</li>{/each}{/if}
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
