<script lang="ts">
  import { capital } from '../lib/words';
  /** The cut bench: how far and when a plant is cut, what that costs in bloom, and how it stands in the years after. */
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import {
    dropOrder,
    api,
    ask,
    onceKey,
    ordersOf,
    type Order,
    type Plant,
    type Problem,
    type Schemas,
    type Season,
  } from '../api/client';
  import { daysBetween, hours, inWords, metres } from '../lib/dates';
  import CutDrawing from './CutDrawing.svelte';
  import { cardOf, purposeWords, purposes, type Purpose } from './purposes';
  import Field from '../lib/Field.svelte';
  import { attempt, house, keys } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { costOf, costWord } from '../work/orders';
  import Pick from '../lib/Pick.svelte';
  import Portrait from '../lib/Portrait.svelte';
  import type { Form } from '../lib/portrait';
  import Ribbon from '../lib/Ribbon.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import HoldNote from '../work/HoldNote.svelte';

  let { params }: { params?: { plant?: string } } = $props();
  const id = $derived(Number(params?.plant ?? 0));
  type Plan = Schemas['PruningOut'];
  let plant = $state<Plant>();
  let season = $state<Season>();
  let plan = $state.raw<Plan>();
  let problem = $state<Problem>();
  let purpose = $state<Purpose>('shape');
  let wanted = $state(''); // height after the next season, m
  let cut = $state(0); // the line on the portrait, m; 0: as reckoned
  let on = $state<string>(); // the day pointed at
  let ahead = $state(0); // seasons
  let jobs = $state<Order[]>([]); // cuts of this plant that stand as jobs
  let busy = $state(false);
  const [reads, reckons] = [reading(), reading()];

  $effect(() => {
    const of = id;
    void reads(async (signal) => {
      const p = await ask(api.GET('/api/v1/plants/{id}', { params: { path: { id: of } }, signal }));
      const s = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: p.property_id } }, signal }));
      plant = p;
      season = s;
      on ??= s.today;
      jobs = await standing(p, signal);
    });
  });
  const standing = async (p: Plant, signal?: AbortSignal) =>
    (await ordersOf(p.property_id, 'standing', signal)).filter((o) => o.kind === 'prune' && o.plant_id === p.id);
  $effect(() => {
    const p = plant;
    if (!p || !on) return;
    const body: Schemas['PruningIn'] = { plant: p.id, purpose, date: on };
    if (cut) body.cut_m = cut;
    else if (Number(wanted)) body.wanted_m = Number(wanted);
    problem = undefined;
    void reckons(async (signal) => {
      plan = await ask(api.POST('/api/v1/reckon/pruning', { body, signal }));
    }).then((fault) => (problem = fault ?? problem));
  });
  const line = $derived(cut || plan?.cut_m || 0);
  const stands = $derived(line ? plan?.heights?.[ahead]?.m : undefined); // how tall it stands in the season shown
  const step = 0.05;
  function nudge(by: number) {
    if (!plant) return;
    wanted = '';
    cut = Math.round(100 * Math.max(step, Math.min(plant.height_m, (line || plant.height_m) + by * step))) / 100;
    if (purpose === 'shape') purpose = 'size';
  }
  function pick(m: number) {
    wanted = '';
    cut = Math.round(100 * m) / 100;
    if (purpose === 'shape') purpose = 'size';
  }
  onMount(() => {
    keys.screen = [
      { key: 'ArrowUp', does: 'cut line higher', run: () => nudge(1) },
      { key: 'ArrowDown', does: 'cut line lower', run: () => nudge(-1) },
      { key: 'G', does: 'show regrowth a season on', run: () => (ahead = (ahead + 1) % (plan?.heights?.length || 1)) },
    ];
    return () => (keys.screen = []);
  });
  const windows = $derived((plan?.windows ?? []).map((w) => ({ from: w.from, to: w.to, best: w.best })));
  const lanes = $derived(
    plan && plant
      ? [
          {
            id: 'cut',
            label: `Cut: ${purposeWords(purpose)}`,
            start: plan.from,
            costs: plan.costs,
            windows,
          },
        ]
      : [],
  );
  const cost = $derived(plan && on ? plan.costs?.[daysBetween(plan.from, on)] : undefined);
  const within = $derived(
    plan?.windows?.length
      ? { window_from: plan.windows[0]!.from, window_to: plan.windows.at(-1)!.to, best_day: plan.best }
      : { window_from: '', window_to: '', best_day: plan?.best ?? '' },
  );
  /** Makes the cut a job: waiting for its window, or on the day pointed at in spite of what that costs. */
  async function makeJob(day?: string) {
    const [p, q] = [plan, plant];
    if (!p || !q || busy) return;
    busy = true;
    await attempt(async () => {
      const kept = purpose === 'renew' && !day ? await keepRenewal(q) : [await keepCut(p, q, day)];
      jobs = await standing(q);
      const what = kept.length > 1 ? `${kept[0]!.title} and ${kept.length - 1} more: jobs.` : `${kept[0]?.title}: a job.`;
      house.say(what, async () => {
        for (const o of kept) await dropOrder(o.id);
        jobs = await standing(q);
      });
    });
    busy = false;
  }
  async function keepRenewal(q: Plant) {
    const body = { cuts: [{ plant_id: q.id, purpose: 'renew' as const }] };
    const path = { id: q.property_id };
    return (await ask(api.POST('/api/v1/properties/{id}/cuts', { params: { path, header: onceKey() }, body }))).items;
  }
  async function keepCut(p: Plan, q: Plant, day?: string) {
    const body: Schemas['HandOrder'] = {
      property_id: q.property_id,
      kind: 'prune',
      purpose,
      ...(line ? { cut_m: line } : {}),
      ...(day ? { day } : {}),
      title: `Cut ${q.common}${p.cut_m ? ` to ${metres(p.cut_m)}` : ''}${q.count > 1 ? ` × ${q.count}` : ''}`,
      minutes: p.minutes,
      plants: [q.id],
      note: [...p.steps, p.where].join(' '),
    };
    return ask(api.POST('/api/v1/orders', { params: { header: onceKey() }, body }));
  }
