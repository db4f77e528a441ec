<script lang="ts">
  /** What is mixed for a day's treatments: on the phone at the tap, and as a page to print. */
  import { Button } from 'flowbite-svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Waiting from '../lib/Waiting.svelte';
  import { product as measured } from '../lib/units';
  import { litres } from './treat';

  let { params }: { params?: { day?: string } } = $props();
  const day = $derived(params?.day ?? house.today);
  let tank = $state(localStorage.getItem('tank') ?? '15');
  let mix = $state.raw<Schemas['MixCard']>();
  let fault = $state('');
  const reads = reading();
  $effect(() => {
    const [of, size] = [day, Number(tank) || 15];
    fault = '';
    if (!of) return;
    localStorage.setItem('tank', String(size));
    void reads(async (signal) => {
      mix = await ask(api.GET('/api/v1/mixes', { params: { query: { day: of, tank_l: size } }, signal }));
    }).then((p) => (fault = p?.fields['tank_l'] ?? p?.message ?? fault));
  });
</script>

<svelte:head><title>Mixes · Mezzadro</title></svelte:head>

<div class="mx-auto w-full max-w-3xl px-5 py-4 max-md:px-3 print:max-w-none print:p-0">
  <div class="flex flex-wrap items-end gap-3 print:hidden">
    <p class="flex-1 text-sm"><a href="#/stores">Stores</a></p>
    <label class="font-semibold"
      >Day <select
        class="mt-1 block min-h-11 rounded-sm border border-gray-400 bg-white px-2 font-normal"
        value={day}
        onchange={(e) => push(`/mix/${e.currentTarget.value}`)}
      >
        {#each [...new Set([day, ...(mix?.days ?? [])])].sort() as d}<option value={d}>{inWords(d)}</option>{/each}
      </select></label
    >
    <Field class="w-32" label="Tank" kind="volume" bind:value={tank} problem={fault} />
    <Button color="light" onclick={() => window.print()}>Print</Button>
  </div>
  {#if !mix}
    {#if fault}<p role="alert">{fault}</p>{:else}<Waiting rows={5} />{/if}
  {:else}
    <h1 class="mt-2">Mixes, {inWords(mix.day)}</h1>
    {#if mix.mixes?.length}
      {#each mix.mixes as m}
        <article aria-label={m.name} class="mt-3 border border-ink bg-white p-4 print:mt-2 print:break-inside-avoid print:p-2">
          <h2>{m.name}</h2>
          {#if m.missing}<p class="font-semibold text-sun">{m.missing}</p>{/if}
          {#if m.product}
            <ul class="mt-1 text-lg">
              {#each m.spray.tanks as t, i (i)}<li>
                  <b>{t.n} × {litres(t.spray_l)}</b> of water with <b>{measured(t.product, m.unit)}</b> each
                </li>{/each}
            </ul>
            <p class="text-sm text-soft">
              In all {litres(m.spray.total.spray_l)} with {measured(m.spray.total.product, m.unit)}: an estimate from the size of
              the crowns, at the rate of your label, rounded to what a jug measures.
            </p>
            <ol class="mt-1 list-decimal pl-5 text-sm">
              <li>Half the water first, then the product, then the rest; stir or shake.</li>
              <li>Mix what is used up today. Rinse three times, and spray the rinse on the same plants.</li>
            </ol>
          {/if}
          <h3 class="mt-2 text-sm font-semibold text-moss">Where</h3>
          <ul class="list-disc pl-5 text-sm">
            {#each m.stops as s}<li>{s}</li>{/each}
          </ul>
          {#each m.cautions as c}<p class="mt-1 border-l-4 border-sun pl-3 text-sm print:mt-0 print:text-xs">{c}</p>{/each}
        </article>
      {/each}
      <p class="mt-2 text-sm">
        Gloves and what else the label names. Two products go into one tank only where both labels say so.
      </p>
    {:else}
      <p class="mt-2">
        No treatment that takes a product is on this day.
        {#if mix.days?.length}Days that have one: {#each mix.days as d, i (d)}{i ? ', ' : ''}<a class="underline" href="#/mix/{d}"
              >{inWords(d)}</a
            >{/each}.{:else}Put a treatment on a day <a class="underline" href="#/rounds">in Rounds</a> first.{/if}
      </p>
    {/if}
  {/if}
</div>
