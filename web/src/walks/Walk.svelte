<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { push, replace } from 'svelte-spa-router';
  import { api, ask, ordersOf, Problem, type Plant, type Schemas } from '../api/client';
  import { field } from '../field/field.svelte';
  import { hours, inWords, plantsOf } from '../lib/dates';
  import { afterPaint } from '../lib/paint';
  import { part } from '../lib/part';
  import { attempt, house, keys } from '../lib/house.svelte';
  import { counts } from '../field/counts.svelte';
  import { finds, unnamed } from '../field/finds.svelte';
  import { takeAlong } from '../field/causes';
  import type { Form } from '../lib/portrait';
  import Portrait from '../lib/Portrait.svelte';
  import Later from '../lib/Later.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import { Decision } from './decision.svelte';
  import Judgement from './Judgement.svelte';
  import List from './List.svelte';
  import { Pad } from './presses.svelte';
  import PadOf from './Pad.svelte';
  import type { State } from './state';

  // What is not shown at once comes along all the same: it is wanted where there is no signal.
  const parts = [
    () => import('./End.svelte'),
    () => import('./MoreChecks.svelte'),
    () => import('./Overrule.svelte'),
    () => import('./ListOver.svelte'),
    () => import('./NewPlant.svelte'),
    () => import('./WhenToCut.svelte'),
    () => import('./Conflict.svelte'),
  ];
  async function ready() {
    for (const read of parts) await read(); // one after the other, so that a press between them is heard at once
  }

  let { params }: { params?: { property?: string; plant?: string } } = $props();
  const propertyId = $derived(Number(params?.property ?? 0));
  const ending = $derived(params?.plant === 'end');
  let gone = false; // one has left for another place
  let begun = $state(0); // the plant at which a property is begun that is opened without one
  const plantId = $derived(ending ? 0 : Number(params?.plant ?? 0) || begun);

  let lines = $state<Schemas['PlaceLine'][]>();
  let due = $state(new Set<number>()); // plants whose follow-up is due
  let listing = $state(false);
  let unread = $state(''); // why the walk could not be opened
  let loaded = $state(0); // property whose walk was asked for
  let wide = $state(window.innerWidth >= 1024);
  let more = $state(false);
  let adding = $state(false);
  let seeing = $state(false);
  let told = $state.raw<Schemas['Call']>(); // by a client, and nothing found since
  let cutting = $state(false);

  const walk = $derived(field.walk?.property === propertyId ? field.walk : undefined);
  const walkId = $derived(walk?.walk ?? 0);
  const plants = $derived(walk?.plants ?? []);
  // The order on the ground: round the property from the gate, first for the plants to look at, then for the others.
  const asks = (p: Plant) => p.look?.worth === true || !!p.take_in || due.has(p.id);
  const ordered = (list: Plant[]) =>
    [...list].sort((a, b) => Number(asks(b)) - Number(asks(a)) || (a.stop || 1e9) - (b.stop || 1e9) || a.id - b.id);
  const order = $derived(ordered(plants));
  const firstOf = (list: Plant[]) => list.find((p) => !done(p)) ?? list[0];
  const asking = $derived(order.filter(asks).length);
  const here = (p: Plant) => done(p) && p.verdict?.walk_id === walkId;
  const plant = $derived(plants.find((p) => p.id === plantId));
  const checks = $derived(walk?.looks[plantId]?.checks ?? []);
  const note = $derived(walk?.looks[plantId]?.note ?? '');
  const answer = $derived(walk?.answers[plantId]);
  const waiting = $derived(field.of(walkId, plantId));
  const done = (p: Plant) => p.decided;
  const looked = (p: Plant) => (walk?.looks[p.id]?.checks.length ?? 0) > 0;
  const skipped = (p: Plant) => !done(p) && (walk?.skipped.includes(p.id) ?? false);
  const howFar = (p: Plant): State =>
    done(p) && (here(p) || !due.has(p.id))
      ? 'decided'
      : field.of(walkId, p.id) || field.decisions.of(walkId, p.id)
        ? 'to send'
        : looked(p)
          ? 'checked'
          : skipped(p)
            ? 'skipped'
            : 'open';
  const finished = $derived(order.filter((p) => here(p) || looked(p)).length);
  const skips = $derived(order.filter(skipped).length);

  $effect(() => {
    if (!propertyId) void attempt(async () => void (lines = (await ask(api.GET('/api/v1/lookout'))).places));
    else if (loaded !== propertyId) void load(propertyId);
  });
  async function load(id: number) {
    loaded = id;
    shown = begun = 0;
    unread = '';
    const named = ending ? 0 : Number(params?.plant ?? 0);
    const p = await attempt(() => field.open(id, (list) => (list.find((p) => p.id === named) ?? firstOf(ordered(list)))?.id));
    if (p && p.status === 0) unread = 'This walk was not opened on this device yet. Open it once while there is a connection.';
    else if (p) loaded = 0;
    // What names causes without a connection comes along while there is one; the walk does not wait for it.
    else if (!field.away) void takeAlong(id).catch((e: unknown) => (e instanceof Problem && e.status === 0) || house.fail(e));
    due = new Set();
    if (!field.away && !p)
      await attempt(async () => {
        const orders = await ordersOf(id, 'due');
        if (loaded === id) due = new Set(orders.filter((o) => (o.day || o.best_day) <= house.today).map((o) => o.plant_id ?? 0));
      });
    if (!field.away) afterPaint(() => void ready().catch(() => undefined)); // what is not there is said when it is asked for
  }
  // A property opened without a plant begins at the first one to look at. It is drawn first, and named in the address then.
  $effect.pre(() => {
    if (params?.plant) begun = 0;
    const first = firstOf(order);
    if (!propertyId || plantId || ending || !first) return;
    begun = first.id;
    const at = `/walk/${propertyId}/${first.id}`;
    afterPaint(() => begun === first.id && !gone && void replace(at));
  });

  let shown = 0;
  let asked = ''; // the plant, and the reading of the walk, the verdict was asked for
  $effect.pre(() => {
    if (!plant || !walk || asked === `${walk.walk} ${walk.read} ${plantId}`) return;
    asked = `${walk.walk} ${walk.read} ${plantId}`;
    void untrack(() => field.ask(plantId));
  });
  $effect(() => {
    if (!plant || !walkId || shown === plantId) return;
    shown = plantId;
    decision.done = undefined;
    pad.begin();
    window.scrollTo(0, 0);
  });

  const pad = new Pad(() => ({ plant, walk: walkId, checks, note, suggested: answer?.next_check?.height_m }));
  const decision = new Decision(() => ({ plant, walk: walkId, checks, answer, waiting }));
  $effect(() => {
    void answer?.next_check?.height_m;
    untrack(() => field.current(plantId) && pad.follow());
  });

  // On to the next plant along the way that is not settled, and past the last one to what came of the walk. Going by a plant
  // decides nothing about it.
  function step(by: number) {
    const i = order.findIndex((p) => p.id === plantId);
    const settled = (p: Plant) => (done(p) && !due.has(p.id)) || here(p) || (field.away && looked(p));
    const p = by < 0 ? order[i - 1] : order.slice(i + 1).find((p) => !settled(p));
    if (p) void push(`/walk/${propertyId}/${p.id}`);
    else if (by > 0) void push(`/walk/${propertyId}/end`);
  }

  const standing = $derived(plant?.decided ? plant.verdict : undefined);

  onMount(() => {
    keys.screen = [
      { key: 'H', does: 'a bud held', run: () => pad.bud(true) },
      { key: 'B', does: 'a bud broke off', run: () => pad.bud(false) },
      { key: 'G', does: 'bark green', run: () => pad.scratch('green') },
      { key: 'R', does: 'bark brown', run: () => pad.scratch('brown') },
      { key: 'U', does: 'bark unclear', run: () => pad.scratch('unclear') },
      {
        key: 'S',
        does: 'a living shoot here, on a grafted plant with its true leaf',
        run: () => plant && pad.shoot(pad.grafted ? 'true' : undefined),
      },
      { key: 'K', does: 'a shoot of the rootstock here', run: () => pad.grafted && pad.shoot('rootstock') },
      { key: 'ArrowUp', does: 'check higher', run: () => pad.nudge(1) },
      { key: 'ArrowDown', does: 'check lower', run: () => pad.nudge(-1) },
      { key: 'Backspace', does: 'take the last press back', run: () => pad.takeBack() },
      {
        key: 'Enter',
        does: 'accept the verdict',
        run: () => decision.ready && !standing && void decision.decide('accepted'),
      },
      { key: 'N', does: 'not now', run: () => plant && void decision.decide('not now') },
      { key: 'M', does: 'more checks', run: () => plant && (more = true) },
      { key: 'W', does: 'what do you see on it', run: () => plant && (seeing = true) },
      { key: 'A', does: 'add a plant that is not on the list', run: () => (adding = true) },
      { key: ' ', does: 'next plant', run: () => plant && step(1) },
      { key: 'P', does: 'plant before', run: () => plant && step(-1) },
    ];
    return () => {
      gone = true;
      keys.screen = [];
    };
  });
