<script lang="ts">
  /** Work that was ticked off: how long it was to take and took, what it comes to, what of it is charged. */
  import { Button } from 'flowbite-svelte';
  import { allProperties, api, ask, onceKey, type Property, type Schemas } from '../api/client';
  import { brief, hours } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import { reading } from '../lib/reading';
  import Waiting from '../lib/Waiting.svelte';
  import { amount } from './money';
  import Pace from './Pace.svelte';

  let { params }: { params?: { property?: string } } = $props();
  const property = $derived(Number(params?.property ?? 0));
  let from = $state('');
  let to = $state('');
  let done = $state.raw<Schemas['Done']>();
  let charges = $state.raw<Schemas['Charge'][]>([]);
  let all = $state.raw<Property[]>([]);
  let picked = $state<number[]>([]);
  let visits = $state('1');
  const reads = reading();
  $effect(() => {
    if (!from && house.today)
      [from, to] = [
        property ? `${Number(house.today.slice(0, 4)) - 1}${house.today.slice(4)}` : house.today.slice(0, 8) + '01',
        house.today,
      ];
  });
  const query = $derived({ from, to, property: property || undefined });
  async function load(q: typeof query) {
    await reads(async (signal) => {
      [done, charges, all] = await Promise.all([
        ask(api.GET('/api/v1/work-done', { params: { query: q }, signal })),
        ask(api.GET('/api/v1/charges', { params: { query: { property: q.property } }, signal })).then((x) => x.items),
        allProperties(),
      ]);
      picked = [];
    });
  }
  $effect(() => {
    if (/^\d{4}-\d\d-\d\d$/.test(from) && /^\d{4}-\d\d-\d\d$/.test(to)) void load(query);
  });
  const money = (v: number) => amount(v, done?.currency ?? '', done?.digits ?? 2);
  const open = $derived((done?.items ?? []).filter((w) => !w.charged && !w.unpriced));
  const sum = $derived((done?.items ?? []).filter((w) => picked.includes(w.order)).reduce((s, w) => s + w.amount, 0));
  async function charge() {
    await attempt(async () => {
      const c = await ask(
        api.POST('/api/v1/charges', {
          params: { header: onceKey() },
          body: { property_id: property, orders: picked, visits: Math.round(Number(visits)) || 0 },
        }),
      );
      house.say(`Invoice draft ${c.number} is saved: ${amount(c.total.gross.amount, c.currency, c.digits)}.`);
      await load(query);
    });
  }
  const csv = $derived(`/api/v1/work-done.csv?from=${from}&to=${to}${property ? `&property=${property}` : ''}`);
</script>

