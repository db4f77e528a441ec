<script lang="ts">
  /** What clients were offered and said, what is agreed and not done, what was done and not charged, and the month. */
  import { Button } from 'flowbite-svelte';
  import { push } from 'svelte-spa-router';
  import { allProperties, api, ask, onceKey, Problem, type Property, type Schemas } from '../api/client';
  import { brief, hours, monthName, span } from '../lib/dates';
  import { attempt } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import { reading } from '../lib/reading';
  import Waiting from '../lib/Waiting.svelte';
  import Due from '../lib/Due.svelte';
  import Foretold from './Foretold.svelte';
  import Nights from './Nights.svelte';
  import FoundCauses from './FoundCauses.svelte';
  import Shown from './Shown.svelte';
  import { amount, range, stateOf, type Estimate } from './money';

  let o = $state.raw<Schemas['Overview']>();
  let all = $state.raw<Property[]>([]);
  let making = $state<'' | 'estimate' | 'report'>('');
  let kind = $state<Schemas['ReportIn']['kind']>('event');
  let reports = $state.raw<Schemas['Report'][]>([]);
  let of = $state(0);
  const reads = reading();
  let shut = $state(''); // its money is for owners alone
  $effect(() => {
    void reads(async (signal) => {
      [all, reports] = await Promise.all([allProperties(), ask(api.GET('/api/v1/reports', { signal })).then((x) => x.items)]);
      try {
        o = await ask(api.GET('/api/v1/ledger', { signal }));
      } catch (e) {
        if (!(e instanceof Problem) || e.status !== 403) throw e;
        shut = e.message;
      }
    });
  });
  const money = (v: number) => amount(v, o?.currency ?? '', o?.digits ?? 2);
  async function make() {
    await attempt(async () => {
      const header = onceKey();
      if (making === 'report') {
        const r = await ask(api.POST('/api/v1/reports', { params: { header }, body: { property_id: of, kind } }));
        await push(`/report/${r.id}`);
        return;
      }
      const e = await ask(api.POST('/api/v1/estimates', { params: { header }, body: { property_id: of } }));
      await push(`/estimate/${e.id}`);
    });
  }
  const sums = (by: string) => (o?.month.sums ?? []).filter((s) => s.by === by);
  const most = (by: string) => Math.max(1, ...sums(by).map((s) => Math.max(s.planned, s.took)));
  /** The first days of the last twelve months, this one last. */
  const months = $derived.by(() => {
    const [y, m] = (o?.month.from ?? '').split('-').map(Number) as [number, number];
    return Array.from({ length: 12 }, (_, i) => new Date(Date.UTC(y, m - 12 + i, 1)).toISOString().slice(0, 10));
  });
  const plants = $derived(Math.max(1, ...(o?.losses ?? []).map((l) => l.well + l.hurt + l.waiting + l.lost)));
</script>

<svelte:head><title>Ledger · Mezzadro</title></svelte:head>

