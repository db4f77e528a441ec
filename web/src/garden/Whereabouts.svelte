<script lang="ts">
  /** Where a property lies: the climate to start from, found by a place; height and coordinates; and the hours it keeps. */
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, ask, type Property, type Schemas } from '../api/client';
  import { degrees } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import PlaceMap from '../lib/PlaceMap.svelte';
  import { reading } from '../lib/reading';
  import { bare, distant, figure, shown, unit } from '../lib/units';
  import { coordinates } from './coordinates';

  type Type = Schemas['ClimateTypeOut'];
  interface Props {
    property?: Property;
    type: string;
    zone: string; // empty: by the coordinates
    place: { elevation: string; latitude: string; longitude: string };
    chosen?: Type;
    lies?: string; // the country that its clock says
    said: Record<string, string>;
    onpick: (t: Type) => void;
  }
  let {
    property,
    type = $bindable(),
    zone = $bindable(),
    place = $bindable(),
    chosen = $bindable(),
    lies = $bindable(),
    said,
    onpick,
  }: Props = $props();
  let types = $state.raw<Type[]>([]);
  onMount(() => {
    void attempt(async () => {
      types = [...(await ask(api.GET('/api/v1/climates'))).items].sort((a, b) => a.name.localeCompare(b.name));
      chosen = types.find((t) => t.id === type);
    });
  });

  const device = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const south = $derived(device.startsWith('Australia/') || types.some((t) => t.climate.latitude < 0 && t.zone === device));
  const half = (t: Type) => (t.climate.latitude > 0 ? 'Northern' : 'Southern');
  // The reader's own hemisphere first, then by how hard the winters are.
  const grouped = $derived(
    [...types]
      .sort(
        (a, b) =>
          Number(b.climate.latitude < 0 === south) - Number(a.climate.latitude < 0 === south) ||
          parseInt(a.hardiness_zone) - parseInt(b.hardiness_zone),
      )
      .map((t): [string, string, string] => [t.id, t.name, `${half(t)} hemisphere, zone ${parseInt(t.hardiness_zone)}`]),
  );
  let search = $state('');
  const plain = (s: string) => s.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
  /** Climates by their name or by a place that has them: those whose place begins so first. */
  const found = $derived.by(() => {
    const words = plain(search).split(/\s+/).filter(Boolean);
    if (!words.length) return [];
    const holds = (s: string) => words.every((w) => plain(s).includes(w));
    return types
      .map((t) => ({ t, at: t.places.find(holds) ?? '', named: holds(t.name) }))
      .filter((x) => x.at || x.named)
      .sort((a, b) => Number(plain(b.at).startsWith(words[0]!)) - Number(plain(a.at).startsWith(words[0]!)))
      .slice(0, 6);
  });
  const number = (s: string) => bare(s);
  const same = (a: string, b: number | undefined) => b !== undefined && Math.abs(number(a) - b) < 1e-6;
  function choose(id: string) {
    const [before, t] = [chosen, types.find((x) => x.id === id)];
    if (!t) return;
    // What was typed stays; what is empty or was the other type's is this one's.
    const next = (typed: string, was: number | undefined, is: number) => (!typed.trim() || same(typed, was) ? String(is) : typed);
    place = {
      elevation: next(place.elevation, before?.climate.elevation_m, t.climate.elevation_m),
      latitude: next(place.latitude, before?.climate.latitude, t.climate.latitude),
      longitude: next(place.longitude, before?.climate.longitude, t.climate.longitude),
    };
    [type, chosen, search] = [t.id, t, ''];
    onpick(t);
  }
  /** Both coordinates given in one: pasted, or typed and left. */
  function parted() {
    const both = coordinates(place.latitude);
    if (both) place = { ...place, latitude: String(both.latitude), longitude: String(both.longitude) };
  }
  let mapped = $state(false);
  const set = $derived(place.latitude.trim() && place.longitude.trim() ? [number(place.latitude), number(place.longitude)] : []);
  const put = $derived(set.length && !set.some(Number.isNaN) ? { latitude: set[0]!, longitude: set[1]! } : undefined);
  /** How far one place lies from another, km. */
  function between(a: { latitude: number; longitude: number }, b: { latitude: number; longitude: number }) {
    const r = Math.PI / 180;
    const h =
      Math.sin(((b.latitude - a.latitude) * r) / 2) ** 2 +
      Math.cos(a.latitude * r) * Math.cos(b.latitude * r) * Math.sin(((b.longitude - a.longitude) * r) / 2) ** 2;
    return 12742 * Math.asin(Math.sqrt(h));
  }
  /** Climates of places that lie about what was pressed on the map, nearest first. */
  const about = $derived(
    mapped && put
      ? types
          .map((t) => ({ t, km: between(put, t.climate) }))
          .filter((x) => x.km < 1500)
          .sort((a, b) => a.km - b.km)
          .slice(0, 4)
      : [],
  );
  const guessed = $derived.by(() => {
    if (!chosen) return '';
    const out = [
      same(place.elevation, chosen.climate.elevation_m) ? 'height' : '',
      same(place.latitude, chosen.climate.latitude) ? 'latitude' : '',
      same(place.longitude, chosen.climate.longitude) ? 'longitude' : '',
    ].filter(Boolean);
    const text = out.length > 1 ? `${out.slice(0, -1).join(', ')} and ${out.at(-1)}` : (out[0] ?? '');
    return text.charAt(0).toUpperCase() + text.slice(1);
  });
  /** Whether it would lie in other weather: the house drops what the station told of the old place then. */
  const moves = $derived(
    !!property?.weather_source &&
      (Math.abs(number(place.latitude) - property.climate.latitude) > 0.02 ||
        Math.abs(number(place.longitude) - property.climate.longitude) > 0.02 ||
        Math.abs(number(place.elevation) - property.climate.elevation_m) > 50),
  );

  // What follows from it, at the height typed.
  let follows = $state.raw<Schemas['PlaceOut']>();
  const readPlace = reading();
  let due = 0;
  $effect(() => {
    const given = { elevation_m: number(place.elevation), latitude: number(place.latitude), longitude: number(place.longitude) };
    const climate_type = type || undefined;
    const chosen = zone || undefined;
    clearTimeout(due);
    if ((!climate_type && !given.latitude) || Object.values(given).some(Number.isNaN)) return;
    due = window.setTimeout(() => {
      void readPlace(async (signal) => {
        try {
          follows = await ask(api.POST('/api/v1/reckon/place', { body: { climate_type, zone: chosen, ...given }, signal }));
          lies = follows.lies;
        } catch (e) {
          follows = undefined; // the form says what is wrong when it is kept
          if (signal.aborted) throw e;
        }
      });
    }, 250);
    return () => clearTimeout(due);
  });
  const mean = (month: number) => {
    const n = follows?.climate.normals?.[month];
    return n ? degrees((n.tmin_c + n.tmax_c) / 2, 0) : '';
  };
  const rain = $derived(Math.round((follows?.climate.normals ?? []).reduce((sum, n) => sum + n.rain_mm, 0) / 10) * 10);
  let choosing = $state(false);
  const zones = $derived(
    [...new Set([...(follows ? [follows.zone] : []), ...(zone ? [zone] : []), ...Intl.supportedValuesOf('timeZone')])].map(
      (z): [string, string, string] => [z, z.split('/').slice(1).join(', ').replaceAll('_', ' ') || z, z.split('/')[0]!],
    ),
  );
  const other = $derived(zone && follows && follows.there !== zone ? follows.there : '');
