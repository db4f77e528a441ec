<script lang="ts">
  /** What there is, what is to be bought for the treatments that stand, and what was used. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, sendFile, type Problem, type Schemas } from '../api/client';
  import { brief, clock, inWords, plusDays } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import FilePick from '../lib/FilePick.svelte';
  import Pick from '../lib/Pick.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Waiting from '../lib/Waiting.svelte';
  import { bare, figure, metres, product as amount, productKind } from '../lib/units';
  import Loads from '../rounds/Loads.svelte';
  import CardForm from './CardForm.svelte';
  import { litres, products, type Product } from './treat';

  let cards = $state<Product[]>();
  let actives = $state<Schemas['TreatmentActive'][]>([]);
  let shopping = $state.raw<Schemas['Shopping']>();
  let uses = $state.raw<Schemas['Used'][]>([]);
  let weeks = $state(6);
  let form = $state<{ card?: Product }>();
  let lot = $state<{ product: number; amount: string; code: string; expires: string; as: 'bought' | 'shelf' }>();
  let problem = $state<Problem>();
  const reads = reading();
  const columns = 'flex flex-wrap items-baseline gap-x-4 md:grid md:grid-cols-[minmax(0,1fr)_6rem_6rem_11rem]';
  const read = (ahead: number) =>
    reads(async (signal) => {
      const until = house.today ? plusDays(house.today, 7 * ahead) : '';
      const [c, a, s, u] = await Promise.all([
        products(signal),
        ask(api.GET('/api/v1/actives', { signal })),
        ask(api.GET('/api/v1/shopping', { params: { query: until ? { until } : {} }, signal })),
        ask(api.GET('/api/v1/uses', { signal })),
      ]);
      [cards, actives, shopping, uses] = [c, a.items, s, u.items];
    });
  $effect(() => {
    const ahead = weeks;
    void house.today;
    void read(ahead);
  });
  async function countIn(e: SubmitEvent) {
    e.preventDefault();
    const l = lot;
    if (!l) return;
    problem = await attempt(async () => {
      const body: Schemas['LotIn'] = { amount: bare(l.amount) || 0, lot: l.code, shelf: l.as === 'shelf' };
      if (l.expires) body.expires = l.expires;
      await ask(api.POST('/api/v1/products/{id}/stock', { params: { path: { id: l.product }, header: onceKey() }, body }));
      lot = undefined;
      await read(weeks);
    });
  }
  async function keepLabel(p: Product, file: File) {
    await attempt(async () => {
      const path = { id: p.id! };
      const kind = file.type || 'application/octet-stream';
      await sendFile<Product>(`/api/v1/products/${path.id}/label`, file, kind, onceKey(), 'PUT');
      house.say(
        `${p.name}: its label is saved.`,
        p.label
          ? undefined
          : async () => {
              await ask(api.DELETE('/api/v1/products/{id}/label', { params: { path, header: onceKey() } }));
              await read(weeks);
            },
      );
      await read(weeks);
    });
  }
  async function remove(p: Product) {
    await attempt(async () => {
      const path = { id: p.id! };
      await ask(api.DELETE('/api/v1/products/{id}', { params: { path, header: onceKey() } }));
      house.say(`${p.name}: removed.`, async () => {
        await ask(api.POST('/api/v1/products/{id}/restore', { params: { path, header: onceKey() } }));
        await read(weeks);
      });
      await read(weeks);
    });
  }
</script>

<svelte:head><title>Stores · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  <div class="flex flex-wrap items-center gap-3">
    <h1 class="flex-1">Stores</h1>
    <a class="inline-flex min-h-11 items-center underline" href="#/mix">Mixes of the day</a>
    {#if cards?.length && !form}<Button onclick={() => (form = {})}>Enter a product</Button>{/if}
  </div>
  {#if form}
    <div class="mt-3">
      <CardForm
        card={form.card}
        {actives}
        onkept={(p) => {
          form = undefined;
          house.say(`${p.name}: saved.`);
          void read(weeks);
        }}
        onclose={() => (form = undefined)}
      />
    </div>
  {:else if !cards || !shopping}
    <Waiting rows={6} />
  {:else}
    <section class="mt-3" aria-label="To buy">
      <div class="flex flex-wrap items-baseline gap-3">
        <h2 class="flex-1">
          To buy for the next {weeks} weeks{#if shopping.price}<span class="font-normal">: {shopping.price.toFixed(2)}</span>{/if}
        </h2>
        <label class="text-sm"
          >Weeks <select class="ml-1 min-h-11 rounded-sm border border-gray-400 bg-white px-2" bind:value={weeks}>
            {#each [2, 6, 12, 26, 52] as w}<option value={w}>{w}</option>{/each}
          </select></label
        >
      </div>
      {#if shopping.lines?.length}
        <div class="{columns} border-t border-rule text-sm text-soft max-md:hidden" aria-hidden="true">
          <span>Product</span><span class="text-right">Needed</span><span class="text-right">On hand</span><span
            class="text-right">To buy</span
          >
        </div>
        <ul class="border-t border-rule">
          {#each shopping.lines as l}
            <li class="{columns} border-b border-rule py-2">
              <span class="min-w-0"
                ><b>{l.name}</b>
                <span class="block text-sm text-soft"
                  >{l.jobs === 1 ? 'one job' : `${l.jobs} jobs`}{l.times > l.jobs ? `, ${l.times} times in all` : ''}, {l.plants ===
                  1
                    ? 'one plant'
                    : `${l.plants} plants`}, first {brief(l.first_due)}{l.spray_l
                    ? `, ${litres(l.spray_l)} of spray`
                    : ''}{l.supplier ? ` · ${l.supplier}` : ''}</span
                >{#if l.expired}<span class="block text-sm font-semibold text-bad">a lot has expired by then</span>{/if}</span
              >
              {#if l.missing}<span class="text-sm font-semibold text-sun md:col-span-3 md:text-right">{l.missing}</span>
              {:else}
                <span class="text-sm md:text-right"
                  ><span class="md:sr-only">needs&nbsp;</span>{l.needed ? amount(l.needed, l.unit) : ''}</span
                >
                <span class="text-sm md:text-right"
                  >{l.needed ? amount(l.on_hand, l.unit) : ''}<span class="md:sr-only"
                    >{#if l.needed}&nbsp;on hand{/if}</span
                  ></span
                >
                <span class="md:text-right">
                  {#if l.buy?.packs?.length}<b
                      >{l.buy.packs.map((p) => `${p.count} × ${amount(p.size, l.unit)}`).join(' + ')}{l.buy.price
                        ? `, ${l.buy.price.toFixed(2)}`
                        : ''}</b
                    >{#if l.per_plant}<span class="block text-sm text-soft">{l.per_plant.toFixed(2)} a plant</span>{/if}
                  {:else}<span class="text-sm">enough is there</span>{/if}
                </span>
              {/if}
            </li>
          {/each}
        </ul>
        <p class="mt-1 text-sm text-soft">
          Treatments and feedings that stand as jobs, with their repeats in these weeks; amounts are estimates. {shopping.lines.find(
            (l) => l.formula,
          )?.formula
            ? 'How it is summed: each job’s crown, pot or ground × its label’s rate × its times, less what is on hand, up to whole packs.'
            : ''}
        </p>
      {:else}<p class="text-soft">
          No treatment that stands as a job by then takes a product. Treatments come from what was found: open a find’s “What to
          do”.
        </p>{/if}
    </section>

    <section class="mt-6" aria-label="Material">
      <h2>Plants, material and bags for the next {weeks} weeks</h2>
      <Loads from={house.today} {weeks} waiting />
    </section>

    <section class="mt-6" aria-label="Products">
      <h2>Products</h2>
      {#if cards.length}
        <ul class="border-t border-rule">
          {#each cards as p (p.id)}
            <li class="border-b border-rule py-2">
              <div class="flex flex-wrap items-baseline gap-x-4 lg:grid lg:grid-cols-[minmax(0,1fr)_17rem_auto]">
                <span class="min-w-52 flex-1"
                  ><b>{p.name}</b> <span class="text-sm text-soft">{p.active_name}</span>
                  <span class="block text-sm text-soft"
                    >{p.rates.map((r) => r.says).join('; ') || 'no rate entered'}{p.harvest_days
                      ? ` · ${p.harvest_days} days to harvest`
                      : ''}{p.reentry_h ? ` · ${p.reentry_h} h to re-entry` : ''}{p.most_uses
                      ? ` · at most ${p.most_uses} a year`
                      : ''}{p.interval_days ? ` · ${p.interval_days} days apart` : ''}{p.buffer_m
                      ? ` · ${metres(p.buffer_m)} from water`
                      : ''}{p.registration ? ` · no. ${p.registration}` : ''}{p.licence ? ` · ${p.licence}` : ''}</span
                  >{#if p.hazard}<span class="block text-sm font-semibold">{p.hazard}</span>{/if}</span
                >
                <span class="text-sm {(p.on_hand ?? 0) <= 0 ? 'font-semibold text-sun' : ''}"
                  >{(p.on_hand ?? 0) < 0
                    ? `${amount(-(p.on_hand ?? 0), p.unit)} more used than entered: count the shelf`
                    : `${amount(p.on_hand ?? 0, p.unit)} on hand`}{p.expires ? `, to ${inWords(p.expires)}` : ''}</span
                >
                <span class="flex flex-wrap items-center gap-x-4 text-sm">
                  {#if p.label}<a
                      class="inline-flex min-h-11 items-center underline"
                      href="/api/v1/products/{p.id}/label?v={p.version}"
                      target="_blank"
                      rel="noreferrer">Label<span class="sr-only">: {p.name}</span></a
                    >{/if}
                  <FilePick
                    name={p.label ? 'Another label' : 'Keep its label'}
                    accept="image/*,application/pdf"
                    onfile={(file) => keepLabel(p, file)}
                  />
                  <button
                    class="min-h-11 text-moss underline"
                    onclick={() => (
                      (problem = undefined),
                      (lot = { product: p.id!, amount: '', code: '', expires: '', as: (p.on_hand ?? 0) < 0 ? 'shelf' : 'bought' })
                    )}>Count in<span class="sr-only">: {p.name}</span></button
                  >
                  <button class="min-h-11 text-moss underline" onclick={() => (form = { card: p })}
                    >Change<span class="sr-only">: {p.name}</span></button
                  >
                  <button class="min-h-11 text-moss underline" onclick={() => remove(p)}
                    >Remove<span class="sr-only">: {p.name}</span></button
                  >
                </span>
              </div>
              {#if lot?.product === p.id}
                <form class="mt-2 flex flex-wrap items-end gap-3" onsubmit={countIn} aria-label="Count in: {p.name}">
                  <Pick
                    class="w-56"
                    label="What was counted"
                    bind:value={lot!.as}
                    options={[
                      ['bought', 'what was bought'],
                      ['shelf', 'all that is on the shelf'],
                    ]}
                  />
                  <Field
                    class="w-36"
                    label={p.unit === 'piece' ? 'How many' : 'How much'}
                    kind={productKind(p.unit)}
                    mode="decimal"
                    bind:value={lot!.amount}
                    problem={problem?.fields.amount}
                    autofocus
                  />
                  {#if lot!.as === 'bought'}
                    <Field class="w-36" label="Lot" bind:value={lot!.code} />
                    <Field class="w-44" label="Expires" type="date" bind:value={lot!.expires} problem={problem?.fields.expires} />
                  {/if}
                  <Button type="submit">Count in</Button><Button color="light" onclick={() => (lot = undefined)}>Back</Button>
                </form>
              {/if}
            </li>
          {/each}
        </ul>
      {:else}
        <p>
          No product card yet. The program never tells a rate that is not on your label: enter a product with what its label says.
        </p>
        <Button class="mt-2" onclick={() => (form = {})}>Enter the first product</Button>
      {/if}
    </section>

    <section class="mt-6" aria-label="Use record">
      <div class="flex flex-wrap items-baseline gap-4">
        <h2 class="flex-1">Use record</h2>
        <a class="inline-flex min-h-11 items-center underline" href="/api/v1/uses.pdf" download>To print</a>
        <a class="inline-flex min-h-11 items-center underline" href="/api/v1/uses.csv" download>As CSV</a>
      </div>
      {#if uses.length}
        <ul class="border-t border-rule text-sm">
          {#each uses.slice(0, 100) as u (u.id)}
            <li class="flex flex-wrap gap-x-4 border-b border-rule py-1.5">
              <span class="w-44"
                >{inWords(u.day)}{u.begun ? `, ${clock(u.begun)}${u.ended ? ` to ${clock(u.ended)}` : ''}` : ''}</span
              >
              <span class="min-w-52 flex-1"
                ><a class="underline" href="#/plant/{u.plant_id}">{u.plant || u.property}</a>{u.plants > 1
                  ? ` × ${u.plants}`
                  : ''}, {u.property}:
                {u.cause.toLowerCase()}</span
              >
              <span class="min-w-40">{u.product || u.active || 'by hand'}{u.amount ? `, ${amount(u.amount, u.unit)}` : ''}</span>
              <span class="text-soft"
                >{[
                  u.licence ? `${u.who} (licence ${u.licence})` : u.who,
                  u.temp_c === null ? '' : figure(u.temp_c, '°C'),
                  u.wind_ms === null ? '' : figure(u.wind_ms, 'm/s'),
                ]
                  .filter(Boolean)
                  .join(' · ')}</span
              >
              {#if u.note}<span class="basis-full text-soft">“{u.note}”</span>{/if}
            </li>
          {/each}
        </ul>
        {#if uses.length > 100}<p class="text-sm text-soft">The newest 100 of {uses.length}; all are in the files.</p>{/if}
      {:else}<p class="text-soft">Nothing was used in the last year. A treatment that is ticked off stands here.</p>{/if}
    </section>
  {/if}
</div>
