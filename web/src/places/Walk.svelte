<script lang="ts">
  import { Button, Modal, Select, Textarea } from 'flowbite-svelte';
  import { onMount, untrack } from 'svelte';
  import { push, replace } from 'svelte-spa-router';
  import { api, ask, onceKey, Problem, type Check, type Plant, type Property } from '../api/client';
  import { field } from '../field/field.svelte';
  import { found, words, type Kind } from '../lib/checks';
  import Conflict from '../lib/Conflict.svelte';
  import { inWords, metres, plantsOf } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import FieldNotes from '../lib/FieldNotes.svelte';
  import { attempt, house, keys } from '../lib/house.svelte';
  import HowTo from '../lib/HowTo.svelte';
  import MoreChecks from '../lib/MoreChecks.svelte';
  import type { Form } from '../lib/portrait';
  import Portrait from '../lib/Portrait.svelte';
  import Slip from '../lib/Slip.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { property?: string; plant?: string } } = $props();
  const propertyId = $derived(Number(params?.property ?? 0));
  const plantId = $derived(Number(params?.plant ?? 0));

  let properties = $state<Property[]>([]);
  let active = $state(0);
  let following = $state(true); // the height goes along with the suggestion until one is picked by hand
  let unread = $state(''); // why the walk could not be opened
  let loaded = $state(0); // property whose walk was asked for
  let decided = $state<{ id: number; text: string }>();
  let wide = $state(window.innerWidth >= 1024);
  let more = $state(false);
  let how = $state(false);

  // Answers may come after one has left for another plant or place.
  let gone = false;
  const stillAt = (id: number) => !gone && id === plantId;

  const walk = $derived(field.walk?.property === propertyId ? field.walk : undefined);
  const walkId = $derived(walk?.walk ?? 0);
  const plants = $derived(walk?.plants ?? []);
  // The order on the ground: round the property from the gate, first for the plants to look at, then for the others.
  const asks = (p: Plant) => p.look?.worth === true || !!p.take_in;
  const order = $derived(
    [...plants].sort((a, b) => Number(asks(b)) - Number(asks(a)) || (a.stop || 1e9) - (b.stop || 1e9) || a.id - b.id),
  );
  // Of a long list the stretch round the plant in sight is shown: all of it would be slow to draw.
  const listed = 300;
  const around = $derived(
    order.length <= listed ? 0 : Math.max(0, Math.min(order.length - listed, order.findIndex((p) => p.id === plantId) - 100)),
  );
  const asking = $derived(order.filter(asks).length);
  const plant = $derived(plants.find((p) => p.id === plantId));
  const checks = $derived(walk?.looks[plantId]?.checks ?? []);
  const note = $derived(walk?.looks[plantId]?.note ?? '');
  const answer = $derived(walk?.answers[plantId]);
  const waiting = $derived(field.of(walkId, plantId));
  const problem = $derived(waiting?.refused ?? '');
  const done = (p: Plant) => p.decided;
  const looked = (p: Plant) => (walk?.looks[p.id]?.checks.length ?? 0) > 0;
  const skipped = (p: Plant) => !done(p) && (walk?.skipped.includes(p.id) ?? false);
  const finished = $derived(order.filter((p) => done(p) || looked(p)).length);
  const skips = $derived(order.filter(skipped).length);
  const palm = $derived(plant?.form === 'palm');
  const grain = $derived((plant?.height_m ?? 1) > 3 ? 0.1 : 0.05);

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
    decided = undefined;
    following = true;
    how = false;
    active = Math.round((plant.height_m * 0.6) / grain) * grain;
    window.scrollTo(0, 0);
  });

  // A tally of buds is left in peace until three are rubbed; every other check is done with one press.
  function rested(): boolean {
    const last = checks.at(-1);
    return last?.kind !== 'bud_rub' || (last.held ?? 0) + (last.broke ?? 0) >= 3;
  }
  $effect(() => {
    const next = answer?.next_check?.height_m;
    untrack(() => {
      if (next && !waiting && following && rested()) active = next;
    });
  });

  let lastPress: { plant: number; before: Check[] }[] = [];
  function add(make: (list: Check[]) => Check[]) {
    if (!plant || !walkId) return;
    const before = [...checks];
    lastPress = [...lastPress.slice(-30), { plant: plantId, before }];
    void field.keep(plantId, make(before), note);
  }
  const height = () => Math.round(Math.min(active, plant!.height_m) * 1000) / 1000;
  function bud(held: boolean) {
    if (palm) return;
    const h = height();
    add((list) => {
      const i = list.findIndex((c) => c.kind === 'bud_rub' && c.height_m === h);
      const old = list[i] ?? { kind: 'bud_rub' as const, height_m: h };
      const next = { ...old, held: (old.held ?? 0) + (held ? 1 : 0), broke: (old.broke ?? 0) + (held ? 0 : 1) };
      return [...list.filter((_, j) => j !== i), next];
    });
  }
  function scratch(result: string) {
    if (palm) return;
    following = true;
    add((list) => [...list, { kind: 'scratch', height_m: height(), result }]);
  }
  const grafted = $derived(plant !== undefined && (plant.graft.habit !== 'own roots' || plant.graft_m > 0));
  const shoot = (leaf?: 'true' | 'rootstock') =>
    add((list) => [...list, { kind: 'shoot', height_m: height(), ...(leaf ? { leaf } : {}) }]);
  /** Of some checks one stands, of dangers any number: nothing loose takes the place of all. */
  function enter(c: Check) {
    const one = ['crown', 'spear', 'head', 'base', 'tip_dead', 'growth', 'sample'].includes(c.kind);
    add((list) => [
      ...list.filter((x) => {
        if (x.kind !== c.kind) return true;
        if (c.kind === 'danger') return c.result !== 'none' && x.result !== 'none' && x.result !== c.result;
        if (c.kind === 'spot' || c.kind === 'not_looked') return x.result !== c.result;
        if (c.kind === 'bud_rub' || c.kind === 'bark_ring' || c.kind === 'split_bark' || c.kind === 'leaf')
          return x.height_m !== c.height_m;
        return !one;
      }),
      c,
    ]);
  }
  const remove = (c: Check) => add((list) => list.filter((x) => JSON.stringify(x) !== JSON.stringify(c)));
  const crown = (result: string) => enter({ kind: 'crown', result });
  const loose = $derived(checks.findLast((c) => c.kind === 'danger' && c.result !== 'none'));
  const spear = (result: string) => palm && enter({ kind: 'spear', result });
  function takeBack() {
    const last = lastPress.at(-1);
    if (!last || last.plant !== plantId) return;
    lastPress = lastPress.slice(0, -1);
    void field.keep(plantId, last.before, note);
  }
  function pick(m: number) {
    following = false;
    active = Math.round(m * 1000) / 1000;
  }
  function nudge(by: number) {
    if (plant) pick(Math.max(grain, Math.min(plant.height_m, active + by * grain)));
  }
  function takeSuggestion() {
    if (answer?.next_check?.height_m) active = answer.next_check.height_m;
    following = true;
  }

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

  let overruling = $state(false);
  let over = $state({ kind: 'wait until', cut: '', note: '' });
  let overProblem = $state<Problem>();
  async function decide(decision: 'accepted' | 'overruled' | 'not now', choice?: string) {
    const id = plantId;
    await field.send();
    if (field.of(walkId, id)) return; // what was found is not with the house yet
    const failed = await attempt(async () => {
      const body =
        decision === 'overruled'
          ? { decision, kind: over.kind, note: over.note.trim(), cut_m: Number(String(over.cut).replace(',', '.')) || undefined }
          : { decision, kind: choice };
      const d = await ask(
        api.POST('/api/v1/walks/{id}/plants/{plant}/verdict', {
          params: { path: { id: walkId, plant: id }, header: onceKey() },
          body,
        }),
      );
      field.setPlants((p) => (p.id === id ? { ...p, verdict: d.verdict, decided: decision !== 'not now' } : p));
      if (decision === 'not now') field.skip(id, true);
      if (stillAt(id)) decided = { id: d.verdict.id, text: decision };
      overruling = false;
      const jobs = d.jobs?.length ?? 0;
      const said =
        decision === 'not now'
          ? 'Put off: it stays on the look-list'
          : `${decision === 'accepted' ? 'Accepted' : 'Overruled'}: ${d.verdict.kind}`;
      house.say(jobs ? `${said}. ${jobs} ${jobs === 1 ? 'job' : 'jobs'} on the year.` : `${said}.`, async () => {
        await attempt(async () => {
          await ask(api.DELETE('/api/v1/verdicts/{id}', { params: { path: { id: d.verdict.id } } }));
          field.setPlants((p) => (p.id === id ? { ...p, verdict: undefined, decided: false } : p));
          if (stillAt(id)) decided = undefined;
          void house.refresh();
        });
      });
      void house.refresh();
    });
    overProblem = decision === 'overruled' ? failed : undefined;
  }
  const standing = $derived(plant?.decided ? plant.verdict : undefined);
  const kinds = [
    'leave',
    'wait until',
    'tip back',
    'cut back to live wood',
    'cut to the base',
    'regraft or replace',
    'replace',
    'lift and shelter',
    'make safe first',
  ].map((k) => ({
    value: k,
    name: k,
  }));

  onMount(() => {
    keys.screen = [
      { key: 'H', does: 'a bud held', run: () => bud(true) },
      { key: 'B', does: 'a bud broke off', run: () => bud(false) },
      { key: 'G', does: 'bark green', run: () => scratch('green') },
      { key: 'R', does: 'bark brown', run: () => scratch('brown') },
      { key: 'U', does: 'bark unclear', run: () => scratch('unclear') },
      {
        key: 'S',
        does: 'a living shoot here, on a grafted plant with its true leaf',
        run: () => plant && shoot(grafted ? 'true' : undefined),
      },
      { key: 'K', does: 'a shoot of the rootstock here', run: () => grafted && shoot('rootstock') },
      { key: 'ArrowUp', does: 'check higher', run: () => nudge(1) },
      { key: 'ArrowDown', does: 'check lower', run: () => nudge(-1) },
      { key: 'Backspace', does: 'take the last press back', run: takeBack },
      {
        key: 'Enter',
        does: 'accept the verdict',
        run: () => ready && !standing && void decide('accepted'),
      },
      { key: 'N', does: 'not now', run: () => plant && void decide('not now') },
      { key: 'M', does: 'more checks', run: () => plant && (more = true) },
      { key: ' ', does: 'next plant', run: () => plant && step(1) },
      { key: 'P', does: 'plant before', run: () => plant && step(-1) },
    ];
    return () => {
      gone = true;
      keys.screen = [];
    };
  });
  const next = $derived(answer?.next_check);
  /** A verdict can be decided on when the house can hear of all that was found: what is on its way there is waited for. */
  const ready = $derived(
    !!answer &&
      !waiting?.theirs &&
      !waiting?.refused &&
      !field.away &&
      (answer.verdict.kind !== 'check first' || checks.length > 0),
  );
  const others = $derived(checks.filter((c) => !c.height_m && c.kind !== 'crown'));
  const tally = $derived(checks.find((c) => c.kind === 'bud_rub' && c.height_m === Math.round(active * 1000) / 1000));
  const big = 'min-h-14 flex-1 rounded-sm border-2 px-2 text-lg font-bold leading-tight';