</script>

<div class="sm:col-span-3">
  <Field
    label="Find the climate by a town, a region or in words"
    bind:value={search}
    placeholder="Melbourne, Ohio, dry summer …"
  />
  {#if search.trim() && !found.length}<p class="text-sm text-soft">
      No climate is known by that. Try the region, or take one of the list.
    </p>{/if}
  <ul aria-label="Climates found">
    {#each found as { t, at } (t.id)}<li>
        <button type="button" class="min-h-11 w-full border-b border-rule text-left hover:bg-rule" onclick={() => choose(t.id)}
          ><b>{at || t.name}</b>
          <span class="text-sm text-soft">{at ? t.name : t.places[0]}, zone {t.hardiness_zone}</span></button
        >
      </li>{/each}
  </ul>
  <Pick
    class="mt-1"
    label="Climate to start from"
    off="Choose"
    bind:value={type}
    onpick={choose}
    options={grouped}
    problem={said.climate_type}
  />
</div>
<Field class="sm:col-span-1" label="Height" kind="elevation" bind:value={place.elevation} problem={said.elevation_m} />
<div class="sm:col-span-1" onfocusout={parted} onpaste={() => setTimeout(parted)}>
  <Field label="Latitude" mode="decimal" bind:value={place.latitude} problem={said.latitude} />
</div>
<Field class="sm:col-span-1" label="Longitude" mode="decimal" bind:value={place.longitude} problem={said.longitude} />
<div class="sm:col-span-6">
  <button type="button" class="min-h-11 text-moss underline" aria-expanded={mapped} onclick={() => (mapped = !mapped)}
    >Pick it on a map</button
  >
  {#if mapped}
    <PlaceMap
      at={put}
      from={chosen?.climate}
      onpick={(at) => (place = { ...place, latitude: String(at.latitude), longitude: String(at.longitude) })}
    />
    {#if about.length}<p class="mt-1 font-semibold">Climates described about there</p>
      <ul aria-label="Climates about there">
        {#each about as { t, km } (t.id)}<li>
            <button
              type="button"
              class="min-h-11 w-full border-b border-rule text-left hover:bg-rule"
              aria-pressed={t.id === type}
              onclick={() => choose(t.id)}
              ><b>{t.name}</b>
              <span class="text-sm text-soft"
                >{t.places[0]}, zone {t.hardiness_zone}, {distant(km)} away{t.id === type ? ' · chosen' : ''}</span
              ></button
            >
          </li>{/each}
      </ul>{/if}
  {/if}
</div>
{#if guessed}<p class="text-sm text-sun sm:col-span-6" data-testid="guessed">
    {guessed}
    {guessed.includes(' and ') ? 'are guesses' : 'is a guess'}, taken from the climate type. Day length, sun, the clock and how
    cold it gets go by them: put in this place’s own. Both coordinates can be pasted into Latitude.
  </p>{/if}
{#if moves}<p class="border-l-4 border-sun pl-2 text-sm sm:col-span-6" role="status" data-testid="moves">
    It lies somewhere else then: what the station told of the old place is dropped, and read again for the new one. What was
    measured in the garden stays.
  </p>{/if}
{#if follows}
  <div class="text-sm sm:col-span-6" data-testid="follows">
    {#if follows.hardiness_zone}<p>
        At {Math.round(shown('elevation', follows.climate.elevation_m))}
        {unit('elevation')}: zone {follows.hardiness_zone}, coldest night {degrees(follows.climate.extreme_min_c)}, {mean(0)} in January,
        {mean(6)} in July, {figure(rain, 'mm')} of rain a year.
      </p>{/if}
    <p class="flex flex-wrap items-center gap-x-3">
      <span>Clock: <b>{zone || follows.zone}</b>, {zone ? 'as chosen' : `by its ${follows.zone_by}`}.</span>
      {#if other}<Button size="xs" color="light" class="min-h-11" onclick={() => (zone = '')}
          >Take {other}, as its coordinates say</Button
        >{/if}
      <button type="button" class="min-h-11 text-moss underline" aria-expanded={choosing} onclick={() => (choosing = !choosing)}
        >Choose the time zone</button
      >
    </p>
    {#if choosing}<Pick
        label="Time zone"
        value={zone || follows.zone}
        options={zones}
        problem={said.zone}
        onpick={(z) => {
          [zone, choosing] = [z, false];
        }}
      />{/if}
    {#if follows.doubt}<p class="border-l-4 border-sun pl-2" role="status">{follows.doubt}</p>{/if}
  </div>
{/if}
