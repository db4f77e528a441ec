<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, ask, type Lane, type Property, type Schemas, type Season } from '../api/client';
  import { brief, daysBetween, hours, inWords, plusDays } from '../lib/dates';
  import { attempt, house, keys } from '../lib/house.svelte';
  import Ribbon from '../lib/Ribbon.svelte';

  let { params }: { params?: { job?: string } } = $props();
  const jobId = $derived(Number(params?.job ?? 0));

  const span = 14;
  let rounds = $state<Schemas['Rounds']>();
  let season = $state<Season>();
  let job = $state<Lane>();
  let first = $state<Property>();
  let from = $state('');
  let day = $state('');
  let warnings = $state<string[]>([]);

  async function read() {
    rounds = await ask(api.GET('/api/v1/rounds', { params: { query: from ? { from, days: span } : { days: span } } }));
    from ||= rounds.days?.[0]?.day ?? '';
    day ||= from;
  }
  let asked = -1;
  $effect(() => {
    if (asked === jobId) return;
    asked = jobId;
    void attempt(async () => {
      warnings = [];
      job = jobId ? await ask(api.GET('/api/v1/jobs/{id}', { params: { path: { id: jobId } } })) : undefined;
      if (job) {
        const best = job.day || job.best_day || house.today;
        await house.refresh();
        const start = plusDays(best, -4);
        from = start < house.today ? house.today : start;
        day = best;
        season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: job.property_id } } }));
      }
      await read();
      if (!job) {
        first ??= (await ask(api.GET('/api/v1/properties', { params: { query: { limit: 1 } } }))).items?.[0];
        if (first) season = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: first.id } } }));
      }
    });
  });
  function show(start: string) {
    from = start < house.today ? house.today : start;
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
      { key: 'ArrowLeft', does: 'day before', run: () => day && day > house.today && choose(plusDays(day, -1)) },
      { key: 'Enter', does: 'put the chosen job on this day', run: () => job && void put(job, day) },
      { key: 'X', does: 'take the chosen job off its day', run: () => job?.day && void put(job, null) },
    ];
    return () => (keys.screen = []);
  });

  async function put(l: Lane, on: string | null, quietly = false) {
    await attempt(async () => {
      const before = l.day ?? null;
      const r = await ask(
        api.PUT('/api/v1/jobs/{id}/day', { params: { path: { id: l.id } }, body: { day: on, version: l.version } as never }),
      );
      warnings = r.warnings ?? [];
      if (job?.id === l.id) job = { ...r.job, common: job.common };
      await read();
      void house.refresh();
      if (!quietly) house.say(on ? `${l.title}: on ${inWords(on)}.` : `${l.title}: off its day.`, () => put(r.job, before, true));
    });
  }
  const cost = (l: Lane, d: string) => l.costs?.[daysBetween(l.start, d)] ?? 101;
  const lane = $derived(
    job
      ? [
          {
            id: job.id,
            label: `${job.title}${job.label ? `, ${job.label}` : ''}`,
            note: job.property,
            start: job.start,
            costs: job.costs ?? [],
            windows: job.windows ?? [],
            day: job.day,
          },
        ]
      : [],
  );
  const today = $derived(rounds?.days?.find((d) => d.day === day));
  const why = $derived(
    job
      ? (job.reasons ?? [])
          .map((r) => ({ text: r.text, cost: r.costs?.[daysBetween(job!.start, day)] ?? 0 }))
          .filter((r) => r.cost > 0)
      : [],
  );
  const byProperty = $derived.by(() => {
    const out = new Map<string, Lane[]>();
    for (const l of today?.jobs ?? []) out.set(l.property, [...(out.get(l.property) ?? []), l]);
    return [...out];
  });
</script>

<svelte:head><title>Rounds · Mezzadro</title></svelte:head>

