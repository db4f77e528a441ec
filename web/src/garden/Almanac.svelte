<script lang="ts">
  import { Button, Input } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { push, replace } from 'svelte-spa-router';
  import {
    allProperties,
    api,
    ask,
    sendFile,
    type Entry,
    type Property,
    type Schemas,
    type Season,
    type Species,
  } from '../api/client';
  import { brief, degrees, inWords, metres, span } from '../lib/dates';
  import FilePick from '../lib/FilePick.svelte';
  import { attempt, house, keys } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import type { Form } from '../lib/portrait';
  import Portrait from '../lib/Portrait.svelte';
  import Ribbon, { type RibbonLane } from '../lib/Ribbon.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import NewKind from './NewKind.svelte';
  import SpeciesForm from './SpeciesForm.svelte';

  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(params?.id ?? '');

  let species = $state<Species[]>();
  let detail = $state<Schemas['SpeciesDetail']>();
  let properties = $state<Property[]>([]);
  let place = $state(0);
  let season = $state<Season>();
  let year = $state<Schemas['SpeciesYear'] & { of: string }>();
  let words = $state('');
  let want = $state({ form: '', leaves: '', light: '', soil: '', only: '' });
  let naming = $state(false);
  let editing = $state<'no' | 'correct' | 'new'>('no');
  let shown = ''; // the species on the page; what is drawn stays until the next one's figures are here
  const reads = reading();

  const list = async () => void (species = (await ask(api.GET('/api/v1/species'))).items);
  onMount(() => {
    void attempt(async () => {
      properties = await allProperties();
      place = properties[0]?.id ?? 0;
      await list();
    });
    keys.screen = [
      { key: 'ArrowDown', does: 'next species', run: () => move(1) },
      { key: 'ArrowUp', does: 'species before', run: () => move(-1) },
      { key: 'C', does: 'correct this entry', run: () => entry && (editing = 'correct') },
    ];
    return () => (keys.screen = []);
  });
  const here = $derived(properties.find((p) => p.id === place));
  const only: Record<string, [string, (s: Species) => boolean]> = {
    hardy: ['hardy here', (s) => s.hardiness_c <= (here?.climate_here.extreme_min_c ?? -99)],
    tender: ['too tender to stay out here', (s) => s.hardiness_c > (here?.climate_here.extreme_min_c ?? 99)],
    pets: ['harmless to pets', (s) => s.pet_danger === 'none'],
    edible: ['edible', (s) => !!s.edible],
    old: ['blooms on old wood', (s) => s.bloom.old_wood >= 0.6],
    new: ['blooms on new wood', (s) => s.bloom.new_wood >= 0.6],
    bleeds: ['bleeds when cut', (s) => s.sap_bleeding !== 'none'],
    drying: ['soon dried by winter wind', (s) => s.drying_kpa_h < 20],
    grafted: ['grafted', (s) => s.graft.habit !== 'own roots'],
    firm: ['corrected or added by us', (s) => s.source !== 'built'],
  };
  const found = $derived.by(() => {
    const parts = words.toLowerCase().split(/\s+/).filter(Boolean);
    return (species ?? []).filter(
      (s) =>
        (!want.form || s.form === want.form) &&
        (!want.leaves || s.leaf_season === want.leaves) &&
        (!want.light || s.light === want.light) &&
        (!want.soil || s.soil_water === want.soil) &&
        (!want.only || only[want.only]![1](s)) &&
        parts.every((w) =>
          `${s.common} ${s.botanical} ${s.family} ${s.habit} ${(s.also ?? []).join(' ')}`.toLowerCase().includes(w),
        ),
    );
  });
  const entry = $derived(species?.find((s) => s.id === id));
  const values = (of: (s: Species) => string) => [...new Set((species ?? []).map(of))].sort();
  function move(by: number) {
    const i = found.findIndex((s) => s.id === id);
    const s = found[Math.max(0, Math.min(found.length - 1, i + by))];
    if (s) void push(`/almanac/${s.id}`);
  }
  $effect(() => {
    if (species && !id && found[0]) void replace(`/almanac/${found[0].id}`);
  });
  $effect(() => {
    const [at, of, known] = [place, id, species];
    if (shown !== of) {
      editing = 'no';
      detail = undefined;
      shown = of;
    }
    if (!of || !known?.some((s) => s.id === of)) return;
    void reads(async (signal) => {
      detail = await ask(api.GET('/api/v1/species/{id}', { params: { path: { id: of } }, signal }));
      if (!at) return;
      const params = { path: { id: of }, query: { property: at } };
      const got = await ask(api.GET('/api/v1/species/{id}/year', { params, signal }));
      season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: at } }, signal }));
      year = { ...got, of };
    });
  });
  const dated = $derived(year?.of === id ? year : undefined); // nothing is said of a species in another's dates
  const lanes = $derived.by((): RibbonLane[] => {
    if (!year || !season || !entry) return [];
    const out: RibbonLane[] = [];
    const lane = (name: string, note: string, from: string, to: string, best: string) =>
      out.push({ id: name, label: name, note, start: from, costs: [], windows: [{ from, to, best }] });
    const range = (b: Schemas['BandDays']) => (b.early === b.late ? `about ${brief(b.mid)}` : span(b.early, b.late));
    if (year.leaf_out)
      lane(
        entry.leaf_season === 'evergreen'
          ? 'New flush'
          : entry.leaf_season === 'dies back in winter'
            ? 'Shoots come'
            : 'Leaf-out',
        range(year.leaf_out),
        year.leaf_out.early,
        year.leaf_out.late,
        year.leaf_out.mid,
      );
    if (year.bloom_start && year.bloom_end)
      lane(
        'In bloom',
        span(year.bloom_start.mid, year.bloom_end.mid),
        year.bloom_start.mid,
        year.bloom_end.mid,
        year.bloom_start.mid,
      );
    if (year.buds_set)
      lane('Next year’s flower buds form', range(year.buds_set), year.buds_set.early, year.buds_set.late, year.buds_set.mid);
    if (year.leaf_drop)
      lane(
        entry.leaf_season === 'dies back in winter' ? 'Dies back' : 'Leaves fall',
        range(year.leaf_drop),
        year.leaf_drop.early,
        year.leaf_drop.late,
        year.leaf_drop.mid,
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
  const share = (v: number) => `${Math.round(100 * v)} %`;
  const facts = $derived.by((): [string, [string, string][]][] => {
    const e = entry;
    if (!e) return [];
    // What a figure rests on: measured, usual, or a guess.
    const rests = (field: string) => (e.basis?.[field] ? ` · ${e.basis[field]}` : '');
    return [
      [
        'Plant',
        [
          ['Family', e.family],
          ['Form and leaves', `${e.form}, ${e.leaf_season}`],
          ['Grown up', `${metres(e.mature.height_m)} high, ${metres(e.mature.spread_m)} wide`],
          ['Grows', `about ${metres(e.growth_cm_year / 100)} a year${rests('growth_cm_year')}`],
          ['Wood', e.weak_wood ? 'weak: breaks under wind or snow' : 'sound'],
          ...((e.short_lived ? [['Life', 'short']] : []) as [string, string][]),
          ...((e.invasive ? [['Spreads', 'into the wild or the neighbours’ ground in some regions']] : []) as [string, string][]),
          ...((e.edible ? [['Eaten', e.edible]] : []) as [string, string][]),
        ],
      ],
      [
        'Winter',
        [
          ['Wood bears in midwinter', degrees(e.hardiness_c, 0) + rests('hardiness_c')],
          ['Roots bear in the soil', degrees(e.root_hardiness_c, 0) + rests('root_hardiness_c')],
          ['Drying wind it bears', `${e.drying_kpa_h} kPa·h${rests('drying_kpa_h')}`],
          ['May come late after damage by', `${e.lateness_days} days${rests('lateness_days')}`],
          ...((dated
            ? [
                ['Its wood bears today', degrees(dated.wood_now_c, 0)],
                ['Its buds bear today', degrees(dated.buds_now_c, 0)],
              ]
            : []) as [string, string][]),
        ],
      ],
      [
        'Cutting',
        [
          ['Blooms on', `${e.bloom.habit}: ${share(e.bloom.old_wood)} old, ${share(e.bloom.new_wood)} new`],
          [
            'Cut hard',
            {
              'from the base': 'renews from the base',
              'old wood': 'breaks from old wood',
              'green wood only': 'only into leafy wood',
              never: 'never',
            }[e.hard_pruning] ?? e.hard_pruning,
          ],
          ['Regrows', `${metres(e.regrowth_cm / 100)} in the first season${rests('regrowth_cm')}`],
          ['Sap', e.sap_bleeding === 'none' ? 'does not bleed' : `bleeds, ${e.sap_bleeding}`],
          ['Graft', e.graft.habit + (e.graft.rootstock_leaf ? `; rootstock: ${e.graft.rootstock_leaf}` : '')],
        ],
      ],
      [
        'Place',
        [
          ['Light', e.light],
          ['Soil', e.soil_water],
          ['Thirst', `${e.thirst}; roots reach ${e.root_reach} crown spreads`],
          ['Poisonous', e.poisonous],
          ['Danger to pets', e.pet_danger],
          ['Prone to', (detail?.troubles ?? []).map((t) => t.name).join(', ') || 'nothing much'],
        ],
      ],
    ];
  });
  async function kept(of: string) {
    // What stood there before comes back with undo: the built entry, an earlier correction, or nothing.
    const before = editing === 'correct' && entry && entry.source !== 'built' ? $state.snapshot(entry) : undefined;
    editing = 'no';
    await list();
    await push(`/almanac/${of}`);
    house.say('Saved. The dates and the look-list follow.', async () => {
      await attempt(async () => {
        if (before) {
          const { source: _s, version: _v, ...body } = before;
          const now = species?.find((s) => s.id === of)?.version ?? 0;
          await ask(api.PUT('/api/v1/species/{id}', { params: { path: { id: of }, query: { version: now } }, body }));
        } else await ask(api.DELETE('/api/v1/species/{id}', { params: { path: { id: of } } }));
        await list();
        if (!species?.some((s) => s.id === of)) await push('/almanac');
      });
    });
  }
  const back = () =>
    attempt(async () => {
      const was: Entry = await ask(api.DELETE('/api/v1/species/{id}', { params: { path: { id } } }));
      const own = detail?.source === 'own';
      await list();
      if (own) await push('/almanac');
      house.say(own ? `${was.common} taken out.` : `${was.common} is as built again.`, async () => {
        await attempt(async () => {
          await ask(api.PUT('/api/v1/species/{id}', { params: { path: { id: was.id }, query: { version: 0 } }, body: was }));
          await list();
          await push(`/almanac/${was.id}`);
        });
      });
    });
  async function takePack(file: File) {
    await attempt(async () => {
      const got = await sendFile<Schemas['PackTaken']>('/api/v1/species', file, 'application/yaml');
      await list();
      const n = (l: string[] | null | undefined) => l?.length ?? 0;
      house.say(`${file.name}: ${n(got.added)} new, ${n(got.changed)} corrected, ${n(got.same)} as they were.`);
      const first = got.added?.[0] ?? got.changed?.[0];
      if (first) await push(`/almanac/${first}`);
    });
  }
  const pick = 'min-h-11 w-full rounded-sm border border-gray-400 bg-white px-1.5 text-sm';
</script>

<svelte:head><title>{entry ? `${entry.common} · ` : ''}Almanac · Mezzadro</title></svelte:head>

<div class="border-b border-rule bg-white max-lg:overflow-x-auto">
  {#if season && year}<Ribbon {season} {lanes} slim place={here?.name} />{/if}
</div>

<div class="grid lg:grid-cols-[17rem_minmax(0,1fr)]">
  <section aria-label="Species" class="border-r border-rule px-3 py-3 {entry ? 'max-lg:order-last' : ''}">
    <a class="flex min-h-11 items-center border border-rule bg-white px-3" href="#/ails">What ails it, by what is seen</a>
    <a class="mt-1 mb-2 flex min-h-11 items-center border border-rule bg-white px-3" href="#/almanac/cause"
      >Causes and their look-alikes</a
    >
    <label
      ><span class="sr-only">Search the almanac</span><Input
        placeholder="Search {species?.length ?? ''} species"
        bind:value={words}
      /></label
    >
    <div class="mt-2 grid grid-cols-2 gap-1.5">
      {#each [['form', 'Form', values((s) => s.form)], ['leaves', 'Leaves', values((s) => s.leaf_season)], ['light', 'Light', values((s) => s.light)], ['soil', 'Soil', values((s) => s.soil_water)]] as ['form' | 'leaves' | 'light' | 'soil', string, string[]][] as [key, name, list] (key)}
        <select class={pick} aria-label={name} bind:value={want[key]}>
          <option value="">{name}: any</option>
          {#each list as v}<option value={v}>{v}</option>{/each}
        </select>
      {/each}
      <select class="{pick} col-span-2" aria-label="Only" bind:value={want.only}>
        <option value="">All of them</option>
        {#each Object.entries(only) as [key, [name]] (key)}<option value={key}>Only {name}</option>{/each}
      </select>
    </div>
    {#if !species}<Waiting />{:else}<p class="mt-1 text-sm text-soft" role="status">
        {found.length === species.length ? '' : `${found.length} of ${species.length}`}
      </p>{/if}
    <ul class="lg:max-h-[calc(100dvh-25rem)] lg:min-h-64 lg:overflow-y-auto">
      {#each found as s (s.id)}
        <li>
          <a
            href="#/almanac/{s.id}"
            aria-current={s.id === id ? 'true' : undefined}
            class="block min-h-11 border-t border-rule px-2 py-1 leading-tight text-ink no-underline hover:bg-sheet hover:no-underline {s.id ===
            id
              ? 'bg-moss-pale font-bold'
              : ''}"
            >{s.common}{#if s.source !== 'built'}<span class="text-sm font-normal text-moss">
                &nbsp;{s.source === 'own' ? 'ours' : 'corrected'}</span
              >{/if}<span class="latin block font-normal text-soft">{s.botanical}</span></a
          >
        </li>
      {:else}
        <li class="border-t border-rule py-3 text-soft">
          {#if species}No species is like that. <button
              class="min-h-11 text-moss underline"
              onclick={() => {
                words = '';
                want = { form: '', leaves: '', light: '', soil: '', only: '' };
              }}>Show all</button
            >{/if}
        </li>
      {/each}
    </ul>
    <div class="mt-2 flex flex-wrap gap-x-4 text-sm">
      <button class="min-h-11 text-moss underline" onclick={() => (naming = true)}>Add a kind in five fields</button>
      <button class="min-h-11 text-moss underline" onclick={() => (editing = 'new')}>Add a species</button>
      <FilePick name="Take a pack" accept=".yaml,.yml" onfile={takePack} />
      <a class="flex min-h-11 items-center underline" href="/api/v1/species.yaml?of=firm" download>Our entries as a pack</a>
    </div>
  </section>

  {#if entry && editing !== 'no'}
    <div class="min-w-0 px-5 py-4 max-md:px-3">
      {#key id + editing}
        <SpeciesForm
          from={entry}
          fresh={editing === 'new'}
          troubles={[...new Set((species ?? []).flatMap((s) => s.pests ?? []))].sort()}
          onkept={kept}
          onclose={() => (editing = 'no')}
        />
      {/key}
    </div>
  {:else if entry}
    <article class="min-w-0 px-5 py-4 max-md:px-3">
      <div class="flex flex-wrap items-start gap-x-6 gap-y-2">
        <div class="min-w-[min(100%,16rem)] flex-1 break-words">
          <h1>{entry.common}</h1>
          <p class="latin text-lg text-soft">{entry.botanical}</p>
        </div>
        <div class="flex flex-wrap items-center gap-2">
          {#if properties.length}
            <label class="text-sm"
              >In the dates of
              <select
                class="ml-1 min-h-11 max-w-[min(20rem,60vw)] rounded-sm border border-gray-400 bg-white px-2"
                bind:value={place}
              >
                {#each properties as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
              </select>
            </label>
          {/if}
          <Button color="light" onclick={() => (editing = 'correct')}>Correct</Button>
        </div>
      </div>
      <p class="mt-1 max-w-prose">{entry.habit}</p>
      {#if dated}
        <p class="mt-2 border-l-4 pl-3 {dated.spare_c < 0 ? 'border-bad font-semibold' : 'border-moss'}" data-testid="hardy">
          {#if dated.spare_c < 0}Too tender to stay out here: the coldest night of a usual year goes {degrees(-dated.spare_c)} below
            what its wood bears.
          {:else}Hardy here (zone {dated.zone}): it bears {degrees(dated.spare_c)} more than the coldest night of a usual year.{/if}
          After damage, give it until {inWords(dated.patience_date)} before calling it dead.
          {#if dated.here}<span class="font-normal">{dated.here} on this property.</span>{/if}
        </p>
      {:else if !properties.length}
        <p class="mt-2 text-soft">
          Add a property in <a class="underline" href="#/grounds">Grounds</a> to see its dates in that climate.
        </p>
      {/if}
      {#if entry.cautions?.length}
        <section class="mt-3 border-l-4 border-sun pl-3">
          <h2 class="sr-only">Caution</h2>
          <p><b class="text-sun">Caution:</b> {entry.cautions.map((c) => c.text).join(' ')}</p>
        </section>
      {/if}
      <div class="mt-3 grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-4 xl:grid-cols-[13rem_minmax(0,1fr)]">
        <figure class="h-60">
          <Portrait
            form={entry.form as Form}
            heightM={entry.mature.height_m}
            spreadM={entry.mature.spread_m}
            name={entry.common}
            box={[230, 250]}
          />
        </figure>
        <div class="grid content-start gap-x-6 gap-y-3 grid-cols-[repeat(auto-fit,minmax(min(100%,15rem),1fr))]">
          {#each facts as [group, rows] (group)}
            <section>
              <h2>{group}</h2>
              <dl class="mt-0.5 text-sm">
                {#each rows as [name, value] (name)}
                  <div class="flex gap-3 border-t border-rule py-0.5">
                    <dt class="w-32 shrink-0 text-soft">{name}</dt>
                    <dd class="min-w-0">{value}</dd>
                  </div>
                {/each}
              </dl>
            </section>
          {/each}
        </div>
      </div>
      {#if detail && detail.source !== 'built'}
        <section class="mt-4 border border-rule bg-white p-3" aria-label="What we changed">
          {#if detail.source === 'own'}
            <h2>Our own entry</h2>
            {#if detail.like}<p class="text-sm" data-testid="like">
                In five fields: all but its name, form, leaves and hardiness is taken from <a href="#/almanac/{detail.like}"
                  >{species?.find((s) => s.id === detail?.like)?.common ?? detail.like}</a
                >. <button class="min-h-11 text-moss underline" onclick={() => (editing = 'correct')}>Check it over</button>
              </p>{/if}
          {:else}
            <h2>Corrected by us</h2>
            <table class="mt-1 text-left text-[0.9375rem]">
              <thead class="text-sm text-soft"
                ><tr
                  ><th class="pr-6 font-semibold">Field</th><th class="pr-6 font-semibold">As built</th><th class="font-semibold"
                    >Ours</th
                  ></tr
                ></thead
              >
              <tbody>
                {#each detail.differences as d (d.field)}
                  <tr class="border-t border-rule"
                    ><th class="pr-6 font-normal">{d.field.replaceAll('_', ' ')}</th><td class="pr-6 text-soft">{d.built}</td><td
                      class="font-semibold">{d.yours}</td
                    ></tr
                  >
                {:else}<tr><td colspan="3">It says the same as the built entry.</td></tr>{/each}
              </tbody>
            </table>
          {/if}
          <Button class="mt-2" color="light" onclick={back}
            >{detail.source === 'own' ? 'Take it out of the book' : 'Back to the built entry'}</Button
          >
        </section>
      {/if}
    </article>
  {:else if species && id}
    <p class="p-5">The almanac has no entry of that name. <a class="underline" href="#/almanac">See all</a>.</p>
  {/if}
</div>

<NewKind bind:open={naming} species={species ?? []} onkept={(kind) => kept(kind.id)} />
