<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, onceKey, type Order, type OrderDetail, type Property, type Schemas, type Season } from '../api/client';
  import { brief, dayName, dayOfWeek, daysBetween, degrees, hours, inWords, plusDays } from '../lib/dates';
  import { part } from '../lib/part';
  import { attempt, house, keys } from '../lib/house.svelte';
  import { forWhat, origin, titled, when, costOf, costWord, isGood } from '../work/orders';
  import { cardOf } from '../cuts/purposes';
  import Later from '../lib/Later.svelte';
  import Ribbon from '../lib/Ribbon.svelte';
  import More from '../lib/More.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import Tick from '../work/Tick.svelte';

  let { params }: { params?: { job?: string } } = $props();
  const jobId = $derived(Number(params?.job ?? 0));

  const span = 14;
  let rounds = $state.raw<Schemas['Rounds']>();
  let waiting = $state.raw<Order[]>([]);
  let next = $state('');
  let season = $state.raw<Season>();
  let job = $state.raw<OrderDetail>();
  let first = $state.raw<Property>();
  let from = $state('');
  let day = $state('');
  let warnings = $state<string[]>([]);
  let gone = false; // one has left for another place
  let entering = $state<'new' | 'change'>();

  async function read() {
    // The days begin with the week, so that what was done in it is seen. (begin.ts asks for the same.)
    const query = from ? { from, days: span } : { days: span, week: true };
    const r = await ask(api.GET('/api/v1/rounds', { params: { query } }));
    rounds = r;
    waiting = r.waiting;
    next = r.next;
    from ||= r.days?.[0]?.day ?? '';
    day ||= house.today || from;
  }
  const more = () =>
    attempt(async () => {
      const p = await ask(api.GET('/api/v1/orders', { params: { query: { list: 'waiting', cursor: next } } }));
      waiting = [...waiting, ...p.items];
      next = p.next;
    });
  async function readJob() {
    job = jobId ? await ask(api.GET('/api/v1/orders/{id}', { params: { path: { id: jobId } } })) : undefined;
  }
  /** After a job has changed, the chosen one and the days are read anew. */
  const anew = () =>
    attempt(async () => {
      if (!gone) await Promise.all([readJob(), read()]);
    });
  let asked = -1;
  $effect(() => {
    if (asked === jobId) return;
    asked = jobId;
    void attempt(async () => {
      warnings = [];
      const stood = day; // a day that is pressed meanwhile stays
      await readJob();
      if (job) {
        const best = (job.overdue ? '' : job.day) || job.best_day || house.today;
        await house.refresh();
        const start = plusDays(best, -4);
        if (day === stood) [from, day] = [start < house.today ? house.today : start, best];
        season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: job.property_id } } }));
      }
      const begun = !from; // without a day asked for: it is today's, as soon as that is known
      await Promise.all([read(), house.frame ? undefined : house.refresh()]);
      if (begun && day === from && house.today) day = house.today;
      if (!job) {
        first ??= (await ask(api.GET('/api/v1/properties', { params: { query: { limit: 1 } } }))).items?.[0];
        if (first) season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: first.id } } }));
      }
    });
  });
  function show(start: string) {
    from = start;
    if (day < from || day > plusDays(from, span - 1)) day = from;
    void attempt(read);
  }
  function choose(d: string) {
    day = d;
    if (d < from || d > plusDays(from, span - 1)) show(plusDays(d, -4));
  }
  onMount(() => {
    keys.screen = [
      { key: 'ArrowRight', does: 'next day', run: () => day && choose(plusDays(day, 1)) },
      { key: 'ArrowLeft', does: 'day before', run: () => day && choose(plusDays(day, -1)) },
      { key: 'Enter', does: 'put the chosen job on this day', run: () => job && void put(job, day) },
      { key: 'X', does: 'take the chosen job off its day', run: () => job?.day && void put(job, null) },
    ];
    return () => {
      gone = true;
      keys.screen = [];
    };
  });

  async function put(l: Order, on: string | null, quietly = false) {
    await attempt(async () => {
      const before = l.day || null;
      const r = await ask(
        api.PUT('/api/v1/orders/{id}/day', {
          params: { path: { id: l.id }, header: onceKey() },
          body: { day: on, version: l.version, crew: l.crew } as never,
        }),
      );
      warnings = r.warnings;
      if (job?.id === l.id) job = r.job;
      await read();
      // A day that is past cannot be given back; the job is taken off then.
      const back = before && before >= house.today ? before : null;
      if (!quietly) house.say(on ? `${l.title}: on ${inWords(on)}.` : `${l.title}: off its day.`, () => put(r.job, back, true));
    });
  }
  const nextYear = (o: OrderDetail) =>
    attempt(async () => {
      job = await ask(
        api.POST('/api/v1/orders/{id}/next-year', {
          params: { path: { id: o.id }, query: { version: o.version }, header: onceKey() },
        }),
      );
      await read();
      if (job.best_day) choose(job.best_day);
      house.say(`${job.title}: in the coming year.`);
    });
  const cost = (l: OrderDetail, d: string) => l.costs?.[daysBetween(l.start, d)] ?? 101;
  const lane = $derived(
    job
      ? [
          {
            id: job.id,
            label: titled(job),
            note: job.property,
            start: job.start,
            costs: job.costs,
            windows: job.windows,
            day: job.day || undefined,
          },
        ]
      : [],
  );
  const ended = $derived(job?.state === 'done' || job?.state === 'skipped');
  // What all days to come are for the chosen job is said once, and not in each.
  const alike = $derived.by(() => {
    if (!job || ended) return '';
    const [first, ...others] = (rounds?.days ?? [])
      .filter((d) => d.day >= house.today)
      .map((d) => costWord(cost(job!, d.day), d.day, job));
    return first && others.length && others.every((w) => w === first) ? first : '';
  });
  const sheet = $derived(rounds?.days?.find((d) => d.day === day));
  const why = $derived(
    job
      ? (job.reasons ?? [])
          .map((r) => ({ text: r.text, cost: r.costs?.[daysBetween(job!.start, day)] ?? 0 }))
          .filter((r) => r.cost > 0)
      : [],
  );
  const byProperty = $derived.by(() => {
    const out = new Map<string, Order[]>();
    for (const l of sheet?.jobs ?? []) out.set(l.property, [...(out.get(l.property) ?? []), l]);
    return [...out];
  });
  // Weeks begin as the firm's do: empty places before the first day.
  const before = $derived(from ? (dayOfWeek(from) - (house.frame?.firm.week_start ?? 1) + 7) % 7 : 0);
  const night = (d: Schemas['RoundDay']) => (d.min_c === null ? '' : degrees(d.min_c!, 0).replace(/ °.$/, '°'));
  const noon = (d: Schemas['RoundDay']) => (d.max_c === null ? '' : degrees(d.max_c!, 0).replace(/ °.$/, '°'));
