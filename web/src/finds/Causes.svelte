<script lang="ts">
  import { small } from '../lib/words';
  /** The slip of causes: what it comes to, with what speaks for and against each as bars. */
  import type { Snippet } from 'svelte';
  import Pick from '../lib/Pick.svelte';
  import CrownCount from './CrownCount.svelte';
  import Drawing from './Drawing.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import { harms, type Case } from './case.svelte';

  let { kase, end, plant }: { kase: Case; end?: Snippet; plant?: { id: number; common: string } } = $props();
  let counting = $state(false);
  const shares: [number, string][] = [
    [0, 'not told'],
    [0.05, 'a leaf here and there'],
    [0.2, 'a fifth or so'],
    [0.6, 'most of it'],
  ];
  // What was counted on a picture stands among what is said by eye.
  const offered = $derived(
    shares.some(([v]) => v === kase.share)
      ? shares
      : [...shares, [kase.share, `${Math.round(100 * kase.share)} %, counted`] as [number, string]],
  );
  const answer = $derived(kase.answer);
  const likely = $derived((answer?.causes ?? []).filter((c, i) => i === 0 || c.chance >= 0.04).slice(0, 5));
  const evidence = (c: (typeof likely)[number]) => c.evidence.filter((e) => Math.abs(e.weight) > 0.3).slice(0, 5);
  const top = $derived(Math.max(1, ...likely.flatMap((c) => evidence(c).map((e) => Math.abs(e.weight)))));
</script>

<section aria-label="What it may be" class="min-w-0 border border-ink bg-white p-4" aria-live="polite">
  {#if answer}
    <p class="text-lg leading-snug font-bold" data-testid="diagnosis">{answer.text}</p>
    {#if kase.seen.length}
      <Pick class="mt-2 max-w-xs" label="How much of it shows it" bind:value={kase.share} options={offered} />
      {#if plant}<button type="button" class="min-h-11 text-moss underline" onclick={() => (counting = true)}
          >Count it on a picture</button
        >{/if}
      <ol class="mt-3 space-y-3">
        {#each likely as c (c.id)}
          <li>
            <div class="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
              <a class="flex items-center gap-2 font-bold" href="#/almanac/cause/{c.id}"
                ><span class="flex shrink-0 gap-1"
                  >{#each c.picture as words}<Drawing {words} size={36} />{/each}</span
                >{c.name}</a
              ><span class="text-sm">{Math.round(100 * c.chance)} %</span>
            </div>
            <div class="my-0.5 h-2 border border-soft bg-white" aria-hidden="true">
              <div class="h-full bg-moss" style="width:{100 * c.chance}%"></div>
            </div>
            <p class="text-sm text-soft">
              {harms[c.harm]}{c.to === 'it'
                ? ''
                : c.to === 'all'
                  ? '; spreads to other kinds'
                  : '; spreads to its kind'}{c.travels ? ` (${c.travels})` : ''}. {c.do}{#if c.prone}{' '}This kind is prone to
                it: expect it again.{/if}
            </p>
            <ul class="mt-0.5 text-sm" aria-label="What speaks for and against {small(c.name)}">
              {#each evidence(c) as e}
                <li class="grid grid-cols-[5.5rem_minmax(0,1fr)] items-center gap-2">
                  <span class="grid grid-cols-2" aria-hidden="true"
                    ><span class="flex justify-end border-r border-ink"
                      >{#if e.weight < 0}<i
                          class="block h-2.5 border border-hand bg-white"
                          style="width:{(100 * -e.weight) / top}%"
                        ></i>{/if}</span
                    ><span
                      >{#if e.weight > 0}<i class="block h-2.5 bg-moss" style="width:{(100 * e.weight) / top}%"></i>{/if}</span
                    ></span
                  >
                  <span
                    ><span class="sr-only">{e.weight > 0 ? 'for' : 'against'}: </span>{e.seen
                      ? ''
                      : 'not there: '}{e.name.toLowerCase()}{e.record ? ' (by the record)' : ''}</span
                  >
                </li>
              {/each}
            </ul>
          </li>
        {/each}
      </ol>
      <p class="mt-2 text-xs text-soft">
        Filled bar to the right speaks for it, open bar to the left against. Chances are estimates.
      </p>
      {#if answer.unknown >= 0.05}<p class="mt-1 text-sm text-soft">
          Something that is not in the book: {Math.round(100 * answer.unknown)} %.
        </p>{/if}
      {#if answer.also?.length}<p class="mt-2">Beside it: {answer.also.map((a) => small(a.name)).join(', ')}.</p>{/if}
      {#each answer.cautions as c}<p class="mt-2 border-l-4 border-sun pl-3 text-sm">{c}</p>{/each}
      <p class="mt-2 text-sm text-soft">
        {kase.away ? 'Named on this device: the house cannot be reached. ' : ''}Local rules and a product’s label come before all
        that is said here.
      </p>
      {@render end?.()}
    {/if}
  {:else if kase.problem}<p role="alert">{kase.problem.message}</p>{:else}<Waiting rows={3} />{/if}
</section>

{#if counting && plant}<CrownCount bind:open={counting} {plant} onkept={(share) => (kase.share = share)} />{/if}
