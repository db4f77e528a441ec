<script lang="ts">
  /** Rounds as they are proposed: who goes where on which day, why, what other days would cost, and what is left. */
  import { Button } from 'flowbite-svelte';
  import { onDestroy } from 'svelte';
  import { allProperties, api, ask, onceKey, type Order, type Problem, type Schemas } from '../api/client';
  import { atHour, dayOfWeek, daysBetween, hours, inWords, plusDays } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { forWhat } from '../work/orders';
  import Pick from '../lib/Pick.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import { clock, minutesOf, type Proposal, type Visit } from './clock';
  import RouteMap from './RouteMap.svelte';
  import SeasonWeeks from './SeasonWeeks.svelte';
  import Strip from './Strip.svelte';

  let crews = $state.raw<Schemas['Crew'][]>();
  let spots = $state.raw<{ id: number; name: string; latitude: number; longitude: number }[]>([]);
  let p = $state.raw<Proposal>();
  let last = $state.raw<Proposal>(); // from before, as long as it is not all past
  let days = $state(14);
  let seconds = $state(6);
  let anew = $state(false);
  let pins = $state.raw<Schemas['PinIn'][]>([]);
  let wet = $state.raw<string[]>([]); // days on which rain is told
  let away = $state.raw<Schemas['AwayIn'][]>([]);
  let visit = $state.raw<Visit>();
  let picked = $state.raw<Order>();
  let why = $state.raw<Schemas['RoundsWhy']>();
  let problem = $state<Problem>();
  let busy = $state(false);
  let width = $state(600);
  let turn = 0;
  onDestroy(() => turn++);
  void attempt(async () => {
    const list = (await ask(api.GET('/api/v1/crews'))).items;
    crews = list;
    const [kept] = (await ask(api.GET('/api/v1/rounds/proposals'))).items;
    if (kept && plusDays(kept.from, kept.days) > house.today) last = kept;
    spots = (await allProperties()).map((q) => ({
      id: q.id,
      name: q.name,
      latitude: q.climate.latitude,
      longitude: q.climate.longitude,
    }));
  });

  let listens: EventSource | undefined;
  onDestroy(() => listens?.close());
  /** Shows how far the search is, until it has ended or the line breaks: then what stands is asked for. */
  const heard = (id: number, mine: number) =>
    new Promise<void>((done) => {
      const source = (listens = new EventSource(`/api/v1/rounds/proposals/${id}/progress`));
      const end = () => {
        source.close();
        done();
      };
      source.onerror = () => setTimeout(end, 250);
      source.onmessage = (e: MessageEvent<string>) => {
        const now = JSON.parse(e.data) as Schemas['Progress'];
        if (mine !== turn || now.state !== 'working') end();
        else if (p?.id === id) p = { ...p, ...now };
      };
    });
  async function propose(from?: Proposal) {
    const mine = ++turn;
    visit = picked = why = undefined;
    const before = p;
    if (p) p = { ...p, state: 'working', done: 0, rounds: 0 }; // what stood is no proposal any more
    problem = await attempt(async () => {
      const body: Schemas['ProposalIn'] = { days, seconds, anew, pins, wet, away };
      if (from) body.base = from.id;
      let got = await ask(api.POST('/api/v1/rounds/proposals', { params: { header: onceKey() }, body }));
      if (mine !== turn) return;
      p = got;
      while (got.state === 'working') {
        await heard(got.id, mine);
        if (mine !== turn) return;
        got = await ask(api.GET('/api/v1/rounds/proposals/{id}', { params: { path: { id: got.id } } }));
        if (mine !== turn) return;
        p = got;
      }
    });
    if (problem && mine === turn) p = before;
  }
  const stop = () =>
    attempt(async () => {
      if (!p) return;
      const got = await ask(
        api.POST('/api/v1/rounds/proposals/{id}/stop', { params: { path: { id: p.id }, header: onceKey() } }),
      );
      turn++;
      p = got;
    });
  async function take() {
    const of = p;
    if (!of || busy) return;
    busy = true;
    await attempt(async () => {
      const path = { id: of.id };
      const a = await ask(api.POST('/api/v1/rounds/proposals/{id}/accept', { params: { path, header: onceKey() } }));
      p = { ...of, state: 'accepted' };
      const other = a.changed?.length ? ` Changed meanwhile, and left as they are: ${a.changed.join(', ')}.` : '';
      house.say(`${a.placed === 1 ? 'One job is' : `${a.placed} jobs are`} on their days.${other}`, async () => {
        await ask(api.POST('/api/v1/rounds/proposals/{id}/take-back', { params: { path, header: onceKey() } }));
        p = { ...of, state: 'done' };
      });
    });
    busy = false;
  }
  /** Which part of a job it is that a visit has, where it is done in parts. */
  const partIn = (v: Visit | undefined, o: Order) => v?.parts[v.jobs.indexOf(o)] || undefined;
  async function ask1(o: Order) {
    const of = p;
    const part = partIn(visit, o);
    picked = o;
    why = undefined;
    if (!of) return;
    const mine = turn;
    await attempt(async () => {
      const w = await ask(
        api.GET('/api/v1/rounds/proposals/{id}/why/{order}', { params: { path: { id: of.id, order: o.id }, query: { part } } }),
      );
      if (mine === turn && picked?.id === o.id) why = w;
    });
  }
  function pick(v: Visit) {
    visit = v;
    arrive = clock(v.from);
    const first = v.jobs?.[0];
    if (first) void ask1(first);
  }
  function pinThere(o: Order, crew: number, day: string) {
    pinAll([{ order: o.id, part: partIn(visit, o), crew, day }]);
  }
  function pinAll(list: Schemas['PinIn'][]) {
    pins = [...pins.filter((x) => !list.some((y) => y.order === x.order && y.part === x.part)), ...list];
    void propose(p);
  }
  /** From what stands, so that little moves; where nothing is asked of it any more, as if for the first time. */
  const anewOrFrom = () => propose(pins.length || wet.length || away.length ? p : undefined);
  function rains(d: string) {
    wet = wet.includes(d) ? wet.filter((x) => x !== d) : [...wet, d];
    void anewOrFrom();
  }
  const isAway = (crew: number, d: string) => away.some((a) => a.crew === crew && a.day === d);
  function leaves(crew: number, d: string) {
    away = isAway(crew, d) ? away.filter((a) => a.crew !== crew || a.day !== d) : [...away, { crew, day: d }];
    void anewOrFrom();
  }
  /** All jobs of a visit are pinned there, and the rest is found anew; at: arrival, minutes after midnight. */
  function pinVisit(v: Visit, crew: number, day: string, at = 0) {
    pinAll(v.jobs.map((j) => ({ order: j.id, part: partIn(v, j), crew, day, ...(at ? { at } : {}) })));
  }
  /** What is due at the same property in these days, and would be done along in the same visit. */
  const alongDays = 10;
  const along = $derived.by(() => {
    const v = visit;
    if (!v || !p) return [];
    const near = (d: string) => Math.abs(Date.parse(d) - Date.parse(v.day)) <= alongDays * 864e5;
    const elsewhere = p.visits
      .filter((o) => o.property_id === v.property_id && (o.day !== v.day || o.crew !== v.crew) && near(o.day))
      .flatMap((o) => o.jobs.filter((j) => !partIn(o, j) && j.kind !== 'general care').map((job) => ({ job, on: o.day })));
    const left = p.left
      .filter((l) => l.job.property_id === v.property_id && !(l.job.hold && !l.job.hold.anyway))
      .map((l) => ({ job: l.job, on: '' }));
    return [...elsewhere, ...left];
  });
  function takeAlong(jobs: Order[], v: Visit) {
    pinAll(jobs.map((j) => ({ order: j.id, crew: v.crew, day: v.day })));
  }
  let arrive = $state(''); // in the chosen visit's field
  // A visit is dragged to another crew or day, or to another hour of its day.
  let held = $state.raw<{ visit: Visit; x: number; y: number; far: boolean; crew: number; day: string; at: number }>();
  function hold(v: Visit, e: PointerEvent) {
    if (e.button !== 0) return;
    held = { visit: v, x: e.clientX, y: e.clientY, far: false, crew: v.crew, day: v.day, at: 0 };
    pick(v);
  }
  function drag(e: PointerEvent) {
    const h = held;
    if (!h) return;
    const far = h.far || Math.hypot(e.clientX - h.x, e.clientY - h.y) > 8;
    const row = document.elementFromPoint(e.clientX, e.clientY)?.closest<HTMLElement>('[data-row]');
    const there = { crew: row ? Number(row.dataset.crew) : -1, day: row?.dataset.day ?? '' };
    const same = there.crew === h.visit.crew && there.day === h.visit.day;
    const moved = ((e.clientX - h.x) / (Math.max(560, width) - 132)) * (edge.to - edge.from);
    const at = same ? Math.max(edge.from, Math.round((h.visit.from + moved) / 5) * 5) : 0;
    held = { ...h, far, ...there, at };
  }
  function drop() {
    const h = held;
    held = undefined;
    if (!h?.far || h.crew < 0 || (h.at && Math.abs(h.at - h.visit.from) < 10)) return;
    pinVisit(h.visit, h.crew, h.day, h.at);
  }
  const heldCost = $derived(held?.far && !held.at ? why?.others?.find((o) => o.date === held!.day) : undefined);
  const span = $derived(p ? Array.from({ length: p.days }, (_, i) => plusDays(p!.from, i)) : []);
  const shownDays = $derived(
    span.filter((d) => p?.visits?.some((v) => v.day === d) || p?.crews?.some((c) => at(c, d).to > at(c, d).from)),
  );
  const at = (c: Schemas['Crew'], d: string) =>
    c.off?.includes(d) ? { from: 0, to: 0 } : (c.hours?.[dayOfWeek(d)] ?? { from: 0, to: 0 });
  const of = (crew: number, d: string) => (p?.visits ?? []).filter((v) => v.crew === crew && v.day === d);
  /** How full a crew's day is with work, ways and the break, until they are home, % of its hours. */
  function full(crew: number, d: string): number {
    const h = at(p!.crews![crew]!, d);
    const vs = of(crew, d);
    if (h.to <= h.from || !vs.length) return 0;
    const home = dayOf(crew, d)?.end ?? vs[vs.length - 1]!.to;
    return Math.round((100 * (home - vs[0]!.from + vs[0]!.travel)) / (h.to - h.from));
  }
  const edge = $derived.by(() => {
    const starts = (p?.crews ?? []).flatMap((c) => (c.hours ?? []).filter((h) => h.to > h.from).map((h) => h.from));
    const ends = (p?.crews ?? []).flatMap((c) => (c.hours ?? []).filter((h) => h.to > h.from).map((h) => h.to));
    const late = (p?.visits ?? []).map((v) => v.to);
    return { from: Math.min(480, ...starts) - 30, to: Math.max(1020, ...ends, ...late) + 30 };
  });
  /** By how much a plan could cost less at most, minutes. */
  const better = (of: Proposal) => Math.max(0, Math.round(of.score.total - of.bound));
  /** What hangs over people, and gets no day, or none at once. */
  const unsafe = $derived([
    ...(p?.left ?? []).filter((l) => l.job.kind === 'make safe').map((l) => ({ job: l.job, why: l.why, takes: l.takes, on: '' })),
    ...(p?.visits ?? [])
      .filter((v) => v.day > p!.from)
      .flatMap((v) => v.jobs.filter((j) => j.kind === 'make safe').map((job) => ({ job, why: '', takes: '', on: v.day }))),
  ]);
  /** How the plan fares over drawn spans. */
  const fares = $derived(p?.drawn?.fares?.find((f) => f.plan === p!.drawn!.chosen));
  const in100 = (share: number) => Math.round(100 * share);
  const dayOf = (crew: number, d: string) => p?.late.find((x) => x.crew === crew && x.day === daysBetween(p!.from, d));
  /** In how many of ten a crew's day runs over its hours: an estimate, told where it is one in five and more. */
  const late = (crew: number, d: string) => {
    const l = dayOf(crew, d);
    return l && l.chance >= 0.2 ? Math.round(10 * l.chance) : 0;
  };
  /** The break of a crew's day, where it has one. */
  const rest = (crew: number, d: string) => p?.breaks.find((b) => b.crew === crew && b.day === daysBetween(p!.from, d));
  const resting = (v: Visit) => {
    const b = rest(v.crew, v.day);
    return b && b.from >= v.from && b.from < v.to ? b.to - b.from : 0;
  };
  const work = $derived((p?.visits ?? []).reduce((n, v) => n + v.to - v.from - resting(v), 0));
  const ways = $derived(Math.round(p?.score.travel ?? 0));
