<script lang="ts">
  import { onMount } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, type Schemas, type Season } from '../api/client';
  import { brief, degrees, inWords } from '../lib/dates';
  import { attempt, house, keys } from '../lib/house.svelte';
  import Mark from '../lib/Mark.svelte';
  import Ribbon from '../lib/Ribbon.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let look = $state<Schemas['Lookout']>();
  let season = $state<Season>();
  let at = $state(0);

  onMount(() => {
    void attempt(async () => {
      look = await ask(api.GET('/api/v1/lookout'));
      if (look.property)
        season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: look.property } } }));
    });
    keys.screen = [
      { key: 'ArrowDown', does: 'next plant of the look-list', run: () => move(1) },
      { key: 'ArrowUp', does: 'plant before', run: () => move(-1) },
      { key: 'Enter', does: 'walk to the plant', run: () => open(at) },
    ];
    return () => (keys.screen = []);
  });
  const looks = $derived(look?.looks ?? []);
  function move(by: number) {
    at = Math.max(0, Math.min(looks.length - 1, at + by));
    document.getElementById(`look-${at}`)?.focus();
  }
  function open(i: number) {
    const p = looks[i];
    if (p) void push(`/walk/${p.property_id}/${p.id}`);
  }
  // One freeze strikes many properties: the same days make one event.
  const events = $derived.by(() => {
    const out: { key: string; main: Schemas['Freeze']; all: Schemas['Freeze'][] }[] = [];
    for (const f of look?.events ?? []) {
      const same = out.find((e) => f.from <= e.main.to && f.to >= e.main.from);
      if (same) same.all.push(f);
      else out.push({ key: f.coldest + f.property_id, main: f, all: [f] });
    }
    for (const e of out) e.main = e.all.reduce((a, b) => (b.min_c < a.min_c ? b : a));
    return out.sort((a, b) => a.main.min_c - b.main.min_c);
  });
  const wood = $derived(looks.filter((p) => p.look?.expected === 'wood').length);
</script>

<svelte:head><title>Lookout · Mezzadro</title></svelte:head>

