<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount, untrack } from 'svelte';
  import { api, ask, onceKey, type Plant, type Problem, type Species } from '../api/client';
  import ExposureFields from './ExposureFields.svelte';
  import { metres } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import Pick from '../lib/Pick.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import Apart from './Apart.svelte';
  import { attempt } from '../lib/house.svelte';
  import Again from './Again.svelte';
  import { draftOf, dropDraft, keepDraft } from '../lib/draft';
  import { toFault } from '../lib/fault';
  import { keptOf } from '../lib/kept';
  import { whileOpen } from '../lib/opened';
  import NewKind from './NewKind.svelte';
  import SpeciesPick from '../lib/SpeciesPick.svelte';
  import { bare, figure } from '../lib/units';

  interface Props {
    species: Species[];
    property: number;
    plant?: Plant;
    used?: string[]; // kinds that stand on the property already
    stop?: number; // beside which it stands on the way round
    onkept: (p: Plant) => void;
    onclose: () => void;
    onremove?: (p: Plant) => void;
  }
  let { species, property, plant, used = [], stop, onkept, onclose, onremove }: Props = $props();

  // svelte-ignore state_referenced_locally -- the form starts from the plant and then is the user's
  const draft = plant ? `plant ${plant.id}` : `plant on ${property}`;
  // svelte-ignore state_referenced_locally
  const began = {
    name: plant ? `${plant.common} (${plant.botanical})` : '',
    label: plant?.label ?? '',
    height: plant ? String(plant.height_m) : '',
    spread: plant ? String(plant.spread_m) : '',
    count: String(plant?.count ?? 1),
    note: plant?.note ?? '',
    pot: plant?.pot_l ? String(plant.pot_l) : '',
    base: plant?.base_mm ? String(plant.base_mm) : '',
    shelter: plant?.shelter ?? 0.5,
    sun: plant?.sun ?? 0.6,
    mulched: plant?.mulched ?? false,
    value: plant?.value ?? 1,
    stop: plant?.stop || stop ? String(plant?.stop || stop) : '',
    graft: plant?.graft_m ? String(plant.graft_m) : '',
    planted: plant?.planted ? String(plant.planted) : '',
    row: plant?.row_m ? String(plant.row_m) : '',
    bed: plant?.bed_m2 ? String(plant.bed_m2) : '',
    facing: plant?.facing ?? '',
    wall: plant?.wall ?? false,
    slope: plant?.slope ?? '',
    soil: plant?.soil ?? '',
    wet: plant?.wet ?? false,
  };
  let kinds = $state<Species[]>([]); // added to the book from here
  const book = $derived([...species, ...kinds.filter((k) => !species.some((s) => s.id === k.id))]);
  let naming = $state(false);
  let back = $state(draftOf<typeof began>(draft) !== undefined); // what was typed last time is here again
  let f = $state({ ...began, ...draftOf<typeof began>(draft) });
  $effect(() => keepDraft(draft, $state.snapshot(f), began));
  onMount(() => whileOpen(() => onclose()));
  // A figure that is none of the words stays what it was.
  const scale = (steps: [number, string][], now: number) =>
    steps.some(([v]) => v === now) ? steps : [...steps, [now, `${Math.round(100 * now)} %`] as [number, string]];
  const winds: [number, string][] = [
    [0.1, 'open to the wind'],
    [0.5, 'half sheltered'],
    [0.9, 'sheltered'],
  ];
  const suns: [number, string][] = [
    [1, 'sun all day'],
    [0.6, 'half the day'],
    [0.3, 'some hours'],
    [0.1, 'shade'],
  ];
  const values: [number, string][] = [
    [2, 'dear to the client'],
    [1, 'ordinary'],
    [0.5, 'hardly minded'],
  ];
  let form = $state<HTMLFormElement>();
  let problem = $state<Problem>();
  let key = onceKey();
  let added = $state(''); // the last one that was added: another like it may follow
  const short = ['species', 'label', 'height_m', 'count'];

  /** A name without what people leave out: the sign of a hybrid, accents, capitals. */
  const bald = (name: string) =>
    name
      .normalize('NFD')
      .replace(/\p{M}|×/gu, '')
      .toLowerCase()
      .replace(/\s+/g, ' ')
      .trim();
  const written = (s: Species) => `${s.common} (${s.botanical})`;
  const chosen = $derived.by(() => {
    const n = bald(f.name);
    return (
      book.find((s) => bald(written(s)) === n) ??
      book.find((s) => [s.common, s.botanical, s.id, ...(s.also ?? [])].some((x) => bald(x) === n))
    );
  });
  // Another kind has nothing of the one before but its place: no pot, no graft, no size, no note, not its number.
  let kind = '';
  $effect(() => {
    const now = chosen?.id;
    if (plant || !now || !kind || now === kind) return;
    kind = now;
    untrack(() => {
      const { height, spread, count, note, pot, base, mulched, value, graft, planted, row, bed, wall } = { ...began };
      Object.assign(f, { height, spread, count, note, pot, base, mulched, value, graft, planted, row, bed, wall });
    });
  });
  const sized = (text: string, say: (v: number) => string) => (bare(text) > 0 ? say(bare(text)) : '');
  /** How it stands, as far as it is set: what lies folded is told. */
  const stands = $derived(
    [
      sized(f.pot, (v) => `in a pot of ${figure(v, 'L')}`) || 'in the ground',
      f.wall ? 'against a wall' : '',
      scale(winds, f.shelter).find(([v]) => v === f.shelter)![1],
      scale(suns, f.sun).find(([v]) => v === f.sun)![1],
      sized(f.spread, (v) => `${metres(v)} wide`),
      sized(f.row, (v) => `a row of ${metres(v)}`),
      sized(f.bed, (v) => `a bed of ${figure(v, 'm²')}`),
      sized(f.graft, (v) => `grafted at ${metres(v)}`),
      f.mulched ? 'mulched' : '',
      f.soil ? `${f.soil} soil` : '',
    ]
      .filter(Boolean)
      .join(', '),
  );
  const number = (s: string) => bare(String(s));
  const said = $derived(problem?.fields ?? {});

  // svelte-ignore state_referenced_locally
  let unfolded = $state(plant !== undefined);
  $effect(() => {
    if (Object.keys(said).some((k) => !short.includes(k))) unfolded = true;
  });

  let sent = $state<object>();
  const theirs = $derived(keptOf<Plant>(problem));
  async function keep(e?: SubmitEvent, version = plant?.version) {
    e?.preventDefault();
    problem = await attempt(async () => {
      const body = {
        species: chosen?.id ?? (f.name.trim() || '?'),
        label: f.label,
        height_m: number(f.height) || 0,
        spread_m: number(f.spread) || 0,
        count: Math.round(number(f.count)) || 1,
        note: f.note,
        pot_l: number(f.pot) || 0,
        base_mm: number(f.base) || 0,
        shelter: f.shelter,
        sun: f.sun,
        mulched: f.mulched,
        value: f.value,
        stop: Math.round(number(f.stop)) || 0,
        graft_m: number(f.graft) || 0,
        planted: Math.round(number(f.planted)) || 0,
        row_m: number(f.row) || 0,
        bed_m2: number(f.bed) || 0,
        facing: f.facing,
        wall: f.wall,
        slope: f.slope,
        soil: f.soil,
        wet: f.wet,
      };
      sent = body;
      const p = plant
        ? await ask(api.PUT('/api/v1/plants/{id}', { params: { path: { id: plant.id } }, body: { ...body, version } }))
        : await ask(api.POST('/api/v1/plants', { params: { header: key }, body: { ...body, property_id: property } }));
      dropDraft(draft);
      back = false;
      onkept(p);
      if (!plant) {
        added = `${p.common}${p.label ? `, ${p.label}` : ''}`;
        f.label = '';
        kind = p.species;
        form?.querySelector('input')?.select();
      }
    });
    key = onceKey();
    toFault(problem, form);
  }
