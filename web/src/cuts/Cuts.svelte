<script lang="ts">
  /** A property's year of cuts: proposed by kind and season, struck out or kept in one go. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, dropOrder, onceKey, type Schemas } from '../api/client';
  import { brief, daysBetween, hours, inWords, monthName, span } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { figure } from '../lib/units';
  import { cardOf, purposes, type Purpose } from './purposes';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { property?: string } } = $props();
  const id = $derived(Number(params?.property ?? 0));
  type Cut = Schemas['CutProposed'];

  let name = $state('');
  let proposed = $state.raw<Schemas['CutsProposed']>();
  let struck = $state(new Set<number>());
  let busy = $state(false);
  let key = onceKey();
  const reads = reading();
  const read = (of: number) =>
    reads(async (signal) => {
      const params = { path: { id: of } };
      const [p, c] = await Promise.all([
        ask(api.GET('/api/v1/properties/{id}', { params, signal })),
        ask(api.GET('/api/v1/properties/{id}/cuts', { params, signal })),
      ]);
      name = p.name;
      proposed = c;
    });
  $effect(() => {
    const of = id;
    struck = new Set();
    void read(of);
  });
  const open = $derived((proposed?.cuts ?? []).filter((c) => !c.asked));
  const standing = $derived((proposed?.cuts ?? []).filter((c) => c.asked));
  const chosen = $derived(open.filter((c) => !struck.has(c.plant_id)));
  const minutes = $derived(chosen.reduce((n, c) => n + c.minutes, 0));
  const waste = $derived(Math.round(10 * chosen.reduce((n, c) => n + c.waste_m3, 0)) / 10);
  const months = $derived.by(() => {
    const by = new Map<string, Cut[]>();
    for (const c of open) by.set(c.from.slice(0, 7), [...(by.get(c.from.slice(0, 7)) ?? []), c]);
    return [...by].map(([month, cuts]) => {
      const kept = cuts.filter((c) => !struck.has(c.plant_id));
      const bulk = kept.reduce((n, c) => n + c.waste_m3, 0);
      return {
        month,
        cuts,
        sum: `${hours(kept.reduce((n, c) => n + c.minutes, 0))}, ${figure(Math.round(10 * bulk) / 10, 'm³')}`,
      };
    });
  });
  function strike(c: Cut) {
    const s = new Set(struck);
    if (!s.delete(c.plant_id)) s.add(c.plant_id);
    struck = s;
  }
  /** Another purpose for one plant's cut: the house tells what that comes to. */
  async function change(c: Cut, purpose: Purpose) {
    await attempt(async () => {
      const path = { id };
      const query = { plant: c.plant_id, purpose };
      const p = await ask(api.GET('/api/v1/properties/{id}/cuts', { params: { path, query } }));
      const other = p.cuts?.find((x) => x.plant_id === c.plant_id);
      if (!other) return house.say(`No day of the year ahead is good for that.`);
      if (proposed) proposed = { ...proposed, cuts: proposed.cuts.map((x) => (x === c ? other : x)) };
    });
  }
  async function keep() {
    if (busy || !chosen.length) return;
    busy = true;
    await attempt(async () => {
      const body = { cuts: chosen.map((c) => ({ plant_id: c.plant_id, purpose: c.purpose })) };
      const made = (await ask(api.POST('/api/v1/properties/{id}/cuts', { params: { path: { id }, header: key }, body }))).items;
      key = onceKey();
      house.say(`${made.length} jobs are saved; their windows follow the season.`, async () => {
        for (const o of made) await dropOrder(o.id);
        await read(id);
      });
      await read(id);
    });
    busy = false;
  }
</script>

