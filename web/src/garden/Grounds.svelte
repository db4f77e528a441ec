<script lang="ts">
  import CallList from '../finds/CallList.svelte';
  import FindList from '../finds/FindList.svelte';
  import { Button, Input } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { push, replace } from 'svelte-spa-router';
  import {
    allProperties,
    api,
    ask,
    onceKey,
    plantsOn,
    Problem,
    sendFile,
    type Plant,
    type Property,
    type Schemas,
    type Season,
    type Species,
  } from '../api/client';
  import { degrees, inWords, metres, plantsOf } from '../lib/dates';
  import Reached from '../ledger/Reached.svelte';
  import { attempt, house, keys } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import ClientLinks from '../firm/ClientLinks.svelte';
  import BloomYear from '../ground/BloomYear.svelte';
  import Holding from './Holding.svelte';
  import AccessSlip from '../rounds/AccessSlip.svelte';
  import Regulars from '../rounds/Regulars.svelte';
  import More from '../lib/More.svelte';
  import FilePick from '../lib/FilePick.svelte';
  import { siteWords } from './site';
  import { shown as inUnit, unit, warmth } from '../lib/units';
  import Ribbon from '../lib/Ribbon.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import NoKinds from './NoKinds.svelte';
  import PlantForm from './PlantForm.svelte';
  import PropertyForm from './PropertyForm.svelte';
  import WeatherColumns from './WeatherColumns.svelte';

  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id ?? 0));

  let properties = $state<Property[]>();
  let species = $state<Species[]>([]);
  let plants = $state<Plant[]>([]);
  let bloomShown = $state(false);
  let regularShown = $state(false);
  let linksShown = $state(false);
  let season = $state<Season>();
  let words = $state('');
  let form = $state<'none' | 'property' | 'change property' | 'plant' | Plant>('none');
  let busy = $state('');
  let measuredHere = $state(true); // weather files come from the garden's own thermometer
  let showing = $state(200);
  const reads = reading();

  const property = $derived(properties?.find((p) => p.id === id));

  async function list() {
    properties = await allProperties();
  }
  onMount(() => {
    void attempt(async () => {
      await list();
      species = (await ask(api.GET('/api/v1/species'))).items;
    });
    keys.screen = [
      { key: 'A', does: 'add a plant', run: () => property && (form = 'plant') },
      { key: 'W', does: 'walk this property', run: () => property && void push(`/walk/${id}`) },
    ];
    return () => (keys.screen = []);
  });
  $effect(() => {
    if (!id && properties?.[0]) void replace(`/grounds/${properties[0].id}`);
  });
  let shown = 0;
  $effect(() => {
    if (!id || id === shown) return;
    shown = id;
    form = 'none';
    again = nameless = undefined; // what a file asked belongs to the property it was for
    faults = [];
    words = '';
    void read(id);
  });
  const read = (of: number) =>
    reads(async (signal) => {
      season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: of } }, signal }));
      plants = await plantsOn(of, signal);
    });
  const found = $derived.by(() => {
    const parts = words.toLowerCase().split(/\s+/).filter(Boolean);
    return plants.filter((p) => parts.every((w) => `${p.common} ${p.botanical} ${p.label} ${p.note}`.toLowerCase().includes(w)));
  });

  async function kept(p: Plant) {
    plants = plants.some((x) => x.id === p.id) ? plants.map((x) => (x.id === p.id ? p : x)) : [...plants, p];
    if (form !== 'plant') form = 'none'; // after a new one another like it may follow
    await list();
    house.say(`${p.common} saved.`);
  }
  const remove = (p: Plant) =>
    attempt(async () => {
      await ask(api.DELETE('/api/v1/plants/{id}', { params: { path: { id: p.id } } }));
      plants = plants.filter((x) => x.id !== p.id);
      form = 'none';
      await list();
      house.say(`${p.common}${p.label ? `, ${p.label},` : ''} removed.`, async () => {
        await attempt(async () => {
          await ask(api.POST('/api/v1/plants/{id}/restore', { params: { path: { id: p.id } } }));
          await read(id);
          await list();
        });
      });
    });
  const removeProperty = (p: Property) =>
    attempt(async () => {
      await ask(api.DELETE('/api/v1/properties/{id}', { params: { path: { id: p.id } } }));
      await list();
      shown = 0;
      season = undefined;
      plants = [];
      await push('/grounds');
      house.say(`${p.name} removed with its plants.`, async () => {
        await attempt(async () => {
          await ask(api.POST('/api/v1/properties/{id}/restore', { params: { path: { id: p.id } } }));
          await list();
          await push(`/grounds/${p.id}`);
        });
      });
    });
  /** "3 freezes, 1 gale" */
  function eventsOf(list: Schemas['Event'][] | null | undefined): string {
    const n = new Map<string, number>();
    for (const e of list ?? []) n.set(e.kind, (n.get(e.kind) ?? 0) + 1);
    return [...n].map(([kind, k]) => `${k} ${kind}${k > 1 && kind !== 'heat' ? 's' : ''}`).join(', ') || 'no event';
  }
  type Called = Record<string, string>; // which kind a name of a file is; none: its lines are left out
  let again = $state<{ file: File; same: number; lines: number; called: Called }>(); // plants of a file that stand here already
  let nameless = $state.raw<{ file: File; lines: number; names: Schemas['NoKind'][] }>(); // names of a file that are no kind's
  let faults = $state<[string, string][]>([]); // of the last file, by line
  async function takePlants(file: File, standing: 'ask' | 'add' | 'replace' | 'leave' = 'ask', called: Called = {}) {
    busy = `Reading ${file.name} …`;
    again = nameless = undefined;
    const query = new URLSearchParams([
      ['standing', standing],
      ...Object.entries(called).map(([name, kind]) => ['called', `${name}=${kind}`]),
    ]);
    const problem = await attempt(async () => {
      const got = await sendFile<Schemas['PlantsTaken']>(`/api/v1/properties/${id}/plants?${query}`, file, 'text/csv', onceKey());
      if (got.unknown.length) {
        nameless = { file, lines: got.lines, names: got.unknown };
        return;
      }
      if (got.ask) {
        again = { file, same: got.same, lines: got.lines, called };
        return;
      }
      await read(id);
      await list();
      if (Object.keys(called).length) species = (await ask(api.GET('/api/v1/species'))).items; // the told names are in it
      const added = got.added;
      const said = [
        added.length ? `${plantsOf(added.length)} added` : '',
        got.replaced?.length ? `${got.replaced.length} replaced` : '',
        got.same && standing === 'leave' ? `${got.same} left as they are` : '',
        got.left_out ? `${got.left_out} ${got.left_out === 1 ? 'line' : 'lines'} left out` : '',
        got.passed?.length ? `columns passed over: ${got.passed.join(', ')}` : '',
      ].filter(Boolean);
      const undo = async () => {
        await attempt(async () => {
          for (const p of added) await ask(api.DELETE('/api/v1/plants/{id}', { params: { path: { id: p } } }));
          await read(id);
          await list();
        });
      };
      house.say(
        `${file.name}, ${got.lines === 1 ? 'one line' : `${got.lines} lines`}: ${said.join('; ') || 'nothing to do'}.`,
        got.replaced?.length ? undefined : undo,
      );
    });
    faults = problem ? Object.entries(problem.fields).sort((x, y) => lineOf(x[0]) - lineOf(y[0])) : [];
    if (faults.length) house.clear();
    busy = '';
  }
  const lineOf = (path: string) => Number(/\d+/.exec(path)?.[0] ?? 0);
  async function readStation() {
    busy = 'Reading the weather …';
    await attempt(async () => {
      const k = await ask(api.POST('/api/v1/properties/{id}/weather/read', { params: { path: { id } } }));
      house.say(`${k.hours} hours from the ${k.source}; ${eventsOf(k.events)} found.`);
      await read(id);
      await list();
    });
    busy = '';
  }
  let readAs = $state.raw<{ of: number; file: File; how: string[] }>();
  let unmatched = $state.raw<{ of: number; file: File; asked: Schemas['WeatherColumns']; why: string }>();
  async function takeWeather(file: File, told?: Schemas['WeatherColumns']) {
    busy = `Reading ${file.name} …`;
    const by = told ? `&columns=${encodeURIComponent(told.columns.join(','))}&zone=${told.zone}` : '';
    const path = `/api/v1/properties/${id}/weather?here=${measuredHere}&name=${encodeURIComponent(file.name)}${by}`;
    const of = id;
    try {
      const got = await sendFile<Schemas['WeatherKept']>(path, file, 'text/csv');
      unmatched = undefined;
      house.say(`${got.hours} hours taken from ${file.name}; ${eventsOf(got.events)} found.`);
      readAs = got.read.length ? { of, file, how: got.read } : undefined;
      await read(of);
      await list();
    } catch (e) {
      // What cannot be read by the names of its columns is told by hand.
      if (!(e instanceof Problem) || e.status !== 422 || !Object.keys(e.fields).some((f) => f.startsWith('columns')))
        house.fail(e);
      else if (told) unmatched = { of, file, asked: told, why: e.message };
      else await askColumns(file, e);
    }
    busy = '';
  }
  async function askColumns(file: File, refused?: Problem) {
    const of = id;
    try {
      const asked = await sendFile<Schemas['WeatherColumns']>('/api/v1/reckon/weather-columns', file, 'text/csv');
      unmatched = { of, file, asked, why: '' };
    } catch (e) {
      house.fail(refused && e instanceof Problem && e.status === 422 ? refused : e);
    }
  }
  const used = $derived([...new Set(plants.map((p) => p.species))]);
  const sited = (p: Property) => siteWords(p.site);
  const verdictOf = (p: Plant) =>
    p.decided ? p.verdict!.kind : p.look?.worth ? 'to look at' : p.verdict?.decision === 'not now' ? 'put off' : '';
