<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, ask, onceKey, sendFile, type Climate, type Problem, type Property, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import Cell from './Cell.svelte';
  import { bare, imperial, unit } from '../lib/units';
  import { sites } from './site';
  import ExposureFields from './ExposureFields.svelte';
  import Pick from '../lib/Pick.svelte';
  import Lies from './Lies.svelte';
  import Whereabouts from './Whereabouts.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import FilePick from '../lib/FilePick.svelte';
  import Apart from './Apart.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import HouseRules from '../firm/HouseRules.svelte';
  import Again from './Again.svelte';
  import { draftOf, dropDraft, keepDraft } from '../lib/draft';
  import { toFault } from '../lib/fault';
  import { keptOf } from '../lib/kept';
  import { whileOpen } from '../lib/opened';

  let { property, onkept, onclose }: { property?: Property; onkept: (p: Property) => void; onclose: () => void } = $props();

  let type = $state.raw<Schemas['ClimateTypeOut']>();
  // svelte-ignore state_referenced_locally -- the form starts from the property and then is the user's
  const draft = `property ${property?.id ?? 'new'}`;
  // svelte-ignore state_referenced_locally
  const began = {
    name: property?.name ?? '',
    client: property?.client ?? '',
    address: property?.address ?? '',
    note: property?.note ?? '',
    zone: property?.zone ?? '',
    region: property?.region ?? '',
    type: property?.climate_type ?? '',
    value: property?.value ?? 1,
    facing: property?.facing ?? '',
    slope: property?.slope ?? '',
    soil: property?.soil ?? '',
    wall: property?.wall ?? false,
    wet: property?.wet ?? false,
  };
  let back = $state(draftOf<typeof began>(draft) !== undefined); // what was typed last time is here again
  let f = $state({ ...began, ...draftOf<typeof began>(draft) });
  $effect(() => keepDraft(draft, $state.snapshot(f), began));
  onMount(() => whileOpen(() => onclose()));
  // svelte-ignore state_referenced_locally
  let site = $state({
    frost_pocket: property?.site.frost_pocket ?? false,
    warm_wall: property?.site.warm_wall ?? false,
    urban: property?.site.urban ?? false,
    windy: property?.site.windy ?? false,
  });
  // svelte-ignore state_referenced_locally
  let rules = $state<Schemas['RulesHouse']>(property?.rules ?? {});
  const firm = $derived(house.frame?.firm.rules ?? {});
  // svelte-ignore state_referenced_locally
  let place = $state({
    elevation: property ? String(property.climate.elevation_m) : '',
    latitude: property ? String(property.climate.latitude) : '',
    longitude: property ? String(property.climate.longitude) : '',
  });
  // svelte-ignore state_referenced_locally
  let own = $state(property !== undefined && !property.climate_type); // figures of its own, in place of the type's
  // svelte-ignore state_referenced_locally
  let climate = $state<Climate | undefined>(property && rounded($state.snapshot(property.climate) as Climate));
  let form = $state<HTMLFormElement>();
  // svelte-ignore state_referenced_locally
  let lies = $state(property?.region ? undefined : property?.lies); // the country that its clock says
  let problem = $state<Problem>();
  let key = onceKey();

  // Figures are shown as anyone would write them; the lapse rate leaves more places than they are good for.
  function rounded(c: Climate): Climate {
    const r = (v: number) => Number(v.toFixed(1));
    return {
      ...c,
      extreme_min_c: r(c.extreme_min_c),
      normals: c.normals.map((n) => ({ ...n, tmin_c: r(n.tmin_c), tmax_c: r(n.tmax_c) })),
    };
  }
  const said = $derived(problem?.fields ?? {});
  const degreesApart = $derived(imperial() ? '3.6 °F' : '6.5 °C');
  const number = (s: string | number) => bare(String(s));
  const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
  const figures = $derived([
    ['tmin_c', `Night ${unit('temperature')}`, 'temperature'],
    ['tmax_c', `Day ${unit('temperature')}`, 'temperature'],
    ['rain_mm', `Rain ${unit('rain')}`, 'rain'],
    ['rh_pct', 'Humidity %', undefined],
    ['wind_ms', `Wind ${unit('wind')}`, 'wind'],
  ] as const);

  function choose(t: Schemas['ClimateTypeOut']) {
    climate = structuredClone($state.snapshot(t.climate) as Climate);
    own = false;
  }
  async function takeNormals(file: File) {
    problem = await attempt(async () => {
      const got = await sendFile<Schemas['NormalsRead']>('/api/v1/reckon/normals', file, 'text/csv');
      climate!.normals = got.normals;
    });
  }
  let sent = $state<Schemas['PropertyIn']>();
  const theirs = $derived(keptOf<Property>(problem));
  async function keep(e?: SubmitEvent, version = property?.version) {
    e?.preventDefault();
    problem = await attempt(async () => {
      const at = { elevation_m: number(place.elevation), latitude: number(place.latitude), longitude: number(place.longitude) };
      const body: Schemas['PropertyIn'] = {
        name: f.name,
        client: f.client,
        address: f.address,
        note: f.note,
        zone: f.zone,
        region: f.region || undefined,
        climate_type: f.type,
        site: $state.snapshot(site),
        value: f.value,
        facing: f.facing,
        slope: f.slope,
        soil: f.soil,
        wall: f.wall,
        wet: f.wet,
        rules: $state.snapshot(rules),
      };
      if (own && climate) {
        const c = $state.snapshot(climate) as Climate;
        body.climate = {
          ...c,
          ...at,
          extreme_min_c: number(c.extreme_min_c),
          normals: c.normals.map((n) => ({
            tmin_c: number(n.tmin_c),
            tmax_c: number(n.tmax_c),
            rain_mm: number(n.rain_mm),
            rh_pct: number(n.rh_pct),
            wind_ms: number(n.wind_ms),
          })),
        };
      } else if (f.type) Object.assign(body, at);
      sent = body;
      const p = property
        ? await ask(
            api.PUT('/api/v1/properties/{id}', {
              params: { path: { id: property.id } },
              body: { ...body, version },
            }),
          )
        : await ask(api.POST('/api/v1/properties', { params: { header: key }, body }));
      dropDraft(draft);
      onkept(p);
    });
    key = onceKey();
    toFault(problem, form);
  }
