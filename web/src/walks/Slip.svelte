<script lang="ts">
  import type { Answer, Schemas } from '../api/client';
  import Care from './Care.svelte';
  import { inWords, metres } from '../lib/dates';
  import Figure from './Figure.svelte';
  import { house } from '../lib/house.svelte';
  import { entered, unit } from '../lib/units';
  import Patience from './Patience.svelte';

  interface Props {
    answer: Answer;
    standing?: Schemas['Decision']; // what was decided on it
    palm?: boolean;
    onspot?: (key: string, seen: 'yes' | 'no', amount?: number) => void;
  }
  let { answer, standing, palm = false, onspot }: Props = $props();

  // A verdict of one's own comes first; one that was accepted gives way to what was found since.
  const own = $derived(standing?.decision === 'overruled' ? standing : undefined);
  const top = $derived(Math.max(1, ...answer.reasons.map((r) => r.weight)));
</script>

<article
  aria-label="Verdict"
  class="border bg-white {answer.verdict.kind === 'make safe first' ? 'border-4 border-bad' : 'border-ink'}"
  data-kind={answer.verdict.kind}
>
  <header class="border-b border-rule px-4 py-3">
    <p class="text-xs font-semibold tracking-wide text-soft">
      {own ? `Your verdict, ${inWords(own.day)} · ${own.kind}` : `${standing ? 'Decided' : 'Verdict'} · ${answer.verdict.kind}`}
    </p>
    <p class="text-lg leading-snug font-bold" aria-live="polite" data-testid="sentence">
      {own?.sentence ?? answer.verdict.sentence}
    </p>
    {#if answer.known}<p class="mt-1 text-[0.9375rem]" data-testid="known">{answer.known}</p>{/if}
    {#if answer.finds?.length}<p class="mt-1 text-[0.9375rem]" data-testid="finds">{answer.finds.join(' · ')}</p>{/if}
    {#if standing?.note}<p>“{standing.note}”</p>{/if}
    {#if own}<p class="mt-1 text-sm text-soft" data-testid="estimate">By what was found: {answer.verdict.sentence}</p>
    {:else if standing}<p class="mt-1 text-sm text-soft">
        Decided {inWords(standing.day)}{#if standing.sentence !== answer.verdict.sentence}: {standing.sentence}{/if}
      </p>{/if}
    {#if answer.verdict.kind !== 'check first'}
      <p class="mt-1 text-sm text-soft">
        {#if palm && answer.verdict.sure === 0}Nothing tells yet{:else if !palm && answer.verdict.kind === 'wait until' && answer.boundary.high_m > answer.boundary.low_m}
          Life ends between {metres(answer.boundary.low_m)} and {metres(answer.boundary.high_m)}, four times in five
        {:else}
          {#if answer.verdict.kind !== 'make safe first'}{Math.round(answer.verdict.sure * 100)} % sure{:else}Found from a
            distance{/if}
        {/if}{#if answer.look_again}&nbsp;· look again {inWords(answer.look_again)}{/if}
      </p>
    {/if}
  </header>
  <div class="space-y-3 px-4 py-3 text-[0.9375rem]">
    {#if answer.verdict.kind === 'wait until'}<Patience {answer} />{/if}
    <div class="grid gap-x-4 gap-y-2 sm:grid-cols-2">
      <section>
        <h2 class="text-sm font-semibold text-moss">Do</h2>
        <ul class="list-disc pl-4">
          {#each answer.do as d}<li>{d}</li>{/each}
        </ul>
      </section>
      <section>
        <h2 class="text-sm font-semibold text-bad">Do not</h2>
        <ul class="list-disc pl-4">
          {#each answer.dont as d}<li>{d}</li>{/each}
        </ul>
      </section>
    </div>
    <section>
      <h2 class="text-sm font-semibold">Prognosis <span class="font-normal text-soft">(estimate)</span></h2>
      <p>
        {answer.prognosis.text}
        {#if answer.prognosis.chance > 0}Chance {Math.round(answer.prognosis.chance * 100)} %.{/if}
      </p>
    </section>
    <section>
      <h2 class="text-sm font-semibold">Why</h2>
      <ul class="space-y-1">
        {#each answer.reasons as r, i (i)}
          <li class="grid grid-cols-[4.5rem_1fr] items-center gap-2">
            {#if r.speaks === 'danger'}
              <span class="text-xs font-bold text-bad">danger</span>
            {:else if r.speaks === 'wait' || r.weight === 0}
              <span class="text-center text-soft" title="Tells nothing either way" aria-hidden="true">·</span>
            {:else}
              <svg width="72" height="14" role="img" aria-label="speaks for {r.speaks}, strength {r.weight.toFixed(1)}">
                <line x1="36" x2="36" y1="0" y2="14" stroke="var(--color-rule)" />
                {#if r.speaks === 'alive'}
                  <rect x="36" y="2" height="10" width={(34 * r.weight) / top} fill="var(--color-moss)" />
                {:else}
                  <rect
                    x={36 - (34 * r.weight) / top}
                    y="2"
                    height="10"
                    width={(34 * r.weight) / top}
                    fill="none"
                    stroke="var(--color-wood)"
                    stroke-width="1.5"
                  />
                {/if}
              </svg>
            {/if}
            <span>{r.text}</span>
          </li>
        {/each}
      </ul>
      {#if answer.reasons.some((r) => r.weight > 0)}
        <p class="mt-1 text-xs text-soft">Filled bar to the right speaks for life, open bar to the left for death.</p>
      {/if}
    </section>
    {#if answer.spot}
      <section class="border border-water p-2" aria-label="The spot">
        <h2 class="text-sm font-semibold text-water">The spot</h2>
        <p>{answer.spot.text}</p>
        <ul class="mt-1 space-y-0.5 text-sm">
          {#each answer.spot.reasons.slice(0, 3) as r (r.key)}
            <li class="grid grid-cols-[1fr_4rem_2.5rem] items-center gap-2">
              <span>{r.name}</span>
              <span class="h-2 bg-rule" aria-hidden="true"
                ><span class="block h-full bg-water" style="width:{100 * r.chance}%"></span></span
              >
              <span class="text-right">{Math.round(100 * r.chance)} %</span>
            </li>
          {/each}
        </ul>
        {#if answer.spot.next && onspot}
          {@const q = answer.spot.next}
          <p class="mt-2 font-semibold">{q.text}</p>
          <div class="mt-1 flex flex-wrap items-center gap-2">
            {#if q.distance}
              <Figure name="Distance to it" unit={unit('length')} onnote={(v) => onspot(q.key, 'yes', entered('length', v))} />
              <button class="min-h-11 border border-rule bg-white px-3" onclick={() => onspot(q.key, 'no')}>None near</button>
            {:else}
              <button class="min-h-11 border border-ink bg-white px-5" onclick={() => onspot(q.key, 'yes')}>Yes</button>
              <button class="min-h-11 border border-ink bg-white px-5" onclick={() => onspot(q.key, 'no')}>No</button>
            {/if}
          </div>
        {/if}
      </section>
    {/if}
    {#if answer.care?.length}
      <section>
        <h2 class="text-sm font-semibold">After-care</h2>
        <Care care={answer.care} />
      </section>
    {/if}
    {#if answer.changes?.length}
      <section>
        <h2 class="text-sm font-semibold">What would change it</h2>
        <ul class="list-disc pl-4">
          {#each answer.changes as c}<li>{c}</li>{/each}
        </ul>
      </section>
    {/if}
    {#if answer.cautions?.length}
      <section class="border-l-4 border-sun pl-3">
        <h2 class="text-sm font-semibold text-sun">Caution</h2>
        <ul class="space-y-1">
          {#each answer.cautions as c}<li>{c.text}</li>{/each}
        </ul>
      </section>
    {/if}
  </div>
</article>
