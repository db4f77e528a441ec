<script lang="ts">
  /** A crew's day on the phone: where to, what, what to mind, ticked off as it goes. */
  import { Button } from 'flowbite-svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, type Schemas } from '../api/client';
  import { cardOf } from '../cuts/purposes';
  import { atHour, hours, inWords, plusDays } from '../lib/dates';
  import { part } from '../lib/part';
  import { house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { ticks } from '../field/ticks.svelte';
  import { forWhat } from '../work/orders';
  import Later from '../lib/Later.svelte';
  import Pick from '../lib/Pick.svelte';
  import Tick from '../work/Tick.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import { clock } from './clock';
  import LoadList from './LoadList.svelte';
  import VisitSlip from './VisitSlip.svelte';

  let { params }: { params?: { day?: string; crew?: string } } = $props();
  const day = $derived(params?.day || house.today);
  const crew = $derived(Number(params?.crew) || 0);
  let sheet = $state.raw<Schemas['Sheet']>();
  let fault = $state('');
  const reads = reading();
  async function read(on: string, of: number) {
    fault = '';
    const p = await reads(async (signal) => {
      const query = { day: on, ...(of ? { crew: of } : {}) };
      sheet = await ask(api.GET('/api/v1/rounds/sheet', { params: { query }, signal }));
    });
    fault = p?.message ?? fault;
  }
  const toSend = $derived(ticks.waiting.length);
  $effect(() => {
    void toSend; // what was sent shows
    if (day) void read(day, crew);
  });
  let losing = $state(false);
  let week = $state(false);
  const to = (d: string, c: number) => void push(`/day/${d}${c ? `/${c}` : ''}`);
  const open = $derived((sheet?.visits ?? []).flatMap((v) => v.jobs ?? []).filter((j) => j.state === 'on a day').length);
</script>

<svelte:head><title>Day sheet · Mezzadro</title></svelte:head>

<div class="mx-auto w-full max-w-3xl px-5 py-4 max-md:px-3 print:max-w-none print:p-0">
  <div class="flex flex-wrap items-end gap-3">
    <h1 class="min-w-40 flex-1">{inWords(day)}</h1>
    {#if (sheet?.crews?.length ?? 0) > 0}<span class="print:hidden"
        ><Pick
          label="Crew"
          value={String(crew)}
          options={[['0', 'all'], ...(sheet?.crews ?? []).map((c): [string, string] => [String(c.id), c.name])]}
          onpick={(c) => to(day, Number(c))}
        /></span
      >{/if}
  </div>
  <div class="mt-2 flex flex-wrap gap-2 print:hidden">
    <Button size="sm" color="light" class="min-h-11" onclick={() => to(plusDays(day, -1), crew)}>Day before</Button>
    <Button size="sm" color="light" class="min-h-11" disabled={day === house.today} onclick={() => to(house.today, crew)}
      >Today</Button
    >
    <Button size="sm" color="light" class="min-h-11" onclick={() => to(plusDays(day, 1), crew)}>Day after</Button>
    <Button size="sm" color="light" class="min-h-11 max-md:hidden" onclick={() => window.print()}>Print</Button>
    {#if open && day >= house.today && house.may('planner')}<Button
        size="sm"
        color="light"
        class="min-h-11"
        onclick={() => (losing = true)}>The day is lost …</Button
      >{/if}
    {#if sheet?.visits?.length}<a
        class="inline-flex min-h-11 items-center px-2 underline"
        href="/api/v1/rounds.ics?from={day}&to={plusDays(day, 13)}{crew ? `&crew=${crew}` : ''}"
        download>Fortnight as a calendar file</a
      ><a
        class="inline-flex min-h-11 items-center px-2 underline"
        href="/api/v1/rounds/route.gpx?day={day}{crew ? `&crew=${crew}` : ''}"
        download>The way as GPX</a
      ><a
        class="inline-flex min-h-11 items-center px-2 underline"
        href="/api/v1/rounds/sheet.pdf?day={day}{crew ? `&crew=${crew}` : ''}"
        download>The sheet as PDF</a
      >{/if}
  </div>
  {#if !sheet}
    {#if fault}<p role="alert" class="mt-3">{fault}</p>{:else}<Waiting rows={6} />{/if}
  {:else if !sheet.visits?.length}
    <p class="mt-4">
      Nothing is on this day{sheet.crew ? ` for ${sheet.crew}` : ''}.
      <a class="underline" href="#/propose">Propose rounds</a>, or put a job on it
      <a class="underline" href="#/rounds">in Rounds</a>.
    </p>
  {:else}
    <section class="mt-3 border border-ink bg-white px-3 py-2" aria-label="For the morning">
      <p>
        <b>{open}</b>
        {open === 1 ? 'job' : 'jobs'} to do{sheet.crew ? ` by ${sheet.crew}` : ''}.{#if ticks.left}<b class="text-sun"
            >&nbsp;{ticks.left} to send.</b
          >{/if}
      </p>
      {#if sheet.load.length}<h2 class="mt-1 text-base">Take along</h2>
        <LoadList items={sheet.load} />
        <details class="print:hidden" bind:open={week}>
          <summary class="flex min-h-11 cursor-pointer items-center text-moss">For the whole week</summary>
          {#if week}{#await part(() => import('./Loads.svelte')) then it}<it.default from={day} weeks={1} whole />{/await}{/if}
        </details>{/if}
      {#if sheet.skills?.length}<p><b>Only for:</b> {sheet.skills.join(', ')}.</p>{/if}
      {#if sheet.mixes}<a class="inline-flex min-h-11 items-center underline" href="#/mix/{day}">What is mixed</a>{/if}
    </section>
    {#each sheet.flags as f}<p role="alert" class="mt-2 border-l-4 border-bad bg-white pl-2 font-semibold">{f}</p>{/each}
    {#each sheet.visits as v, n (n)}
      <section class="mt-5" aria-label={v.property}>
        <h2 class="border-b-2 border-ink">
          {v.at ? `${atHour(v.at)} ` : ''}{v.property}<span class="text-sm font-normal text-soft">&nbsp;{hours(v.minutes)}</span>
        </h2>
        {#if v.address}<p class="text-sm text-soft">{v.address}</p>{/if}
        {#each v.flags as f}<p class="border-l-4 border-bad pl-2 font-semibold">{f}</p>{/each}
        {#if house.may('planner') && v.jobs.some((j) => j.state === 'on a day')}{#key `${day} ${v.property_id} ${v.crew}`}<VisitSlip
              visit={v}
              {day}
              onkept={() => void read(day, crew)}
            />{/key}{/if}
        {#each [v.gate, v.note].filter(Boolean) as text}<p class="border-l-4 border-sun pl-2">{text}</p>{/each}
        <ol>
          {#each v.jobs as j (j.id)}
            <li class="border-b border-rule py-2">
              <p class="text-lg leading-snug font-semibold">
                <a href="#/rounds/{j.id}">{j.title}</a>{#if j.state === 'done' || j.state === 'skipped'}<b class="text-moss"
                    >&nbsp;· {j.state === 'done' ? 'done' : 'not needed'}</b
                  >{/if}
              </p>
              <p class="text-sm text-soft">
                {[forWhat(j), hours(j.minutes), j.crew_size > 1 ? `${j.crew_size} people` : '', crew ? '' : j.crew]
                  .filter(Boolean)
                  .join(' · ')}
              </p>
              {#if j.hold}{#await part(() => import('../work/HoldNote.svelte')) then it}<it.default
                    hold={j.hold}
                    order={j}
                    onkept={() => void read(day, crew)}
                  />{/await}{/if}
              {#if j.put_off}<p class="text-sm text-sun">
                  Not done {j.put_off === 1 ? 'once' : `${j.put_off} times`} before: {j.put_off_why}
                </p>{/if}
              {#each j.why.slice(0, 2) as w}<p class="text-sm">{w}</p>{/each}
              {#each j.cautions as c}<p class="mt-1 border-l-4 border-sun pl-2 text-sm">{c}</p>{/each}
              <div class="mt-2 flex flex-wrap items-center gap-3 print:hidden">
                {#key j.id + j.state}<Tick order={j} onkept={() => void read(day, crew)} />{/key}
                {#if j.kind === 'prune' && j.plant_id}<a
                    class="inline-flex min-h-11 items-center underline"
                    href={cardOf(j.plant_id, { ...j.params, purpose: j.params.purpose || 'shape' })}>Cut card</a
                  >{/if}
                {#if ['look', 'walk'].includes(j.kind) && j.plant_id}<a
                    class="inline-flex min-h-11 items-center underline"
                    href="#/walk/{j.property_id}/{j.plant_id}">Look at it</a
                  >{:else if j.kind === 'walk'}<a
                    class="inline-flex min-h-11 items-center underline"
                    href="#/walk/{j.property_id}">Start this walk</a
                  >{/if}
              </div>
              <Later
                >{#await part(() => import('../work/JobPhotos.svelte')) then it}<it.default
                    order={j}
                    photos={j.photos}
                  />{/await}</Later
              >
            </li>
          {/each}
        </ol>
      </section>
    {/each}
  {/if}
</div>

{#if losing}{#await part(() => import('./LostDay.svelte')) then it}<it.default
      {day}
      {crew}
      crewName={sheet?.crew ?? ''}
      onkept={() => void read(day, crew)}
      onclose={() => (losing = false)}
    />{/await}{/if}
