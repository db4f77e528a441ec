<script lang="ts">
  import { Input } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, type Property, type Schemas, type Season, type Species } from '../api/client';
  import { brief, degrees, inWords, metres } from '../lib/dates';
  import { attempt, house, keys } from '../lib/house.svelte';
  import type { Form } from '../lib/portrait';
  import Portrait from '../lib/Portrait.svelte';
  import Ribbon, { type RibbonLane } from '../lib/Ribbon.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(params?.id ?? '');

  let species = $state<Species[]>();
  let properties = $state<Property[]>([]);
  let place = $state(0);
  let season = $state<Season>();
  let year = $state<Schemas['SpeciesYear']>();
  let words = $state('');
  let form = $state('');

  onMount(() => {
    void attempt(async () => {
      const all = (await ask(api.GET('/api/v1/species'))).items ?? [];
      properties = (await ask(api.GET('/api/v1/properties', { params: { query: { limit: 1000 } } }))).items ?? [];
      place = properties[0]?.id ?? 0;
      species = all;
    });
    keys.screen = [
      { key: 'ArrowDown', does: 'next species', run: () => move(1) },
      { key: 'ArrowUp', does: 'species before', run: () => move(-1) },
    ];
    return () => (keys.screen = []);
  });
  const found = $derived.by(() => {
    const parts = words.toLowerCase().split(/\s+/).filter(Boolean);
    return (species ?? []).filter(
      (s) =>
        (!form || s.form === form) &&
        parts.every((w) => `${s.common} ${s.botanical} ${s.family} ${s.habit}`.toLowerCase().includes(w)),
    );
  });
  const entry = $derived(species?.find((s) => s.id === id));
  const forms = $derived([...new Set((species ?? []).map((s) => s.form))].sort());
  function move(by: number) {
    const i = found.findIndex((s) => s.id === id);
    const s = found[Math.max(0, Math.min(found.length - 1, i + by))];
    if (s) void push(`/almanac/${s.id}`);
  }
  $effect(() => {
    if (species && !id && found[0]) void push(`/almanac/${found[0].id}`);
  });
  $effect(() => {
    const [at, of] = [place, id];
    year = undefined;
    if (!at || !of) return;
    void attempt(async () => {
      const got = await ask(api.GET('/api/v1/species/{id}/year', { params: { path: { id: of }, query: { property: at } } }));
      const s = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: at } } }));
      [year, season] = [got, s];
    });
  });
  const lanes = $derived.by((): RibbonLane[] => {
    if (!year || !season) return [];
    const out: RibbonLane[] = [];
    const lane = (name: string, note: string, from: string, to: string, best: string) =>
      out.push({ id: name, label: name, note, start: from, costs: [], windows: [{ from, to, best }] });
    if (year.leaf_out)
      lane(
        entry?.leaf_season === 'evergreen' ? 'New flush' : 'Leaf out',
        `about ${brief(year.leaf_out.mid)}`,
        year.leaf_out.early,
        year.leaf_out.late,
        year.leaf_out.mid,
      );
    if (year.bloom_start && year.bloom_end)
      lane(
        'In bloom',
        `${brief(year.bloom_start.mid)} – ${brief(year.bloom_end.mid)}`,
        year.bloom_start.mid,
        year.bloom_end.mid,
        year.bloom_start.mid,
      );
    out.push({
      id: 'patience',
      label: 'After frost: give it until',
      note: brief(year.patience_date),
      start: season.from,
      costs: [],
      windows: [],
      day: year.patience_date,
    });
    return out;
  });
  const facts = $derived(
    entry
      ? [
          ['Family', entry.family],
          ['Form', entry.form],
          ['Leaves', entry.leaf_season],
          ['Coldest its wood bears in midwinter', degrees(entry.hardiness_c, 0)],
          ['Blooms on', entry.bloom.habit],
          [
            'Cut hard',
            {
              'from the base': 'renews from the base',
              'old wood': 'breaks from old wood',
              'green wood only': 'only into leafy wood',
              never: 'never',
            }[entry.hard_pruning] ?? entry.hard_pruning,
          ],
          ['Grown up', `${metres(entry.mature.height_m)} high, ${metres(entry.mature.spread_m)} wide`],
          ['Grows', `about ${entry.growth_cm_year} cm a year`],
          ['Light', entry.light],
          ['May come late after damage by', `${entry.lateness_days} days`],
        ]
      : [],
  );
