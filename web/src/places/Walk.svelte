<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { push, replace } from 'svelte-spa-router';
  import { api, ask, type Plant, type Property } from '../api/client';
  import { field } from '../field/field.svelte';
  import Conflict from '../lib/Conflict.svelte';
  import { inWords, plantsOf } from '../lib/dates';
  import { attempt, house, keys } from '../lib/house.svelte';
  import MoreChecks from '../lib/MoreChecks.svelte';
  import NewPlant from '../walk/NewPlant.svelte';
  import type { Form } from '../lib/portrait';
  import Portrait from '../lib/Portrait.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import { Decision } from '../walk/decision.svelte';
  import Judgement from '../walk/Judgement.svelte';
  import List from '../walk/List.svelte';
  import { Pad } from '../walk/presses.svelte';
  import PadOf from '../walk/Pad.svelte';
  import type { State } from '../walk/state';

  let { params }: { params?: { property?: string; plant?: string } } = $props();
  const propertyId = $derived(Number(params?.property ?? 0));
  const plantId = $derived(Number(params?.plant ?? 0));

  let properties = $state<Property[]>([]);
  let unread = $state(''); // why the walk could not be opened
  let loaded = $state(0); // property whose walk was asked for
  let wide = $state(window.innerWidth >= 1024);
  let more = $state(false);
  let adding = $state(false);

  const walk = $derived(field.walk?.property === propertyId ? field.walk : undefined);
  const walkId = $derived(walk?.walk ?? 0);
  const plants = $derived(walk?.plants ?? []);
  // The order on the ground: round the property from the gate, first for the plants to look at, then for the others.
  const asks = (p: Plant) => p.look?.worth === true || !!p.take_in;
  const order = $derived(
    [...plants].sort((a, b) => Number(asks(b)) - Number(asks(a)) || (a.stop || 1e9) - (b.stop || 1e9) || a.id - b.id),
  );
  const asking = $derived(order.filter(asks).length);
  const plant = $derived(plants.find((p) => p.id === plantId));
  const checks = $derived(walk?.looks[plantId]?.checks ?? []);
  const note = $derived(walk?.looks[plantId]?.note ?? '');
  const answer = $derived(walk?.answers[plantId]);
  const waiting = $derived(field.of(walkId, plantId));
  const done = (p: Plant) => p.decided;
  const looked = (p: Plant) => (walk?.looks[p.id]?.checks.length ?? 0) > 0;
  const skipped = (p: Plant) => !done(p) && (walk?.skipped.includes(p.id) ?? false);
  const howFar = (p: Plant): State =>
    done(p) ? 'decided' : field.of(walkId, p.id) ? 'to send' : looked(p) ? 'checked' : skipped(p) ? 'skipped' : 'open';
  const finished = $derived(order.filter((p) => done(p) || looked(p)).length);
  const skips = $derived(order.filter(skipped).length);

  $effect(() => {
    if (!propertyId)
      void attempt(
        async () =>
          void (properties = (await ask(api.GET('/api/v1/properties', { params: { query: { limit: 1000 } } }))).items ?? []),
      );
    else if (loaded !== propertyId) void load(propertyId);
  });
  async function load(id: number) {
    loaded = id;
    shown = 0;
    unread = '';
    const p = await attempt(() => field.open(id));
    if (p && p.status === 0) unread = 'This walk was not opened on this device yet. Open it once while there is a connection.';
    else if (p) loaded = 0;
  }
  // A property opened without a plant goes to the first one to look at.
  $effect(() => {
    const first = order.find((p) => !done(p)) ?? order[0];
    if (propertyId && !plantId && first) void replace(`/walk/${propertyId}/${first.id}`);
  });

  let shown = 0;
  let asked = ''; // the plant, and the reading of the walk, the verdict was asked for
  $effect(() => {
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
    untrack(() => !waiting && pad.follow());
  });

  // On to the next plant that is not done yet and was not skipped, then to those that were, else to the next one. Who goes on
  // from a plant that nothing was found at has skipped it.
  function step(by: number) {
    const i = order.findIndex((p) => p.id === plantId);
    if (by > 0 && plant && !done(plant) && !looked(plant)) field.skip(plantId, true);
    const along = order
      .map((_, k) => order[(i + by * (k + 1) + 2 * order.length) % order.length]!)
      .filter((p) => p.id !== plantId);
    const open = along.filter((p) => !done(p) && !(field.away && looked(p)));
    const p = by < 0 ? along[0] : (open.find((p) => !skipped(p)) ?? open[0] ?? along[0]);
    if (p) void push(`/walk/${propertyId}/${p.id}`);
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
      { key: 'A', does: 'add a plant that is not on the list', run: () => (adding = true) },
      { key: ' ', does: 'next plant', run: () => plant && step(1) },
      { key: 'P', does: 'plant before', run: () => plant && step(-1) },
    ];
    return () => {
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
      class="my-0.5 h-1.5 bg-rule"
    >
      <div class="h-full bg-moss" style="width:{order.length ? (100 * finished) / order.length : 0}%"></div>
    </div>
    <span data-testid="progress"
      >{#if walk && walk.day !== house.today && (house.today || field.away)}<b>Walk of {inWords(walk.day, house.today)}.</b>
      {/if}{finished} of {order.length} looked at{#if skips}, {skips} skipped{/if}{#if field.left}, <b class="text-sun"
          >{field.left} to send</b
        >{/if}</span
    >
  </div>
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
    <p class="text-soft">Choose a property; the plants to look at come first, in their order on the ground.</p>
    <ul class="mt-3 max-w-xl border-t border-rule">
      {#each properties as p (p.id)}
        <li class="border-b border-rule">
          <a class="flex min-h-14 items-center justify-between gap-4 px-2 hover:bg-sheet" href="#/walk/{p.id}"
            ><span class="font-semibold">{p.name}</span><span class="text-sm text-soft">{plantsOf(p.plants)}</span></a
          >
        </li>
      {:else}
        <li class="py-3">No property yet. <a href="#/grounds">Add one in Grounds</a>.</li>
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
    <button class="mt-2 min-h-11 text-moss underline" onclick={() => (adding = true)}>Here stands one: add it</button>
  </div>
{:else}
  <div class="grid text-lg lg:h-dvh lg:grid-cols-[13.5rem_minmax(0,1fr)_26rem]">
    {#if wide}
      <List {order} {asking} {propertyId} {plantId} {howFar} {progress} onnew={() => (adding = true)} />
    {/if}

    {#if plant}
      <section aria-label="Plant" class="flex min-h-0 min-w-0 flex-col px-4 py-3 max-lg:px-3 lg:overflow-y-auto">
        <header class="flex items-start gap-2">
          <div class="min-w-0 flex-1">
            {#if !wide}{@render progress()}{/if}
            <h1>
              <a class="text-ink no-underline hover:underline" href="#/plant/{plant.id}">{plant.common}</a
              >{#if plant.count > 1}<span class="font-normal text-soft">&nbsp;×&nbsp;{plant.count}</span>{/if}
            </h1>
            <p class="truncate text-sm">
              <span class="latin">{plant.botanical}</span>{#if plant.label}&nbsp;· {plant.label}{/if}
            </p>
          </div>
          <button class="min-h-11 min-w-11 border border-rule bg-white px-2" aria-label="Plant before" onclick={() => step(-1)}
            >‹</button
          >
          <button class="min-h-11 border border-rule bg-white px-3 font-semibold" onclick={() => step(1)}>Next plant ›</button>
        </header>
        {#if plant.look}<p class="mt-1 text-sm text-soft max-lg:hidden">{plant.look.reason}</p>{/if}
        {#if pad.grafted && plant.graft.rootstock_leaf}<p class="text-sm text-soft max-lg:hidden">
            {plant.graft.habit === 'usually' ? 'Usually' : 'Sometimes'} grafted: a rootstock’s shoots have {plant.graft
              .rootstock_leaf}.
          </p>{/if}

        <div class="min-h-56 flex-1 max-lg:h-[13.5rem] max-lg:flex-none">
          <Portrait
            form={plant.form as Form}
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
          {#if waiting?.theirs}<Conflict {waiting} name={plant.common} />{/if}
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
            onnew={() => (adding = true)}
          />
        </div>
      </section>

      <Judgement
        {plant}
        {propertyId}
        {answer}
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

{#if propertyId}<NewPlant bind:open={adding} {propertyId} stop={plant?.stop ?? 0} />{/if}
{#if plant}<MoreChecks
    bind:open={more}
    {plant}
    {checks}
    at={pad.active}
    onat={(m) => pad.pick(m)}
    onadd={(c) => pad.enter(c)}
    onremove={(c) => pad.remove(c)}
  />{/if}
