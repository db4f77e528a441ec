<script lang="ts">
  /** The thing that is picked on a plan: its measures, place, name, and its way off. */
  import Pick from '../lib/Pick.svelte';
  import Measure from './Measure.svelte';
  import { api, ask } from '../api/client';
  import { metres } from '../lib/dates';
  import { attempt } from '../lib/house.svelte';
  import { figure } from '../lib/units';
  import { kinds, lengthOf, middle, moved, near, type Thing } from './plan';
  import { apart, areaOf, within } from './several.svelte';

  interface Props {
    thing: Thing;
    onset: (t: Thing) => void;
    onremove: (t: Thing) => void;
    onredraw: (t: Thing, as: 'row' | 'bed') => void; // it is to be drawn as a row or a bed
    oncopy: () => void;
    things: Thing[];
  }
  let { thing, onset, onremove, onredraw, oncopy, things }: Props = $props();
  const row = $derived(thing.kind === 'hedge' ? lengthOf(thing.points) : 0);
  const bed = $derived(thing.kind === 'bed' ? areaOf(thing.points) : 0);
  const inIt = $derived(bed && !thing.plant_id ? within(things, thing) : []);
  let counts = $state.raw<Record<number, number>>({}); // of plants of the record, in a row or a bed
  const count = $derived(counts[thing.plant_id ?? 0] ?? 0);
  $effect(() => {
    const ids = [thing, ...inIt].flatMap((t) => (thing.kind === 'hedge' || thing.kind === 'bed' ? (t.plant_id ?? []) : []));
    void attempt(async () => {
      const of = async (id: number) =>
        [id, (await ask(api.GET('/api/v1/plants/{id}', { params: { path: { id } } }))).count] as const;
      counts = Object.fromEntries(await Promise.all(ids.map(of)));
    });
  });
  /** What stands in a bed, kind by kind: how many, and how wide. */
  const inBed = $derived.by(() => {
    const out: Record<string, { n: number; covers: number }> = {};
    for (const t of inIt) {
      const n = counts[t.plant_id ?? 0] ?? 1;
      const k = (out[t.name || kinds.plant.name] ??= { n: 0, covers: 0 });
      k.n += n;
      k.covers += (n * Math.PI * (t.spread_m ?? 0) ** 2) / 4;
    }
    return Object.entries(out);
  });
  const covered = $derived(inBed.reduce((s, [, k]) => s + k.covers, 0));
  const own = $derived(!thing.plant_id || thing.kind === 'grave');
  const set = (field: 'height_m' | 'spread_m' | 'clear_m', v: number) => {
    if (v !== (thing[field] ?? 0)) onset({ ...thing, [field]: v });
  };
</script>

<section aria-label="What is picked" class="border border-ink bg-white px-3 py-2">
  <p class="font-bold">{thing.name || kinds[thing.kind].name}</p>
  {#if thing.kind === 'grave'}<p class="text-sm text-soft">
      It died here{thing.year ? ` in ${thing.year}` : ''}. What is planted within three metres minds that.
    </p>
  {:else if thing.plant_id}<p class="text-sm text-soft">
      <a href="#/plant/{thing.plant_id}">Its page</a> · its size is kept there
    </p>{/if}
  {#if row}<p class="text-sm" data-testid="row">
      {metres(row)} long{#if count > 1}, {count} plants {metres(row / count)} apart{/if}{#if thing.plant_id}: the bench, minutes,
        litres and mulch go by that length{/if}.
    </p>{/if}
  {#if bed && thing.plant_id}<p class="text-sm" data-testid="bed">
      {figure(bed, 'm²')}{#if count > 1}, {count} plants about {metres(apart(bed, count))} apart{/if}: feeding, mulch and what is
      put on the ground go by that area.
    </p>
  {:else if bed}<p class="text-sm" data-testid="bed">
      {figure(bed, 'm²')}{#if inBed.length}:
        {inBed.map(([name, k]) => `${k.n} ${name}`).join(', ')}, {Math.min(100, Math.round((100 * covered) / bed))} % of it covered{:else};
        no plant of the record stands in it{/if}.
    </p>{/if}
  <div class="mt-1 grid grid-cols-3 gap-2">
    {#if own && (thing.height_m || kinds[thing.kind].height)}
      <Measure
        label={thing.kind === 'window' ? 'Sill' : 'Height'}
        value={thing.height_m}
        onset={(v) => set('height_m', v)}
      />{/if}
    {#if own && kinds[thing.kind].spread}
      <Measure
        label={thing.kind === 'hedge' ? 'Thick' : 'Spread'}
        value={thing.spread_m}
        onset={(v) => set('spread_m', v)}
      />{/if}
    {#if thing.kind === 'tree' || thing.kind === 'plant'}
      <Measure label="Clear stem" value={thing.clear_m} onset={(v) => set('clear_m', v)} />{/if}
    <Measure
      label="Right"
      value={near(middle(thing).x)}
      onset={(v) => Math.abs(v - middle(thing).x) > 0.005 && onset(moved(thing, v - middle(thing).x, 0))}
    />
    <Measure
      label="Up"
      value={near(middle(thing).y)}
      onset={(v) => Math.abs(v - middle(thing).y) > 0.005 && onset(moved(thing, 0, v - middle(thing).y))}
    />
  </div>
  {#if thing.kind === 'tree' || thing.kind === 'hedge'}
    <Pick
      label="Leaves"
      class="mt-2"
      value={thing.leaf ?? 'evergreen'}
      options={[
        ['evergreen', 'evergreen'],
        ['deciduous', 'bare in winter'],
      ]}
      onpick={(leaf) => onset({ ...thing, leaf })}
    />
  {/if}
  {#if thing.kind === 'tree'}
    <Pick
      label="Crown"
      class="mt-2"
      value={thing.shape ?? 'round'}
      options={[
        ['round', 'round, widest low down'],
        ['oval', 'oval, widest half way up'],
        ['spreading', 'spreading'],
        ['cone', 'a cone'],
        ['column', 'a column'],
      ]}
      onpick={(shape) => onset({ ...thing, shape: shape as Thing['shape'] })}
    />
  {/if}
  {#if own}<div class="mt-2">
      <label class="text-sm font-semibold"
        >Name<input
          class="min-h-11 w-full rounded-sm border border-gray-400 px-2 font-normal"
          value={thing.name ?? ''}
          onchange={(e) => onset({ ...thing, name: e.currentTarget.value.trim() })}
        /></label
      >
    </div>{/if}
  <p class="mt-2 flex flex-wrap gap-x-4">
    {#if thing.kind === 'plant' && thing.plant_id}
      <button class="min-h-11 text-moss underline" onclick={() => onredraw(thing, 'row')}>Draw it as a row or hedge</button>
      <button class="min-h-11 text-moss underline" onclick={() => onredraw(thing, 'bed')}>Draw it as a bed</button>
    {/if}
    {#if thing.kind !== 'grave'}<button class="min-h-11 text-moss underline" onclick={oncopy}>Copy</button>{/if}
    <button class="min-h-11 text-moss underline" onclick={() => onremove(thing)}>Take off the plan</button>
  </p>
</section>
