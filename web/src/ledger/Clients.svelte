<script lang="ts">
  /** Who the firm works for: how they are reached, which properties they have to do with, what they get of each. */
  import { allProperties, api, ask, onceKey, type Problem, type Property, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import Pick from '../lib/Pick.svelte';
  import Roster from '../lib/Roster.svelte';
  import Tickbox from '../lib/Tickbox.svelte';

  type Client = Schemas['Client'];
  type AtHome = { property_id: number; role: Schemas['AtHome']['role']; gets: string[] };
  type Form = {
    id: number;
    name: string;
    phone: string;
    email: string;
    address: string;
    units: '' | 'metric' | 'imperial';
    note: string;
    of: AtHome[];
    version: number;
  };
  type Once = ReturnType<typeof onceKey>;
  let list = $state.raw<Client[]>();
  let places = $state.raw<Property[]>([]);
  let search = $state('');
  const shown = $derived(
    search.trim()
      ? list?.filter((c) =>
          [c.name, c.phone, c.email, ...c.of.map((o) => o.property)]
            .join(' ')
            .toLowerCase()
            .includes(search.trim().toLowerCase()),
        )
      : list,
  );

  async function read(signal: AbortSignal) {
    const [c, p] = await Promise.all([ask(api.GET('/api/v1/clients', { signal })), allProperties()]);
    if (!signal.aborted) [list, places] = [c.items, p];
  }
  const began = (c?: Client): Form => ({
    id: c?.id ?? 0,
    name: c?.name ?? '',
    phone: c?.phone ?? '',
    email: c?.email ?? '',
    address: c?.address ?? '',
    units: c?.units ?? '',
    note: c?.note ?? '',
    of: (c?.of ?? []).map((o) => ({ property_id: o.property_id, role: o.role, gets: [...(o.gets ?? [])] })),
    version: c?.version ?? 0,
  });
  const keep = ({ id, ...body }: Form, header: Once) =>
    ask(
      id
        ? api.PUT('/api/v1/clients/{id}', { params: { path: { id }, header }, body })
        : api.POST('/api/v1/clients', { params: { header }, body }),
    );
  const drop = (id: number, header: Once) => ask(api.DELETE('/api/v1/clients/{id}', { params: { path: { id }, header } }));
  const restore = (id: number, header: Once) =>
    ask(api.POST('/api/v1/clients/{id}/restore', { params: { path: { id }, header } }));
  const gets: [string, string][] = [
    ['days', 'the days we come'],
    ['reports', 'reports'],
    ['estimates', 'estimates'],
    ['reminders', 'a reminder the evening before'],
  ];
  const placeOf = (id: number) => places.find((p) => p.id === id);
</script>

<svelte:head><title>Clients · Mezzadro</title></svelte:head>

{#snippet fields(form: Form, problem: Problem | undefined)}
  <div class="grid gap-3 sm:grid-cols-2">
    <Field label="Name" bind:value={form.name} problem={problem?.fields.name} autofocus />
    <Field label="Telephone" type="tel" bind:value={form.phone} problem={problem?.fields.phone} />
    <Field label="E-mail" type="email" bind:value={form.email} problem={problem?.fields.email} />
    <Field label="Address for letters" bind:value={form.address} problem={problem?.fields.address} />
    <Pick
      label="Reads"
      bind:value={form.units}
      options={[
        ['', 'the firm’s units'],
        ['metric', 'metres and litres'],
        ['imperial', 'feet and gallons'],
      ]}
    />
    <Field label="Note: the firm’s own" bind:value={form.note} problem={problem?.fields.note} />
  </div>
  <fieldset>
    <legend class="font-semibold">Properties</legend>
    {#each form.of as o, i (i)}
      <div class="mt-1 flex flex-wrap items-end gap-x-4 gap-y-1 border-t border-rule py-1">
        <Pick
          class="min-w-48 flex-1"
          label="Property"
          bind:value={o.property_id}
          off="Choose"
          options={places.map((p): [number, string] => [p.id, p.name])}
          problem={problem?.fields[`of[${i}].property_id`]}
        />
        <Pick
          label="Is its"
          bind:value={o.role}
          options={[
            ['owner', 'owner'],
            ['tenant', 'tenant'],
            ['agency', 'agency'],
            ['housekeeper', 'housekeeper'],
            ['other', 'other'],
          ]}
        />
        {#each gets as [g, text] (g)}<Tickbox
            checked={o.gets.includes(g)}
            label={`Gets ${text}`}
            onpick={(on) => (o.gets = on ? [...o.gets, g] : o.gets.filter((x) => x !== g))}
          />{/each}
        <button type="button" class="min-h-11 text-moss underline" onclick={() => form.of.splice(i, 1)}>Not this one</button>
      </div>
    {/each}
    <button
      type="button"
      class="mt-1 min-h-11 text-moss underline"
      onclick={() => form.of.push({ property_id: 0, role: 'owner', gets: ['days', 'reports', 'estimates'] })}
      >Add a property</button
    >
  </fieldset>
{/snippet}
{#snippet line(c: Client)}
  <b>{c.name}</b>
  <span class="block text-sm text-soft"
    >{c.of.map((o) => `${o.role} of ${o.property}`).join(', ') || 'no property yet'}{c.note ? ` · ${c.note}` : ''}</span
  >
  <span class="flex flex-wrap gap-x-4 text-sm">
    {#if c.phone}<a class="inline-flex min-h-11 items-center underline" href="tel:{c.phone.replace(/[^+\d]/g, '')}">{c.phone}</a
      >{/if}
    {#if c.email}<a class="inline-flex min-h-11 items-center underline" href="mailto:{c.email}">{c.email}</a>{/if}
    {#each c.of as o (o.property_id)}
      {@const q = placeOf(o.property_id)?.climate}
      {#if q}<a class="inline-flex min-h-11 items-center underline" href="geo:{q.latitude},{q.longitude}">Way to {o.property}</a
        >{/if}
    {/each}
  </span>
{/snippet}
{#snippet empty()}
  Nobody yet. Enter who owns, rents or looks after the properties: how to call them, where to write, and what each gets.
{/snippet}

<div class="max-w-4xl px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/ledger">Ledger</a></p>
  <h1>Clients</h1>
  {#if (list?.length ?? 0) > 8}<Field class="mt-2 max-w-sm" label="Find a client" bind:value={search} />{/if}
  <Roster
    title="Who you work for"
    one="client"
    list={shown}
    {read}
    {began}
    {keep}
    {drop}
    {restore}
    told={(c) => [c.name, c.phone, c.email].filter(Boolean).join(', ')}
    {fields}
    {line}
    {empty}
  />
</div>