</script>

<form
  class="mt-3 border border-ink bg-white p-4"
  onsubmit={keep}
  aria-label={plant ? 'Change a plant' : 'Add a plant'}
  bind:this={form}
>
  <Again bind:back class="mb-2" onanew={() => (f = { ...began })} />
  <div class="grid gap-3 sm:grid-cols-6">
    <SpeciesPick
      class="sm:col-span-3"
      species={book}
      {used}
      bind:value={f.name}
      autofocus
      problem={said.species}
      onnew={() => (naming = true)}
    />
    <Field class="sm:col-span-3" label="Where it stands" bind:value={f.label} placeholder="By the gate" problem={said.label} />
    <Field class="sm:col-span-2" label="Height" kind="length" bind:value={f.height} problem={said.height_m} />
    <Field class="sm:col-span-2" label="How many" bind:value={f.count} mode="numeric" problem={said.count} />
    <details class="sm:col-span-6" bind:open={unfolded}>
      <summary class="flex min-h-11 cursor-pointer items-center text-moss">How it stands: {stands}</summary>
      <div class="grid gap-3 sm:grid-cols-6">
        <Field
          class="sm:col-span-2"
          label="Spread"
          kind="length"
          bind:value={f.spread}
          placeholder="two thirds of the height"
          problem={said.spread_m}
        />
        <Pick
          class="sm:col-span-2"
          label="Wind"
          bind:value={f.shelter}
          options={scale(winds, f.shelter)}
          problem={said.shelter}
        />
        <Pick class="sm:col-span-2" label="Sun" bind:value={f.sun} options={scale(suns, f.sun)} problem={said.sun} />
        <Pick
          class="sm:col-span-2"
          label="To the client"
          bind:value={f.value}
          options={scale(values, f.value)}
          problem={said.value}
        />
        <Field
          class="sm:col-span-2"
          label="Pot"
          kind="volume"
          bind:value={f.pot}
          placeholder="in the ground"
          problem={said.pot_l}
        />
        <Field
          class="sm:col-span-2"
          label="Stem at the base"
          kind="thickness"
          bind:value={f.base}
          placeholder="as usual for its height"
          problem={said.base_mm}
        />
        <Field
          class="sm:col-span-2"
          label="Stop on the way round"
          bind:value={f.stop}
          mode="numeric"
          placeholder="after the others"
          problem={said.stop}
        />
        <Field
          class="sm:col-span-2"
          label="Planted in"
          bind:value={f.planted}
          mode="numeric"
          placeholder="year, if known"
          problem={said.planted}
        />
        {#if number(f.count) > 1 || f.row}
          <Field
            class="sm:col-span-2"
            label="Length of the row or hedge"
            kind="length"
            bind:value={f.row}
            placeholder="if they stand in one"
            problem={said.row_m}
          />
        {/if}
        {#if number(f.count) > 1 || f.bed}
          <Field
            class="sm:col-span-2"
            label="Area of the bed"
            kind="area"
            bind:value={f.bed}
            placeholder="if they fill one"
            problem={said.bed_m2}
          />
        {/if}
        {#if (chosen && chosen.graft.habit !== 'own roots') || f.graft}
          <Field
            class="sm:col-span-2"
            label="Graft at"
            kind="length"
            bind:value={f.graft}
            placeholder="if found"
            problem={said.graft_m}
          />
        {/if}
        <ExposureFields
          bind:facing={f.facing}
          bind:slope={f.slope}
          bind:soil={f.soil}
          bind:wall={f.wall}
          bind:wet={f.wet}
          unknown="as the property"
        />
        <Tickbox class="sm:col-span-6" label="Mulched, or its roots covered in winter" bind:checked={f.mulched} />
        <Field class="sm:col-span-6" label="Note" bind:value={f.note} problem={said.note} />
      </div>
    </details>
  </div>
  {#if chosen}
    <p class="mt-2 text-sm text-soft">{chosen.habit} Up to {metres(chosen.mature.height_m)}.</p>
    {#each chosen.cautions as c}<p class="text-sm text-sun">{c.text}</p>{/each}
  {/if}
  {#if theirs && sent}
    <Apart
      {theirs}
      mine={sent}
      names={{ label: 'where it stands', pot_l: 'pot', base_mm: 'stem at the base', value: 'to the client' }}
      onmine={() => keep(undefined, theirs.version)}
      ontheirs={() => onkept(theirs)}
    />
  {/if}
  <div class="mt-3 flex gap-2">
    <Button type="submit">Save</Button>
    <Button color="light" onclick={onclose}>{added ? 'Close' : 'Back'}</Button>
    {#if added}<span class="self-center text-sm text-soft" role="status">{added} added: another like it, or another species.</span
      >{/if}
    {#if plant && onremove}<Button color="light" class="ml-auto" onclick={() => onremove(plant)}>Remove this plant</Button>{/if}
  </div>
</form>
<NewKind
  bind:open={naming}
  species={book}
  name={f.name.trim()}
  onkept={(kind) => {
    kinds = [...kinds, kind];
    f.name = `${kind.common} (${kind.botanical})`;
  }}
/>
