<script lang="ts">
  import Traffic from './Traffic.svelte';
  /** The firm's crews: people who go together, their hours, where their day begins. */
  import { Button } from 'flowbite-svelte';
  import { allProperties, api, ask, onceKey, sendFile, type Problem, type Property, type Schemas } from '../api/client';
  import { people, type Person } from '../firm/people';
  import { atHour, inWords } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import FilePick from '../lib/FilePick.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import PlaceMap from '../lib/PlaceMap.svelte';
  import Roster from '../lib/Roster.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import { clock, inOrder, minutesOf, usualWeek, weekdays, type Crew, type Span } from './clock';
  import Hours from './Hours.svelte';
  import { bare } from '../lib/units';

  let { stamp = 0 }: { stamp?: number } = $props(); // people have changed
  type Form = {
    id: number;
    name: string;
    people: number[];
    hours: Span[];
    lat: string;
    lon: string;
    load: string;
    rest: { from: string; minutes: string };
    loading: string;
    tip: { lat: string; lon: string; minutes: string };
    off: string[];
    version: number;
  };
  type Once = ReturnType<typeof onceKey>;
  let list = $state.raw<Crew[]>();
  let all = $state.raw<Person[]>([]);
  let places = $state.raw<Property[]>([]);
  let at = $state(0);
  let away = $state('');
  let mapped = $state<'' | 'start' | 'tip'>('');

  async function read(signal: AbortSignal) {
    const [c, p, q] = await Promise.all([ask(api.GET('/api/v1/crews', { signal })), people(signal), allProperties()]);
    if (!signal.aborted) [list, all, places] = [c.items, p, q];
  }
  const number = (s: string) => bare(s) || 0;
  function began(c?: Crew): Form {
    at = 0;
    away = '';
    mapped = '';
    return {
      id: c?.id ?? 0,
      name: c?.name ?? `Crew ${(list?.length ?? 0) + 1}`,
      people: (c?.people ?? []).map((p) => p.id),
      hours: c ? [...(c.hours ?? usualWeek())] : usualWeek(),
      lat: c?.start ? String(c.start.latitude) : '',
      lon: c?.start ? String(c.start.longitude) : '',
      load: c?.load_m3 ? String(c.load_m3) : '',
      rest: { from: clock(c?.break?.from ?? 720), minutes: String(c?.break?.minutes ?? (c ? 0 : 30)) },
      loading: c?.load_minutes ? String(c.load_minutes) : '',
      tip: {
        lat: c?.tip ? String(c.tip.at.latitude) : '',
        lon: c?.tip ? String(c.tip.at.longitude) : '',
        minutes: String(c?.tip?.minutes ?? 20),
      },
      off: [...(c?.off ?? [])],
      version: c?.version ?? 0,
    };
  }
  function keep({ id, lat, lon, load, rest, loading, tip, ...others }: Form, header: Once) {
    const body: Schemas['CrewIn'] = { ...others, load_m3: number(load), load_minutes: Math.round(number(loading)) };
    if (tip.lat.trim() || tip.lon.trim())
      body.tip = { at: { latitude: number(tip.lat), longitude: number(tip.lon) }, minutes: number(tip.minutes) };
    if (number(rest.minutes)) body.break = { from: minutesOf(rest.from), minutes: Math.round(number(rest.minutes)) };
    if (lat || lon) body.start = { latitude: number(lat), longitude: number(lon) };
    return ask(
      id
        ? api.PUT('/api/v1/crews/{id}', { params: { path: { id }, header }, body })
        : api.POST('/api/v1/crews', { params: { header }, body }),
    );
  }
  const drop = (id: number, header: Once) => ask(api.DELETE('/api/v1/crews/{id}', { params: { path: { id }, header } }));
  const restore = (id: number, header: Once) => ask(api.POST('/api/v1/crews/{id}/restore', { params: { path: { id }, header } }));
  const takeWays = async (file: File) => {
    await attempt(async () => {
      const t = await sendFile<Schemas['WaysTaken']>('/api/v1/ways', file, 'text/csv', onceKey());
      house.say(`${t.ways} timed ways taken from ${file.name}.`);
    });
  };
  /** "Mon 08:00 – 17:00, Tue …", days of the same hours together. */
  function told(c: Crew): string {
    const out: { days: string[]; hours: string }[] = [];
    for (const d of inOrder(house.frame?.firm.week_start ?? 1)) {
      const s = c.hours?.[d];
      if (!s || s.to <= s.from) continue;
      const h = `${atHour(s.from)} – ${atHour(s.to)}`;
      const last = out.at(-1);
      if (last?.hours === h) last.days.push(weekdays[d]!.slice(0, 3));
      else out.push({ days: [weekdays[d]!.slice(0, 3)], hours: h });
    }
    return out.map((o) => `${o.days.length > 2 ? `${o.days[0]} – ${o.days.at(-1)}` : o.days.join(', ')} ${o.hours}`).join('; ');
  }
</script>

