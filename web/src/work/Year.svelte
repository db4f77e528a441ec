<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { VList, type VListHandle } from 'virtua/svelte';
  import { allProperties, api, ask, onceKey, type Lane, type OrderDetail, type Property, type Season } from '../api/client';
  import { brief, daysBetween, inWords, plusDays, span, hours } from '../lib/dates';
  import { attempt, house, keys } from '../lib/house.svelte';
  import type { Frame } from '../lib/LaneMarks.svelte';
  import { anyTime, costOf, costWord, titled, kindWord } from './orders';
  import Ribbon from '../lib/Ribbon.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import { capital } from '../lib/words';
  import LaneRow from './LaneRow.svelte';
  import { closesIn, Lanes, type Asked } from './lanes.svelte';

  let { params }: { params?: { property?: string } } = $props();
  const only = $derived(Number(params?.property ?? 0));
  const row = 40;

  let properties = $state<Property[]>([]);
  let season = $state<Season>();
  let frame = $state.raw<Frame>();
  let pointed = $state<string>();
  let chosen = $state<number>(); // place in the list
  let details = $state<Record<number, OrderDetail>>({});
  let gone = false; // one has left for another place
  const lanes = new Lanes();
  let filtering = $state(false); // on a narrow screen the filters are folded away
  let how = $state<Omit<Asked, 'property'>>({ by: 'time', kind: '', care: true, closing: false, text: '' });
  const kinds: Lane['kind'][] = [
    'prune',
    'treat',
    'look',
    'cut back',
    'cut to the base',
    'tip back',
    'shorten',
    'make safe',
    'feed',
    'mulch',
    'water',
    'protect',
    'shade',
    'guard',
    'graft',
    'lift and shelter',
    'plant out',
    'take fruit off',
    'ask the client',
    'replace',
    'walk',
    'other',
  ];

  $effect(() => {
    const of = only;
    void attempt(async () => {
      if (!properties.length) properties = await allProperties();
      const show = of || properties[0]?.id;
      if (show) season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: show } } }));
    });
  });
  let typing: ReturnType<typeof setTimeout> | undefined;
  $effect(() => {
    const asked = { property: only, ...$state.snapshot(how) };
    clearTimeout(typing);
    typing = setTimeout(
      () =>
        void untrack(() => lanes.want(asked)).then(() => {
          if (gone) return;
          chosen = lanes.total ? 0 : undefined;
          pointed ??= lanes.at.get(0)?.best_day || season?.today;
          list?.scrollToIndex(0);
        }),
      asked.text ? 200 : 0,
    );
  });
  const places = $derived(Array.from({ length: lanes.total ?? 0 }, (_, i) => i));
  let list = $state<VListHandle>();
  let scrolling: ReturnType<typeof setTimeout> | undefined;
  function seen(offset: number) {
    clearTimeout(scrolling);
    scrolling = setTimeout(() => {
      if (list) lanes.see(list.findItemIndex(offset), list.findItemIndex(offset + list.getViewportSize()));
    }, 40);
  }
  const lane = $derived(chosen === undefined ? undefined : lanes.at.get(chosen));

  // Why days cost what they cost is read of the lane that is pointed at.
  let asking: ReturnType<typeof setTimeout> | undefined;
  $effect(() => {
    const id = lane?.id;
    clearTimeout(asking);
    if (!id || details[id]) return;
    asking = setTimeout(
      () =>
        void attempt(async () => {
          details[id] = await ask(api.GET('/api/v1/orders/{id}', { params: { path: { id } } }));
        }),
      120,
    );
  });
  onMount(() => {
    keys.screen = [
      { key: 'ArrowRight', does: 'a day on', run: () => move(1) },
      { key: 'ArrowLeft', does: 'a day back', run: () => move(-1) },
      { key: 'ArrowDown', does: 'next lane', run: () => step(1) },
      { key: 'ArrowUp', does: 'lane before', run: () => step(-1) },
      { key: 'P', does: 'put the job on the day pointed at', run: () => lane && pointed && void put(lane, pointed) },
      { key: 'Enter', does: 'open the job', run: () => lane && void push(`/rounds/${lane.id}`) },
    ];
    return () => {
      gone = true;
      clearTimeout(scrolling);
      clearTimeout(typing);
      clearTimeout(asking);
      keys.screen = [];
    };
  });
  function move(by: number) {
    if (!pointed || !season) return;
    const to = plusDays(pointed, by);
    if (to >= season.from && to < season.to) pointed = to;
  }
  function step(by: number) {
    chosen = Math.max(0, Math.min((lanes.total ?? 1) - 1, (chosen ?? -1) + by));
    list?.scrollToIndex(chosen, { align: 'nearest' });
  }
  async function put(l: Lane, on: string | null, quietly = false) {
    const before = l.day && l.day >= house.today ? l.day : null;
    await attempt(async () => {
      const r = await ask(
        api.PUT('/api/v1/orders/{id}/day', {
          params: { path: { id: l.id }, header: onceKey() },
          body: { day: on, version: l.version, crew: l.crew } as never,
        }),
      );
      lanes.change(r.job);
      details[l.id] = r.job;
      const warned = r.warnings?.length ? ` ${r.warnings.join(' ')}` : '';
      if (!quietly)
        house.say(on ? `${l.title}: on ${inWords(on)}.${warned}` : `${l.title}: off its day.`, () => put(r.job, before, true));
    });
  }

  // A job is carried to another day by dragging its lane sideways.
  let grip: { x: number; index: number } | undefined;
  let carried = $state<number>();
  const under = (e: PointerEvent) => {
    const el = (e.target as HTMLElement).closest?.('[data-i]');
    return el ? Number((el as HTMLElement).dataset['i']) : undefined;
  };
  let sheet = $state<HTMLElement>();
  function dayAt(e: PointerEvent) {
    if (!frame || !sheet) return undefined;
    const i = Math.floor(frame.x.back(e.clientX - sheet.getBoundingClientRect().left));
    return plusDays(frame.from, Math.max(0, Math.min(frame.count - 1, i)));
  }
  function hold(e: PointerEvent) {
    const index = under(e);
    if (e.button === 0 && index !== undefined && lanes.at.get(index)) grip = { x: e.clientX, index };
  }
  function drag(e: PointerEvent) {
    if (grip && carried === undefined && Math.abs(e.clientX - grip.x) > 8) {
      carried = grip.index;
      sheet?.setPointerCapture(e.pointerId);
    }
    if (carried === undefined && e.pointerType === 'touch' && !grip) return;
    pointed = dayAt(e) ?? pointed;
    chosen = carried ?? under(e) ?? chosen;
  }
  function release(e: PointerEvent) {
    const l = carried === undefined ? undefined : lanes.at.get(carried);
    const on = dayAt(e);
    const held = grip;
    grip = undefined;
    if (l && on) void put(l, on);
    else if (held && under(e) === held.index && !(e.target as HTMLElement).closest('a'))
      void push(`/rounds/${lanes.at.get(held.index)!.id}`);
    carried = undefined;
  }
  function letGo() {
    grip = undefined;
    carried = undefined;
  }
  /** What a lane stands under. */
  function note(i: number) {
    const l = lanes.at.get(i);
    if (!l) return '';
    if (how.by === 'kind') return capital(l.kind);
    return only ? '' : l.property;
  }
  const told_of = $derived(lane ? details[lane.id] : undefined);
  const cost = (l: Lane, day: string) => l.costs?.[daysBetween(l.start, day)];
  const why = (l: OrderDetail, day: string) =>
    l.reasons.map((r) => ({ text: r.text, cost: r.costs?.[daysBetween(l.start, day)] ?? 0 })).filter((r) => r.cost > 0);
  const pick = 'min-h-11 max-w-[min(11rem,55vw)] rounded-sm border border-gray-400 bg-white px-2';
  const filtered = $derived(how.kind || how.closing || how.text || !how.care);