</script>

{#snippet plantForm(plant?: Plant)}
  <PlantForm {species} {used} property={id} {plant} onkept={kept} onclose={() => (form = 'none')} onremove={remove} />
{/snippet}

<svelte:head><title>{property ? `${property.name} · ` : ''}Grounds · Mezzadro</title></svelte:head>

<div
  class="border-b border-rule bg-white max-lg:overflow-x-auto {house.frame && !house.frame.counts.grounds ? '' : 'min-h-[139px]'}"
>
  {#if season && property}<Ribbon {season} place={property.name} />{/if}
</div>

<div class="grid lg:grid-cols-[15rem_1fr]">
  <div class="flex items-center gap-3 px-3 pt-3 lg:hidden">
    <label class="flex-1"
      ><span class="sr-only">Property</span>
      <select
        class="min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2"
        value={id}
        onchange={(e) => push(`/grounds/${e.currentTarget.value}`)}
      >
        {#each properties as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
      </select>
    </label>
    <Button color="light" onclick={() => (form = 'property')}>Add<span class="sr-only"> a property</span></Button>
  </div>
  <nav aria-label="Properties" class="border-r border-rule px-3 py-4 max-lg:hidden">
    <div class="flex items-center justify-between gap-2">
      <h2>Properties</h2>
      <Button size="sm" color="light" onclick={() => (form = 'property')}>Add</Button>
    </div>
    <ul class="mt-2">
      {#each properties as p (p.id)}
        <li>
          <a
            href="#/grounds/{p.id}"
            aria-current={p.id === id ? 'true' : undefined}
            class="name block min-h-11 border-t border-rule px-2 py-1.5 text-ink no-underline hover:bg-sheet hover:no-underline {p.id ===
            id
              ? 'bg-moss-pale font-bold'
              : ''}"
          >
            {p.name}<span class="block text-sm font-normal text-soft"
              >{plantsOf(p.plants)} · {Math.round(inUnit('elevation', p.climate.elevation_m))} {unit('elevation')}</span
            >
          </a>
        </li>
      {/each}
    </ul>
  </nav>

  <div class="min-w-0 px-5 py-4 max-md:px-3">
    {#if form === 'property' || form === 'change property'}
      <PropertyForm
        property={form === 'change property' ? property : undefined}
        onclose={() => (form = 'none')}
        onkept={async (p) => {
          form = 'none';
          await list();
          shown = 0;
          await push(`/grounds/${p.id}`);
          if (p.id === id) await read(id);
          house.say(`${p.name} saved.`);
        }}
      />
    {:else if properties && !properties.length}
      <div class="max-w-xl border border-rule bg-white p-5">
        <h1>No property yet</h1>
        <p class="mt-1">
          A property is a client’s place with its own climate. From it come hardiness, dates and windows for every plant that
          stands there.
        </p>
        <Button class="mt-3" onclick={() => (form = 'property')}>Add the first property</Button>
      </div>
    {:else if property}
      <header class="flex flex-wrap items-start gap-3">
        <div class="min-w-0 basis-full">
          <h1 class="name">{property.name}</h1>
          <p class="text-sm text-soft">{[property.client, property.address].filter(Boolean).join(' · ')}</p>
          <Reached property={property.id} at={property.climate} />
          {#if property.note}<p class="mt-1 border-l-4 border-sun pl-2 text-[0.9375rem]">{property.note}</p>{/if}
        </div>
        <Button href="#/walk/{id}">Walk</Button>
        <Button color="light" href="#/cuts/{id}">Plan cuts</Button>
        <Button color="light" href="#/call/{id}">Take a call</Button>
        <More of={property.name}>
          <a href="#/grounds/{id}/plan">Site plan</a>
          <a href="#/grounds/{id}/winter">Winter protection</a>
          <a href="#/grounds/{id}/climate">Climate and outlook</a>
          {#if house.may('planner')}
            <button onclick={() => (form = 'change property')}>Change property</button>
            <button onclick={() => removeProperty(property)}>Remove property</button>
          {/if}
        </More>
      </header>

      <section class="mt-3 flex flex-wrap items-center gap-x-6 gap-y-1 border-y border-rule py-2 text-sm">
        <span
          >Zone <b>{property.hardiness_zone}</b>, coldest night of a year {degrees(property.climate_here.extreme_min_c)}
          {#if sited(property)}<span class="text-soft">({sited(property)})</span>{/if}</span
        >
        {#if season?.last_frost}<span
            >Last frost about {inWords(season.last_frost.mid)} <span class="text-soft">(estimate)</span></span
          >{/if}
        <span
          >{Math.round(warmth(season?.degree_days ?? 0))} degree-days <span class="text-soft">(base {degrees(10, 0)})</span></span
        >
        <span class="text-soft"
          >{season?.source ? `Weather: ${season.source}, to ${inWords(season.observed_to)}` : 'No weather read yet'}</span
        >
        <span class="flex items-center gap-2">
          <button class="min-h-11 text-moss underline" disabled={!!busy} onclick={readStation}>Read the station</button>
          <FilePick name="Weather from a file" accept=".csv,.txt,text/csv,text/plain" onfile={(file) => takeWeather(file)} />
          {#if sited(property)}<label class="flex min-h-11 items-center gap-1.5"
              ><input type="checkbox" class="size-5 accent-moss" bind:checked={measuredHere} /> measured in this garden</label
            >{/if}
          {#if busy}<span role="status">{busy}</span>{/if}
        </span>
      </section>

      {#if readAs?.of === id}<div class="my-2 border border-ink bg-white px-3 py-2 text-sm" role="status" data-testid="read-as">
          <b>How {readAs.file.name} was read</b>
          <ul class="list-disc pl-5">
            {#each readAs.how as h}<li>{h}</li>{/each}
          </ul>
          <p class="flex flex-wrap gap-x-4">
            <a class="inline-flex min-h-11 items-center underline" href="#/grounds/{id}/climate"
              >Wrong? Undo it on the climate page</a
            >
            <button class="min-h-11 text-moss underline" onclick={() => askColumns(readAs!.file)}>Tell its columns by hand</button
            >
            <button class="min-h-11 text-moss underline" onclick={() => (readAs = undefined)}>It is right</button>
          </p>
        </div>{/if}
      {#if unmatched?.of === id}{#key unmatched}<WeatherColumns
            name={unmatched.file.name}
            asked={unmatched.asked}
            why={unmatched.why}
            ontold={(told) => takeWeather(unmatched!.file, told)}
            onclose={() => (unmatched = undefined)}
          />{/key}{/if}
      <AccessSlip property={id} />
      <div class="flex flex-wrap items-start gap-x-6 border-b border-rule text-[0.9375rem]">
        <Holding property={id} version={property.version} />
        {#if house.may('planner')}<details class="open:basis-full" bind:open={regularShown}>
            <summary class="flex min-h-11 cursor-pointer items-center text-moss">Regular visits</summary>
            {#if regularShown}<Regulars property={id} />{/if}
          </details>{/if}
        <details class="open:basis-full" bind:open={bloomShown}>
          <summary class="flex min-h-11 cursor-pointer items-center text-moss">In bloom through the year</summary>
          {#if bloomShown}<BloomYear property={id} />{/if}
        </details>
        {#if house.may('planner')}<details class="open:basis-full" bind:open={linksShown}>
            <summary class="flex min-h-11 cursor-pointer items-center text-moss">What the client reads</summary>
            {#if linksShown}<ClientLinks property={id} />{/if}
          </details>{/if}
      </div>

      {#if again}
        <div class="mt-3 border border-ink bg-white p-3" role="alert">
          <p>
            <b>{again.same} of the {again.lines} plants in {again.file.name} stand here already</b>, of the same kind at the same
            place.
          </p>
          <p class="mt-2 flex flex-wrap gap-2">
            {#if again.same < again.lines}<Button onclick={() => takePlants(again!.file, 'leave', again!.called)}
                >Leave those, add the other {again.lines - again.same}</Button
              >{/if}
            <Button color="light" onclick={() => takePlants(again!.file, 'replace', again!.called)}
              >Replace them by the file’s</Button
            >
            <Button color="light" onclick={() => takePlants(again!.file, 'add', again!.called)}>Add all once more</Button>
            <Button color="light" onclick={() => (again = undefined)}>Import nothing</Button>
          </p>
        </div>
      {/if}
      {#if nameless}
        <NoKinds
          file={nameless.file.name}
          lines={nameless.lines}
          names={nameless.names}
          {species}
          {used}
          onnew={(kind) => (species = [...species, kind])}
          ontold={(called) => takePlants(nameless!.file, 'ask', called)}
          onclose={() => (nameless = undefined)}
        />
      {/if}
      {#if faults.length}
        <div class="mt-3 border-2 border-bad bg-white p-3" role="alert">
          <p><b>Nothing was taken from the file.</b> Put these right and choose it again:</p>
          <ul class="mt-1 max-h-80 overflow-y-auto text-[0.9375rem]">
            {#each faults as [where, text] (where)}<li class="border-t border-rule py-1"><b>{where}</b>: {text}</li>{/each}
          </ul>
          <Button class="mt-2" color="light" onclick={() => (faults = [])}>Close</Button>
        </div>
      {/if}
      {#if form === 'plant'}{@render plantForm()}{/if}

      <div class="mt-3 flex flex-wrap items-center gap-3">
        <h2 class="flex-1">Plants</h2>
        <label
          ><span class="sr-only">Search the plants of this property</span><Input
            class="w-64! max-md:w-44!"
            placeholder="Search these plants"
            bind:value={words}
          /></label
        >
        <Button color="light" onclick={() => (form = 'plant')}>Add a plant</Button>
        <span class="text-sm"><FilePick name="Plants from a file" accept=".csv,text/csv" onfile={(f) => takePlants(f)} /></span>
        {#if plants.length}<a
            class="flex min-h-11 items-center text-sm underline"
            href="/api/v1/properties/{id}/plants.csv"
            download>Plants as a file</a
          ><a
            class="flex min-h-11 items-center text-sm underline"
            href="/api/v1/properties/{id}/labels.pdf?site={encodeURIComponent(location.origin)}"
            download>Labels to print</a
          >{/if}
      </div>
      {#if !plants.length}
        <p class="mt-3">
          Nothing grows here yet. Add the plants that want watching: species, where they stand and their height are enough.
        </p>
      {:else}
        <table class="mt-2 w-full text-left text-[0.9375rem] max-md:block">
          <thead class="text-sm text-soft max-md:hidden">
            <tr
              ><th class="py-1 pr-3 font-semibold">Plant</th><th class="pr-3 font-semibold">Where</th><th
                class="pr-3 text-right font-semibold max-md:hidden">Height</th
              ><th class="pr-3 text-right font-semibold max-md:hidden">Spread</th><th class="pr-3 font-semibold">State</th></tr
            >
          </thead>
          <tbody class="max-md:block">
            {#each found.slice(0, showing) as p (p.id)}
              <tr
                class="cursor-pointer border-t border-rule hover:bg-sheet max-md:grid max-md:grid-cols-[minmax(0,1fr)_auto] max-md:gap-x-3 {form ===
                p
                  ? 'bg-sheet'
                  : ''}"
                onclick={(e) => !(e.target as Element).closest('a, button') && (form = form === p ? 'none' : p)}
              >
                <td class="py-1 pr-3 break-words max-md:pb-0"
                  ><button
                    class="inline-flex min-h-11 items-center text-left font-semibold text-ink underline decoration-rule"
                    aria-expanded={form === p}
                    onclick={() => (form = form === p ? 'none' : p)}
                    >{p.common}{#if p.count > 1}&nbsp;× {p.count}{/if}<span class="sr-only">, {p.label}: open</span></button
                  > <span class="latin text-soft max-xl:hidden">{p.botanical}</span></td
                >
                <td class="pr-3 break-words max-md:col-start-1 max-md:pb-2 max-md:text-sm"
                  >{p.label}<span class="text-soft md:hidden"
                    >{p.label ? ' · ' : ''}{metres(p.height_m)} high, {metres(p.spread_m)} wide</span
                  ></td
                >
                <td class="pr-3 text-right whitespace-nowrap max-md:hidden">{metres(p.height_m)}</td>
                <td class="pr-3 text-right whitespace-nowrap max-md:hidden">{metres(p.spread_m)}</td>
                <td class="pr-3 whitespace-nowrap max-md:col-start-2 max-md:row-start-1 max-md:self-center"
                  ><a
                    class="inline-flex min-h-9 items-center {verdictOf(p) === 'to look at' ? 'text-cold' : 'text-soft'}"
                    href="#/walk/{id}/{p.id}">{verdictOf(p) || 'walk to it'}</a
                  ></td
                >
              </tr>
              {#if form === p}
                <tr class="max-md:block"
                  ><td colspan="5" class="pb-3 max-md:block">
                    <a class="inline-flex min-h-11 items-center text-moss underline" href="#/plant/{p.id}"
                      >Its page: verdicts, work, photos</a
                    >
                    {@render plantForm(p)}
                  </td></tr
                >
              {/if}
            {:else}
              <tr
                ><td colspan="5" class="border-t border-rule py-3"
                  >No plant here has these words. <button class="min-h-9 text-moss underline" onclick={() => (words = '')}
                    >Show all</button
                  ></td
                ></tr
              >
            {/each}
          </tbody>
        </table>
        {#if found.length > showing}<Button class="mt-2" color="light" onclick={() => (showing += 400)}
            >Show more ({found.length - showing} left)</Button
          >{/if}
      {/if}
      <div class="mt-4"><FindList property={id} /></div>
      <CallList property={id} />
    {:else if !properties}
      <Waiting />
    {:else if id}
      <p>This property is not there, or was removed. <a href="#/grounds">See the others</a>.</p>
    {/if}
  </div>
</div>