{#snippet ways()}
  <p class="flex flex-wrap items-center gap-x-4 text-sm">
    <span>Ways between crews and properties are estimated from where they lie.</span>
    <a class="inline-flex min-h-11 items-center underline" href="/api/v1/ways.csv" download>Ways as a file</a>
    <FilePick name="Timed ways from a file" accept=".csv,text/csv" onfile={takeWays} />
  </p>
  <Traffic />
{/snippet}

{#snippet onMap(which: 'start' | 'tip', words: string, lat: string, lon: string, put: (lat: string, lon: string) => void)}
  <button
    type="button"
    class="min-h-11 text-moss underline"
    aria-expanded={mapped === which}
    onclick={() => (mapped = mapped === which ? '' : which)}>{words}</button
  >
  {#if mapped === which}
    <PlaceMap
      at={lat.trim() && lon.trim() ? { latitude: number(lat), longitude: number(lon) } : undefined}
      from={places[0]?.climate}
      onpick={(q) => put(String(q.latitude), String(q.longitude))}
    />
  {/if}
{/snippet}

{#snippet fields(form: Form, problem: Problem | undefined)}
  <Field label="Name of the crew" bind:value={form.name} problem={problem?.fields.name} autofocus />
  <fieldset>
    <legend class="font-semibold">People in the crew</legend>
    <div class="grid gap-x-4 sm:grid-cols-2">
      {#each all as p (p.id)}<Tickbox
          checked={form.people.includes(p.id)}
          label={p.name}
          onpick={(on) => (form.people = on ? [...form.people, p.id] : form.people.filter((x) => x !== p.id))}
        />{/each}
    </div>
    {#if problem?.fields.people}<p class="text-sm text-bad">{problem.fields.people}</p>{/if}
  </fieldset>
  <Hours bind:week={form.hours} legend="Hours" problems={problem?.fields} />
  <div class="grid gap-3 sm:grid-cols-3">
    <Field label="Break from" type="time" bind:value={form.rest.from} problem={problem?.fields['break.from']} />
    <Field
      label="Break, minutes (0: none)"
      mode="numeric"
      bind:value={form.rest.minutes}
      problem={problem?.fields['break.minutes']}
    />
    <Field
      label="Loading before setting out, minutes"
      mode="numeric"
      bind:value={form.loading}
      placeholder="none"
      problem={problem?.fields.load_minutes}
    />
  </div>
  <div class="grid gap-3 sm:grid-cols-3">
    <Pick
      label="The day begins at"
      bind:value={at}
      options={[[0, 'a place entered here'], ...places.map((p): [number, string] => [p.id, p.name])]}
      onpick={(id) => {
        const c = places.find((p) => p.id === id)?.climate;
        if (c) [form.lat, form.lon] = [String(c.latitude), String(c.longitude)];
      }}
    />
    <Field label="Latitude" mode="decimal" bind:value={form.lat} problem={problem?.fields['start.latitude']} />
    <Field label="Longitude" mode="decimal" bind:value={form.lon} problem={problem?.fields['start.longitude']} />
    <Field
      label="Waste the vehicle carries"
      kind="bulk"
      bind:value={form.load}
      placeholder="no matter"
      problem={problem?.fields.load_m3}
    />
  </div>
  {@render onMap('start', 'Press on a map where the day begins', form.lat, form.lon, (lat, lon) => {
    at = 0;
    [form.lat, form.lon] = [lat, lon];
  })}
  {#if number(form.load) || form.tip.lat}
    <fieldset>
      <legend class="font-semibold">Tip on the way (empty: waste comes home)</legend>
      <div class="grid gap-3 sm:grid-cols-3">
        <Field
          label="Latitude of the tip"
          mode="decimal"
          bind:value={form.tip.lat}
          problem={problem?.fields['tip.at.latitude']}
        />
        <Field
          label="Longitude of the tip"
          mode="decimal"
          bind:value={form.tip.lon}
          problem={problem?.fields['tip.at.longitude'] ?? problem?.fields['tip.at']}
        />
        <Field label="Minutes there" mode="numeric" bind:value={form.tip.minutes} problem={problem?.fields['tip.minutes']} />
      </div>
      {@render onMap(
        'tip',
        'Press on a map where the tip is',
        form.tip.lat,
        form.tip.lon,
        (lat, lon) => ([form.tip.lat, form.tip.lon] = [lat, lon]),
      )}
    </fieldset>
  {/if}
  <div>
    <div class="flex flex-wrap items-end gap-3">
      <Field class="w-48" label="Day off" type="date" bind:value={away} problem={problem?.fields.off} />
      <Button
        color="light"
        disabled={!away || form.off.includes(away)}
        onclick={() => ((form.off = [...form.off, away].sort()), (away = ''))}>Add it</Button
      >
    </div>
    {#each form.off as d}<button
        type="button"
        class="mt-1 mr-2 inline-flex min-h-11 items-center gap-1 border border-rule px-2 text-sm"
        onclick={() => (form.off = form.off.filter((x) => x !== d))}
        >{inWords(d)}<span aria-hidden="true">✕</span><span class="sr-only">: not off after all</span></button
      >{/each}
  </div>
{/snippet}
{#snippet line(c: Crew)}
  <b>{c.name}</b>: {c.people?.map((p) => p.name).join(', ') || 'nobody'}<span class="block text-sm text-soft"
    >{told(c)}{c.load_minutes ? ` · ${c.load_minutes} min of loading first` : ''}{c.tip ? ' · tips on the way' : ''}{c.break
      ? ` · break of ${c.break.minutes} min from ${atHour(c.break.from)}`
      : ''}{c.skills?.length ? ` · ${c.skills.join(', ')}` : ''}{c.start ? '' : ' · no place to start from'}</span
  >
{/snippet}
{#snippet empty()}
  {all.length
    ? 'No crew yet. Rounds are proposed for crews: people who go together, with their hours.'
    : 'Enter the people first: a crew is those who go together.'}
{/snippet}

<Roster
  title="Crews"
  one="crew"
  {list}
  {read}
  {stamp}
  may={all.length > 0}
  {began}
  {keep}
  {drop}
  {restore}
  told={(c) => c.name}
  {fields}
  {line}
  after={ways}
  {empty}
/>