<svelte:head><title>Work done · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/ledger">Ledger</a></p>
  <div class="flex flex-wrap items-end gap-x-4 gap-y-2">
    <h1 class="flex-1">Work done</h1>
    <a class="inline-flex min-h-11 items-center underline" href={csv} download>As CSV</a>
  </div>
  <div class="mt-2 flex flex-wrap items-end gap-3">
    <Pick
      class="min-w-56"
      label="At"
      value={property}
      options={[[0, 'all properties'], ...all.map((p): [number, string] => [p.id, p.name])]}
      onpick={(id) => (location.hash = id ? `#/ledger/work/${id}` : '#/ledger/work')}
    />
    <Field class="w-44" label="From" type="date" bind:value={from} />
    <Field class="w-44" label="To" type="date" bind:value={to} />
  </div>
  {#if !done}<Waiting rows={8} />
  {:else if !done.items.length}<p class="mt-4 text-soft">Nothing was ticked off in these days.</p>
  {:else}
    <p class="mt-3">
      <b>{done.total.jobs === 1 ? 'One job' : `${done.total.jobs} jobs`}</b>, {hours(done.total.planned)} planned{#if done.total.noted};
        where it was noted, {hours(done.total.took)} for {hours(done.total.of)} planned{/if}{#if done.currency}; {money(
          done.total.amount,
        )}, of it
        {money(done.total.open)} not charged{/if}.
    </p>
    {#if property && open.length}
      <div class="sticky top-0 z-10 mt-2 flex flex-wrap items-end gap-3 bg-paper py-1">
        <Button
          size="sm"
          color="light"
          class="min-h-11"
          onclick={() => (picked = picked.length === open.length ? [] : open.map((w) => w.order))}
          >{picked.length === open.length ? 'Choose none' : `Choose all ${open.length}`}</Button
        >
        <Field class="w-24" label="Visits" mode="numeric" bind:value={visits} />
        <Button class="min-h-11" disabled={!picked.length} onclick={charge}
          >{picked.length
            ? `Charge ${picked.length === 1 ? 'one job' : `${picked.length} jobs`}: ${money(sum)} and visits`
            : 'Charge'}</Button
        >
      </div>
    {:else if !property}<p class="text-sm text-soft">Choose a property to charge its work.</p>{/if}
    <div class="overflow-x-auto">
      <table class="mt-2 w-full min-w-[44rem] text-sm">
        <thead
          ><tr class="border-b border-ink text-left"
            >{#if property}<th class="w-10"><span class="sr-only">Charge</span></th>{/if}<th class="w-24">Day</th><th>Job</th
            >{#if !property}<th>Property</th>{/if}<th>By</th><th class="text-right">Planned</th><th class="text-right">Took</th
            ><th class="text-right">Comes to</th><th class="w-28 pl-4">Charged</th></tr
          ></thead
        >
        <tbody>
          {#each done.items as w (w.order)}
            <tr class="border-b border-rule">
              {#if property}<td
                  >{#if !w.charged && !w.unpriced}<label class="grid min-h-11 w-10 place-items-center"
                      ><input
                        type="checkbox"
                        class="size-5 accent-moss"
                        checked={picked.includes(w.order)}
                        onchange={(e) =>
                          (picked = e.currentTarget.checked ? [...picked, w.order] : picked.filter((x) => x !== w.order))}
                      /><span class="sr-only">Charge {w.title}</span></label
                    >{/if}</td
                >{/if}
              <td class="py-1.5">{brief(w.day)}</td>
              <td class="py-1.5"
                ><a href="#/rounds/{w.order}">{w.title}</a>{#if w.agreed === 'agreed'}<span class="text-moss">
                    · agreed</span
                  >{/if}</td
              >
              {#if !property}<td><a href="#/ledger/work/{w.property_id}">{w.property}</a></td>{/if}
              <td>{w.by}</td>
              <td class="pl-3 text-right whitespace-nowrap tabular-nums">{hours(w.planned)}</td>
              <td class="pl-3 text-right whitespace-nowrap tabular-nums">{w.took ? hours(w.took) : '–'}</td>
              <td class="text-right tabular-nums">{w.unpriced ? 'no price' : money(w.amount)}</td>
              <td class="pl-4">{w.charged ? `in draft ${w.charged}` : ''}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
  {#if charges.length}
    <section class="mt-6" aria-label="Invoice drafts">
      <h2>Invoice drafts</h2>
      <p class="text-sm text-soft">Drafts: local rules say what an invoice has to hold.</p>
      <ul class="border-t border-rule">
        {#each charges as c (c.id)}<li class="flex min-h-11 flex-wrap items-center gap-x-4 border-b border-rule py-1">
            <span class="w-8 text-right text-soft tabular-nums">{c.number}</span>
            <span class="min-w-40 flex-1"><b>{c.property}</b><span class="block text-sm text-soft">{c.client}</span></span>
            <span class="w-24 text-sm">{brief(c.day)}</span>
            <span class="w-32 text-right font-semibold tabular-nums">{amount(c.total.gross.amount, c.currency, c.digits)}</span>
            <a class="inline-flex min-h-11 items-center underline" href="/api/v1/charges/{c.id}/charge.pdf" download>PDF</a>
          </li>{/each}
      </ul>
    </section>
  {/if}
  {#if !property}<Pace />{/if}
</div>
