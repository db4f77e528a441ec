<script lang="ts">
  /** What a plant's spot gets, and what a cut or the fall of a thing does to all plants. */
  import { Button } from 'flowbite-svelte';
  import { onDestroy, untrack } from 'svelte';
  import { api, ask, type Schemas } from '../api/client';
  import { reading } from '../lib/reading';
  import { entered, inField, metres, read, unit } from '../lib/units';
  import { kinds, months, stands, type Thing } from './plan';
  import SunBars from './SunBars.svelte';

  interface Props {
    plan: Schemas['SitePlan'];
    thing: Thing;
    property: number;
    onmark: (m: Record<string, string>) => void;
    onlook: (c: Schemas['SiteChange'] | undefined) => void; // a change that is looked at
  }
  let { plan, thing, property, onmark, onlook }: Props = $props();
  let spot = $state.raw<Schemas['SiteSpot']>();
  let grows = $state.raw<Schemas['ReplacementOutlook']>();
  let effects = $state.raw<Schemas['SiteEffect'][]>();
  let to = $state(untrack(() => inField('length', Math.round(((thing.height_m ?? 0) / 2) * 10) / 10)));
  let told = $state(''); // what was marked
  const reads = reading();
  onDestroy(() => {
    onmark({});
    onlook(undefined);
  });
  $effect(() => {
    if (thing.kind !== 'plant') return;
    const body = { plan, plant: thing.id };
    void reads(async (signal) => {
      const o = await ask(api.POST('/api/v1/reckon/site', { body, signal }));
      [spot, grows] = [o.spot, o.grows];
    });
  });
  async function mark(c: Schemas['SiteChange'], text: string) {
    await reads(async (signal) => {
      const o = await ask(api.POST('/api/v1/reckon/site', { body: { plan, changes: [c] }, signal }));
      effects = o.effects.filter((e) => e.what !== 'none');
      told = text;
      onlook(c);
      const colour: Record<string, string> = {
        scorches: 'var(--color-sun)',
        starves: 'var(--color-cold)',
        gains: 'var(--color-moss)',
      };
      onmark(Object.fromEntries(effects.map((e) => [e.id, colour[e.what] ?? ''])));
    });
  }
  function clear() {
    effects = undefined;
    onmark({});
    onlook(undefined);
  }
  const word: Record<string, string> = { scorches: 'may scorch', starves: 'gets too little', gains: 'gets enough at last' };
</script>

{#if spot}
  <section aria-label="Its spot" class="border border-rule bg-white px-3 py-2">
    <p>
      <b>{spot.class.charAt(0).toUpperCase() + spot.class.slice(1)}</b>: {spot.strong.toFixed(1)} hours of strong sun a day in summer
    </p>
    <SunBars hours={spot.hours} />
    <p class="text-sm text-soft">Clear days, all hours of direct sun; what the plan says.</p>
    {#each spot.why.slice(1) as w}<p class="text-sm">{w}</p>{/each}
    <p class="text-sm">
      Shelter from wind: {(spot.shelter * 100).toFixed(0)} %{spot.facing ? `; open to the ${spot.facing}` : ''}.
    </p>
    {#if grows?.curve?.length}
      <p class="mt-1 text-sm">
        Uncut it stands at {grows.curve
          .filter((g) => [0, 5, 10, 20].includes(g.years))
          .map((g) => (g.years ? `${metres(g.height_m)} in ${g.years} years` : metres(g.height_m)))
          .join(', ')} (estimates).
      </p>
      {#each grows.meets as m}<p class="mt-1 border-l-4 border-sun pl-2 text-sm">{m.text}</p>{/each}
    {/if}
    {#if thing.plant_id}<p class="mt-1">
        <a class="inline-flex min-h-11 items-center underline" href="#/replace/{property}/{thing.plant_id}"
          >What would do well here instead</a
        >
      </p>{/if}
  </section>
{/if}
{#if stands(thing) && (thing.height_m ?? 0) >= 1}
  <section aria-label="Before and after" class="border border-rule bg-white px-3 py-2">
    <p class="font-semibold">What if …</p>
    <div class="mt-1 flex flex-wrap items-end gap-2">
      <label class="text-sm font-semibold"
        >cut to ({unit('length')})<input
          class="block min-h-11 w-20 rounded-sm border border-gray-400 px-2 font-normal"
          inputmode="decimal"
          bind:value={to}
        /></label
      >
      <Button
        size="sm"
        class="min-h-11"
        color="light"
        onclick={() => {
          const height_m = entered('length', read(to, 'length')) || 0;
          void mark({ thing: thing.id, do: 'cut', height_m }, `cut to ${metres(height_m)}`);
        }}>Cut it</Button
      >
      <Button size="sm" class="min-h-11" color="light" onclick={() => mark({ thing: thing.id, do: 'remove' }, 'gone')}
        >It is gone</Button
      >
      {#if effects}<button class="min-h-11 text-moss underline" onclick={clear}>As it is</button>{/if}
    </div>
    {#if effects}
      <p class="mt-2 font-semibold" role="status">
        {thing.name || kinds[thing.kind].name}
        {told}: {effects.length
          ? `${effects.length} ${effects.length === 1 ? 'plant' : 'plants'} would feel it`
          : 'no plant would feel it'}.
      </p>
      {#each effects as e (e.id)}
        <details class="border-t border-rule py-1" open={effects.length < 3}>
          <summary class="min-h-11 py-2"
            ><b>{e.name}</b>
            {word[e.what]}<span class="block text-sm text-soft">{e.when.map((m) => months[m - 1]).join(', ')}</span></summary
          >
          <p class="text-sm">{e.text}</p>
          {#each e.do as d}<p class="mt-1 border-l-4 border-moss pl-2 text-sm">{d}</p>{/each}
          <SunBars hours={e.before} after={e.after} />
        </details>
      {/each}
    {/if}
  </section>
{/if}