<div class="border-b border-rule bg-white max-md:overflow-x-auto">
  {#if season}<Ribbon
      {season}
      place={job?.property ?? first?.name}
      lanes={lane}
      pointed={day}
      onpick={(d) => d >= house.today && choose(d)}
    />{/if}
</div>

<div class="grid lg:grid-cols-[19rem_1fr]">
  <section aria-labelledby="waiting" class="border-r border-rule px-4 py-3 {job ? 'max-lg:order-last' : ''}">
    <h2 id="waiting">Jobs without a day</h2>
    <ul class="mt-2">
      {#each rounds?.waiting ?? [] as l (l.id)}
        <li>
          <a
            href="#/rounds/{l.id}"
            aria-current={l.id === jobId ? 'true' : undefined}
            class="block min-h-11 border-t border-rule px-2 py-1.5 leading-snug text-ink no-underline hover:bg-sheet hover:no-underline {l.id ===
            jobId
              ? 'bg-moss-pale'
              : ''}"
          >
            <span class="font-semibold">{l.title}</span>
            <span class="block text-sm text-soft">{l.property}{l.label ? `, ${l.label}` : ''} · {hours(l.minutes)}</span>
            <span class="block text-sm"
              >{l.windows?.[0]
                ? `${brief(l.windows[0].from)} – ${brief(l.windows[0].to)}, best ${brief(l.best_day)}`
                : 'no window'}</span
            >
          </a>
        </li>
      {:else}
        <li class="border-t border-rule py-3 text-soft">
          {rounds ? 'No job is waiting for a day. New ones come from verdicts on a walk.' : ''}
        </li>
      {/each}
    </ul>
  </section>

  <div class="min-w-0 px-5 py-3 max-md:px-3">
    <h1 class="sr-only">Rounds</h1>
    {#if job}
      <section aria-label="Chosen job" class="mb-3 border border-ink bg-white px-4 py-3">
        <div class="flex flex-wrap items-start gap-3">
          <div class="min-w-52 flex-1">
            <p class="text-lg font-bold">{job.title}</p>
            <p class="text-sm text-soft">
              {job.property}{job.label ? `, ${job.label}` : ''} · {hours(job.minutes)} · kit: {(job.kit ?? []).join(', ')}
            </p>
          </div>
          {#if job.day}
            <span class="min-h-11 content-center font-semibold">On {inWords(job.day, house.today)}</span>
            {#if day !== job.day}<Button onclick={() => put(job!, day)}>Move to {inWords(day, house.today)}</Button>{/if}
            <Button color="light" onclick={() => put(job!, null)}>Take it off</Button>
          {:else}
            <Button disabled={!day || cost(job, day) > 100} onclick={() => put(job!, day)}
              >Put on {inWords(day, house.today)}</Button
            >
          {/if}
        </div>
        <p class="mt-1 text-sm" aria-live="polite">
          {inWords(day, house.today)} costs
          <b>{cost(job, day) > 100 ? 'more than allowed' : `${cost(job, day)} of 100`}</b>{why.length
            ? ': ' + why.map((w) => w.text).join('; ')
            : ', nothing speaks against it'}.
          {#if job.best_day && day !== job.best_day}<button
              class="min-h-9 text-moss underline"
              onclick={() => choose(job!.best_day)}>Best is {inWords(job.best_day, house.today)}</button
            >{/if}
        </p>
        {#each job.cautions ?? [] as c (c)}<p class="mt-1 border-l-4 border-sun pl-2 text-sm">{c}</p>{/each}
        {#each warnings as w (w)}<p role="alert" class="mt-1 border-l-4 border-bad pl-2 text-sm font-semibold">{w}</p>{/each}
      </section>
    {/if}

    <div class="flex items-center gap-2">
      <h2 class="flex-1">{brief(from)} – {brief(plusDays(from || '2000-01-01', span - 1))}</h2>
      <Button size="sm" color="light" disabled={from <= house.today} onclick={() => show(plusDays(from, -span))}>Earlier</Button>
      <Button size="sm" color="light" disabled={from === house.today} onclick={() => show(house.today)}>Today</Button>
      <Button size="sm" color="light" onclick={() => show(plusDays(from, span))}>Later</Button>
    </div>
    <div class="mt-2 grid grid-cols-7 gap-1" role="group" aria-label="Days">
      {#each rounds?.days ?? [] as d (d.day)}
        {@const c = job ? cost(job, d.day) : undefined}
        <button
          class="min-h-20 border px-1.5 py-1 text-left text-sm leading-tight {d.day === day
            ? 'border-2 border-ink'
            : 'border-rule'} {/^S/.test(inWords(d.day)) ? 'bg-sheet' : 'bg-white'}"
          aria-pressed={d.day === day}
          onclick={() => choose(d.day)}
          ondblclick={() => job && put(job, d.day)}
        >
          <span class="block font-semibold">{inWords(d.day).slice(0, 3)} {brief(d.day)}</span>
          {#if d.jobs?.length}<span class="block">{d.jobs.length} {d.jobs.length === 1 ? 'job' : 'jobs'}, {hours(d.minutes)}</span
            >{/if}
          {#if c !== undefined}<span class="mt-0.5 block text-xs {c <= 30 ? 'font-bold text-moss' : 'text-soft'}"
              >{c > 100 ? 'never' : `costs ${c}`}</span
            >{/if}
        </button>
      {/each}
    </div>

    <section aria-labelledby="sheet" class="mt-4">
      <div class="flex flex-wrap items-center gap-3">
        <h2 id="sheet" class="flex-1">
          {inWords(day, house.today)}: {today?.jobs?.length
            ? `${hours(today.minutes)} of ${hours(rounds?.day_minutes ?? 480)} work, without travel`
            : 'nothing on this day yet'}
        </h2>
        {#if today?.jobs?.length}<a
            class="inline-flex min-h-11 items-center border border-moss px-3 font-semibold"
            href="/api/v1/rounds.ics?from={day}&to={day}"
            download>Day as calendar file</a
          >{/if}
        <a
          class="inline-flex min-h-11 items-center px-2"
          href="/api/v1/rounds.ics?from={from}&to={plusDays(from || '2000-01-01', span - 1)}"
          download>All {span} days</a
        >
      </div>
      {#if today && today.minutes > (rounds?.day_minutes ?? 480)}<p class="border-l-4 border-bad pl-2 font-semibold">
          More than a day’s work for one crew.
        </p>{/if}
      {#each byProperty as [name, jobs] (name)}
        <h3 class="mt-2 font-semibold">{name}<span class="font-normal text-soft"> {jobs[0]?.address}</span></h3>
        <ol>
          {#each jobs as l (l.id)}
            <li class="flex flex-wrap items-center gap-3 border-t border-rule py-1.5">
              <a class="min-h-9 flex-1 content-center" href="#/rounds/{l.id}">{l.title}{l.label ? `, ${l.label}` : ''}</a>
              <span class="text-sm text-soft">{hours(l.minutes)} · {(l.kit ?? []).join(', ')}</span>
              <button class="min-h-9 px-2 text-moss underline" onclick={() => put(l, null)}
                >Take off<span class="sr-only"> {l.title}</span></button
              >
            </li>
          {/each}
        </ol>
      {/each}
    </section>
  </div>
</div>