</script>

<svelte:window
  onpointermove={drag}
  onpointerup={drop}
  onpointercancel={() => (held = undefined)}
  onkeydown={(e) => {
    if (e.key === 'Escape') held = undefined;
  }}
/>
<svelte:head><title>Propose rounds · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/rounds">Rounds</a></p>
  <div class="flex flex-wrap items-end gap-3">
    <h1 class="flex-1">Propose rounds</h1>
    <Pick
      label="For"
      bind:value={days}
      options={[
        [7, 'a week'],
        [14, 'a fortnight'],
        [28, 'four weeks'],
      ]}
    />
    <Pick
      label="Search time"
      bind:value={seconds}
      options={[
        [2, '2 seconds'],
        [6, '6 seconds'],
        [20, '20 seconds'],
        [60, 'a minute'],
      ]}
    />
    <Tickbox bind:checked={anew} label="Let planned jobs move" />
    {#if p?.state === 'working'}<Button color="light" onclick={stop}>Stop: take the best so far</Button>
    {:else}<Button disabled={!crews?.length} onclick={() => propose()}>Propose</Button>{/if}
  </div>
  {#if problem}<p role="alert" class="mt-2 border-l-4 border-bad pl-2">{problem.message}</p>{/if}
  {#if crews && !crews.length}
    <p class="mt-3">
      There is no crew yet. <a class="underline" href="#/settings">Enter the people and a crew</a> with its hours: rounds are proposed
      for crews.
    </p>
  {:else if !p}
    <p class="mt-3 text-soft">
      Every job that has a day in the span is put near its best one: gaps, skills, hours and access hold, the way is kept short,
      one visit takes all that is within its window there, clean properties come before sick ones. Nothing changes until you take
      it.
    </p>
    {#if last}
      {@const of = last}
      <p class="mt-2 flex flex-wrap items-center gap-x-3">
        <Button
          color="light"
          onclick={() => {
            days = of.days;
            p = of;
          }}>Open the last proposal</Button
        ><span class="text-soft"
          >{of.days} days from {inWords(of.from)}, {of.visits.length} visits{of.state === 'accepted'
            ? ': already on their days'
            : ''}</span
        >
      </p>
    {/if}
    <SeasonWeeks />
  {/if}
  {#if p?.state === 'working'}
    <div class="mt-3" role="status">
      <progress class="h-3 w-full accent-moss" max="1" value={p.done} aria-label="Looking"></progress>
      <p class="text-sm text-soft">{p.rounds} tries so far.</p>
    </div>
  {:else if p}
    {#each unsafe as u (u.job.id + u.job.title)}
      <div role="alert" class="mt-3 border-2 border-bad bg-white p-3">
        <p class="font-semibold text-bad">
          {u.on ? `Not made safe before ${inWords(u.on)}` : 'Nobody can make this safe in these days'}:
          <a href="#/rounds/{u.job.id}">{u.job.title}</a>, {u.job.property}
        </p>
        {#if u.why}<p>{u.why} <b class="font-semibold">{u.takes}</b></p>{/if}
        <p>
          Until then keep people away from under it: rope it off, tell the client today, and call in someone who may do it sooner.
        </p>
      </div>
    {/each}
    <div class="mt-3 grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div class="min-w-0">
        <div class="flex flex-wrap items-center gap-x-5 gap-y-1 border-y border-rule py-2 text-sm">
          <span><b>{p.visits?.length ?? 0}</b> visits, {hours(work)} of work, {hours(ways)} on the way (estimates)</span>
          <span
            ><b>{p.new}</b>
            {p.new === 1 ? 'job gets' : 'jobs get'} a day{p.moved ? `, ${p.moved} move` : ''}, {p.left?.length ?? 0} left</span
          >
          <span
            class="text-soft"
            title="By its cost of {Math.round(
              p.score.total,
            )}, in minutes, with a point of a day’s cost counted as one: a plan of less than {Math.round(p.bound)} cannot be"
            >{better(p) ? `no plan can save more than ${hours(better(p))} more` : 'no plan can be better'}</span
          >
          {#if p.state === 'accepted'}<b class="text-moss">On their days</b>
            <a class="inline-flex min-h-11 items-center underline" href="#/tell">Tell clients</a>
          {:else if p.new + p.moved > 0}<Button size="sm" disabled={busy} onclick={take}>Put them on their days</Button>{/if}
          {#if pins.length}<button
              class="min-h-11 text-moss underline"
              onclick={() => {
                pins = [];
                void anewOrFrom();
              }}>{pins.length === 1 ? 'One is' : `${pins.length} are`} pinned here: let go</button
            >{/if}
        </div>
        {#if fares && p.visits.length}
          {@const plain = p.drawn!.fares[0]!}
          <p class="py-1 text-sm" data-testid="drawn">
            Played through {p.drawn!.times} times with rain and with work that takes longer (an estimate):
            <b>{in100(fares.late)} {in100(fares.late) === 1 ? 'day' : 'days'} in 100</b>
            {in100(fares.late) === 1 ? 'runs' : 'run'} over, rain puts off {Math.round(fares.rained)}
            {Math.round(fares.rained) === 1 ? 'job' : 'jobs'}, {Math.round(fares.left)} end without a day.{in100(plain.late) >
            in100(fares.late)
              ? ` With full days ${in100(plain.late)} in 100 would run over.`
              : ''}
          </p>
        {/if}
        {#if wet.length || away.length}<p class="text-sm">
            Found again with as few moves as possible:
            {#each wet as d}<button class="min-h-11 pr-3 text-moss underline" onclick={() => rains(d)}
                >rain on {inWords(d)}: take it back</button
              >{/each}{#each away as a (a.crew + a.day)}<button
                class="min-h-11 pr-3 text-moss underline"
                onclick={() => leaves(a.crew, a.day)}>{p.crews?.[a.crew]?.name} away on {inWords(a.day)}: take it back</button
              >{/each}
          </p>{/if}
        <p class="min-h-6 text-sm" aria-live="polite">
          {#if held?.far && held.crew >= 0}<b>{held.visit.property}</b> to {held.at ? atHour(held.at) : inWords(held.day)}, {p
              .crews?.[held.crew]?.name}{heldCost
              ? heldCost.crew < 0
                ? `: ${heldCost.why}`
                : `: its first job ${heldCost.more >= 0 ? '+' : '−'}${Math.abs(Math.round(heldCost.more))} min`
              : ''}{:else}<span class="text-soft"
              >Press a visit to read why; drag it to another hour or day, or put single jobs there.</span
            >{/if}
        </p>
        {#if p.weather_at}<p class="text-sm text-soft">
            Weather at {p.weather_at}, {p.weather?.some((w) => w.told)
              ? 'as the station tells it, then as usual'
              : 'as usual: no station tells the days ahead'}.
          </p>{/if}
        {#each p.notes as n}<p class="text-sm text-sun">{n}</p>{/each}
        <div class="mt-2 overflow-x-auto" bind:clientWidth={width}>
          <div style:min-width="560px">
            <div class="relative ml-32 h-5 text-xs text-soft" aria-hidden="true">
              {#each { length: Math.floor((edge.to - edge.from) / 120) + 1 }, i (i)}
                {@const m = Math.ceil(edge.from / 60) * 60 + 120 * i}
                {#if m < edge.to - 30}<span
                    class="absolute"
                    style:left="{((m - edge.from) / (edge.to - edge.from)) * (Math.max(560, width) - 132)}px">{atHour(m)}</span
                  >{/if}
              {/each}
            </div>
            {#each shownDays as d}
              {@const sky = p.weather?.find((w) => w.day === d)}
              <section aria-label={inWords(d)} class="border-t border-ink">
                <p class="flex flex-wrap gap-x-3 py-0.5 text-sm">
                  <b>{inWords(d)}</b>
                  {#if sky?.text}<span class={sky.told ? '' : 'text-soft'} data-testid="sky">{sky.text}</span>{/if}
                </p>
                {#each p.crews as c, i (c.id)}
                  <div class="flex" data-row data-crew={i} data-day={d}>
                    <div class="w-32 shrink-0 pr-2 text-sm leading-tight">
                      <span class="text-soft">{c.name.length > 15 ? c.name.slice(0, 14) + '…' : c.name}</span>
                      {#if full(i, d)}<span class="mt-1 block h-1.5 bg-rule" title="{full(i, d)} % of the hours"
                          ><span
                            class="block h-1.5 {full(i, d) > 100 ? 'bg-sun' : 'bg-moss'}"
                            style:width="{Math.min(100, full(i, d))}%"
                          ></span></span
                        ><span class="sr-only">{full(i, d)} % of the hours</span>{/if}
                      {#if late(i, d)}<span class="block text-xs font-semibold text-sun">runs over {late(i, d)} in 10</span>{/if}
                    </div>
                    <Strip
                      crew={c}
                      visits={of(i, d)}
                      hours={at(c, d)}
                      from={edge.from}
                      to={edge.to}
                      width={Math.max(560, width) - 132}
                      chosen={picked?.id}
                      onpick={pick}
                      onhold={hold}
                      over={!!held?.far && held.crew === i && held.day === d}
                    />
                  </div>
                {/each}
              </section>
            {/each}
          </div>
        </div>
      </div>
      <div class="space-y-4">
        {#if visit}
          <section aria-label="Chosen visit" class="border border-ink bg-white px-3 py-2">
            <p class="font-bold">{visit.property}</p>
            <p class="text-sm text-soft">
              {inWords(visit.day)}, {atHour(visit.from)} – {atHour(visit.to)}, {p.crews?.[visit.crew]?.name}{visit.travel
                ? `, ${visit.travel} min on the way there${visit.tip ? ', over the tip' : ''}`
                : ''}{visit.trips ? `, waste to the tip and back ${visit.trips === 1 ? 'once' : `${visit.trips} times`}` : ''}
            </p>
            {#if rest(visit.crew, visit.day)}
              {@const b = rest(visit.crew, visit.day)!}
              <p class="text-sm text-soft">Break that day from {atHour(b.from)} to {atHour(b.to)}.</p>
            {/if}
            {#if visit.weather?.text}<p class="text-sm">{visit.weather.text}</p>{/if}
            <form
              class="flex flex-wrap items-center gap-2 text-sm"
              onsubmit={(e) => {
                e.preventDefault();
                const at = minutesOf(arrive);
                if (at) pinVisit(visit!, visit!.crew, visit!.day, at);
              }}
            >
              <label class="flex items-center gap-2"
                >Arrive at <input
                  class="min-h-11 rounded-sm border border-gray-400 bg-white px-2"
                  type="time"
                  bind:value={arrive}
                /></label
              ><button class="min-h-11 text-moss underline">Arrive then</button>
            </form>
            <p class="flex flex-wrap gap-x-4 text-sm">
              <button class="min-h-11 text-moss underline" onclick={() => rains(visit!.day)}
                >{wet.includes(visit.day) ? 'It stays dry after all' : 'It rains that day'}</button
              >
              <button class="min-h-11 text-moss underline" onclick={() => leaves(visit!.crew, visit!.day)}
                >{p.crews?.[visit.crew]?.name} is not there</button
              >
            </p>
            <ol class="mt-1">
              {#each visit.jobs as j (j.id)}<li class="border-t border-rule">
                  <button
                    class="min-h-11 w-full py-1 text-left leading-snug {picked?.id === j.id ? 'font-bold' : ''}"
                    aria-pressed={picked?.id === j.id}
                    onclick={() => ask1(j)}
                    >{j.title}<span class="block text-sm font-normal text-soft"
                      >{[forWhat(j), hours(j.minutes)].filter(Boolean).join(' · ')}</span
                    ></button
                  >
                </li>{/each}
            </ol>
            {#if along.length}
              <p class="mt-2 border-t border-ink pt-1 text-sm font-semibold">
                Also due there within {alongDays} days: +{hours(along.reduce((n, a) => n + a.job.minutes, 0))}
              </p>
              <ul class="text-sm">
                {#each along as a (a.job.id + a.job.title)}<li class="flex items-center gap-2 border-t border-rule">
                    <span class="flex-1 py-1"
                      >{a.job.title}<span class="block text-soft">{a.on ? inWords(a.on) : 'left'}</span></span
                    >
                    <button class="min-h-11 text-moss underline" onclick={() => takeAlong([a.job], visit!)}
                      >Take along<span class="sr-only">: {a.job.title}</span></button
                    >
                  </li>{/each}
              </ul>
            {/if}
          </section>
        {/if}
        {#if picked && why}
          <section aria-label="Why there" class="border border-rule bg-white px-3 py-2">
            <p class="font-semibold">{picked.title}</p>
            <p class="text-sm" data-testid="why">{why.text}</p>
            <table class="mt-1 w-full text-sm">
              <caption class="text-left text-soft">On another day, once others make room: at most</caption>
              <tbody>
                {#each why.others as o (o.day)}
                  {#if o.crew >= 0}
                    <tr class="border-t border-rule align-top">
                      <th scope="row" class="py-1 pr-2 text-left font-normal whitespace-nowrap">{inWords(o.date)}</th>
                      <td class="py-1 pr-2 text-right whitespace-nowrap {Math.abs(o.more) < 0.5 ? 'font-bold' : ''}"
                        >{Math.abs(o.more) < 0.5
                          ? 'as it is'
                          : `${o.more > 0 ? '+' : '−'}${Math.abs(Math.round(o.more))} min`}</td
                      >
                      <td class="py-1 text-right"
                        >{#if Math.abs(o.more) >= 0.5}<button
                            class="min-h-9 text-moss underline"
                            onclick={() => pinThere(picked!, o.crew, o.date)}
                            >Put it there<span class="sr-only">: {inWords(o.date)}</span></button
                          >{/if}</td
                      >
                    </tr>
                  {:else if o.why && !o.why.includes('not at work')}
                    <tr class="border-t border-rule align-top text-soft">
                      <th scope="row" class="py-1 pr-2 text-left font-normal whitespace-nowrap">{inWords(o.date)}</th>
                      <td class="py-1" colspan="2">{o.why}</td>
                    </tr>
                  {/if}
                {/each}
              </tbody>
            </table>
          </section>
        {/if}
        {#if visit && p.crews?.[visit.crew]}
          <section aria-label="The way of the day">
            <h2>{p.crews[visit.crew]?.name}, {inWords(visit.day)}</h2>
            <RouteMap crew={p.crews[visit.crew]!} visits={of(visit.crew, visit.day)} {spots} />
          </section>
        {/if}
        {#if p.left?.length}
          <section aria-label="Left">
            <h2>Left for later</h2>
            <ul class="border-t border-rule">
              {#each p.left.slice(0, 60) as l (l.job.id + l.job.title)}<li class="border-b border-rule py-1.5 text-sm">
                  <a class="text-base" href="#/rounds/{l.job.id}">{l.job.title}</a>
                  <span class="block text-soft">{l.job.property}</span>{l.why}
                  <b class="font-semibold">{l.takes}</b>
                </li>{/each}
            </ul>
            {#if p.left.length > 60}<p class="text-sm text-soft">And {p.left.length - 60} more.</p>{/if}
          </section>
        {/if}
      </div>
    </div>
  {/if}
</div>
