<script lang="ts">
  import { Button, Input } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, ask, onceKey, Problem, type Schemas } from '../api/client';
  import CrownList from '../finds/CrownList.svelte';
  import FindList from '../finds/FindList.svelte';
  import CutSlip from '../cuts/CutSlip.svelte';
  import FeedSlip from '../treat/FeedSlip.svelte';
  import GuardSlip from '../treat/GuardSlip.svelte';
  import Care from '../walks/Care.svelte';
  import EndOfLife from '../walks/EndOfLife.svelte';
  import { found } from '../walks/checks';
  import { inWords, metres, moment } from '../lib/dates';
  import { attempt, house, keys } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import type { Form } from '../lib/portrait';
  import Field from '../lib/Field.svelte';
  import More from '../lib/More.svelte';
  import { when } from '../work/orders';
  import Tick from '../work/Tick.svelte';
  import Portrait from '../lib/Portrait.svelte';
  import PlantYear from './PlantYear.svelte';
  import PlantSun from '../ground/PlantSun.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import { bare } from '../lib/units';

  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id ?? 0));

  let story = $state<Schemas['Story']>();
  let missing = $state('');
  let season = $state(1); // seasons ahead that the foretold portrait shows
  let cutting = $state.raw<Schemas['PruningOut']>();
  let left = $state(0);
  let right = $state(0);
  let turning = $state<{ verdict: number; state: 'right' | 'alive' | 'dead'; height: string; note: string }>();
  let problem = $state<Problem>();
  const reads = reading();

  async function load(of: number) {
    const p = await reads(async (signal) => {
      const s = await ask(api.GET('/api/v1/plants/{id}/story', { params: { path: { id: of } }, signal }));
      story = s;
      const n = photos(s).length;
      [left, right] = [0, Math.max(0, n - 1)];
      season = Math.min(1, foretold(s).length);
    });
    missing = p ? p.message : '';
  }
  $effect(() => {
    story = undefined;
    turning = undefined;
    if (id) void load(id);
  });
  onMount(() => {
    keys.screen = [
      { key: 'W', does: 'walk to it', run: () => story && (location.hash = `#/walk/${story.plant.property_id}/${id}`) },
    ];
    return () => (keys.screen = []);
  });

  const photos = (s: Schemas['Story']) => [...s.walks].reverse().flatMap((w) => w.photos);
  /** The prognosis that counts: of the verdict that stands, or else of what was found last. */
  const standing = (s: Schemas['Story']) => s.walks.flatMap((w) => w.verdicts).find((v) => v.decision !== 'not now');
  const foretold = (s: Schemas['Story']) => (standing(s)?.prognosis ?? s.now.prognosis).heights;
  const shots = $derived(story ? photos(story) : []);
  const ahead = $derived(story ? foretold(story) : []);
  const verdict = $derived(story ? standing(story) : undefined);
  const tall = $derived(season > 0 ? ahead[season - 1] : undefined);

  const states: ['right' | 'alive' | 'dead', string][] = [
    ['right', 'looks right again'],
    ['alive', 'alive, on its way'],
    ['dead', 'dead'],
  ];
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    if (!turning) return;
    const t = turning;
    problem = await attempt(async () => {
      story = await ask(
        api.POST('/api/v1/plants/{id}/outcomes', {
          params: { path: { id }, header: onceKey() },
          body: { verdict_id: t.verdict, state: t.state, height_m: bare(t.height) || 0, note: t.note },
        }),
      );
      turning = undefined;
      const last = story.turned?.[0];
      if (!last) return;
      house.say('Saved.', async () => {
        await attempt(async () => {
          await ask(api.DELETE('/api/v1/outcomes/{id}', { params: { path: { id: last.id } } }));
          await load(id);
        });
      });
    });
  }
  const pick = 'min-h-11 rounded-sm border border-gray-400 bg-white px-2';
</script>

<svelte:head><title>{story ? `${story.plant.common} · ` : ''}Plant · Mezzadro</title></svelte:head>