</script>

{#snippet progress()}
  <div class="text-xs text-soft">
    <div
      role="progressbar"
      aria-label="Plants looked at"
      aria-valuemin="0"
      aria-valuemax={order.length}
      aria-valuenow={finished}
      class="my-0.5 h-2 border border-soft bg-white"
    >
      <div class="h-full bg-moss" style="width:{order.length ? (100 * finished) / order.length : 0}%"></div>
    </div>
    <span data-testid="progress"
      >{#if walk && walk.day !== house.today && (house.today || field.away)}<b>Walk of {inWords(walk.day)}.</b>
      {/if}{finished} of {order.length} looked at{#if skips}, {skips} put off{/if}{#if field.left + finds.left + unnamed.left + counts.left},
        <b class="text-sun">{field.left + finds.left + unnamed.left + counts.left} to send</b>{/if}</span
    >
  </div>
{/snippet}
{#snippet listOf(onpick?: () => void)}
  <List
    {order}
    {asking}
    {propertyId}
    {plantId}
    {howFar}
    {here}
    {due}
    {progress}
    {onpick}
    onnew={() => ((listing = false), (adding = true))}
  />
{/snippet}

<!-- A button pressed by hand gives the keys back: Space is the next plant, not the same press again. -->
<svelte:window
  onresize={() => (wide = window.innerWidth >= 1024)}
  onclick={(e) => e.detail > 0 && (e.target as Element).closest('button')?.blur()}
/>
<svelte:head><title>{plant ? `${plant.common} · ` : ''}Walk · Mezzadro</title></svelte:head>

{#if !propertyId}
  <div class="px-5 py-4">
    <h1>Walk</h1>
    <p class="text-soft">
      Choose a property, the one that asks most first; its plants to look at come first, in their order on the ground.
    </p>
    <p><a class="inline-flex min-h-11 items-center underline" href="#/practice">Practise on a made-up garden</a></p>
    <ul class="mt-3 max-w-2xl border-t border-rule">
      {#each lines as p (p.property_id)}
        <li class="border-b border-rule">
          <a
            class="flex min-h-14 flex-wrap items-center justify-between gap-x-4 px-2 text-ink no-underline hover:bg-sheet"
            href="#/walk/{p.property_id}"
            ><span class="name font-semibold">{p.property}</span><span class="text-sm text-soft"
              >{#if p.looks}<b class="text-ink">{p.looks} to look at</b>, {hours(p.minutes)}: {p.why}{:else}{p.why}{/if}, of {plantsOf(
                p.plants,
              )}</span
            ></a
          >
        </li>
      {:else}
        {#if lines}<li class="py-3">No property yet. <a href="#/grounds">Add one in Grounds</a>.</li>{/if}
      {/each}
    </ul>
  </div>
{:else if unread}
  <div class="px-5 py-4">
    <h1>Walk</h1>
    <p class="mt-1">{unread}</p>
    <p class="mt-2"><button class="min-h-11 text-moss underline" onclick={() => load(propertyId)}>Try again</button></p>
  </div>
{:else if plants.length === 0 && walkId}
  <div class="px-5 py-4">
    <h1>Walk</h1>
    <p class="mt-1">There is no plant on this property yet. <a href="#/grounds/{propertyId}">Add its plants in Grounds</a>.</p>
    <button class="mt-2 min-h-11 text-moss underline" onclick={() => (adding = true)}>One stands here: add it</button>
  </div>
{:else}
  <div class="grid grid-cols-[minmax(0,1fr)] text-lg lg:h-dvh lg:grid-cols-[13.5rem_minmax(0,1fr)_26rem]">
    {#if wide}
      {@render listOf()}
    {/if}

    {#if ending && walk}
      <section class="min-h-0 lg:col-span-2 lg:overflow-y-auto" aria-label="End of the walk">
        {#await part(() => import('./End.svelte')) then it}<it.default {order} {asking} {propertyId} {howFar} {here} />{/await}
        {#if !wide}<div class="px-3 pb-4">
            <button class="min-h-12 border border-rule bg-white px-4" onclick={() => (listing = true)}
              >All plants of the walk</button
            >
          </div>{/if}
      </section>
    {:else if plant}
      <section aria-label="Plant" class="flex min-h-0 min-w-0 flex-col px-4 py-3 max-lg:px-3 lg:overflow-y-auto">
        <header class="flex flex-wrap items-start justify-end gap-2">
          <div class="min-w-28 flex-1">
            {#if !wide}<button class="block min-h-11 w-full text-left" aria-haspopup="dialog" onclick={() => (listing = true)}
                ><span class="sr-only">All plants of the walk:</span>{@render progress()}</button
              >{/if}
            <h1 class="name">
              <a class="text-ink no-underline hover:underline" href="#/plant/{plant.id}">{plant.common}</a
              >{#if plant.count > 1}<span class="font-normal text-soft">&nbsp;×&nbsp;{plant.count}</span>{/if}
            </h1>
            <p class="text-sm break-words">
              <span class="latin">{plant.botanical}</span>
              {#if told}<button
                  class="min-h-6 border-l-4 border-water pl-2 text-left text-sm text-moss underline"
                  onclick={() => (seeing = true)}
                  >{told.caller ? `A call from ${told.caller}` : 'A call'}, {inWords(told.day)}<span class="sr-only"
                    >: see what was told</span
                  ></button
                >{/if}
              {#if plant.label}<span class="block font-semibold">{plant.label}</span>{/if}
            </p>
          </div>
          <button class="min-h-11 min-w-11 border border-rule bg-white px-2" aria-label="Plant before" onclick={() => step(-1)}
            >‹</button
          >
          <button class="min-h-11 border border-rule bg-white px-3 font-semibold" onclick={() => step(1)}>Next plant ›</button>
        </header>
        {#if told?.said}<p class="mt-1 border-l-4 border-water pl-2 text-sm max-lg:hidden">Said to them: “{told.said}”</p>{/if}
        {#if plant.look && !answer?.reasons.some((r) => r.text.includes(plant!.look!.reason))}<p
            class="mt-1 text-sm text-soft max-lg:hidden"
          >
            {plant.look.reason}
          </p>{/if}
        {#if pad.grafted && plant.graft.rootstock_leaf}<p class="text-sm text-soft max-lg:hidden">
            {plant.graft.habit === 'usually' ? 'Usually' : 'Sometimes'} grafted: a rootstock’s shoots have {plant.graft
              .rootstock_leaf}.
          </p>{/if}

        <div class="portrait min-h-56 flex-1 max-lg:h-[min(13.5rem,24dvh)] max-lg:min-h-28 max-lg:flex-none">
          <Portrait
            form={plant.form as Form}
            rowM={plant.row_m}
            heightM={plant.height_m}
            spreadM={plant.spread_m}
            name={plant.common}
            {answer}
            {checks}
            graftM={plant.graft_m}
            foretold={plant.look?.worth}
            active={pad.palm ? undefined : pad.active}
            box={wide ? [430, 440] : [380, 216]}
            onpick={pad.palm ? undefined : (m) => pad.pick(m)}
          />
        </div>

        <div class="space-y-2">
          {#if waiting?.theirs}{#await part(() => import('./Conflict.svelte')) then it}<it.default
                {waiting}
                name={plant.common}
              />{/await}{/if}
          <PadOf
            {pad}
            {plant}
            {walkId}
            {checks}
            {note}
            {answer}
            {waiting}
            {wide}
            onmore={() => (more = true)}
            onsee={() => (seeing = true)}
            oncut={() => (cutting = true)}
            onnew={() => (adding = true)}
          />
        </div>
      </section>

      <Judgement
        {plant}
        {answer}
        {checks}
        {waiting}
        {wide}
        {decision}
        onspot={(key, seen, amount) => pad.enter({ kind: 'spot', result: key, seen, ...(amount ? { amount } : {}) })}
        onnext={() => step(1)}
      />
    {:else if !walk}
      <div class="lg:col-span-2"><Waiting /></div>
    {:else}
      <p class="p-5">This plant is not on the property, or was removed. <a href="#/walk/{propertyId}">Start at the first</a>.</p>
    {/if}
  </div>
{/if}

{#if propertyId}<Later when={adding}
    >{#await part(() => import('./NewPlant.svelte')) then it}<it.default
        bind:open={adding}
        {propertyId}
        stop={plant?.stop ?? 0}
      />{/await}</Later
  >{/if}
{#if plant}<Later when={seeing || !!answer || field.away}
    >{#await part(() => import('./WhatSeen.svelte')) then it}<it.default bind:open={seeing} bind:told {plant} />{/await}</Later
  >{/if}
{#if plant}<Later when={cutting}
    >{#await part(() => import('./WhenToCut.svelte')) then it}<it.default bind:open={cutting} {plant} />{/await}</Later
  >{/if}
{#if plant}<Later when={more}
    >{#await part(() => import('./MoreChecks.svelte')) then it}<it.default
        bind:open={more}
        {plant}
        {checks}
        at={pad.active}
        onat={(m) => pad.pick(m)}
        onadd={(c) => pad.enter(c)}
        onremove={(c) => pad.remove(c)}
        onback={() => pad.takeBack()}
      />{/await}</Later
  >{/if}
{#if !wide}<Later when={listing}
    >{#await part(() => import('./ListOver.svelte')) then it}<it.default bind:open={listing}
        >{@render listOf(() => (listing = false))}</it.default
      >{/await}</Later
  >{/if}
