<script lang="ts">
  /** Ticks a job off: done with how long it took, skipped with why, and back again. */
  import { Button, Input, Modal } from 'flowbite-svelte';
  import { api, ask, onceKey, type Order, type Problem, type Schemas } from '../api/client';
  import { ticks } from '../field/ticks.svelte';
  import UseFields from '../treat/UseFields.svelte';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { keptOf } from '../lib/kept';

  interface Props {
    order: Order;
    onkept: () => void;
    small?: boolean;
  }
  let { order, onkept, small = false }: Props = $props();

  let asking = $state<'done' | 'skipped'>();
  let took = $state('');
  let note = $state('');
  let on = $state('');
  let problem = $state<Problem>();
  let use = $state<Schemas['UseIn']>(); // of a treatment or a feeding
  const uses = $derived(order.kind === 'treat' || (order.kind === 'feed' && order.origin === 'programme'));
  const theirs = $derived(keptOf<Order>(problem));

  function open(what: 'done' | 'skipped') {
    asking = what;
    took = String(order.minutes);
    note = '';
    on = what === 'done' && order.overdue ? order.day : house.today;
    problem = undefined;
  }
  const waits = $derived(ticks.of(order.id)); // ticked off on this device, and not with the house yet
  /** Ticks off. Without a connection it waits on this device. */
  async function tick(o: Order, state: 'done' | 'skipped') {
    problem = await attempt(async () => {
      const kept = await ticks.keep(
        {
          id: o.id,
          state,
          version: o.version,
          on: on || house.today,
          took_minutes: state === 'done' ? Math.round(Number(took)) || 0 : 0,
          note: note.trim(),
          ...(state === 'done' && uses && use ? { use: $state.snapshot(use) as Schemas['UseIn'] } : {}),
        },
        o.title,
      );
      asking = undefined;
      onkept();
      if (kept) house.say(`${o.title}: ${state}.`, () => back(kept, true).then(() => {}));
      else
        house.say(`${o.title}: ${state}. It is kept on this device, and sent when there is a connection.`, async () => {
          const w = ticks.of(o.id);
          if (w) await ticks.drop(w.key);
        });
    });
  }
  async function back(o: Order, quietly = false) {
    problem = await attempt(async () => {
      const kept = await ask(
        api.PUT('/api/v1/orders/{id}/state', {
          params: { path: { id: o.id }, header: onceKey() },
          body: { state: 'waiting', version: o.version },
        }),
      );
      onkept();
      if (!quietly) house.say(`${kept.title}: open again.`);
    });
  }
  const look = $derived(`border border-rule bg-white px-3 ${small ? 'min-h-9 text-sm' : 'min-h-11'}`);
</script>

<span class="inline-flex flex-wrap gap-1.5">
  {#if waits}
    <span class="text-sm {waits.refused ? 'font-semibold text-bad' : 'text-sun'}"
      >{waits.body.state}{waits.refused ? `, and not taken: ${waits.refused}` : ': waits to be sent'}</span
    >
    <button class={look} onclick={() => ticks.drop(waits.key)}>Take it back<span class="sr-only">: {order.title}</span></button>
  {:else if order.state === 'done' || order.state === 'skipped'}
    <button class={look} onclick={() => back(order)} aria-label="Not {order.state} after all: {order.title}, {order.property}"
      >Not {order.state} after all</button
    >
  {:else}
    <button class="{look} font-semibold text-moss" onclick={() => open('done')} aria-label="Done: {order.title}, {order.property}"
      >Done</button
    >
    <button class={look} onclick={() => open('skipped')} aria-label="Skip: {order.title}, {order.property}">Skip</button>
  {/if}
</span>

{#if asking}
  <Modal open title={asking === 'done' ? 'Done' : 'Skip this job'} size="sm" onclose={() => (asking = undefined)}>
    <form
      class="space-y-3 text-ink"
      onsubmit={(e) => {
        e.preventDefault();
        void tick(order, asking!);
      }}
    >
      <p class="font-semibold">{order.title}<span class="block text-sm font-normal text-soft">{order.property}</span></p>
      {#if asking === 'done'}
        <label class="block font-semibold"
          >Minutes it took<Input class="mt-1 font-normal" inputmode="numeric" bind:value={took} /></label
        >
        {#if problem?.fields.took_minutes}<p class="text-bad">{problem.fields.took_minutes}</p>{/if}
        <label class="block font-semibold"
          >On<Input class="mt-1 font-normal" type="date" bind:value={on} max={house.today} /></label
        >
        {#if problem?.fields.on}<p class="text-bad">{problem.fields.on}</p>{/if}
        {#if uses}<UseFields {order} bind:use problems={problem?.fields} />{/if}
      {/if}
      <label class="block font-semibold"
        >{asking === 'done' ? 'What was seen' : 'Why'}<Input class="mt-1 font-normal" bind:value={note} /></label
      >
      {#if problem?.fields.note}<p class="text-bad">{problem.fields.note}</p>{/if}
      {#if theirs}<p role="alert" class="border-2 border-sun p-2">
          Another device has changed this job: it is {theirs.state}{theirs.day
            ? `, ${inWords(theirs.day, house.today)}`
            : ''}{theirs.note ? ` (“${theirs.note}”)` : ''}.
          <button
            type="button"
            class="min-h-11 text-moss underline"
            onclick={() => {
              asking = undefined;
              onkept();
            }}>Leave it so</button
          >
          {#if theirs.state !== 'done' && theirs.state !== 'skipped'}<button
              type="button"
              class="min-h-11 text-moss underline"
              onclick={() => tick(theirs, asking!)}>Still {asking === 'done' ? 'done' : 'skip it'}</button
            >{/if}
        </p>{/if}
      <div class="flex gap-2">
        <Button type="submit">{asking === 'done' ? 'Tick it off' : 'Skip it'}</Button>
        <Button color="light" onclick={() => (asking = undefined)}>Back</Button>
      </div>
    </form>
  </Modal>
{/if}