<svelte:head><title>Cuts{name ? ` · ${name}` : ''} · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  {#if !proposed}
    <Waiting rows={8} />
  {:else}
    <h1>A year of cuts at <a class="underline" href="#/grounds/{id}">{name}</a></h1>
    {#if !proposed.cuts?.length}
      <p class="mt-2">No plant here asks for a cut in the year ahead. <a href="#/grounds/{id}">Its plants</a></p>
    {:else}
      <p class="max-w-prose text-soft">
        Proposed by kind, season and house rules; strike out what is not wanted. Large trees only have their dead wood cleared.
        Times and waste are estimates.
      </p>
      {#each months as m (m.month)}
        <section class="mt-4" aria-label="From {monthName(`${m.month}-01`)}">
          <h2>
            From {monthName(`${m.month}-01`)}
            {m.month.slice(0, 4)} <span class="text-sm font-normal text-soft">{m.sum}</span>
          </h2>
          <ul class="border-t border-rule">
            {#each m.cuts as c (c.plant_id)}
              <li class="flex flex-wrap items-center gap-x-3 border-b border-rule py-1">
                <label
                  class="flex min-h-11 min-w-[min(100%,16rem)] flex-1 items-center gap-3 {struck.has(c.plant_id)
                    ? 'text-soft line-through'
                    : ''}"
                  ><input
                    type="checkbox"
                    class="size-5 shrink-0 accent-moss"
                    checked={!struck.has(c.plant_id)}
                    onchange={() => strike(c)}
                  /><span
                    ><b>{c.title}</b><span class="sr-only">, {c.plant}</span><span class="block text-sm font-normal text-soft"
                      >{c.plant} · {c.class}{#if c.part}&nbsp;· third {c.part} of 3{/if}{#if c.hold}<b class="text-sun"
                          >&nbsp;· {c.hold.why}</b
                        >{/if}{#if c.sick}<b class="text-disease">&nbsp;· {c.sick}: sound plants first, waste apart</b
                        >{/if}{#if c.done}
                        &nbsp;· cut {brief(c.done)}{/if}</span
                    ></span
                  ></label
                >
                <select
                  class="min-h-11 w-44 rounded-sm border border-gray-400 bg-white px-1 text-sm"
                  aria-label="What for: {c.plant}"
                  value={c.purpose}
                  onchange={(e) => change(c, e.currentTarget.value as Purpose)}
                >
                  {#each purposes as [v, text] (v)}<option value={v}>{text}</option>{/each}
                </select>
                <span class="w-32 text-sm">{daysBetween(c.from, c.to) > 300 ? 'any time' : span(c.from, c.to)}</span>
                <span class="w-20 text-sm">{hours(c.minutes)}</span>
                <span class="w-14 text-sm text-soft">{figure(c.waste_m3, 'm³')}</span>
                <span class="w-20 text-sm text-soft">{c.skills?.join(', ')}</span>
                <span class="flex gap-3 text-sm"
                  ><a class="inline-flex min-h-11 items-center underline" href="#/cut/{c.plant_id}"
                    >Bench<span class="sr-only">: {c.plant}</span></a
                  ><a class="inline-flex min-h-11 items-center underline" href={cardOf(c.plant_id, c)}
                    >Card<span class="sr-only">: {c.plant}</span></a
                  ></span
                >
              </li>
            {/each}
          </ul>
        </section>
      {/each}
      <div
        class="bar sticky bottom-0 mt-4 flex flex-wrap items-center gap-4 border-t-2 border-ink bg-paper py-3 max-md:bottom-12"
      >
        <p class="flex-1" role="status">
          <b>{chosen.length} of {open.length}</b> cuts, {hours(minutes)}, {figure(waste, 'm³')} of loose waste{standing.length
            ? `; ${standing.length} stand as jobs already`
            : ''}.
        </p>
        <Button disabled={busy || !chosen.length} onclick={keep}>Keep them as jobs</Button>
      </div>
      {#if standing.length}
        <section class="mt-4" aria-label="Jobs already">
          <h2>Jobs already</h2>
          <ul class="border-t border-rule text-sm">
            {#each standing as c (c.plant_id)}<li class="border-b border-rule py-1.5">
                {c.plant}: {span(c.from, c.to)}
              </li>{/each}
          </ul>
          <p class="mt-1 text-sm"><a class="inline-flex min-h-11 items-center underline" href="#/year/{id}">On the year</a></p>
        </section>
      {/if}
    {/if}
  {/if}
</div>
