<script lang="ts">
  /** Visits that come again to a property: when, by whom, with how much general care; or those of all, to look over. */
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import { brief, dayOfWeek, hours, inWords, monthName } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import Roster from '../lib/Roster.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import { bare } from '../lib/units';
  import { inOrder, weekdays, type Crew } from './clock';

  let { property }: { property: number } = $props();
  type Regular = Schemas['Regular'];
  type Row = Omit<Regular, 'version'> & { name: string; version: number };
  type Form = {
    id: number;
    version: number;
    every: number;
    weekday: number;
    crew: number;
    first: string;
    until: string;
    opens: number;
    closes: number;
    minutes: string;
    people: string;
    title: string;
    known: boolean;
  };
  type Once = ReturnType<typeof onceKey>;
  let list = $state.raw<Row[]>();
  let crews = $state.raw<Crew[]>([]);

  const everyOptions: [number, string][] = [
    [1, 'every week'],
    [2, 'every other week'],
    ...[3, 4, 6, 8, 12, 26].map((n): [number, string] => [n, `every ${n} weeks`]),
  ];
  const months = Array.from({ length: 12 }, (_, i) => monthName(`2027-${String(i + 1).padStart(2, '0')}-15`));
  function often(v: Omit<Regular, 'version'>): string {
    const day = weekdays[v.weekday];
    const how = v.every === 1 ? `Every ${day}` : v.every === 2 ? `Every other ${day}` : `${day}s, every ${v.every} weeks`;
    return v.months[0] ? `${how}, ${months[v.months[0] - 1]} to ${months[v.months[1]! - 1]}` : how;
  }
  const row = (v: Regular): Row => ({ ...v, version: v.version ?? 0, name: often(v) });

  async function read(signal: AbortSignal) {
    const [v, c] = await Promise.all([
      ask(api.GET('/api/v1/properties/{id}/standing', { params: { path: { id: property } }, signal })),
      ask(api.GET('/api/v1/crews', { signal })),
    ]);
    if (!signal.aborted) [list, crews] = [v.items.map(row), c.items];
  }
  function began(v?: Row): Form {
    const today = house.frame?.today ?? '';
    return {
      id: v?.id ?? 0,
      version: v?.version ?? 0,
      every: v?.every ?? 2,
      weekday: v?.weekday ?? (today ? dayOfWeek(today) : 1),
      crew: v?.crew_id ?? crews[0]?.id ?? 0,
      first: v?.first ?? today,
      until: v?.until ?? '',
      opens: v?.months[0] ?? 0,
      closes: v?.months[1] ?? 0,
      minutes: String(v?.minutes ?? 60),
      people: String(v?.people ?? 1),
      title: v?.title ?? '',
      known: v?.known ?? true,
    };
  }
  async function keep(f: Form, header: Once): Promise<Row> {
    const body: Schemas['RegularIn'] = {
      every: f.every,
      weekday: f.weekday,
      crew_id: f.crew,
      first: f.first,
      months: [f.opens, f.closes],
      minutes: Math.round(bare(f.minutes) || 0),
      people: Math.round(bare(f.people) || 0),
      title: f.title,
      known: f.known,
      version: f.version,
    };
    if (f.until) body.until = f.until;
    const path = { id: f.id || property };
    const kept = await ask(
      f.id
        ? api.PUT('/api/v1/standing/{id}', { params: { path, header }, body })
        : api.POST('/api/v1/properties/{id}/standing', { params: { path, header }, body }),
    );
    return row(kept);
  }
  const drop = (id: number, header: Once) => ask(api.DELETE('/api/v1/standing/{id}', { params: { path: { id }, header } }));
  const restore = (id: number, header: Once) =>
    ask(api.POST('/api/v1/standing/{id}/restore', { params: { path: { id }, header } }));
  const next = (v: Row) =>
    v.next
      .slice(0, 3)
      .map((c) => (c.falls ? `${brief(c.day)} falls` : c.on === c.day ? brief(c.on) : `${brief(c.on)} for ${brief(c.day)}`))
      .join(', ');
</script>

{#snippet fields(form: Form, problem: Problem | undefined)}
  <div class="grid gap-3 sm:grid-cols-3">
    <Pick label="How often" bind:value={form.every} options={everyOptions} problem={problem?.fields.every} />
    <Pick
      label="On"
      bind:value={form.weekday}
      options={inOrder(house.frame?.firm.week_start ?? 1).map((d): [number, string] => [d, weekdays[d]!])}
      problem={problem?.fields.weekday}
    />
    <Pick
      label="Crew that the client knows"
      bind:value={form.crew}
      options={crews.map((c): [number, string] => [c.id, c.name])}
      problem={problem?.fields.crew_id}
    />
    <Field label="First visit from" type="date" bind:value={form.first} problem={problem?.fields.first} />
    <Field label="Last day (empty: no end)" type="date" bind:value={form.until} problem={problem?.fields.until} />
    <div class="grid grid-cols-2 gap-3">
      <Pick
        label="Season from"
        bind:value={form.opens}
        options={[[0, 'all year'], ...months.map((m, i): [number, string] => [i + 1, m])]}
        onpick={(m) => (form.closes = m ? form.closes || 12 : 0)}
        problem={problem?.fields.months}
      />
      <Pick
        label="to"
        bind:value={form.closes}
        options={[[0, '–'], ...months.map((m, i): [number, string] => [i + 1, m])]}
        onpick={(m) => (form.opens = m ? form.opens || 1 : 0)}
      />
    </div>
    <Field label="General care, minutes" mode="numeric" bind:value={form.minutes} problem={problem?.fields.minutes} />
    <Field label="People" mode="numeric" bind:value={form.people} problem={problem?.fields.people} />
    <Field label="What is done" bind:value={form.title} placeholder="General care" problem={problem?.fields.title} />
  </div>
  <Tickbox
    checked={form.known}
    label="The client knows these days: write only when one moves"
    onpick={(on) => (form.known = on)}
  />
{/snippet}
{#snippet line(v: Row)}
  <b>{v.name}</b>: {v.title === 'General care' ? '' : `${v.title}, `}{hours(v.minutes)}{v.people && v.people > 1
    ? ` for ${v.people} people`
    : ''}, {v.crew}<span class="block text-sm text-soft"
    >{v.next.length ? `Next: ${next(v)}` : `No day within two months, from ${inWords(v.first)} on`}</span
  >
{/snippet}
{#snippet empty()}
  {crews.length
    ? 'None. A visit that comes every so many weeks is put on its days two months ahead, and other work of the property goes along with it where its time allows.'
    : 'Enter a crew first, in Settings: a regular visit is made by one.'}
{/snippet}

<Roster
  title="Regular visits"
  bare
  one="regular visit"
  {list}
  {read}
  stamp={property}
  may={crews.length > 0}
  {began}
  {keep}
  {drop}
  {restore}
  told={often}
  {fields}
  {line}
  {empty}
/>