</script>

<form
  class="max-w-3xl border border-ink bg-white p-4"
  onsubmit={keep}
  aria-label={property ? 'Change the property' : 'Add a property'}
  bind:this={form}
>
  <h1>{property ? 'Change the property' : 'Add a property'}</h1>
  <Again bind:back onanew={() => (f = { ...began })} />
  <div class="mt-3 grid gap-3 sm:grid-cols-6">
    <Field class="sm:col-span-3" label="Name" bind:value={f.name} autofocus problem={said.name} />
    <Field class="sm:col-span-3" label="Client" bind:value={f.client} problem={said.client} />
    <Field class="sm:col-span-6" label="Address" bind:value={f.address} problem={said.address} />
    <Field class="sm:col-span-6" label="People, pets and what else to mind" bind:value={f.note} problem={said.note} />
    <Whereabouts
      {property}
      bind:type={f.type}
      bind:zone={f.zone}
      bind:place
      bind:chosen={type}
      bind:lies
      {said}
      onpick={choose}
    />
    <Lies bind:region={f.region} {lies} problem={said.region} />
  </div>
  {#if climate}
    <Tickbox class="mt-3" label="The place has figures of its own" bind:checked={own} />
    {#if own}
      <FilePick name="Monthly means from a CSV file" accept=".csv,text/csv" onfile={takeNormals} />
      {#each Object.entries(said).filter(([k]) => k.startsWith('line') || k === 'file') as [k, text] (k)}<p
          class="text-sm text-bad"
        >
          {k}: {text}
        </p>{/each}
      <div class="overflow-x-auto">
        <span class="font-semibold"
          >Coldest night of a year, on average ({unit('temperature')}) <Cell
            class="ml-1 w-20 border border-gray-400 px-1 py-1 text-right font-normal"
            label="Coldest night of a year"
            kind="temperature"
            bind:value={climate.extreme_min_c}
          /></span
        >
        {#if said['climate.extreme_min_c']}<span class="block text-sm text-bad">{said['climate.extreme_min_c']}</span>{/if}
        <table class="mt-2 text-sm">
          <caption class="sr-only">Monthly means</caption>
          <thead
            ><tr
              ><th></th>{#each months as m}<th class="px-1 font-semibold">{m}</th>{/each}</tr
            ></thead
          >
          <tbody>
            {#each figures as [field, label, kind] (field)}
              <tr>
                <th class="pr-2 text-left font-semibold whitespace-nowrap">{label}</th>
                {#each climate.normals as n, i (i)}
                  <td
                    ><Cell
                      class="w-12 border px-1 py-1.5 text-right {said[`climate.normals[${i}].${field}`]
                        ? 'border-2 border-bad'
                        : 'border-gray-300'}"
                      label="{label}, {months[i]}"
                      {kind}
                      bind:value={n[field]}
                    /></td
                  >
                {/each}
              </tr>
            {/each}
          </tbody>
        </table>
        {#each Object.entries(said).filter(([k]) => k.startsWith('climate.normals')) as [k, text] (k)}<p class="text-sm text-bad">
            {months[Number(k.match(/\d+/)?.[0] ?? 0)]}: {text}
          </p>{/each}
      </div>
    {:else}
      <p class="text-sm text-soft">
        The type’s figures are moved to this height: colder by {degreesApart} for each {imperial() ? '1,000 ft' : 'kilometre'}.
      </p>
    {/if}
  {/if}
  <fieldset class="mt-3">
    <legend class="font-semibold">How the garden differs from the open country</legend>
    <div class="grid gap-x-4 sm:grid-cols-2">
      {#each sites as [key, name, does] (key)}
        <Tickbox bind:checked={site[key]}>{name} <span class="text-sm text-soft">{does}</span></Tickbox>
      {/each}
    </div>
    <div class="mt-1 grid gap-3 sm:grid-cols-6">
      <ExposureFields
        bind:facing={f.facing}
        bind:slope={f.slope}
        bind:soil={f.soil}
        bind:wet={f.wet}
        unknown="not known, or mixed"
        all
      />
    </div>
  </fieldset>
  <Pick
    class="mt-2"
    label="In the order of looking"
    bind:value={f.value}
    options={[
      [2, 'this client comes first'],
      [1, 'ordinary'],
      [0.5, 'this client can wait'],
    ]}
  />
  <details class="mt-3 border border-rule px-3" open={Object.keys(rules).length > 0}>
    <summary class="min-h-11 content-center font-semibold">House rules that are others here</summary>
    <div class="pb-3"><HouseRules bind:rules {firm} problems={said} /></div>
  </details>
  {#if theirs && sent}
    <Apart {theirs} mine={sent} onmine={() => keep(undefined, theirs.version)} ontheirs={() => onkept(theirs)} />
  {/if}
  <div class="mt-3 flex gap-2"><Button type="submit">Save</Button><Button color="light" onclick={onclose}>Back</Button></div>
</form>
