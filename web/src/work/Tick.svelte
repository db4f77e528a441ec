<script lang="ts">
  /** How a job ends: done, in part, not today, or not needed any more; and back again. */
  import { Button, Input, Modal } from 'flowbite-svelte';
  import { api, ask, onceKey, type Order, type Problem, type Schemas } from '../api/client';
  import { ticks } from '../field/ticks.svelte';
  import UseFields from '../treat/UseFields.svelte';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { dropDraft } from '../lib/draft';
  import { keptOf } from '../lib/kept';

  interface Props {
    order: Order;
    onkept: () => void;
    small?: boolean;
  }
  let { order, onkept, small = false }: Props = $props();

  type End = 'done' | 'partly done' | 'not today' | 'skipped';
  const ends: [End, string][] = [
    ['done', 'Done'],
    ['partly done', 'Partly done'],
    ['not today', 'Not today'],
    ['skipped', 'Not needed any more'],
  ];
  const reasons = ['gate locked', 'too wet', 'no time', 'the client asked', 'other'];
  let asking = $state<End>();
  let left = $state('');
  let reason = $state('');
  let never = $state(false);
  let took = $state('');
  let note = $state('');
  let on = $state('');
  let problem = $state<Problem>();
  let use = $state<Schemas['UseIn']>(); // of a treatment or a feeding
  const uses = $derived(order.kind === 'treat' || (order.kind === 'feed' && order.origin === 'programme'));
  // The look after a treatment: whether it helped.
  const looks = $derived(order.kind === 'look' && order.origin === 'programme');
  const found = [
    ['gone', 'Gone: close the find'],
    ['less', 'Less than before'],
    ['same', 'The same, or worse'],
  ] as const;
  let helped = $state<'gone' | 'less' | 'same'>();
  const theirs = $derived(keptOf<Order>(problem));
  const dirty = $derived(!!note.trim());

  const draft = () => `end of ${order.id}`; // what was typed is not lost when the window is closed
  function open(what: End) {
    if (what !== 'done' && !note) note = sessionStorage.getItem(draft()) ?? '';
    pick(what);
    problem = undefined;
  }
  function pick(what: End) {
    asking = what;
    took = String(what === 'partly done' ? Math.round(order.minutes / 2) : order.minutes);
    left = String(Math.max(1, Math.round(order.minutes / 2)));
    reason ||= reasons[0]!;
    on = what === 'done' && order.overdue ? order.day : house.today;
  }
  function close() {
    asking = undefined;
    if (note.trim()) sessionStorage.setItem(draft(), note);
    else sessionStorage.removeItem(draft());
  }
  const waits = $derived(ticks.of(order.id)); // ticked off on this device, and not with the house yet
  /** Ticks off. Without a connection it waits on this device. */
  async function tick(o: Order, state: End) {
    problem = await attempt(async () => {
      const kept = await ticks.keep(
        {
          id: o.id,
          state,
          version: o.version,
          on: on || house.today,
          took_minutes: state === 'done' || state === 'partly done' ? Math.round(Number(took)) || 0 : 0,
          note: note.trim(),
          ...(state === 'partly done' ? { left_minutes: Math.round(Number(left)) || 0 } : {}),
          ...(state === 'not today' ? { reason: reason === 'other' ? note.trim() : reason } : {}),
          ...(state === 'skipped' && never ? { never_again: true } : {}),
          ...(state === 'done' && looks && helped ? { helped } : {}),
          ...(state === 'done' && uses && use ? { use: $state.snapshot(use) as Schemas['UseIn'] } : {}),
        },
        o.title,
      );
      asking = undefined;
      note = '';
      sessionStorage.removeItem(draft());
      dropDraft(`use of ${o.id}`);
      onkept();
      if (kept) house.say(`${o.title}: ${said(state)}.`, () => back(kept, true).then(() => {}));
      else
        house.say(`${o.title}: ${said(state)}. It is kept on this device, and sent when there is a connection.`, async () => {
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
          body: { state: o.state === 'done' || o.state === 'skipped' ? 'waiting' : 'as before', version: o.version },
        }),
      );
      onkept();
      if (!quietly) house.say(`${kept.title}: open again.`);
    });
  }
  const said = (state: End) => (state === 'skipped' ? 'not needed any more' : state);
  const look = $derived(`border border-rule bg-white px-3 ${small ? 'min-h-9 text-sm' : 'min-h-11'}`);
</script>

