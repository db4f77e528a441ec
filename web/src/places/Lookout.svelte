<script lang="ts">
  import { onMount } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, type Schemas, type Season } from '../api/client';
  import { causeOfEvent, causeOfHurt } from '../lib/causes';
  import { brief, degrees, hours, inWords, plantsOf } from '../lib/dates';
  import EventChart from '../lib/EventChart.svelte';
  import Expected from '../lib/Expected.svelte';
  import { attempt, house, keys } from '../lib/house.svelte';
  import { when } from '../lib/orders';
  import { apart, figure } from '../lib/units';
  import Mark from '../lib/Mark.svelte';
  import Ribbon from '../lib/Ribbon.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let look = $state<Schemas['Lookout']>();
  let season = $state<Season>();
  let chart = $state<Schemas['EventChart']>();
  let chosen = $state(0);
  let at = $state(0);
  let gone = false;
  let wide = $state(window.innerWidth >= 768);

  onMount(() => {
    void attempt(async () => {
      look = await ask(api.GET('/api/v1/lookout'));
    });
    keys.screen = [
      { key: 'ArrowDown', does: 'next plant of the look-list', run: () => move(1) },
      { key: 'ArrowUp', does: 'plant before', run: () => move(-1) },
      { key: 'Enter', does: 'walk to the plant', run: () => open(at) },
      { key: 'W', does: 'start the walk of this property', run: () => startWalk(rows[at]?.property_id ?? 0) },
      { key: 'E', does: 'next event', run: nextEvent },
    ];
    return () => {
      gone = true;
      keys.screen = [];
    };
  });
  const groups = $derived(look?.groups ?? []);
  const firstFrost = $derived((look?.shelter ?? []).map((p) => p.take_in!.before).sort()[0]);
  const rows = $derived(groups.flatMap((g) => g.looks ?? []));
  const events = $derived(look?.events ?? []);
  const event = $derived(events[chosen]);
  // Those that hurt something, and the newest of the others; the rest is told in a line.
  const told = $derived(events.map((e, i) => ({ e, i })).filter(({ e, i }) => e.hurt > 0 || i === 0));
  const quiet = $derived(events.filter((e, i) => e.hurt === 0 && i > 0));

  // The ribbon and the chart belong to the property in which the event was worst.
  $effect(() => {
    const of = event?.property_id ?? look?.property ?? 0;
    if (!of || season_of === of) return;
    season_of = of;
    void attempt(async () => {
      const s = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: of } } }));
      if (!gone) season = s;
    });
  });
  let season_of = 0;
  $effect(() => {
    const e = event;
    if (!e) return;
    void attempt(async () => {
      const c = await ask(
        api.GET('/api/v1/properties/{id}/event', {
          params: { path: { id: e.property_id }, query: { kind: e.kind, peak: e.peak } },
        }),
      );
      if (!gone && event === e) chart = c;
    });
  });

  function nextEvent() {
    const k = told.findIndex(({ i }) => i === chosen);
    chosen = told[(k + 1) % Math.max(1, told.length)]?.i ?? 0;
  }
  function move(by: number) {
    at = Math.max(0, Math.min(rows.length - 1, at + by));
    document.getElementById(`look-${at}`)?.focus();
  }
  function open(i: number) {
    const p = rows[i];
    if (p) void push(`/walk/${p.property_id}/${p.id}`);
  }
  function startWalk(property: number) {
    if (property) void push(`/walk/${property}`);
  }
  const names: Record<string, string> = {
    freeze: 'Freeze',
    'late frost': 'Late frost',
    'drying wind': 'Drying wind',
    heat: 'Heat',
    'wet spell': 'Wet spell',
    gale: 'Gale',
  };
  const value = (e: Schemas['Event']) => figure(e.value, e.unit);
  const capital = (t: string) => t.charAt(0).toUpperCase() + t.slice(1);
  const facts = (e: Schemas['EventGroup']): [string, string][] => {
    const cold = e.kind === 'freeze' || e.kind === 'late frost';
    const out: [string, string][] = [[cold ? 'Depth' : e.kind === 'drying wind' ? 'Dose' : 'Peak', value(e)]];
    if (e.kind !== 'wet spell') out.push(['Length', `${e.hours} h`]);
    else out.push(['Length', `${brief(e.from)} – ${brief(e.to)}`]);
    if (cold) {
      out.push(['Fell in 72 h', apart(e.fall_c, 0)]);
      out.push(['Plants hardened', `${Math.round(100 * e.hardened)} %`]);
    }
    return out;
  };
  const told_of = (p: Schemas['PlantOut']) => {
    const l = p.look!;
    if (l.expected === 'wood' && l.dieback >= 0.97) return 'to the ground';
    if (l.expected === 'wood' && l.dieback > 0.03) return `top ${Math.round(100 * l.dieback)}\u00a0%`;
    return l.expected === 'wood' ? 'tips' : l.expected;
  };
  const start = $derived.by(() => {
    let n = 0;
    return groups.map((g) => {
      const from = n;
      n += g.looks?.length ?? 0;
      return from;
    });
  });