{#snippet offers(title: string, list: Estimate[])}
  {#if list.length}
    <section class="mt-6" aria-label={title}>
      <h2>{title}</h2>
      <ul class="border-t border-rule">
        {#each list as e (e.id)}
          <li class="border-b border-rule">
            <a
              class="flex min-h-11 flex-wrap items-center gap-x-4 py-1.5 text-ink no-underline hover:bg-sheet"
              href="#/estimate/{e.id}"
            >
              <span class="w-8 text-right text-soft tabular-nums">{e.number}</span>
              <span class="min-w-40 flex-1 max-sm:basis-4/5"
                ><b>{e.property}</b>{#if e.client}<span class="block text-sm text-soft">{e.client}</span>{/if}</span
              >
              <span class="text-sm sm:w-40 {e.over ? 'font-semibold text-bad' : ''}">{stateOf(e)}</span>
              <span class="text-sm text-soft sm:w-36">{span(e.made, e.until)}</span>
              <span class="ml-auto text-right font-semibold tabular-nums sm:w-44"
                >{range(e.total.gross, e.currency, e.digits)}</span
              >
            </a>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
{/snippet}

{#snippet written()}
  {#if reports.length}
    <section class="mt-6" aria-label="Reports">
      <h2>Reports</h2>
      <ul class="border-t border-rule">
        {#each reports.slice(0, 12) as r (r.id)}<li class="border-b border-rule">
            <a
              class="flex min-h-11 flex-wrap items-center gap-x-4 py-1.5 text-ink no-underline hover:bg-sheet"
              href="#/report/{r.id}"
            >
              <b class="min-w-40 flex-1 max-sm:basis-full">{r.title}</b>
              <span class="text-sm sm:w-40">{r.state === 'sent' ? 'the link shows it' : 'draft'}</span>
              <span class="text-sm text-soft sm:w-36">{brief(r.day)}</span><span class="max-sm:hidden sm:w-44"></span>
            </a>
          </li>{/each}
      </ul>
    </section>
  {/if}
{/snippet}

<div class="px-5 py-4 max-md:px-3">
  <div class="flex flex-wrap items-end gap-x-4 gap-y-2">
    <h1 class="flex-1">Ledger</h1>
    <a class="inline-flex min-h-11 items-center underline" href="#/ledger/clients">Clients</a>
    <a class="inline-flex min-h-11 items-center underline" href="#/ledger/work">Work done</a>
    <a class="inline-flex min-h-11 items-center underline" href="#/ledger/rates">Rates</a>
    <Button
      class="min-h-11"
      color="light"
      aria-expanded={making === 'report'}
      onclick={() => (making = making === 'report' ? '' : 'report')}>New report</Button
    >
    <Button
      class="min-h-11"
      aria-expanded={making === 'estimate'}
      onclick={() => (making = making === 'estimate' ? '' : 'estimate')}>New estimate</Button
    >
  </div>
  {#if making}
    <form
      class="mt-3 flex max-w-2xl flex-wrap items-end gap-3 border border-ink bg-white p-3"
      aria-label="A new {making}"
      onsubmit={(e) => (e.preventDefault(), void make())}
    >
      <Pick
        class="min-w-60 flex-1"
        label={making === 'report' ? 'For' : 'Of the jobs of'}
        off="Choose"
        bind:value={of}
        options={all.map((p): [number, string] => [p.id, p.name])}
      />
      {#if making === 'report'}<Pick
          label="About"
          bind:value={kind}
          options={[
            ['event', 'the last hard weather'],
            ['walk', 'the last walk'],
            ['season', 'the year in the garden'],
            ['insurer', 'losses, for an insurer'],
          ]}
        />{/if}
      <Button type="submit" class="min-h-11" disabled={!of}>{making === 'report' ? 'Write it' : 'Draft it'}</Button>
    </form>
  {/if}
  {#if shut}<p class="mt-3 border-l-4 border-sun pl-2" role="status">{shut}</p>
    {@render written()}
  {:else if !o}<Waiting rows={8} />
  {:else}
    {#if !o.rated}<p class="mt-3 border-l-4 border-sun pl-2" role="status">
        Enter what you ask for your work first: <a href="#/ledger/rates">an hour, a visit, a cubic metre of waste</a>. Estimates
        and what work comes to go by it.
      </p>{/if}
    {@render offers('Waits on a client', o.waiting)}
    {@render offers('Not sent yet', o.drafts)}
    {@render written()}
    {#if o.agreed.length}
      <section class="mt-6" aria-label="Agreed and not done">
        <h2>Agreed and not done</h2>
        <ul class="border-t border-rule">
          {#each o.agreed as j (j.order)}<li class="border-b border-rule">
              <a
                class="flex min-h-11 flex-wrap items-center gap-x-4 py-1.5 text-ink no-underline hover:bg-sheet"
                href="#/rounds/{j.order}"
              >
                <span class="min-w-40 flex-1"><b>{j.title}</b><span class="block text-sm text-soft">{j.property}</span></span>
                <span class="text-sm sm:w-56 sm:text-right"
                  >{j.day ? brief(j.day) : 'no day yet'}{j.to ? `, good until ${brief(j.to)}` : ''}</span
                >
              </a>
            </li>{/each}
        </ul>
      </section>
    {/if}
    {#if o.open.length}
      <section class="mt-6" aria-label="Done and not charged">
        <h2>Done and not charged</h2>
        <ul class="border-t border-rule">
          {#each o.open as c (c.property_id)}<li class="border-b border-rule">
              <a
                class="flex min-h-11 flex-wrap items-center gap-x-4 py-1.5 text-ink no-underline hover:bg-sheet"
                href="#/ledger/work/{c.property_id}"
              >
                <b class="min-w-40 flex-1">{c.property}</b>
                <span class="text-sm text-soft sm:w-80">{c.jobs === 1 ? 'one job' : `${c.jobs} jobs`} since {brief(c.since)}</span
                >
                <span class="ml-auto text-right sm:w-44 font-semibold tabular-nums">{o.rated ? money(c.amount) : ''}</span>
              </a>
            </li>{/each}
        </ul>
      </section>
    {/if}
    {#if !o.waiting.length && !o.drafts.length && !o.agreed.length && !o.open.length}<p class="mt-4 text-soft">
        Nothing waits: no estimate is open, and nothing done is left to charge.
      </p>{/if}
    <div class="mt-8 grid gap-x-10 gap-y-6 lg:grid-cols-2">
      <section aria-label="This month">
        <h2>This month</h2>
        {#if !o.month.total.jobs}<p class="text-soft">No job was ticked off since {brief(o.month.from)}.</p>
        {:else}
          <p>
            <b>{o.month.total.jobs} jobs</b>, {hours(o.month.total.planned)} planned{#if o.month.total.noted}; where it was noted, {hours(
                o.month.total.took,
              )}
              for {hours(o.month.total.of)} planned{/if}{#if o.rated}; {money(o.month.total.amount)} of work{/if}.
          </p>
          {#each [['kind', 'By kind of work'], ['person', 'By person'], ['property', 'By property']] as [by, title] (by)}
            <h3 class="mt-3 text-sm font-semibold">{title}</h3>
            <ul>
              {#each sums(by!).slice(0, 8) as s (s.name)}
                <li class="grid grid-cols-[9rem_minmax(0,1fr)_5rem] items-center gap-2 text-sm">
                  <span class="truncate">{s.name || 'nobody named'}</span>
                  <span class="h-3 bg-sheet" aria-hidden="true"
                    ><span class="block h-3 bg-moss" style:width="{(100 * s.planned) / most(by!)}%"></span></span
                  >
                  <span class="text-right tabular-nums">{hours(s.planned)}</span>
                </li>
              {/each}
            </ul>
          {/each}
        {/if}
      </section>
      <section aria-label="Plants within a year">
        <h2>Plants within a year</h2>
        {#if !o.losses.length}<p class="text-soft">No plant was decided on within a year.</p>
        {:else}
          <ul>
            {#each o.losses as l (l.property_id)}
              <li class="grid grid-cols-[9rem_minmax(0,1fr)] items-center gap-2 text-sm">
                <a class="truncate" href="#/grounds/{l.property_id}">{l.property}</a>
                <span class="min-h-11 py-1">
                  <span class="flex h-3" aria-hidden="true">
                    <span class="bg-moss" style:width="{(100 * l.well) / plants}%"></span><span
                      class="bg-sun"
                      style:width="{(100 * l.hurt) / plants}%"
                    ></span><span class="border border-sun" style:width="{(100 * l.waiting) / plants}%"></span><span
                      class="bg-bad"
                      style:width="{(100 * l.lost) / plants}%"
                    ></span>
                  </span>
                  {[
                    l.well && `${l.well} well`,
                    l.hurt && `${l.hurt} hurt`,
                    l.waiting && `${l.waiting} too early to tell`,
                    l.lost && `${l.lost} lost`,
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </span>
              </li>
            {/each}
          </ul>
          <p class="text-sm text-soft">By what was last decided of each.</p>
        {/if}
      </section>
    </div>
    <Due />
    {#if o.score.judged || o.score.open}<Foretold all={o.score} />{/if}
    <Shown />
    <FoundCauses />
    <Nights />
    {#if o.causes.length}
      <section class="mt-8 max-w-4xl" aria-label="Causes found">
        <h2>Causes found, by month</h2>
        <div class="overflow-x-auto">
          <table class="w-full min-w-[34rem] text-sm tabular-nums">
            <thead>
              <tr class="text-soft">
                <th class="text-left font-normal">Cause</th>
                {#each months as m, i (i)}<th class="w-9 text-right font-normal">{monthName(m).slice(0, 3)}</th>{/each}
                <th class="w-12 text-right font-normal">All</th>
              </tr>
            </thead>
            <tbody>
              {#each o.causes.slice(0, 15) as c (c.cause)}
                <tr class="border-t border-rule">
                  <th class="py-1.5 text-left font-semibold"><a href="#/almanac/cause/{c.cause}">{c.name}</a></th>
                  {#each months as _, i (i)}<td class="text-right">{c.months[i] || ''}</td>{/each}
                  <td class="text-right font-semibold">{c.finds}</td>
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
        {#if o.causes.length > 15}<p class="text-sm text-soft">The fifteen most frequent of {o.causes.length}.</p>{/if}
      </section>
    {/if}
  {/if}
</div>