</script>

<svelte:head><title>{entry ? `${entry.common} · ` : ''}Almanac · Mezzadro</title></svelte:head>

<div class="border-b border-rule bg-white max-md:overflow-x-auto">
  {#if season && year}<Ribbon {season} {lanes} place={properties.find((p) => p.id === place)?.name} />{/if}
</div>

<div class="grid lg:grid-cols-[17rem_1fr]">
  <section aria-label="Species" class="border-r border-rule px-3 py-3 {entry ? 'max-lg:order-last' : ''}">
    <label
      ><span class="sr-only">Search the almanac</span><Input
        placeholder="Search {species?.length ?? ''} species"
        bind:value={words}
      /></label
    >
    <label class="mt-2 flex items-center gap-2 text-sm"
      >Form
      <select class="min-h-11 flex-1 rounded-sm border border-gray-400 bg-white px-2" bind:value={form}>
        <option value="">All</option>
        {#each forms as f (f)}<option value={f}>{f}</option>{/each}
      </select>
    </label>
    {#if !species}<Waiting />{/if}
    <ul class="mt-2 lg:max-h-[calc(100dvh-22rem)] lg:overflow-y-auto">
      {#each found as s (s.id)}
        <li>
          <a
            href="#/almanac/{s.id}"
            aria-current={s.id === id ? 'true' : undefined}
            class="block min-h-11 border-t border-rule px-2 py-1 leading-tight text-ink no-underline hover:bg-sheet hover:no-underline {s.id ===
            id
              ? 'bg-moss-pale font-bold'
              : ''}">{s.common}<span class="latin block font-normal text-soft">{s.botanical}</span></a
          >
        </li>
      {:else}
        <li class="border-t border-rule py-3 text-soft">{species ? 'No species has these words.' : ''}</li>
      {/each}
    </ul>
  </section>

  {#if entry}
    <article class="min-w-0 px-5 py-4 max-md:px-3">
      <div class="flex flex-wrap items-start gap-x-6 gap-y-2">
        <div class="min-w-64 flex-1">
          <h1>{entry.common}</h1>
          <p class="latin text-lg text-soft">{entry.botanical}</p>
          <p class="mt-2 max-w-prose">{entry.habit}</p>
        </div>
        {#if properties.length}
          <label class="text-sm"
            >In the dates of
            <select class="ml-1 min-h-11 rounded-sm border border-gray-400 bg-white px-2" bind:value={place}>
              {#each properties as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
            </select>
          </label>
        {/if}
      </div>
      <div class="mt-3 grid gap-6 xl:grid-cols-[22rem_1fr]">
        <div class="h-80">
          <Portrait
            form={entry.form as Form}
            heightM={entry.mature.height_m}
            spreadM={entry.mature.spread_m}
            name={entry.common}
            box={[340, 320]}
          />
        </div>
        <div>
          {#if year}
            <p class="border-l-4 pl-3 {year.spare_c < 0 ? 'border-bad font-semibold' : 'border-moss'}">
              {#if year.spare_c < 0}Too tender to stay out here: the coldest night of a usual year goes {degrees(-year.spare_c)} below
                what its wood bears.
              {:else}Hardy here (zone {year.zone}): it bears {degrees(year.spare_c)} more than the coldest night of a usual year.{/if}
              After damage, give it until {inWords(year.patience_date, house.today)} before calling it dead.
            </p>
          {:else if !properties.length}
            <p class="text-soft">
              Add a property in <a class="underline" href="#/grounds">Grounds</a> to see its dates in that climate.
            </p>
          {/if}
          <dl class="mt-3 grid grid-cols-[auto_1fr] gap-x-6 gap-y-1">
            {#each facts as [name, value] (name)}
              <dt class="text-soft">{name}</dt>
              <dd>{value}</dd>
            {/each}
          </dl>
          {#if entry.cautions?.length}
            <section class="mt-4 border-l-4 border-sun pl-3">
              <h2 class="text-sun">Caution</h2>
              {#each entry.cautions as c (c.text)}<p>{c.text}</p>{/each}
            </section>
          {/if}
        </div>
      </div>
    </article>
  {:else if species && id}
    <p class="p-5">The almanac has no entry of that name. <a class="underline" href="#/almanac">See all</a>.</p>
  {/if}
</div>