</script>

<svelte:window onresize={() => (wide = window.innerWidth >= 768)} />
<svelte:head><title>Lookout · Mezzadro</title></svelte:head>

{#snippet hurt(p: Schemas['PlantOut'], size: number)}
  <Mark
    cause={causeOfHurt(p.look?.by ?? '')}
    share={p.look?.severity ?? 0}
    words="{p.look?.by}, severity {Math.round(100 * (p.look?.severity ?? 0))} %"
    {size}
  />
  <span>{told_of(p)}</span>
{/snippet}
{#snippet hoursOf(e: Schemas['EventGroup'])}
  {#if chart && chart.event.peak === e.peak && chart.event.kind === e.kind}
    <p class="text-sm text-soft">
      {e.property}{#if chart.lines?.some((l) => l.organ)}: air against what plants bore that day, before half of it dies
        (estimate){/if}
    </p>
    <EventChart {chart} />
  {:else}<div class="h-48"></div>{/if}
{/snippet}

<div class="border-b border-rule bg-white max-md:overflow-x-auto">
  {#if season}<Ribbon {season} place={event?.property ?? ''} />{/if}
</div>

<div class="px-5 py-4 max-md:px-3">
  <h1 class="sr-only">Lookout</h1>
  {#if !look || !house.frame}
    <Waiting rows={8} />
  {:else if !house.frame.counts.grounds}
    <div class="max-w-xl border border-rule bg-white p-5">
      <h2>No property yet</h2>
      <p class="mt-1">
        The lookout watches the weather over your properties. Add the first one with its climate, then its plants.
      </p>
      <a class="mt-3 inline-flex min-h-11 items-center bg-moss px-4 font-semibold text-white" href="#/grounds">Add a property</a>
    </div>
  {:else}
    {#if event}
      <section aria-label="Event" class="border border-ink bg-white">
        {#if told.length > 1}
          <div
            class="flex border-b border-rule max-md:overflow-x-auto md:flex-wrap"
            role="group"
            aria-label="Events of the last months"
          >
            {#each told as { e, i } (e.kind + e.peak)}
              <button
                class="flex min-h-11 items-center gap-2 border-r border-rule px-3 text-sm whitespace-nowrap {i === chosen
                  ? 'bg-moss-pale font-bold'
                  : 'hover:bg-sheet'}"
                aria-pressed={i === chosen}
                onclick={() => (chosen = i)}
              >
                <Mark cause={causeOfEvent(e.kind)} share={1} words="" size={16} />
                {names[e.kind]}
                {brief(e.peak)}
                <span class="font-normal text-soft">{e.hurt} likely hurt</span>
              </button>
            {/each}
          </div>
        {/if}
        <div class="grid gap-x-6 gap-y-2 px-4 py-3 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
          <div class="min-w-0">
            <h2 class="text-xl">{names[event.kind]} on {inWords(event.peak, house.today)}</h2>
            <p>{event.story}</p>
            {#if (event.places ?? []).length > 1}<p class="mt-2 text-sm text-soft">
                At {event.property}, where it was worst:
              </p>{/if}
            <dl class="mt-1 flex flex-wrap gap-x-5 gap-y-1">
              {#each facts(event) as [name, v] (name)}
                <div>
                  <dt class="text-xs text-soft">{name}</dt>
                  <dd class="text-lg leading-tight font-bold">{v}</dd>
                </div>
              {/each}
            </dl>
            <ul class="mt-2 flex flex-wrap gap-x-4 text-sm max-md:hidden" aria-label="By property">
              {#each event.places ?? [] as p (p.property_id + p.peak)}
                <li class={p.property_id === event.property_id ? 'font-semibold' : ''}>
                  {p.property}&nbsp;<span class="text-soft">{value(p)}</span>
                </li>
              {/each}
            </ul>
          </div>
          {#if wide}<div class="min-w-0">{@render hoursOf(event)}</div>
          {:else}
            <details class="text-sm">
              <summary class="flex min-h-11 cursor-pointer items-center text-moss">Hour by hour, against what plants bore</summary
              >
              {@render hoursOf(event)}
            </details>
          {/if}
        </div>
      </section>
    {:else}
      <section class="border border-rule bg-white px-4 py-3">
        <h2>No freeze, heat or gale in the last months</h2>
        <p class="text-soft">
          Events show here as soon as the weather of a property holds one. Weather is read, or taken from a file, in Grounds.
        </p>
      </section>
    {/if}

    <div class="mt-4 grid gap-6 lg:grid-cols-[minmax(0,1fr)_16rem]">
      <section aria-labelledby="looks" class="min-w-0">
        <h2 id="looks">
          {#if look.looks}Look at these first{:else}Nothing on the look-list{/if}
        </h2>
        <p class="text-sm text-soft">
          {plantsOf(look.looks)}, {look.deep} of them with wood, roots or heart likely hurt. {#if look.slight}Another {look.slight}
            are hurt a little: little is lost by waiting.{/if}
          {look.unhurt} stayed well within what they bear; {look.looked} already decided.
        </p>
        {#each groups as g, gi (g.property_id)}
          <section class="mt-3 border border-rule bg-white" aria-label={g.property}>
            <header class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule bg-sheet px-3 py-1.5">
              <h3 class="min-w-0 flex-1 font-semibold max-md:basis-full">
                {g.property}
                <span class="text-sm font-normal text-soft"
                  >{(g.looks?.length ?? 0) + g.more} to look at, about {hours(g.minutes)}</span
                >
              </h3>
              {#if g.note}<p class="basis-full border-l-4 border-sun pl-2 text-sm md:order-last">{g.note}</p>{/if}
              <a
                class="inline-flex min-h-11 items-center bg-moss px-4 font-semibold text-white no-underline hover:bg-moss-deep hover:no-underline"
                href="#/walk/{g.property_id}">Start walk<span class="sr-only">&nbsp;at {g.property}</span></a
              >
            </header>
            {#if g.shared?.length === 1}<p class="border-b border-rule px-3 py-1 text-sm">{g.shared[0]}:</p>{/if}
            <ol>
              {#each g.looks ?? [] as p, i (p.id)}
                <li class={i ? 'border-t border-rule' : ''}>
                  <a
                    id="look-{start[gi]! + i}"
                    href="#/walk/{p.property_id}/{p.id}"
                    class="flex min-h-14 items-center gap-3 px-3 py-1 text-ink no-underline hover:bg-sheet hover:no-underline focus:bg-sheet"
                    onfocus={() => (at = start[gi]! + i)}
                  >
                    <Expected plant={p} />
                    <span class="min-w-0 flex-1">
                      <span class="font-semibold">{p.common}</span>{#if p.count > 1}<span class="text-soft"
                          >&nbsp;× {p.count}</span
                        >{/if}
                      <span class="latin text-soft max-sm:hidden">{p.botanical}</span>
                      <span class="text-sm"
                        >· {p.label}{#if p.pot_l > 0}, {p.pot_l} L {p.count > 1 ? 'pots' : 'pot'}{/if}</span
                      >
                      <span class="flex items-center gap-1.5 text-sm font-semibold sm:hidden">{@render hurt(p, 16)}</span>
                      <span class="block text-sm text-soft"
                        >{(g.shared?.length ?? 0) > 1 ? p.look?.reason : capital(p.look?.own ?? '')}</span
                      >
                    </span>
                    <span class="flex w-32 shrink-0 items-center gap-2 text-sm max-sm:hidden">{@render hurt(p, 22)}</span>
                  </a>
                </li>
              {/each}
            </ol>
            {#if g.more}<p class="border-t border-rule px-3 py-2 text-sm text-soft">{g.more} more come up on the walk.</p>{/if}
          </section>
        {/each}
        {#if !look.looks && event}<p class="mt-2">
            Every plant that may have been hurt has its verdict. <a href="#/rounds">Put the jobs on days</a>.
          </p>{/if}
      </section>
      <aside class="space-y-5">
        {#if look.tender}
          <section aria-label="Before the first frost" class="border border-cold bg-white p-3">
            <h2>Before the first frost</h2>
            <p class="text-sm text-soft">
              {look.tender === 1 ? 'One tender plant or group' : `${look.tender} tender plants or groups`} to lift or take in before
              {inWords(firstFrost)}. (Estimate.)
            </p>
            <ul class="max-h-72 overflow-y-auto">
              {#each look.shelter ?? [] as p (p.id)}
                <li>
                  <a class="block min-h-11 border-t border-rule py-1.5 leading-tight" href="#/walk/{p.property_id}/{p.id}"
                    >{p.common}{#if p.count > 1}&nbsp;× {p.count}{/if}<span class="block text-sm text-soft"
                      >{p.property}{#if p.label}, {p.label}{/if}</span
                    ></a
                  >
                </li>
              {/each}
            </ul>
            {#if look.tender > (look.shelter?.length ?? 0)}<p class="text-sm text-soft">
                {look.tender - (look.shelter?.length ?? 0)} more come up on the walks.
              </p>{/if}
          </section>
        {/if}
        {#if look.late}
          <section aria-label="Overdue" class="border-2 border-bad bg-white p-3">
            <h2 class="text-bad">Overdue</h2>
            {#each look.overdue ?? [] as l (l.id)}
              <a class="block min-h-11 border-t border-rule py-1.5" href="#/rounds/{l.id}"
                >{l.title}<span class="block text-sm text-soft">{l.property}, {when(l, house.today)}</span></a
              >
            {/each}
            {#if look.late > (look.overdue?.length ?? 0)}<a class="text-sm" href="#/rounds"
                >{look.late - (look.overdue?.length ?? 0)} more in Rounds</a
              >{/if}
          </section>
        {/if}
        <section>
          <h2>Follow-ups due</h2>
          {#each look.due ?? [] as l (l.id)}
            <a class="block min-h-11 border-b border-rule py-1.5" href="#/rounds/{l.id}"
              >{l.title}<span class="block text-sm text-soft"
                >{l.property}, {l.day ? `on ${inWords(l.day)}` : `best ${inWords(l.best_day)}`}</span
              ></a
            >
          {:else}<p class="text-sm text-soft">None within a fortnight.</p>{/each}
          {#if look.due_count > (look.due?.length ?? 0)}<p class="text-sm text-soft">
              {look.due_count - (look.due?.length ?? 0)} more stand on the year.
            </p>{/if}
        </section>
        <section>
          <h2>Windows closing</h2>
          {#each look.closing ?? [] as l (l.id)}
            <a class="block min-h-11 border-b border-rule py-1.5" href="#/rounds/{l.id}"
              >{l.title}<span class="block text-sm text-soft">{l.property}, until {inWords(l.window_to)}</span></a
            >
          {:else}<p class="text-sm text-soft">None within a fortnight.</p>{/each}
        </section>
        {#if season}
          <section>
            <h2>Frost to come</h2>
            <p class="text-sm">
              {#if season.last_frost}
                Last frost about {inWords(season.last_frost.mid)}, one year in ten after {inWords(season.last_frost.late)}.
              {/if}
              {#if season.frost_to_come >= 0.01}
                Another night under {degrees(0, 0)} this season: {Math.round(season.frost_to_come * 100)} %; under {degrees(
                  -2.2,
                )}: {Math.round(season.killing_to_come * 100)} %.
              {:else if season.first_frost}
                First frost about {inWords(season.first_frost.mid)}, one year in ten before {inWords(season.first_frost.early)}.
              {:else}None in most years.{/if}
              <span class="text-soft">(Estimate.)</span>
              <a href="#/grounds/{event?.property_id ?? look.property}/climate">Outlook</a>
            </p>
          </section>
        {/if}
        {#if quiet.length}
          <details class="text-sm">
            <summary class="flex min-h-11 cursor-pointer items-center text-moss"
              >{quiet.length === 1 ? 'One more event' : `${quiet.length} more events`} that likely hurt nothing here</summary
            >
            <ul class="space-y-1">
              {#each quiet as o (o.kind + o.peak + o.property_id)}<li>
                  <b>{names[o.kind]}, {brief(o.peak)}.</b>
                  {o.story} ({o.property})
                </li>{/each}
            </ul>
          </details>
        {/if}
        {#if season?.source}<p class="text-sm text-soft">Weather: {season.source}, to {brief(season.observed_to)}.</p>{/if}
      </aside>
    </div>
  {/if}
</div>