<span class="inline-flex flex-wrap gap-1.5">
  {#if waits}
    <span class="text-sm {waits.refused ? 'font-semibold text-bad' : 'text-sun'}"
      >{said(waits.body.state)}{waits.refused ? `, and not taken: ${waits.refused}` : ': waits to be sent'}</span
    >
    <button class={look} onclick={() => ticks.drop(waits.key)}>Take it back<span class="sr-only">: {order.title}</span></button>
  {:else if order.state === 'done' || order.state === 'skipped'}
    <button
      class={look}
      onclick={() => back(order)}
      aria-label="{order.state === 'done' ? 'Not done after all' : 'Needed after all'}: {order.title}, {order.property}"
      >{order.state === 'done' ? 'Not done after all' : 'Needed after all'}</button
    >
  {:else}
    <button class="{look} font-semibold text-moss" onclick={() => open('done')} aria-label="Done: {order.title}, {order.property}"
      >Done</button
    >
    <button class={look} onclick={() => open('not today')} aria-label="Not done: {order.title}, {order.property}"
      >Not done …</button
    >
  {/if}
</span>

{#if asking}
  <Modal open title={ends.find(([e]) => e === asking)?.[1]} size="sm" onclose={close} outsideclose={!dirty}>
    <form
      class="space-y-3 text-ink"
      onsubmit={(e) => {
        e.preventDefault();
        void tick(order, asking!);
      }}
    >
      <p class="font-semibold">{order.title}<span class="block text-sm font-normal text-soft">{order.property}</span></p>
      {#if asking === 'done' && order.hold && !order.hold.anyway}<p role="alert" class="border-l-4 border-sun pl-2">
          {order.hold.why}
        </p>{/if}
      {#if asking !== 'done'}
        <div class="grid gap-1" role="radiogroup" aria-label="How it ended">
          {#each ends.slice(1) as [e, name] (e)}
            <label
              class="flex min-h-11 items-center gap-3 border px-3 {asking === e ? 'border-ink font-semibold' : 'border-rule'}"
              ><input type="radio" class="size-5 accent-moss" name="end" checked={asking === e} onchange={() => pick(e)} />{name}
              <span class="text-sm font-normal text-soft"
                >{e === 'partly done'
                  ? 'the rest stays a job'
                  : e === 'not today'
                    ? 'back to the list'
                    : 'stands among the ended jobs'}</span
              ></label
            >
          {/each}
        </div>
      {/if}
      {#if asking === 'done' || asking === 'partly done'}
        <label class="block font-semibold"
          >Minutes it took<Input class="mt-1 font-normal" inputmode="numeric" bind:value={took} /></label
        >
        {#if problem?.fields.took_minutes}<p class="text-bad">{problem.fields.took_minutes}</p>{/if}
      {/if}
      {#if asking === 'partly done'}
        <label class="block font-semibold"
          >Minutes that are left<Input class="mt-1 font-normal" inputmode="numeric" bind:value={left} /></label
        >
        {#if problem?.fields.left_minutes}<p class="text-bad">{problem.fields.left_minutes}</p>{/if}
      {/if}
      {#if asking === 'not today'}
        <label class="block font-semibold"
          >Why not<select
            class="mt-1 block min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2 font-normal"
            bind:value={reason}
          >
            {#each reasons as r}<option value={r}>{r}</option>{/each}
          </select></label
        >
        {#if problem?.fields.reason}<p class="text-bad">{problem.fields.reason}</p>{/if}
      {/if}
      <label class="block font-semibold">On<Input class="mt-1 font-normal" type="date" bind:value={on} max={house.today} /></label
      >
      {#if problem?.fields.on}<p class="text-bad">{problem.fields.on}</p>{/if}
      {#if asking === 'done' && looks}<div class="grid gap-1" role="radiogroup" aria-label="Did it help">
          {#each found as [how, name] (how)}<label
              class="flex min-h-11 items-center gap-3 border px-3 {helped === how ? 'border-ink font-semibold' : 'border-rule'}"
              ><input
                type="radio"
                class="size-5 accent-moss"
                name="helped"
                checked={helped === how}
                onchange={() => (helped = how)}
              />{name}</label
            >{/each}
        </div>{/if}
      {#if asking === 'done' && uses}<UseFields {order} bind:use problems={problem?.fields} />{/if}
      <label class="block font-semibold"
        >{asking === 'done' || asking === 'partly done'
          ? 'What was seen'
          : asking === 'skipped'
            ? 'Why'
            : reason === 'other'
              ? 'Why'
              : 'In your words'}<Input class="mt-1 font-normal" bind:value={note} /></label
      >
      {#if problem?.fields.note}<p class="text-bad">{problem.fields.note}</p>{/if}
      {#if asking === 'skipped'}<label class="flex min-h-11 items-center gap-3"
          ><input type="checkbox" class="size-5 accent-moss" bind:checked={never} />Where it repeats: not again either</label
        >{/if}
      {#if theirs}<p role="alert" class="border-2 border-sun p-2">
          Another device has changed this job: it is {theirs.state}{theirs.day ? `, ${inWords(theirs.day)}` : ''}{theirs.note
            ? ` (“${theirs.note}”)`
            : ''}.
          <button
            type="button"
            class="min-h-11 text-moss underline"
            onclick={() => {
              close();
              onkept();
            }}>Leave it so</button
          >
          {#if theirs.state !== 'done' && theirs.state !== 'skipped'}<button
              type="button"
              class="min-h-11 text-moss underline"
              onclick={() => tick(theirs, asking!)}>Still {said(asking!)}</button
            >{/if}
        </p>{/if}
      <div class="flex gap-2">
        <Button type="submit">{asking === 'done' ? 'Tick it off' : 'Keep it so'}</Button>
        <Button color="light" onclick={close}>Back</Button>
      </div>
    </form>
  </Modal>
{/if}