</script>

<svelte:head><title>Rounds · Mezzadro</title></svelte:head>

{#snippet item(l: Order)}
  <a
    href="#/rounds/{l.id}"
    aria-current={l.id === jobId ? 'true' : undefined}
    class="block min-h-11 border-t border-rule px-2 py-1.5 leading-snug text-ink no-underline hover:bg-sheet hover:no-underline {l.id ===
    jobId
      ? 'bg-moss-pale'
      : ''}"
  >
    <span class="font-semibold">{l.title}</span>
    <span class="block text-sm text-soft">{l.property}{forWhat(l) ? `, ${forWhat(l)}` : ''} · {hours(l.minutes)}</span>
    <span class="block text-sm {l.overdue ? 'font-semibold text-bad' : ''}">{when(l, house.today)}</span>
  </a>
{/snippet}

<div
  class="border-b border-rule bg-white max-lg:overflow-x-auto {house.frame && !house.frame.counts.grounds ? '' : 'min-h-[139px]'}"
>
  {#if season}<Later
      ><Ribbon
        {season}
        place={job?.property ?? first?.name}
        lanes={lane}
        pointed={day}
        onpick={(d) => d >= house.today && choose(d)}
      /></Later
    >{/if}
</div>

{#if !rounds}<div class="px-5 py-3">
    <h1 class="sr-only">Rounds</h1>
    <Waiting rows={14} />
  </div>{/if}
<div class="grid lg:grid-cols-[19rem_minmax(0,1fr)] {rounds ? '' : 'hidden'}">
  <section class="border-r border-rule px-4 py-3 max-lg:order-last" aria-label="Jobs to be placed">
    {#if rounds}<Later>
        <div class="flex items-center gap-2">
          <h1 class="flex-1 lg:sr-only">Rounds</h1>
          {#if house.may('planner')}<Button color="light" size="sm" class="min-h-11" onclick={() => (entering = 'new')}
              >Job by hand</Button
            >{/if}
        </div>
        {#if rounds.overdue?.length}
          <h2 class="mt-3 text-bad">Overdue</h2>
          <ul class="mt-1 border-l-4 border-bad" aria-label="Overdue">
            {#each rounds.overdue as l (l.id)}<li>{@render item(l)}</li>{/each}
          </ul>
        {/if}
        <h2 class="mt-3">
          Jobs without a day{#if rounds.count}<span class="font-normal text-soft">&nbsp;{rounds.count}</span>{/if}
        </h2>
        <ul class="mt-1">
          {#each waiting as l (l.id)}
            <li>{@render item(l)}</li>
          {:else}
            <li class="border-t border-rule py-3 text-soft">
              No job is waiting for a day. New ones come from verdicts on a walk, or are entered by hand.
            </li>
          {/each}
        </ul>
        {#if next}<Button color="light" size="sm" class="mt-2" onclick={more}>Show more</Button>{/if}
        <Later
          >{#await part(() => import('../work/EndedJobs.svelte')) then it}<it.default
              stamp={rounds}
              onkept={anew}
            />{/await}</Later
        >
      </Later>{/if}
  </section>

  <div class="min-w-0 px-5 py-3 max-md:px-3">
    {#if job}
      <section
        aria-label="Chosen job"
        class="mb-3 border bg-white px-4 py-3 {job.overdue ? 'border-4 border-bad' : 'border-ink'}"
      >
        <div class="flex flex-wrap items-start gap-3">
          <div class="min-w-52 flex-1">
            <p class="text-lg font-bold">{job.title}</p>
            <p class="text-sm text-soft">
              {job.property}{forWhat(job) ? `, ${forWhat(job)}` : ''} · {hours(job.minutes)}{job.crew_size > 1
                ? `, ${job.crew_size} people`
                : ''} · from {origin[job.origin] ?? job.origin}{job.kit?.length ? ` · kit: ${job.kit.join(', ')}` : ''}
            </p>
            {#if job.state !== 'waiting' || job.passed}<p
                class="text-sm {job.overdue ? 'font-semibold text-bad' : 'font-semibold'}"
              >
                {when(job, house.today)}
              </p>{/if}
            {#if job.state === 'done' && job.note}<p class="text-sm">“{job.note}”</p>{/if}
          </div>
          {#if !ended && ['look', 'walk'].includes(job.kind) && job.plant_ids?.[0]}
            <a
              class="inline-flex min-h-11 items-center border border-moss bg-white px-3 font-semibold"
              href="#/walk/{job.property_id}/{job.plant_ids[0]}">Look at it now</a
            >
          {:else if !ended && job.kind === 'walk'}
            <a
              class="inline-flex min-h-11 items-center border border-moss bg-white px-3 font-semibold"
              href="#/walk/{job.property_id}">Start this walk</a
            >
          {/if}
          {#if !ended}
            {#if job.day && !job.overdue}
              <span class="min-h-11 content-center font-semibold">On {inWords(job.day)}</span>
              {#if day !== job.day}<Button disabled={cost(job, day) > 100 || day < house.today} onclick={() => put(job!, day)}
                  >Move to {inWords(day)}</Button
                >{/if}
              <Button color="light" onclick={() => put(job!, null)}>Take it off</Button>
            {:else}
              <Button disabled={!day || cost(job, day) > 100 || day < house.today} onclick={() => put(job!, day)}
                >Put on {inWords(day)}</Button
              >
            {/if}
          {/if}
        </div>
        {#if !ended && !job.passed}
          <p class="mt-1 text-sm" aria-live="polite">
            {inWords(day)} is
            <b>{costWord(cost(job, day), day, job)}</b>
            <span class="text-soft">({costOf(cost(job, day))})</span>{why.length
              ? ': ' + why.map((w) => w.text).join('; ')
              : ', nothing speaks against it'}.
            {#if job.best_day && day !== job.best_day}<button
                class="min-h-9 text-moss underline"
                onclick={() => choose(job!.best_day)}>Best is {inWords(job.best_day)}</button
              >{/if}
          </p>
        {/if}
        {#each warnings as w}<p role="alert" class="mt-1 border-l-4 border-bad pl-2 text-sm font-semibold">{w}</p>{/each}
        <div class="mt-2 flex flex-wrap items-center gap-2">
          {#key job.id + job.state}<Tick order={job} onkept={anew} />{/key}
          {#key job.id}<Later
              >{#await part(() => import('../work/JobPhotos.svelte')) then it}<it.default order={job!} />{/await}</Later
            >{/key}
          {#if job.passed && !ended}
            {#if job.kind !== 'other'}<button class="min-h-11 border border-rule bg-white px-3" onclick={() => nextYear(job!)}
                >In the coming year</button
              >{/if}
          {/if}
          {#if !ended && job.origin === 'hand'}<button
              class="min-h-11 border border-rule bg-white px-3"
              onclick={() => (entering = 'change')}>Change</button
            >{/if}
          {#if job.origin === 'programme' && job.origin_id}<a
              class="inline-flex min-h-11 items-center px-2"
              href="#/treat/{job.origin_id}">What to do about it</a
            >{/if}
          {#if job.kind === 'prune' && job.plant_id}<a
              class="inline-flex min-h-11 items-center px-2"
              href={cardOf(job.plant_id, { ...job.params, purpose: job.params.purpose || 'shape' })}>Cut card</a
            >{/if}
          {#if job.plant_id}<a class="inline-flex min-h-11 items-center px-2" href="#/plant/{job.plant_id}">The plant</a>{/if}
        </div>
        {#if job.hold}<div class="mt-2">
            {#await part(() => import('../work/HoldNote.svelte')) then it}<it.default
                hold={job.hold}
                order={job}
                onkept={anew}
              />{/await}
          </div>{/if}
        {#each job.stints as s (s.id)}<p class="mt-1 text-sm">
            {inWords(s.day)}: {s.kind}{s.reason ? `, ${s.reason}` : ''}{s.took_minutes ? `, ${hours(s.took_minutes)}` : ''}{s.note
              ? `: “${s.note}”`
              : ''}
          </p>{/each}
        {#each job.why as w}<p class="mt-1 text-sm text-soft">{w}</p>{/each}
        {#each job.after as g (g.id)}<p class="mt-1 text-sm">
            After <a href="#/rounds/{g.id}">{g.title}</a>{g.min_days ? `, at least ${g.min_days} days` : ''}{g.max_days
              ? `, at most ${g.max_days} days`
              : ''}{g.day ? ` (${brief(g.day)})` : ''}.
          </p>{/each}
        {#each job.cautions as c}<p class="mt-1 border-l-4 border-sun pl-2 text-sm">{c}</p>{/each}
      </section>
    {/if}

    <div class="flex flex-wrap items-center gap-2">
      <h2 class="flex-1">{brief(from)} – {brief(plusDays(from || '2000-01-01', span - 1))}</h2>
      {#if house.may('planner')}
        <Button size="sm" class="min-h-11" href="#/propose">Propose rounds</Button>
        <Button size="sm" color="light" class="min-h-11" href="#/tell">Tell clients</Button>
      {/if}
      <Button size="sm" color="light" class="min-h-11" onclick={() => show(plusDays(from, -span))}>Earlier</Button>
      <Button size="sm" color="light" class="min-h-11" disabled={from === house.today} onclick={() => show(house.today)}
        >Today</Button
      >
      <Button size="sm" color="light" class="min-h-11" onclick={() => show(plusDays(from, span))}>Later</Button>
    </div>
    {#if alike && job}<p class="mt-1 text-sm">
        {job.title}: {#if cost(job, rounds?.days.at(-1)?.day ?? day) > 100}<b>none of these days is allowed</b>{:else}all of these
          days are <b>{alike}</b>{/if}.
      </p>{/if}
    <div class="mt-2 grid gap-1 max-sm:gap-0 sm:grid-cols-7" role="group" aria-label="Days">
      {#each { length: before }, i (i)}<span class="max-sm:hidden" aria-hidden="true"></span>{/each}
      {#each rounds?.days as d (d.day)}
        {@const c = job && !ended ? cost(job, d.day) : undefined}
        {@const open = d.jobs.filter((j) => j.state === 'on a day')}
        {@const over = d.jobs.length - open.length}
        <button
          class="border px-1 py-1 text-left text-sm leading-tight max-sm:flex max-sm:min-h-11 max-sm:flex-wrap max-sm:items-center max-sm:gap-x-3 max-sm:px-2 sm:min-h-20 md:px-1.5 {d.day ===
          day
            ? 'border-2 border-ink'
            : 'border-rule'} {dayOfWeek(d.day) % 6 === 0 ? 'bg-sheet' : 'bg-white'}"
          aria-pressed={d.day === day}
          onclick={() => {
            choose(d.day);
            // On a phone the days are a list, and what the day holds lies below it.
            if (innerWidth < 640) document.getElementById('sheet')?.scrollIntoView({ block: 'start' });
          }}
          ondblclick={() => job && put(job, d.day)}
        >
          <span class="block font-semibold max-sm:w-24 {d.day === house.today ? 'text-bad' : ''}"
            >{dayName(d.day)} {brief(d.day)}</span
          >
          {#if d.min_c !== null}<span
              class="block text-xs text-soft max-sm:order-last max-sm:ml-auto {d.seen ? 'font-semibold' : ''}"
              >{night(d)} / {noon(d)}{#if d.frost >= 0.1}<span class="text-cold max-sm:hidden"
                  >{d.seen ? ' frost' : ` frost ${Math.round(100 * d.frost)} %`}</span
                >{/if}</span
            >{/if}
          {#if open.length}<span class="block"
              >{open.length} {open.length === 1 ? 'job' : 'jobs'}, <span class="whitespace-nowrap">{hours(d.minutes)}</span></span
            >{/if}
          {#if over}<span class="block text-xs text-moss">{over} ended</span>{/if}
          {#if d.flags.length}<span class="block text-xs font-bold text-bad">does not work</span>{/if}
          {#if c !== undefined && !alike}<span
              class="mt-0.5 block text-xs {isGood(c) ? 'font-bold text-moss' : 'text-soft'}"
              title={costOf(c)}>{costWord(c, d.day, job)}</span
            >{/if}
        </button>
      {/each}
    </div>
    {#if rounds?.weather}<p class="mt-1 text-xs text-soft">
        Night and day temperatures of {rounds.weather}: as observed (bold), ahead as usual for the day; frost as a chance.
      </p>{/if}

    <section aria-labelledby="sheet" class="mt-4">
      <div class="flex flex-wrap items-center gap-3">
        <h2 id="sheet" class="min-w-[min(100%,15rem)] flex-1">
          {inWords(day)}: {sheet?.jobs?.length
            ? `${hours(sheet.minutes)} of work, ${sheet.has ? 'the crews have' : 'a day has'} ${hours(sheet.has || (rounds?.day_minutes ?? 480))}`
            : 'nothing on this day yet'}
        </h2>
        {#if sheet?.jobs?.length}<span class="text-sm text-soft">travel not counted</span>
          <a class="inline-flex min-h-11 items-center border border-moss px-3 font-semibold" href="#/day/{day}">Day sheet</a>{/if}
        <More of={inWords(day)}>
          {#if sheet?.jobs?.length}<a href="/api/v1/rounds.ics?from={day}&to={day}" download>Calendar file of the day</a>{/if}
          <a href="/api/v1/rounds.ics?from={from}&to={plusDays(from || '2000-01-01', span - 1)}" download
            >Calendar file of these {span} days</a
          >
        </More>
      </div>
      {#if sheet && !sheet.has && sheet.minutes > (rounds?.day_minutes ?? 480)}<p
          class="border-l-4 border-bad pl-2 font-semibold"
        >
          More than a day’s work for one person.
        </p>{/if}
      {#each sheet?.flags ?? [] as f, i (i)}<p class="border-l-4 border-bad pl-2 font-semibold">
          {f.property_id ? `${sheet?.jobs.find((j) => j.property_id === f.property_id)?.property}: ` : ''}{f.text}
        </p>{/each}
      {#each byProperty as [name, jobs] (name)}
        <h3 class="mt-2 font-semibold">{name}<span class="font-normal text-soft">&nbsp;· {jobs[0]?.address}</span></h3>
        <ol>
          {#each jobs as l (l.id)}
            <li class="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-rule py-1.5">
              <a class="min-h-9 min-w-40 flex-1 content-center" href="#/rounds/{l.id}"
                >{titled(l)}{#if l.hold && !l.hold.anyway}<b class="text-sun">&nbsp;· {when(l, house.today)}</b
                  >{/if}{#if l.state === 'done' || l.state === 'skipped'}<b class="text-moss"
                    >&nbsp;· {l.state === 'done' ? 'done' : 'not needed'}</b
                  >{/if}</a
              >
              <span class="text-sm text-soft">{hours(l.took_minutes || l.minutes)}{l.crew ? ` · ${l.crew}` : ''}</span>
              {#key l.id + l.state}<Tick order={l} onkept={anew} small />{/key}
              {#if l.state === 'on a day'}<button class="min-h-9 px-2 text-moss underline" onclick={() => put(l, null)}
                  >Take off<span class="sr-only"> {l.title}</span></button
                >{/if}
            </li>
          {/each}
        </ol>
      {/each}
    </section>
  </div>
</div>

{#if entering}
  {#await part(() => import('../work/HandOrder.svelte')) then it}<it.default
      property={job?.property_id ?? first?.id}
      order={entering === 'change' ? job : undefined}
      onclose={() => (entering = undefined)}
      onkept={(o) => {
        entering = undefined;
        house.say(`${o.title} saved.`);
        if (o.id === jobId) void anew();
        else void push(`/rounds/${o.id}`);
      }}
    />{/await}
{/if}
