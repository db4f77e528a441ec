<script lang="ts">
  /** When and with what a plant is fed, what that and the layers on its ground take; kept as a job that comes again. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, dropOrder, onceKey, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { bare, figure, product, shown, unit } from '../lib/units';
  import { capital } from '../lib/words';
  import { plain } from './treat';

  interface Props {
    plant: number;
    hurt?: boolean;
    stands?: boolean; // a job for it does already
    onkept?: () => void;
  }
  let { plant, hurt = false, stands = false, onkept }: Props = $props();
  let feed = $state.raw<Schemas['TreatmentFeeding']>();
  let asked = $state({ ph: '', bed: '', mulch: '' });
  let asking = $state(false);
  let cutHard = $state(false);
  let fault = $state<Record<string, string>>({});
  let busy = $state(false);
  const reads = reading();
  const number = (s: string) => bare(s) || 0;
  const body = $derived({
    plant,
    hurt,
    ...(cutHard ? { after_hard_cut: true } : {}),
    ...(asked.ph ? { ph: number(asked.ph) } : {}),
    ...(asked.bed ? { bed_m2: number(asked.bed) } : {}),
    ...(asked.mulch ? { mulch_cm: number(asked.mulch) } : {}),
  });
  $effect(() => {
    const of = body;
    fault = {};
    void reads(async (signal) => {
      feed = await ask(api.POST('/api/v1/reckon/feeding', { body: of, signal }));
    }).then((p) => (fault = p?.fields ?? fault));
  });
  const names: Record<string, string> = {
    feed: 'feed',
    foliar: 'on the leaves',
    compost: 'compost',
    mulch: 'mulch',
    lime: 'lime',
    sulphur: 'sulphur',
  };
  async function keep() {
    if (busy) return;
    busy = true;
    await attempt(async () => {
      const o = await ask(api.POST('/api/v1/plants/{id}/feeding', { params: { path: { id: plant }, header: onceKey() }, body }));
      house.say(`${o.title}: saved as a job.`, async () => {
        await dropOrder(o.id);
        onkept?.();
      });
      onkept?.();
    });
    busy = false;
  }
</script>

{#if feed}
  <section aria-label="Feeding" class="border border-rule bg-white px-3 py-2">
    <p class="text-xs font-semibold text-soft">Feeding {feed.class}</p>
    <p class="font-semibold" data-testid="feed">{feed.text}</p>
    {#if feed.foliar?.length}<p class="text-sm">
        The new leaves are wetted with a weak feed to dripping: {feed.foliar.map((d) => inWords(d)).join(', ')}.
      </p>{/if}
    {#each feed.says as s}<p class="text-sm">{s}</p>{/each}
    {#if feed.soil}<p class="text-sm font-semibold">{feed.soil}</p>{/if}
    {#each feed.rules as r}<p class="text-sm text-soft">House rule: {r}.</p>{/each}
    {#if feed.amounts.length}
      <p class="mt-2 text-sm font-semibold">Amounts <span class="font-normal text-soft">estimates</span></p>
      <dl class="border-t border-rule text-sm">
        {#each feed.amounts as a (a.what)}
          <div class="flex justify-between gap-4 border-b border-rule py-1" data-testid="soil-{a.what}">
            <dt class="font-semibold">{capital(names[a.what] ?? a.what)}</dt>
            <dd class="text-right">
              {#if a.m3}{figure(a.m3, 'm³')}{:else if a.product}{product(a.product, a.unit!)} of {a.name}{a.times > 1
                  ? ` each time, ${a.times} times`
                  : ''}{:else if a.liquid_l}{plain(shown('volume', a.liquid_l))}
                {unit('volume')}{a.times > 1 ? ` each time, ${a.times} times` : ''}{:else}by its label{/if}{a.buy?.price
                ? `, ${a.buy.price.toFixed(2)} to buy`
                : ''}
            </dd>
          </div>
        {/each}
      </dl>
      <details class="text-sm">
        <summary class="min-h-9 cursor-pointer py-1 text-moss underline">How the amounts are worked out</summary>
        {#each feed.amounts as a (a.what)}<p class="py-0.5">
            <b>{capital(names[a.what] ?? a.what)}</b>: {a.formula}.
          </p>{/each}
      </details>
    {/if}
    {#if asking}
      <div class="mt-1 grid grid-cols-3 gap-2">
        <Field label="Soil pH" mode="decimal" bind:value={asked.ph} problem={fault.ph} />
        <Field label="Bed" kind="area" bind:value={asked.bed} problem={fault.bed_m2} />
        <Field label="Mulch" kind="shoot" bind:value={asked.mulch} problem={fault.mulch_cm} />
      </div>
      <label class="flex min-h-11 items-center gap-2 text-sm"
        ><input type="checkbox" class="size-5 accent-moss" bind:checked={cutHard} /> Cut hard this winter</label
      >
    {:else}<button class="min-h-11 text-sm text-moss underline" onclick={() => (asking = true)}>Soil, bed, depth</button>{/if}
    {#if !feed.none && feed.days?.length && !stands}<div>
        <Button size="sm" disabled={busy} onclick={keep}>Make it a job</Button>
      </div>{/if}
  </section>
{/if}