{#if missing}
  <div class="px-5 py-4">
    <h1>Plant</h1>
    <p class="mt-1" role="alert">{missing}</p>
    <p class="mt-2"><a href="#/grounds">All properties</a></p>
  </div>
{:else if !story}
  <Waiting />
{:else}
  {@const p = story.plant}
  <div class="px-5 py-4 max-md:px-3">
    <header class="flex flex-wrap items-start gap-x-6 gap-y-2">
      <div class="min-w-[min(100%,16rem)] flex-1 break-words">
        <p class="text-sm"><a href="#/grounds/{p.property_id}">{p.property}</a></p>
        <h1>
          {p.common}{#if p.count > 1}<span class="font-normal text-soft">&nbsp;× {p.count}</span>{/if}
        </h1>
        <p>
          <a class="latin" href="#/almanac/{p.species}">{p.botanical}</a>{#if p.label}&nbsp;· {p.label}{/if}{#if p.planted}&nbsp;·
            planted {p.planted}{/if}{#if p.graft_m}&nbsp;· graft at {metres(p.graft_m)}{/if}
        </p>
        {#if p.note}<p class="text-soft">{p.note}</p>{/if}
      </div>
      <a class="inline-flex min-h-11 items-center rounded-sm border border-rule bg-white px-4" href="#/ails/{id}">What ails it?</a
      >
      <a class="inline-flex min-h-11 items-center rounded-sm border border-rule bg-white px-4" href="#/cut/{id}">Cut bench</a>
      <a
        class="inline-flex min-h-11 items-center rounded-sm bg-moss px-4 font-semibold text-white no-underline hover:bg-moss-deep"
        href="#/walk/{p.property_id}/{id}">Walk to it</a
      >
      <More of={p.common}>
        <a href="#/replace/{p.property_id}/{id}">What fits here</a>
        <a href="#/card/{id}">Cut card to print</a>
        <a href="#/almanac/{p.species}">{p.common} in the Almanac</a>
      </More>
    </header>

    <div class="mt-3 grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div class="contents lg:col-start-1 lg:row-start-1 lg:block">
        <div class="grid border border-rule bg-white md:grid-cols-2">
          <section aria-label="Now" class="p-4">
            <h2>Now</h2>
            <p class="leading-snug {ahead.length ? 'min-h-12' : ''}">{story.now.verdict?.sentence ?? ''}</p>
            <div class="h-72">
              <Portrait
                form={p.form as Form}
                rowM={p.row_m}
                heightM={p.height_m}
                spreadM={p.spread_m}
                name={p.common}
                answer={story.now}
                checks={story.walks?.[0]?.checks}
                graftM={p.graft_m}
                foretold={p.look?.worth}
                box={[360, 288]}
              />
            </div>
          </section>
          <section aria-label="Foretold" class="border-rule p-4 max-md:border-t md:border-l">
            <h2>Foretold <span class="text-sm font-normal text-soft">estimate</span></h2>
            <p class="leading-snug {ahead.length ? 'min-h-12' : ''}">
              {verdict ? verdict.prognosis.text : story.now.prognosis.text}
              {#if verdict && verdict.prognosis.chance > 0}Chance {Math.round(100 * verdict.prognosis.chance)} %.{/if}
            </p>
            {#if ahead.length}
              <div class="h-60">
                <Portrait
                  form={p.form as Form}
                  rowM={p.row_m}
                  heightM={p.height_m}
                  spreadM={p.spread_m}
                  name="{p.common} after {season} {season === 1 ? 'season' : 'seasons'}"
                  grownM={tall}
                  graftM={p.graft_m}
                  box={[360, 240]}
                />
              </div>
              <label class="mt-1 flex min-h-11 items-center gap-3 text-sm"
                >Season <input
                  type="range"
                  min="1"
                  max={ahead.length}
                  bind:value={season}
                  class="flex-1 accent-moss"
                  aria-label="Seasons ahead"
                />
                <b>{season}: about {metres(tall ?? 0)}</b></label
              >
            {:else}
              <p class="mt-2 text-soft">
                {(verdict?.kind ?? story.now.verdict.kind) === 'check first'
                  ? p.look?.worth || p.look?.slight
                    ? `From the weather alone: ${p.look.own}`
                    : 'Nothing that the weather did makes it likely to be hurt.'
                  : 'No regrowth to foretell.'}
              </p>
              <PlantSun property={p.property_id} plant={p.id} />
            {/if}
          </section>
        </div>
        <div class="order-3">
          <PlantYear plant={p} jobs={story.jobs ?? []} today={house.today} cut={cutting} />
          {#if ahead.length}<PlantSun property={p.property_id} plant={p.id} />{/if}
          {#if story.deeds?.length}<section class="mt-4" aria-label="Who did what">
              <h2>Who did what</h2>
              <ul class="text-sm">
                {#each story.deeds as d, i (i)}<li class="border-t border-rule py-1">
                    <b>{d.name}</b>
                    {d.did}, {moment(d.at)}
                  </li>{/each}
              </ul>
            </section>{/if}
          <CrownList plant={p} />
          <section class="mt-5" aria-label="Photos">
            <h2>Photos side by side</h2>
            {#if shots.length}
              <div class="mt-1 grid grid-cols-2 gap-3">
                {#each [['Earlier', left], ['Later', right]] as [name, at] (name)}
                  {@const s = shots[at as number]}
                  <figure class="min-w-0">
                    {#if s}<a href="/api/v1/pictures/{s.hash}" target="_blank" rel="noreferrer"
                        ><img
                          src="/api/v1/pictures/{s.hash}"
                          alt="{p.common}, {inWords(s.day)}"
                          class="h-64 w-full border border-rule bg-white object-contain"
                        /></a
                      >{/if}
                    <figcaption>
                      <label class="flex items-center gap-2 text-sm"
                        >{name}
                        <select
                          class="{pick} min-w-0 flex-1"
                          value={at}
                          onchange={(e) =>
                            name === 'Earlier' ? (left = Number(e.currentTarget.value)) : (right = Number(e.currentTarget.value))}
                          >{#each shots as x, i (x.id)}<option value={i}>{inWords(x.day)}, {i + 1} of {shots.length}</option
                            >{/each}</select
                        ></label
                      >
                    </figcaption>
                  </figure>
                {/each}
              </div>
            {:else}<p class="text-soft">No photo yet. Take one on a walk, each time from the same side.</p>{/if}
          </section>
          {#if story.ends.length > 1}<section class="mt-5" aria-label="Where life ends">
              <h2>Where life ends</h2>
              <EndOfLife ends={story.ends} name={p.common} />
            </section>{/if}
          <section class="mt-5" aria-label="History">
            <h2>Walks and verdicts</h2>
            <ol class="border-t border-rule">
              {#each story.walks as w (w.walk_id)}
                <li class="grid gap-x-4 border-b border-rule py-2 sm:grid-cols-[7rem_1fr_1fr]">
                  <span class="font-semibold">{inWords(w.day)}</span>
                  <div>
                    {#if w.checks?.length}<p class="text-sm">
                        {w.checks.map((c) => found(c) + (c.height_m ? ` at ${metres(c.height_m)}` : '')).join(' · ')}
                      </p>{/if}
                    {#if w.note}<p>“{w.note}”</p>{/if}
                    {#if w.photos?.length}<p class="text-sm text-soft">
                        {w.photos.length}
                        {w.photos.length === 1 ? 'photo' : 'photos'}
                      </p>{/if}
                  </div>
                  <div>
                    {#each w.verdicts as v (v.id)}
                      <p class="leading-snug">
                        <span class="text-sm text-soft">{v.decision}</span>
                        {v.sentence}{#if v.note}<span class="block text-sm">“{v.note}”</span>{/if}
                      </p>
                    {:else}<p class="text-soft">No verdict.</p>{/each}
                  </div>
                </li>
              {:else}
                <li class="border-b border-rule py-2 text-soft">Nobody has looked at it yet.</li>
              {/each}
            </ol>
          </section>
        </div>
      </div>
      <div class="order-2 space-y-4 lg:col-start-2 lg:row-start-1">
        <FindList plant={id} />
        <section aria-label="Jobs">
          <h2>Jobs</h2>
          <ul class="border-t border-rule">
            {#each story.jobs as j (j.id)}
              <li class="border-b border-rule py-1.5 leading-snug">
                <a href="#/rounds/{j.id}">{j.title}</a><span class="block text-sm text-soft">{when(j, house.today)}</span>
                {#key j.id + j.state}<Tick order={j} small onkept={() => void load(id)} />{/key}
              </li>
            {:else}<li class="border-b border-rule py-1.5 text-soft">No job stands for it.</li>{/each}
          </ul>
        </section>
        <CutSlip plant={id} bind:plan={cutting} />
        <FeedSlip
          plant={id}
          hurt={p.look?.worth ?? false}
          stands={story.jobs?.some(
            (j) => j.kind === 'feed' && j.origin === 'programme' && (j.state === 'waiting' || (!!j.day && j.state !== 'done')),
          )}
          onkept={() => void load(id)}
        />
        <GuardSlip plant={id} />
        {#if verdict?.care?.length}
          <section aria-label="After-care">
            <h2>After-care</h2>
            <Care care={verdict.care} />
          </section>
        {/if}
        <section aria-label="How it turned out">
          <h2>How it turned out</h2>
          <ul class="border-t border-rule">
            {#each story.turned as t (t.id)}
              <li class="border-b border-rule py-1.5 leading-snug" data-as={t.as}>
                <b>{t.as}</b>: {t.text}
                <span class="block text-sm text-soft"
                  >{inWords(t.day)}, after “{t.kind}”{#if t.height_m}, {metres(t.height_m)} tall{/if}{#if t.note}. {t.note}{/if}</span
                >
              </li>
            {:else}<li class="border-b border-rule py-1.5 text-soft">Nothing noted yet.</li>{/each}
          </ul>
          {#if verdict && !turning}<button
              class="min-h-11 text-moss underline"
              onclick={() => (turning = { verdict: verdict.id, state: 'right', height: '', note: '' })}
              >Note how it turned out</button
            >{/if}
          {#if turning}
            <form class="mt-2 space-y-2 border border-ink bg-white p-3" onsubmit={keep} aria-label="How it turned out">
              <label class="block font-semibold"
                >It is<select class="{pick} mt-1 w-full font-normal" bind:value={turning.state}
                  >{#each states as [v, w] (v)}<option value={v}>{w}</option>{/each}</select
                ></label
              >
              <Field
                label="Height now"
                kind="length"
                bind:value={turning.height}
                placeholder="if measured"
                problem={problem?.fields.height_m}
              />
              <label class="block font-semibold">Note<Input class="mt-1 font-normal" bind:value={turning.note} /></label>
              <div class="flex gap-2">
                <Button type="submit">Save</Button><Button color="light" onclick={() => (turning = undefined)}>Back</Button>
              </div>
            </form>
          {/if}
        </section>
      </div>
    </div>
  </div>
{/if}