</script>

<svelte:head><title>Cut{plant ? ` · ${plant.common}` : ''} · Mezzadro</title></svelte:head>

{#if season && plan}
  <div class="border-b border-rule bg-white max-lg:overflow-x-auto">
    <Ribbon {season} {lanes} place={plant?.property} bind:pointed={on} chosen="cut" />
  </div>
{/if}
<div class="px-5 py-4 max-md:px-3">
  {#if !plant}
    <Waiting rows={6} />
  {:else}
    <p class="text-sm"><a href="#/plant/{plant.id}">{plant.property}</a></p>
    <h1>Cut {plant.common.toLowerCase()}{plant.label ? `, ${plant.label}` : ''}</h1>
    <div class="mt-3 grid grid-cols-[minmax(0,1fr)] gap-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)]">
      <section aria-label="How far" class="min-w-0">
        <div class="flex flex-wrap gap-3">
          <Pick class="min-w-44 flex-1" label="What for" bind:value={purpose} options={purposes} />
          <Field
            class="w-44"
            label="Next year"
            kind="length"
            bind:value={() => wanted, (v) => ((wanted = v), (cut = 0))}
            problem={problem?.fields.wanted_m}
          />
        </div>
        <div class="mt-2 h-80 border border-rule bg-white">
          <Portrait
            form={plant.form as Form}
            rowM={plant.row_m}
            heightM={Math.max(plant.height_m, stands ?? 0)}
            spreadM={plant.spread_m}
            name={plant.common}
            graftM={plant.graft_m}
            active={line || undefined}
            grownM={stands}
            box={[460, 310]}
            onpick={pick}
            drags
          />
        </div>
        <div class="mt-2 flex items-center gap-2">
          <button class="min-h-11 min-w-12 border border-rule bg-white text-lg" aria-label="Lower" onclick={() => nudge(-1)}
            >−</button
          >
          <p class="flex-1 text-center">
            {#if line}cut at <b class="text-cold" data-testid="cut">{metres(line)}</b> of {metres(plant.height_m)}{:else}no height
              is taken off{/if}
          </p>
          <button class="min-h-11 min-w-12 border border-rule bg-white text-lg" aria-label="Higher" onclick={() => nudge(1)}
            >+</button
          >
          {#if cut || wanted}<button class="min-h-11 px-2 text-sm text-moss underline" onclick={() => ((cut = 0), (wanted = ''))}
              >Clear</button
            >{/if}
        </div>
        {#if problem?.fields.cut_m || problem?.fields.share}<p class="text-sm text-bad" role="alert">
            {capital(problem.fields.cut_m ?? problem.fields.share ?? '')}
          </p>{/if}
        {#if line && plan?.heights?.length}
          <div class="mt-1 flex flex-wrap gap-2" role="group" aria-label="How tall it stands">
            {#each plan.heights as h (h.season)}
              <button
                class="min-h-11 border px-3 text-sm {ahead === h.season
                  ? 'border-ink bg-ink text-paper'
                  : 'border-rule bg-white'}"
                aria-pressed={ahead === h.season}
                onclick={() => (ahead = h.season)}
                >{h.season === 0 ? 'Cut' : h.season === 1 ? 'Next year' : `${h.season} years`}: {metres(h.m)}</button
              >
            {/each}
          </div>
          <p class="text-sm text-soft">Regrowth is an estimate.</p>
        {/if}
      </section>
      {#if plan}
        <article aria-label="The cut" class="min-w-0 border border-ink bg-white">
          <header class="border-b border-rule px-4 py-3">
            <p class="text-xs font-semibold text-soft">{capital(plan.class)}</p>
            <p class="text-lg leading-snug {plan.hold ? '' : 'font-bold'}" data-testid="plan" aria-live="polite">
              {plan.hold ? 'By its kind, were it sound: ' : ''}{plan.text}
            </p>
            {#each plan.rules as r}<p class="text-sm text-soft">House rule: {r}.</p>{/each}
          </header>
          <div class="space-y-3 px-4 py-3 text-[0.9375rem]">
            {#if plan.hold}<HoldNote hold={plan.hold} />{/if}
            {#if on}
              <section aria-label="This day">
                <h3 class="text-sm font-semibold text-moss">On {inWords(on)}</h3>
                <p>
                  <b data-testid="day-cost">{capital(costWord(cost, on, within))}</b>
                  <span class="text-soft">{costOf(cost)}</span>
                </p>
                <ul class="text-sm">
                  {#each plan.why as w (w.name)}<li class="flex gap-2">
                      <b class="w-10 shrink-0 text-right">{w.cost > 100 ? '✕' : `+${w.cost}`}</b>{w.text}
                    </li>{:else}<li>Nothing speaks against this day.</li>{/each}
                </ul>
                <p data-testid="bloom">{plan.bloom_text}</p>
              </section>
            {/if}
            <p class="text-sm">
              This cut takes {Math.round(100 * plan.share)} % of the crown; up to {Math.round(100 * plan.most)} % may go at once.
            </p>
            {#if plan.years?.length}
              <section aria-label="Over the years">
                <h3 class="text-sm font-semibold text-moss">Over the years</h3>
                <ol class="list-decimal pl-5">
                  {#each plan.years as s (s.year)}<li>{s.text}</li>{/each}
                </ol>
              </section>
            {/if}
            {#if plan.steps?.length}
              <section aria-label="Steps">
                <h3 class="text-sm font-semibold text-moss">In this order</h3>
                <ol class="list-decimal pl-5">
                  {#each plan.steps as s}<li>{s}</li>{/each}
                </ol>
                <div class="mt-2 flex flex-wrap items-start gap-3">
                  <CutDrawing of={plan.draw} class="w-48 border border-rule" />
                  <p class="min-w-40 flex-1"><b>Where:</b> {plan.where}</p>
                </div>
                {#each plan.together as f}<p class="mt-2"><b>In the same visit:</b> {f.title}. {f.why}</p>{/each}
              </section>
            {/if}
            <p class="text-sm">
              About {hours(plan.minutes)}{plant.count > 1 ? ' for all' : ''} ({hours(plan.minutes_from)} to {hours(
                plan.minutes_to,
              )}{plan.people > 1 ? `, all ${plan.people} people together` : ''}); {plan.waste_text}{plan.skills?.length
                ? ` Needs: ${plan.skills.join(', ')}.`
                : ''} Estimates.
            </p>
            {#each plan.cautions as c}<p class="border-l-4 border-sun pl-3 text-sm">{c}</p>{/each}
            <div class="flex flex-wrap items-center gap-3">
              <Button disabled={busy} onclick={() => makeJob()}>Make it a job</Button>
              {#if on && on >= house.today && (cost ?? 101) <= 100}<Button
                  color="light"
                  disabled={busy}
                  onclick={() => makeJob(on)}>On {inWords(on)}{plan.bloom_loss >= 0.02 ? ', in spite of the bloom' : ''}</Button
                >{/if}
              <a
                class="inline-flex min-h-11 items-center underline"
                href={cardOf(plant.id, { purpose: plan.purpose, cut_m: line || undefined })}>Cut card</a
              >
            </div>
            {#if jobs.length}
              <p class="flex flex-wrap items-center gap-x-3 text-sm" aria-label="Jobs already">
                Stands as a job already:{#each jobs as o (o.id)}<a
                    class="inline-flex min-h-11 items-center underline"
                    href="#/rounds/{o.id}">{o.title}{o.day ? `, ${inWords(o.day)}` : ''}</a
                  >{/each}
              </p>
            {/if}
            <p class="text-sm text-soft">Local rules on nests, hedges and protected trees come first.</p>
          </div>
        </article>
      {:else if problem}<p role="alert">{problem.message}</p>{:else}<Waiting />{/if}
    </div>
  {/if}
</div>
