<script lang="ts">
  /** The end of a walk: what was found and decided, what is still to be sent or looked at, and where to go next. */
  import { api, ask, ordersOf, type Plant, type Schemas } from '../api/client';
  import { field } from '../field/field.svelte';
  import { hours, plantsOf } from '../lib/dates';
  import { reading } from '../lib/reading';
  import type { State } from './state';

  interface Props {
    order: Plant[];
    asking: number;
    propertyId: number;
    howFar: (p: Plant) => State;
    here: (p: Plant) => boolean; // decided on this walk
  }
  let { order, asking, propertyId, howFar, here }: Props = $props();

  let lines = $state<Schemas['PlaceLine'][]>([]);
  let made = $state<Schemas['Order'][]>([]);
  const reads = reading();
  $effect(() => {
    const property = propertyId;
    const mine = new Set(order.filter(here).map((p) => p.verdict?.id));
    void reads(async (signal) => {
      lines = (await ask(api.GET('/api/v1/lookout', { signal }))).places;
      made = (await ordersOf(property, 'standing', signal)).filter((o) => mine.has(o.origin_id));
    });
  });
  const decided = $derived(order.filter(here));
  const checked = $derived(order.filter((p) => howFar(p) === 'checked' || howFar(p) === 'to send'));
  const putOff = $derived(order.filter((p) => howFar(p) === 'skipped'));
  const left = $derived(order.slice(0, asking).filter((p) => howFar(p) === 'open'));
  const others = $derived(order.slice(asking).filter((p) => howFar(p) === 'open'));
  const photos = $derived((field.walk?.photos.length ?? 0) + field.photos.filter((p) => p.walk === field.walk?.walk).length);
  const next = $derived(lines.find((l) => l.property_id !== propertyId && l.looks > 0));
</script>

{#snippet list(name: string, plants: Plant[], says: (p: Plant) => string)}
  {#if plants.length}
    <section class="mt-4" aria-label={name}>
      <h2>{name} <span class="font-normal text-soft">{plants.length}</span></h2>
      <ul class="border-t border-rule">
        {#each plants as p (p.id)}
          <li class="border-b border-rule">
            <a class="block min-h-12 py-1.5 leading-snug text-ink" href="#/walk/{propertyId}/{p.id}"
              ><b>{p.common}</b>{#if p.count > 1}&nbsp;× {p.count}{/if}{#if p.label}, {p.label}{/if}<span
                class="block text-sm text-soft">{says(p)}</span
              ></a
            >
          </li>
        {/each}
      </ul>
    </section>
  {/if}
{/snippet}

<div class="max-w-2xl px-5 py-4 max-lg:px-3" data-testid="end">
  <h1>The walk of {order[0]?.property ?? 'this property'}</h1>
  <p>
    {plantsOf(decided.length)} decided, {checked.length} checked and not decided, {photos}
    {photos === 1 ? 'photo' : 'photos'}{#if made.length}, {made.length} {made.length === 1 ? 'job' : 'jobs'} asked for{/if}.
  </p>
  {#if field.left}<p class="mt-2 border-l-4 border-sun bg-white px-3 py-2">
      <b>{field.left} still to send.</b> It is kept on this device, and goes out by itself when there is a connection.
    </p>{/if}
  {#each field.decisions.list.filter((d) => d.refused && d.property === propertyId) as d (d.id)}<p
      role="alert"
      class="mt-2 border-2 border-bad bg-white px-3 py-2"
    >
      <b>Not taken: <a href="#/walk/{propertyId}/{d.plant}">{d.name}</a>, {d.kind}.</b>
      {d.refused}
    </p>{/each}
  {@render list(
    'Still to look at',
    left,
    (p) => p.look?.own ?? (p.take_in ? 'Tender: before the first frost.' : 'A follow-up is due.'),
  )}
  {@render list('Put off', putOff, () => 'Put off on this walk: go back to it.')}
  {@render list(
    'Checked, not decided',
    checked,
    (p) => field.walk?.answers[p.id]?.verdict.sentence ?? 'Kept; judged when there is a connection.',
  )}
  {@render list('Decided', decided, (p) => p.verdict?.sentence ?? '')}
  {#if others[0]}<p class="mt-3">
      {plantsOf(others.length)} that asked nothing {others.length === 1 ? 'was' : 'were'} not looked at, the first
      <a href="#/walk/{propertyId}/{others[0].id}">{others[0].common}{others[0].label ? `, ${others[0].label}` : ''}</a>.
    </p>{/if}
  {#if made.length}
    <section class="mt-4" aria-label="Jobs asked for">
      <h2>Jobs asked for</h2>
      <ul class="border-t border-rule">
        {#each made as o (o.id)}<li class="border-b border-rule">
            <a class="block min-h-11 py-1.5" href="#/rounds/{o.id}">{o.title}</a>
          </li>{/each}
      </ul>
    </section>
  {/if}
  <p class="mt-5 flex flex-wrap gap-2">
    {#if left[0]}<a
        class="inline-flex min-h-12 items-center bg-moss px-4 font-semibold text-white no-underline"
        href="#/walk/{propertyId}/{left[0].id}">Back to {left[0].common}</a
      >{/if}
    {#if next}<a
        class="inline-flex min-h-12 items-center px-4 font-semibold {left[0]
          ? 'border border-ink bg-white text-ink'
          : 'bg-moss text-white'} no-underline"
        href="#/walk/{next.property_id}">Next: {next.property}, {next.looks} to look at, {hours(next.minutes)}</a
      >{/if}
    <a class="inline-flex min-h-12 items-center border border-rule bg-white px-4 text-ink no-underline" href="#/rounds"
      >Put the jobs on days</a
    >
  </p>
</div>