</script>

{#snippet fromADistance()}
  <select
    class="min-h-11 max-w-28 rounded-sm border px-1 text-[0.9375rem] {loose
      ? 'border-bad bg-bad text-white'
      : 'border-rule bg-white'}"
    aria-label="From a distance: may it fall or break?"
    value={loose?.result ?? (checks.some((c) => c.kind === 'danger') ? 'none' : '')}
    onchange={(e) => {
      enter({ kind: 'danger', result: e.currentTarget.value });
      e.currentTarget.blur();
    }}
  >
    <option value="" disabled>Danger?</option>
    {#each words.danger.results ?? [] as { key: value, word } (value)}<option {value}>{word}</option>{/each}
  </select>
{/snippet}

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
  </div>
{:else}
  <div class="grid text-lg lg:h-dvh lg:grid-cols-[13.5rem_minmax(0,1fr)_26rem]">
    {#if wide}
      <nav aria-label="Plants of the walk" class="overflow-y-auto border-r border-rule">
        <a class="flex min-h-11 items-center px-3 text-sm" href="#/grounds/{propertyId}">{plant?.property ?? 'Property'}</a>
        <div class="px-3 pb-2">{@render progress()}</div>
        <ol>
          {#if around > 0}<li class="px-3 py-1 text-sm text-soft">{around} before these</li>{/if}
          {#each order.slice(around, around + listed) as p, k (p.id)}
            {@const i = around + k}
            <li>
              {#if asking && (i === 0 || i === asking)}<p class="bg-sheet px-3 py-0.5 text-xs font-semibold text-soft">
                  {i < asking ? 'To look at, from the gate on' : 'The others'}
                </p>{/if}
              <a
                href="#/walk/{propertyId}/{p.id}"
                aria-current={p.id === plantId ? 'true' : undefined}
                class="flex min-h-11 items-center gap-2 border-t border-rule px-3 py-1 text-[0.9375rem] leading-tight text-ink no-underline hover:bg-sheet {p.id ===
                plantId
                  ? 'bg-moss-pale font-bold'
                  : ''}"
              >
                <span class="min-w-0 flex-1">{p.common}<span class="block text-sm font-normal text-soft">{p.label}</span></span>
                {#if done(p)}<span class="text-sm font-semibold text-moss" title={p.verdict?.sentence}
                    >✓<span class="sr-only"> decided</span></span
                  >{:else if field.of(walkId, p.id)}<span class="text-sm font-semibold text-sun">to send</span
                  >{:else if looked(p)}<span class="text-sm text-soft">checked</span>{:else if skipped(p)}<span
                    class="text-sm text-soft">skipped</span
                  >{/if}
              </a>
            </li>
          {/each}
          {#if order.length > around + listed}<li class="px-3 py-1 text-sm text-soft">
              {order.length - around - listed} after these
            </li>{/if}
        </ol>
      </nav>
    {/if}

    {#if plant}
      <section aria-label="Plant" class="flex min-h-0 min-w-0 flex-col px-4 py-3 max-lg:px-3 lg:overflow-y-auto">
        <header class="flex items-start gap-2">
          <div class="min-w-0 flex-1">
            {#if !wide}{@render progress()}{/if}
            <h1>
              <a class="text-ink no-underline hover:underline" href="#/plant/{plant.id}">{plant.common}</a
              >{#if plant.count > 1}<span class="font-normal text-soft">&nbsp;× {plant.count}</span>{/if}
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
        {#if grafted && plant.graft.rootstock_leaf}<p class="text-sm text-soft max-lg:hidden">
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
            active={palm ? undefined : active}
            box={wide ? [430, 440] : [380, 216]}
            onpick={palm ? undefined : pick}
          />
        </div>

        <div class="space-y-2">
          {#if waiting?.theirs}<Conflict {waiting} name={plant.common} />{/if}
          <div class="flex min-h-11 flex-wrap items-center gap-2 text-sm">
            {#if next}
              {#if next.height_m}
                <button class="min-h-11 border border-cold bg-white px-3 text-left text-cold" onclick={takeSuggestion}>
                  <b
                    >Next: {next.kind === 'bud_rub'
                      ? `rub ${next.buds} buds`
                      : next.kind === 'scratch'
                        ? 'scratch'
                        : 'look at the leaf'} at
                    {metres(next.height_m)}</b
                  >
                </button>
              {:else}
                <b class="text-cold"
                  >Next: {{ crown: 'feel the crown under the soil', danger: 'stand back and look up' }[next.kind as string] ??
                    'pull the spear'}</b
                >
              {/if}
              <button class="min-h-11 px-1 text-moss underline" aria-expanded={how} onclick={() => (how = !how)}>How</button>
              <span class="flex-1 text-soft max-lg:hidden">{next.why}</span>
            {:else if checks.length && answer && !waiting}
              <span class="font-semibold"
                >{answer?.verdict.kind === 'make safe first'
                  ? 'Check on when it is safe.'
                  : `No ${plant.height_m > 3.2 ? 'check within reach' : 'further check'} can change the verdict.`}</span
              >
            {/if}
            {#if !wide || palm}<span class="ml-auto">{@render fromADistance()}</span>{/if}
          </div>
          {#if how && next}
            <div class="grid grid-cols-[8rem_1fr] items-center gap-3 border border-rule bg-white p-2 text-[0.9375rem]">
              <div class="h-20"><HowTo kind={next.kind as Kind} /></div>
              <p>
                {words[next.kind as Kind].how}
                {#if !wide}{next.why}{/if}
              </p>
            </div>
          {/if}
          {#if palm}
            <div class="flex gap-2">
              <button class="{big} border-moss bg-white" onclick={() => spear('held')}>Spear held</button>
              <button class="{big} border-hand bg-white" onclick={() => spear('pulled')}>Spear came out</button>
            </div>
          {:else}
            <div class="flex items-center gap-2">
              <button class="min-h-11 min-w-12 border border-rule bg-white text-lg" aria-label="Lower" onclick={() => nudge(-1)}
                >−</button
              >
              <p class="flex-1 text-center">
                at <b class="text-cold" data-testid="height">{metres(active)}</b>{#if tally}<span class="text-sm text-soft"
                    >&nbsp; {tally.held ?? 0} held, {tally.broke ?? 0} broke here</span
                  >{/if}
              </p>
              <button class="min-h-11 min-w-12 border border-rule bg-white text-lg" aria-label="Higher" onclick={() => nudge(1)}
                >+</button
              >
            </div>
            <div class="grid grid-cols-2 gap-2" role="group" aria-label="Checks at this height">
              <button class="{big} border-moss bg-white" onclick={() => bud(true)}>Bud held</button>
              <button class="{big} border-hand bg-white" onclick={() => bud(false)}>Bud broke</button>
              <button class="{big} border-moss bg-white" onclick={() => scratch('green')}>Bark green</button>
              <button class="{big} border-hand bg-white" onclick={() => scratch('brown')}>Bark brown</button>
            </div>
            <div class="flex flex-wrap gap-2 text-[0.9375rem]">
              <button class="min-h-11 border border-rule bg-white px-3" onclick={() => scratch('unclear')}>Bark unclear</button>
              {#if grafted}
                <button class="min-h-11 border border-rule bg-white px-3" onclick={() => shoot('true')}>True shoot</button>
                <button
                  class="min-h-11 border border-rule bg-white px-3"
                  title={plant.graft.rootstock_leaf}
                  onclick={() => shoot('rootstock')}>Rootstock shoot</button
                >
              {:else}
                <button class="min-h-11 border border-rule bg-white px-3" onclick={() => shoot()}>Living shoot</button>
              {/if}
              {#if wide}{@render fromADistance()}{/if}
              <span
                class="flex min-h-11 items-center gap-1 {wide || next?.kind === 'crown' || checks.some((c) => c.kind === 'crown')
                  ? ''
                  : 'hidden'}"
                role="group"
                aria-label="Crown under the soil"
              >
                Crown:
                {#each [['firm_buds', 'budded'], ['firm', 'firm'], ['soft', 'soft']] as [value, word] (value)}
                  {@const on = checks.some((c) => c.kind === 'crown' && c.result === value)}
                  <button
                    class="min-h-11 border px-2.5 {on ? 'border-ink bg-ink text-paper' : 'border-rule bg-white'}"
                    aria-pressed={on}
                    onclick={() => crown(value!)}>{word}</button
                  >
                {/each}
              </span>
              <button
                class="min-h-11 px-2 text-moss underline disabled:text-soft disabled:no-underline"
                disabled={!checks.length}
                onclick={takeBack}>Take back</button
              >
            </div>
          {/if}
          <div class="flex flex-wrap items-start gap-2">
            <button class="min-h-11 border border-rule bg-white px-3 text-[0.9375rem]" onclick={() => (more = true)}
              >More checks</button
            >
            <div class="min-w-0 flex-1">
              {#key plantId}<FieldNotes
                  plant={plantId}
                  {note}
                  onnote={(text) => text !== note && field.keep(plantId, checks, text)}
                />{/key}
            </div>
          </div>
          {#if others.length}
            <ul class="flex flex-wrap gap-x-3 text-sm text-soft" aria-label="Other checks made">
              {#each others as c, i (i)}<li>{found(c)}</li>{/each}
            </ul>
          {/if}
          {#if problem}
            <p role="alert" class="border-2 border-bad bg-white px-3 py-2 text-[0.9375rem]">
              {problem}
              <button class="min-h-11 font-bold underline" onclick={takeBack}>Take back</button>
            </p>
          {/if}
        </div>
      </section>

      <section
        aria-label="Judgement"
        class="flex min-h-0 flex-col border-rule bg-sheet lg:border-l max-lg:mt-3 max-lg:border-t max-lg:pb-36"
      >
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -- what scrolls can be reached by keys -->
        <div class="min-h-0 flex-1 overflow-y-auto p-3" role="region" aria-label="Verdict in full" tabindex="0">
          {#if field.away || waiting}
            <p class="mb-2 border-l-4 border-sun bg-white px-3 py-1.5 text-[0.9375rem] max-lg:hidden">
              {#if field.away}<b>No connection.</b> What you find is kept on this device and sent when it is back.{/if}
              {#if waiting && answer}The verdict below is the last one judged; your newest checks are not in it yet.{:else if waiting || !answer}Will
                be judged when back on line.{/if}
            </p>
          {/if}
          {#if answer}<Slip
              {answer}
              {palm}
              onspot={(key, seen, amount) => enter({ kind: 'spot', result: key, seen, ...(amount ? { amount } : {}) })}
              decided={standing ? `Decided: ${standing.decision}` : undefined}
            />{/if}
          {#if standing}<p class="mt-2 text-sm">
              Decided {standing.decision === 'overruled'
                ? `otherwise: ${standing.kind}. “${standing.note}”`
                : `as: ${standing.sentence}`} <a href="#/year/{propertyId}">See it on the year</a>
            </p>{/if}
        </div>
        <div
          class="border-t border-rule bg-paper p-3 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-12 max-lg:z-10 max-md:pb-4 md:max-lg:bottom-0"
        >
          {#if !wide}<p class="mb-2 leading-snug font-bold" aria-hidden="true">
              {#if field.away}<span class="block text-sm text-sun">No connection: kept on this phone, {field.left} to send.</span
                >{/if}
              {waiting?.theirs
                ? 'Two devices looked at this plant: say above what stands.'
                : (answer?.verdict.sentence ?? (waiting || field.away ? 'Will be judged when back on line.' : ''))}
            </p>{/if}
          {#if answer?.choices?.length && !standing && !decided}
            <div class="mb-2 flex flex-wrap items-center gap-2" role="group" aria-label="Settled with the owner">
              <span class="text-sm text-soft">Settled with the owner:</span>
              {#each answer.choices as c (c.kind)}<Button
                  color="light"
                  size="sm"
                  disabled={!ready}
                  onclick={() => decide('accepted', c.kind)}>{c.text}</Button
                >{/each}
            </div>
          {/if}
          <div class="flex items-center gap-2">
            {#if decided}
              <span class="flex-1 font-semibold text-moss">{decided.text === 'not now' ? 'Put off.' : 'Kept.'}</span>
              <Button onclick={() => step(1)}>Next plant</Button>
            {:else}
              <Button class="flex-1" disabled={!ready} onclick={() => decide('accepted')}
                >{standing ? 'Accept anew' : 'Accept'}</Button
              >
              <Button color="light" disabled={!ready} onclick={() => ((overruling = true), (overProblem = undefined))}
                >Overrule</Button
              >
              <Button color="light" disabled={!answer || field.away} onclick={() => decide('not now')}>Not now</Button>
            {/if}
            <span class="sr-only" role="status"
              >{waiting?.refused ? 'Not taken' : field.away ? 'Kept on this device' : waiting ? 'Saving' : 'Checks saved'}</span
            >
          </div>
        </div>
      </section>
    {:else if !walk}
      <div class="lg:col-span-2"><Waiting /></div>
    {:else}
      <p class="p-5">This plant is not on the property, or was removed. <a href="#/walk/{propertyId}">Start at the first</a>.</p>
    {/if}
  </div>
{/if}

{#if plant}<MoreChecks bind:open={more} {plant} {checks} at={active} onat={pick} onadd={enter} onremove={remove} />{/if}

<Modal bind:open={overruling} title="Overrule the verdict" size="sm">
  <form
    class="space-y-3 text-ink"
    onsubmit={(e) => {
      e.preventDefault();
      void decide('overruled');
    }}
  >
    <label class="block font-semibold"
      >Your verdict<Select class="mt-1" items={kinds} bind:value={over.kind} placeholder="" /></label
    >
    {#if over.kind === 'tip back' || over.kind === 'cut back to live wood'}
      <Field label="Cut at" kind="length" bind:value={over.cut} problem={overProblem?.fields.cut_m} />
    {/if}
    <label class="block font-semibold">Why<Textarea class="mt-1 w-full bg-white" rows={3} bind:value={over.note} /></label>
    {#if overProblem?.fields.note}<p class="text-bad">{overProblem.fields.note}</p>{/if}
    <div class="flex gap-2">
      <Button type="submit">Keep my verdict</Button><Button color="light" onclick={() => (overruling = false)}>Back</Button>
    </div>
  </form>
</Modal>