</script>

<svelte:head><title>Year · Mezzadro</title></svelte:head>
<svelte:window onkeydown={(e) => e.key === 'Escape' && letGo()} />

<div class="flex h-dvh min-h-[34rem] flex-col max-md:h-[calc(100dvh-3rem)]">
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1 px-5 py-2 text-sm max-md:px-3">
    <h1 class="flex-1">Year</h1>
    <label
      >Property
      <select
        class={pick}
        value={only}
        onchange={(e) => push(e.currentTarget.value === '0' ? '/year' : `/year/${e.currentTarget.value}`)}
      >
        <option value={0}>All</option>
        {#each properties as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
      </select>
    </label>
    <button
      class="min-h-11 border border-rule bg-white px-3 md:hidden"
      aria-expanded={filtering}
      onclick={() => (filtering = !filtering)}>Filter{filtered ? ' (on)' : ''}</button
    >
    <div class="flex-wrap items-center gap-x-3 gap-y-1 md:flex {filtering ? 'flex' : 'hidden'}">
      <label
        >Lanes by
        <select class={pick} bind:value={how.by}>
          <option value="time">what comes next</option>
          <option value="property">property</option>
          <option value="plant">plant</option>
          <option value="kind">kind of work</option>
        </select>
      </label>
      <label
        >Work
        <select class={pick} bind:value={how.kind}>
          <option value="">all kinds</option>
          {#each kinds as k}<option value={k}>{kindWord(k)}</option>{/each}
        </select>
      </label>
      <label class="flex min-h-11 items-center gap-2"
        ><input type="checkbox" class="size-5 accent-moss" bind:checked={how.closing} /> Closes in {closesIn} days</label
      >
      <label class="flex min-h-11 items-center gap-2"
        ><input type="checkbox" class="size-5 accent-moss" bind:checked={how.care} /> After-care</label
      >
      <label><span class="sr-only">Words</span><input class="{pick} w-28" placeholder="Words" bind:value={how.text} /></label>
    </div>
  </div>
  <div class="min-h-48 flex-1 border-t border-rule max-lg:overflow-x-auto">
    <div class="flex h-full min-w-[640px] flex-col">
      {#if season}<Ribbon
          {season}
          place={properties.find((p) => p.id === (only || properties[0]?.id))?.name}
          bind:pointed
          bind:frame
        />{/if}
      {#if lanes.total === undefined}
        <Waiting />
      {:else if lanes.total === 0}
        <p class="p-5">
          {#if filtered}No job is like that. <button
              class="min-h-11 text-moss underline"
              onclick={() => (how = { by: how.by, kind: '', care: true, closing: false, text: '' })}>Show all</button
            >{:else}No job hangs from the year yet. Jobs come from verdicts: <a href="#/walk">walk a property</a> and accept what
            the checks say, <a href="#/grounds">plan a property’s cuts</a>, or <a href="#/rounds">enter one by hand</a>.{/if}
        </p>
      {:else if frame}
        <svg class="absolute size-0" aria-hidden="true">
          <defs>
            <clipPath id="year-inside"
              ><rect x={frame.left} y="0" width={Math.max(0, frame.width - frame.left - 4)} height={row} /></clipPath
            >
            <pattern id="year-forbidden" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <line x1="0" y1="0" x2="0" y2="6" stroke="var(--color-rule)" stroke-width="2" />
            </pattern>
            <pattern id="year-waiting" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
              <line x1="0" y1="0" x2="0" y2="5" stroke="var(--color-sun)" stroke-width="2" />
            </pattern>
          </defs>
        </svg>
        <div
          bind:this={sheet}
          class="relative min-h-0 flex-1 touch-pan-y select-none"
          class:cursor-grabbing={carried !== undefined}
          role="group"
          aria-label="Jobs on the year: drag one sideways to put it on another day, or P"
          onpointerdown={hold}
          onpointermove={drag}
          onpointerup={release}
          onpointercancel={letGo}
        >
          <VList bind:this={list} data={places} itemSize={row} getKey={(i) => i} onscroll={seen} tabindex={0} aria-label="Lanes">
            {#snippet children(i)}
              <div class="relative" style:height="{row}px" data-i={i}>
                {#if frame}<LaneRow
                    lane={lanes.at.get(i)}
                    note={note(i)}
                    {frame}
                    {pointed}
                    chosen={chosen === i}
                    carried={carried === i}
                    height={row}
                  />{/if}
              </div>
            {/snippet}
          </VList>
          {#each [[season?.today, 'border-bad'], [pointed, 'border-dashed border-ink']] as [iso, look] (look)}
            {#if iso && frame.x(daysBetween(frame.from, iso)) >= frame.left && frame.x(daysBetween(frame.from, iso)) <= frame.width - 4}
              <div
                class="pointer-events-none absolute inset-y-0 border-l {look}"
                style:left="{frame.x(daysBetween(frame.from, iso))}px"
              ></div>
            {/if}
          {/each}
        </div>
        <p class="px-5 text-right text-xs text-soft" role="status">{lanes.total === 1 ? 'one job' : `${lanes.total} jobs`}</p>
      {/if}
    </div>
  </div>
  {#if lane && pointed}
    <section
      aria-label="What this day costs"
      class="grid gap-x-8 gap-y-1 border-t-2 border-ink bg-paper px-5 py-3 md:min-h-36 md:grid-cols-[1fr_1fr_auto] max-md:max-h-56 max-md:overflow-y-auto"
    >
      <div aria-live="polite">
        <p class="text-lg font-bold">{inWords(pointed)}</p>
        <p>{titled(lane)}</p>
        <p class="text-sm text-soft">{lane.property} · {hours(lane.minutes)}</p>
        {#if lane.stage}<p class="text-sm">
            {capital(lane.stage.text)}: usually {span(lane.stage.from, lane.stage.to)} (the broken line).
          </p>{/if}
        {#each lane.waits as w}<p class="text-sm font-semibold text-sun">{capital(w.text)}.</p>{/each}
        {#each told_of?.after as g (g.id)}<p class="text-sm text-soft">
            After “{g.title}”{g.max_days
              ? `, within ${g.max_days} days`
              : g.min_days
                ? `, ${g.min_days} days later at least`
                : ''}{g.day ? `, ${brief(g.day)}` : ''}.
          </p>{/each}
      </div>
      <div>
        <p class="font-semibold">
          <span data-testid="year-cost">{capital(costWord(cost(lane, pointed), pointed, lane))}</span>
          <span class="font-normal text-soft">{costOf(cost(lane, pointed))}</span>
        </p>
        <ul class="text-sm">
          {#if told_of}{#each why(told_of, pointed) as r}<li class="flex gap-2">
                <b class="w-10 shrink-0 text-right">{r.cost > 100 ? '✕' : `+${r.cost}`}</b>{r.text}
              </li>{:else}<li>Nothing speaks against this day.</li>{/each}{/if}
        </ul>
      </div>
      <div class="text-sm">
        {#if lane.passed}<p>The time for this has passed.</p>{:else}<p>Best {inWords(lane.best_day)}</p>{/if}
        {#each lane.windows as w (w.from)}<p class="text-soft">
            {daysBetween(w.from, w.to) > anyTime ? 'Any time' : `Window ${span(w.from, w.to)}`}
          </p>{/each}
        {#if lane.day}<p class="font-semibold">On {inWords(lane.day)}</p>{/if}
        <a class="inline-flex min-h-11 items-center font-semibold" href="#/rounds/{lane.id}"
          >{lane.day ? 'Move it' : 'Put it on a day'}</a
        >
      </div>
    </section>
  {/if}
</div>
