<script lang="ts">
  import SpreadWatch from '../finds/SpreadWatch.svelte';
  import { onMount, tick } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, type Schemas, type Season } from '../api/client';
  import { causeOfEvent, causeOfHurt } from '../lib/causes';
  import { brief, degrees, hours, inWords, plantsOf, span } from '../lib/dates';
  import { part } from '../lib/part';
  import { attempt, house, keys } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { when } from '../work/orders';
  import { apart, figure } from '../lib/units';
  import HurtStrip from './HurtStrip.svelte';
  import Later from '../lib/Later.svelte';
  import Mark from './Mark.svelte';
  import Due from '../lib/Due.svelte';
  import NightWatch from './NightWatch.svelte';
  import Ribbon from '../lib/Ribbon.svelte';
  import Waiting from '../lib/Waiting.svelte';

  const lookList = () => import('./LookList.svelte');
  let look = $state.raw<Schemas['Lookout']>();
  let season = $state.raw<Season>();
  let chart = $state.raw<Schemas['EventChart']>();
  let watched = $state(false); // what to look for elsewhere is known: what stands below it does not move any more
  let chosen = $state(0);
  let hourly = $state(false); // on a phone its hours are drawn when asked for
  let at = $state(0);
  const [readSeason, readChart] = [reading(), reading()];
  let wide = $state(window.innerWidth >= 768);

  const readLook = () => attempt(async () => void (look = await ask(api.GET('/api/v1/lookout'))));
  let guessed = $state(0); // names for which many wrong passwords were tried
  const readGuesses = () => attempt(async () => void (guessed = (await ask(api.GET('/api/v1/accounts/guesses'))).items.length));
  onMount(() => {
    void readLook();
    if (house.me?.account?.role === 'owner') void readGuesses();
    keys.screen = [
      { key: 'ArrowDown', does: 'next plant of the look-list', run: () => void move(1) },
      { key: 'ArrowUp', does: 'plant before', run: () => void move(-1) },
      { key: 'Enter', does: 'walk to the plant', run: () => open(at) },
      {
        key: 'W',
        does: 'start the walk of this property',
        run: () => startWalk(openAt || (look?.places?.[0]?.property_id ?? 0)),
      },
      { key: 'E', does: 'next event', run: nextEvent },
    ];
    return () => (keys.screen = []);
  });
  const groups = $derived(look?.groups ?? []);
  const largest = $derived(Math.max(1, ...(look?.places ?? []).map((l) => l.plants)));
  const firstFrost = $derived((look?.shelter ?? []).map((p) => p.take_in!.before).sort()[0]);
  const rows = $derived(groups.find((g) => g.property_id === openAt)?.looks ?? []);
  const events = $derived(look?.events ?? []);
  // Those that hurt something; the rest is told in a line.
  const told = $derived(events.map((e, i) => ({ e, i })).filter(({ e }) => e.hurt > 0));
  const quiet = $derived(events.filter((e) => e.hurt === 0));
  const event = $derived(told.some(({ i }) => i === chosen) ? events[chosen] : told[0]?.e);

  // The ribbon and the chart belong to the property in which the event was worst.
  $effect(() => {
    const of = event?.property_id ?? look?.property ?? 0;
    if (!of || season_of === of) return;
    season_of = of;
    void readSeason(async (signal) => {
      season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: of } }, signal }));
    });
  });
  /** The property that the season is of. */
  const seasonOf = $derived(
    look?.places.find((p) => p.property_id === (event?.property_id ?? look?.property))?.property ?? event?.property ?? '',
  );
  let season_of = 0;
  $effect(() => {
    const e = event;
    if (!e) return;
    void readChart(async (signal) => {
      const params = { path: { id: e.property_id }, query: { kind: e.kind, peak: e.peak } };
      chart = await ask(api.GET('/api/v1/properties/{id}/event', { params, signal }));
    });
  });

  function nextEvent() {
    const k = told.findIndex(({ i }) => i === chosen);
    chosen = told[(k + 1) % Math.max(1, told.length)]?.i ?? 0;
  }
  async function move(by: number) {
    if (!openAt) openAt = look?.places?.[0]?.property_id ?? 0;
    at = Math.max(0, Math.min(rows.length - 1, at + by));
    await lookList();
    await tick();
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
  const facts = (e: Schemas['EventGroup']): [string, string][] => {
    const cold = e.kind === 'freeze' || e.kind === 'late frost';
    const out: [string, string][] = [[cold ? 'Depth' : e.kind === 'drying wind' ? 'Dose' : 'Peak', value(e)]];
    if (e.kind !== 'wet spell') out.push(['Length', `${e.hours} h`]);
    else out.push(['Length', span(e.from, e.to)]);
    if (cold) {
      out.push(['Fell in 72 h', apart(e.fall_c, 0)]);
      out.push(['Plants hardened', `${Math.round(100 * e.hardened)} %`]);
    }
    return out;
  };
  /** What a property asks beside its looks; what all rows share is said once, above them. */
  const besides = (l: Schemas['PlaceLine']) =>
    [
      l.deep && l.deep < l.looks ? `${l.deep} of them hurt deep` : '',
      l.due ? `${l.due} ${l.due === 1 ? 'follow-up' : 'follow-ups'} due` : '',
      l.overdue ? `${l.overdue} ${l.overdue === 1 ? 'job' : 'jobs'} overdue` : '',
    ]
      .filter(Boolean)
      .join(', ') +
    (l.nearest && (l.due || l.overdue) ? `, ${l.nearest <= house.today ? 'since' : 'by'} ${brief(l.nearest)}` : '');
  // Mornings are short: at first there is a line for each property, and one is opened to see its plants.
  let openAt = $state(0);
  let dating = $state<Schemas['PlaceLine']>();
</script>

<svelte:window onresize={() => (wide = window.innerWidth >= 768)} />
<svelte:head><title>Lookout · Mezzadro</title></svelte:head>

{#snippet firstSteps(begun: NonNullable<typeof house.frame>['first'] & object)}
  {#await part(() => import('./FirstSteps.svelte')) then it}<it.default {begun} />{/await}
{/snippet}
{#snippet hoursOf(e: Schemas['EventGroup'])}
  {#if chart && chart.event.peak === e.peak && chart.event.kind === e.kind}
    <p class="text-sm text-soft">
      {e.property}{#if chart.lines?.some((l) => l.organ)}: air against what plants bore that day, before half of it dies
        (estimate){/if}
    </p>
    {#await part(() => import('./EventChart.svelte'))}<div class="h-44"></div>{:then it}<it.default {chart} />{/await}
  {:else}<div class="h-48"></div>{/if}
{/snippet}

<!-- svelte-ignore a11y_no_noninteractive_tabindex: it is scrolled on a phone, by keys too -->
<div
  class="border-b border-rule bg-white max-lg:overflow-x-auto {house.frame && !house.frame.counts.grounds ? '' : 'min-h-[139px]'}"
  role="group"
  aria-label="The year so far"
  tabindex="0"
>
  {#if season}<Later><Ribbon {season} place={event?.property ?? ''} /></Later>{/if}
</div>

<div class="px-5 py-4 max-md:px-3">
  <h1 class="sr-only">Lookout</h1>
  {#if look?.unreadable?.length}<div class="mb-3 border-l-4 border-bad bg-white px-3 py-1" role="alert">
      <p>
        <b
          >{look.unreadable.length === 1
            ? 'One row of the record cannot be read'
            : `${look.unreadable.length} rows of the record cannot be read`}</b
        >
        and stand in no list. Look the record through with <code>mezzadro check</code>, and restore a backup if need be.
      </p>
      <ul class="text-sm">
        {#each look.unreadable.slice(0, 5) as u}<li>{u}</li>{/each}
      </ul>
    </div>{/if}
  {#if guessed}<p class="mb-3 border-l-4 border-bad bg-white px-3 py-1">
      Many wrong passwords were tried{guessed === 1 ? '' : ` for ${guessed} names`}.
      <a class="inline-flex min-h-11 items-center underline" href="#/settings">See for whom in Settings</a>
    </p>{/if}
  {#if look?.backup_due && house.may('owner')}<p class="mb-3 border-l-4 border-sun bg-white px-3 py-1">
      There was no backup of the record for a week. <a class="inline-flex min-h-11 items-center underline" href="#/settings"
        >Write one in Settings</a
      >
    </p>{/if}
  {#if !look || !house.frame}
    <Waiting rows={8} />
  {:else if !house.frame.counts.grounds}
    {@render firstSteps(house.frame.first ?? { property: 0, plant: 0, checked: false, decided: false })}
  {:else}
    {#if house.frame.first}{@render firstSteps(house.frame.first)}{/if}
    <NightWatch />
    <div class="grid gap-6 lg:grid-cols-[minmax(0,1fr)_16rem]">
      <section aria-labelledby="looks" class="min-w-0">
        <h2 id="looks">
          {#if look.looks}Which property first{:else}Nothing on the look-list{/if}
        </h2>
        {#if event || look.looks}<p class="text-sm text-soft">
            {#if event}After the {(names[event.kind] ?? event.kind).toLowerCase()} of {inWords(event.peak)}
              ({value(event)} at {event.property}):{' '}{/if}{plantsOf(look.looks)} to look at, {look.deep === look.looks &&
            look.looks > 1
              ? 'all'
              : `${look.deep} of them`} with wood, roots or heart likely hurt. {#if look.slight}Another
              {look.slight}
              are hurt a little: little is lost by waiting.{/if}
            {look.unhurt} stayed well within what they bear{look.looked > 0 ? `; ${look.looked} already decided` : ''}.
          </p>{/if}
        <p
          class="mt-3 grid gap-x-4 px-3 text-sm font-semibold max-sm:hidden sm:grid-cols-[minmax(0,1fr)_7rem_4.5rem]"
          aria-hidden="true"
        >
          <span class="grid gap-x-4 sm:grid-cols-[minmax(0,1fr)_7rem_5rem_6.5rem]"
            ><span>Property</span><span>Of its plants</span><span class="text-right">To look at</span><span class="text-right"
              >About</span
            ></span
          >
        </p>
        <ul class="border-t border-rule max-sm:mt-3" aria-label="Properties">
          {#each look.places ?? [] as l (l.property_id)}
            {@const g = groups.find((g) => g.property_id === l.property_id)}
            {@const is = openAt === l.property_id}
            <li class="border-x border-b border-rule bg-white">
              <section aria-label={l.property}>
                <header
                  class="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 px-3 py-1 sm:grid-cols-[minmax(0,1fr)_7rem_4.5rem] {is
                    ? 'bg-sheet'
                    : ''}"
                >
                  <button
                    class="grid min-h-12 grid-cols-subgrid items-center gap-x-4 text-left max-sm:col-span-2 sm:grid-cols-[minmax(0,1fr)_7rem_5rem_6.5rem]"
                    aria-expanded={is}
                    onclick={() => (openAt = is ? 0 : l.property_id)}
                  >
                    <span class="min-w-0">
                      <h3 class="name font-semibold">{is ? '▾' : '▸'} {l.property}</h3>
                      {#if besides(l)}<span class="block text-sm {l.overdue ? 'text-bad' : 'text-soft'}">{besides(l)}</span>{/if}
                    </span>
                    <span class="max-sm:hidden"
                      >{#if wide}<HurtStrip plants={l.plants} looks={l.looks} deep={l.deep} most={largest} />{/if}</span
                    >
                    {#if l.looks}
                      <span class="text-right tabular-nums max-sm:hidden"
                        ><b>{l.looks}</b><span class="sr-only"> to look at</span></span
                      >
                      <span class="text-right text-sm whitespace-nowrap text-soft tabular-nums max-sm:hidden"
                        >{hours(l.minutes)}</span
                      >
                      <span class="text-sm text-soft sm:hidden"
                        ><b class="text-ink">{l.looks} to look at</b>, {hours(l.minutes)}</span
                      >
                    {:else}<span class="text-sm text-soft sm:col-span-2 sm:text-right">{besides(l) ? '' : 'nothing today'}</span
                      >{/if}
                  </button>
                  {#if l.looks}
                    <a
                      class="inline-flex min-h-11 items-center justify-center px-3 font-semibold no-underline hover:no-underline max-sm:justify-self-start {l ===
                      look.places?.[0]
                        ? 'bg-moss text-white hover:bg-moss-deep'
                        : 'border border-moss bg-white'}"
                      href="#/walk/{l.property_id}">Start walk<span class="sr-only">&nbsp;at {l.property}</span></a
                    >
                    <button
                      class="min-h-11 px-1 text-sm whitespace-nowrap text-moss underline max-sm:justify-self-end"
                      onclick={() => (dating = l)}>On a day<span class="sr-only">: the walk of {l.property}</span></button
                    >
                  {/if}
                </header>
                {#if is}
                  {#if l.note}<p class="border-l-4 border-sun px-2 text-sm">{l.note}</p>{/if}
                  {#if g}{#await part(lookList) then it}<it.default group={g} onpoint={(i) => (at = i)} />{/await}
                  {:else if l.looks}<p class="px-3 py-1.5 text-sm">They come first on the walk.</p>{:else}<p
                      class="px-3 py-1.5 text-sm text-soft"
                    >
                      Nothing here is likely hurt or due. <a href="#/grounds/{l.property_id}">Its plants</a>
                    </p>{/if}
                {/if}
              </section>
            </li>
          {/each}
        </ul>
        {#if !look.looks && look.looked}<p class="mt-2">
            Every plant that was likely hurt has its verdict. <a href="#/rounds">Put the jobs on days</a>.
          </p>{:else if !look.looks && events.length}<p class="mt-2">
            Nothing that the weather of the last months did is likely to have hurt a plant.
          </p>{/if}
        <Later>
          <div class="mt-5">
            {#if event}
              <section aria-label="Event" class="border border-ink bg-white">
                {#if told.length > 1}
                  <div
                    class="flex border-b border-rule max-md:overflow-x-auto md:flex-wrap"
                    role="group"
                    aria-label="Events of the last months"
                  >
                    {#each told as { e, i } (i)}
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
                <div class="grid gap-x-6 gap-y-2 px-4 py-3 xl:grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)]">
                  <div class="min-w-0">
                    <h2 class="text-xl">{names[event.kind]} on {inWords(event.peak)}</h2>
                    <p>{event.story}</p>
                    {#if event.places.length > 1}<p class="mt-2 text-sm text-soft">
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
                      {#each event.places as p, i (i)}
                        <li class={p.property_id === event.property_id ? 'font-semibold' : ''}>
                          {p.property}&nbsp;<span class="text-soft">{value(p)}</span>
                        </li>
                      {/each}
                    </ul>
                  </div>
                  {#if wide}<div class="min-w-0">{@render hoursOf(event)}</div>
                  {:else}
                    <details class="text-sm" bind:open={hourly}>
                      <summary class="flex min-h-11 cursor-pointer items-center text-moss"
                        >Hour by hour, against what plants bore</summary
                      >
                      {#if hourly}{@render hoursOf(event)}{/if}
                    </details>
                  {/if}
                </div>
              </section>
            {:else}
              <section class="border border-rule bg-white px-4 py-3">
                <h2>
                  {quiet.length
                    ? 'Nothing in the last months is likely to have hurt a plant'
                    : 'No freeze, heat or gale in the last months'}
                </h2>
                <p class="text-soft">
                  {#if quiet.length}{quiet.length === 1 ? 'One event' : `${quiet.length} events`} stayed within what every plant bears:
                    see at the end.{:else}Events show here as soon as the weather of a property holds one. Weather is read, or
                    taken from a file, in Grounds.{/if}
                </p>
              </section>
            {/if}
          </div>
        </Later>
        <Later><Due first={3} /></Later>
      </section>
      <aside>
        <Later
          ><div class="space-y-5">
            {#if look.tender}
              <section aria-label="Before the first frost" class="border border-cold bg-white p-3">
                <h2>Before the first frost</h2>
                <p class="text-sm text-soft">
                  {look.tender === 1 ? 'One tender plant or group' : `${look.tender} tender plants or groups`} to lift or take in before
                  {inWords(firstFrost)}. (Estimate.)
                </p>
                <ul class="max-h-72 overflow-y-auto">
                  {#each look.shelter as p (p.id)}
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
            {#if look.waits.length}
              <section aria-label="On a day, and to wait" class="border-2 border-sun bg-white p-3">
                <h2>On a day, and to wait</h2>
                {#each look.waits as l (l.id)}
                  <div class="border-t border-rule py-1.5">
                    <a class="block" href="#/rounds/{l.id}"
                      >{l.title}<span class="block text-sm text-soft">{l.property}, on {inWords(l.day)}</span></a
                    >
                    {#if l.hold}{#await part(() => import('../work/HoldNote.svelte')) then it}<it.default
                          hold={l.hold}
                          order={l}
                          onkept={readLook}
                        />{/await}{/if}
                  </div>
                {/each}
              </section>
            {/if}
            {#if look.late}
              <section aria-label="Overdue" class="border-2 border-bad bg-white p-3">
                <h2 class="text-bad">Overdue</h2>
                {#each look.overdue as l (l.id)}
                  <a class="block min-h-11 border-t border-rule py-1.5" href="#/rounds/{l.id}"
                    >{l.title}<span class="block text-sm text-soft">{l.property}, {when(l, house.today)}</span></a
                  >
                {/each}
                {#if look.late > (look.overdue?.length ?? 0)}<a class="text-sm" href="#/rounds"
                    >{look.late - (look.overdue?.length ?? 0)} more in Rounds</a
                  >{/if}
              </section>
            {/if}
            {#if look.awaited.length}
              <section aria-label="Answers awaited" class="border border-rule bg-white p-3">
                <h2>Answers awaited</h2>
                {#each look.awaited as u (u.id)}
                  <a
                    class="block min-h-11 border-t border-rule py-1.5"
                    href={u.plant_id ? `#/plant/${u.plant_id}` : `#/grounds/${u.property_id}`}
                    >{u.plant || u.property}: “{u.words}”<span
                      class="block text-sm {(u.answer_by ?? '') < house.today ? 'font-semibold text-bad' : 'text-soft'}"
                      >{u.sent_to ? `from ${u.sent_to}, ` : ''}by {inWords(u.answer_by ?? '')}</span
                    ></a
                  >
                {/each}
              </section>
            {/if}
            <SpreadWatch onread={() => (watched = true)} />
            {#if watched}<section>
                <h2>Follow-ups due</h2>
                {#each look.due as l (l.id)}
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
                {#each look.closing as l (l.id)}
                  <a class="block min-h-11 border-b border-rule py-1.5" href="#/rounds/{l.id}"
                    >{l.title}<span class="block text-sm text-soft">{l.property}, until {inWords(l.window_to)}</span></a
                  >
                {:else}<p class="text-sm text-soft">None within a fortnight.</p>{/each}
              </section>
              {#if season}
                <section>
                  <h2>Frost to come{seasonOf ? `: ${seasonOf}` : ''}</h2>
                  <p class="text-sm">
                    {#if season.last_frost}
                      Last frost about {inWords(season.last_frost.mid)}, one year in ten after {inWords(season.last_frost.late)}.
                    {/if}
                    {#if season.frost_to_come >= 0.01}
                      Another night under {degrees(0, 0)} this season: {Math.round(season.frost_to_come * 100)} %; under {degrees(
                        -2.2,
                      )}: {Math.round(season.killing_to_come * 100)} %.
                    {:else if season.first_frost}
                      First frost about {inWords(season.first_frost.mid)}, one year in ten before {inWords(
                        season.first_frost.early,
                      )}.
                    {:else}None in most years.{/if}
                    <span class="text-soft">(Estimate.)</span>
                    <a href="#/grounds/{event?.property_id ?? look.property}/climate">Outlook</a>
                  </p>
                </section>
              {/if}
              {#if quiet.length}
                <details class="text-sm">
                  <summary class="flex min-h-11 cursor-pointer items-center text-moss"
                    >{quiet.length === 1 ? 'One event' : `${quiet.length} events`} that likely hurt nothing here</summary
                  >
                  <ul class="space-y-1">
                    {#each quiet as o, i (i)}<li>
                        <b>{names[o.kind]}, {brief(o.peak)}.</b>
                        {o.story} ({o.property})
                      </li>{/each}
                  </ul>
                </details>
              {/if}
              {#if season?.source}<p class="text-sm text-soft">
                  Weather: {season.source}, to {brief(season.observed_to)}.
                </p>{/if}{/if}
          </div></Later
        >
      </aside>
    </div>
  {/if}
</div>

{#if dating}{#await part(() => import('./WalkOnDay.svelte')) then it}<it.default
      line={dating}
      onclose={() => (dating = undefined)}
    />{/await}{/if}