<div class="border-b border-rule bg-white max-md:overflow-x-auto">
  {#if season}<Ribbon {season} place={look?.events?.find((e) => e.property_id === look?.property)?.property ?? ''} />{/if}
</div>

<div class="px-5 py-4 max-md:px-3">
  <h1 class="sr-only">Lookout</h1>
  {#if !look || !house.frame}
    <Waiting rows={8} />
  {:else}
    {#if !house.frame.counts.grounds}
      <div class="max-w-xl border border-rule bg-white p-5">
        <h2>No property yet</h2>
        <p class="mt-1">
          The lookout watches the weather over your properties. Add the first one with its climate, then its plants.
        </p>
        <a class="mt-3 inline-flex min-h-11 items-center bg-moss px-4 font-semibold text-white" href="#/grounds">Add a property</a
        >
      </div>
    {:else}
      {#if events[0]}
        {@const e = events[0]}
        <section aria-label="Event" class="border border-cold bg-white">
          <div class="flex flex-wrap items-start gap-x-6 gap-y-2 px-4 py-3">
            <div class="min-w-56 flex-1">
              <h2 class="text-xl">Freeze on {inWords(e.main.coldest, house.today)}</h2>
              <p>{e.main.story}</p>
            </div>
            <ul class="text-sm" aria-label="By property">
              {#each [...e.all].sort((a, b) => a.min_c - b.min_c) as f (f.property_id)}
                <li class="flex justify-between gap-4">
                  <span>{f.property}</span><span class="font-semibold">{degrees(f.min_c)}</span>
                </li>
              {/each}
            </ul>
          </div>
          {#if events.length > 1}
            <details class="border-t border-rule px-4 text-sm">
              <summary class="flex min-h-11 cursor-pointer items-center text-moss"
                >{events.length - 1} milder {events.length === 2 ? 'frost event' : 'frost events'} this winter</summary
              >
              <ul class="pb-2">
                {#each events.slice(1) as o (o.key)}<li>{brief(o.main.coldest)}: {o.main.story} ({o.main.property})</li>{/each}
              </ul>
            </details>
          {/if}
        </section>
      {:else}
        <section class="border border-rule bg-white px-4 py-3">
          <h2>No freeze in the last months</h2>
          <p class="text-soft">
            Events show here as soon as the weather of a property holds one. Weather is read, or taken from a file, in Grounds.
          </p>
        </section>
      {/if}

      <div class="mt-4 grid gap-6 lg:grid-cols-[1fr_17rem]">
        <section aria-labelledby="looks">
          <h2 id="looks">
            {#if looks.length}Look at these first{:else}Nothing on the look-list{/if}
          </h2>
          <p class="text-sm text-soft">
            {looks.length + (look.more ?? 0)} plants or groups: {wood} with wood likely hurt, the others with buds at most. {look.unhurt}
            stayed well within; {look.looked} already decided.
          </p>
          <ol class="mt-2 border-t border-rule">
            {#each looks as p, i (p.id)}
              <li class="border-b border-rule">
                <a
                  id="look-{i}"
                  href="#/walk/{p.property_id}/{p.id}"
                  class="flex min-h-14 items-center gap-3 px-2 py-1.5 text-ink no-underline hover:bg-sheet hover:no-underline focus:bg-sheet"
                  onfocus={() => (at = i)}
                >
                  <Mark share={((p.look?.buds_c ?? 0) + 1.5) / 11} words="cold, {p.look?.expected} likely hurt" />
                  <span class="min-w-0 flex-1">
                    <span class="font-semibold">{p.common}</span>{#if p.count > 1}<span class="text-soft">&nbsp;× {p.count}</span
                      >{/if}
                    <span class="latin text-soft">{p.botanical}</span>
                    <span class="block text-sm md:hidden"><b>{p.property}</b>, {p.label}</span>
                    <span class="block text-sm">{p.look?.reason}</span>
                  </span>
                  <span class="w-44 shrink-0 text-right text-sm max-md:hidden"
                    ><span class="block font-semibold">{p.property}</span>{p.label}</span
                  >
                </a>
              </li>
            {/each}
          </ol>
          {#if look.more}<p class="mt-2 text-sm text-soft">{look.more} more come up as these are decided.</p>{/if}
          {#if !looks.length}<p class="mt-2">
              Every plant a freeze may have hurt has its verdict. <a href="#/rounds">Put the jobs on days</a>.
            </p>{/if}
        </section>
        <aside class="space-y-5">
          <section>
            <h2>Follow-ups due</h2>
            {#each look.due ?? [] as l (l.id)}
              <a class="block min-h-11 border-b border-rule py-1.5" href="#/rounds/{l.id}"
                >{l.title}<span class="block text-sm text-soft"
                  >{l.property}, {l.day ? `on ${inWords(l.day)}` : `best ${inWords(l.best_day)}`}</span
                ></a
              >
            {:else}<p class="text-sm text-soft">None within a fortnight.</p>{/each}
          </section>
          <section>
            <h2>Windows closing</h2>
            {#each look.closing ?? [] as l (l.id)}
              <a class="block min-h-11 border-b border-rule py-1.5" href="#/rounds/{l.id}"
                >{l.title}<span class="block text-sm text-soft">{l.property}, until {inWords(l.windows?.at(-1)?.to)}</span></a
              >
            {:else}<p class="text-sm text-soft">None within a fortnight.</p>{/each}
          </section>
          {#if season}
            <section>
              <h2>Frost to come</h2>
              <p class="text-sm">
                {#if season.last_frost}
                  Last frost about {inWords(season.last_frost.mid)}, one year in ten after {inWords(season.last_frost.late)}.
                {/if}
                Another night under 0 °C this season: {Math.round(season.frost_to_come * 100)} %; under −2.2 °C: {Math.round(
                  season.killing_to_come * 100,
                )} %
                <span class="text-soft">(estimate)</span>.
              </p>
            </section>
          {/if}
          {#if season?.source}<p class="text-sm text-soft">Weather: {season.source}, to {brief(season.observed_to)}.</p>{/if}
        </aside>
      </div>
    {/if}
  {/if}
</div>
