<script lang="ts" module>
  /** How a share of the work is filled: four kinds are told apart by how they are hatched, the rest together. */
  const fills = ['bg-moss', 'hatch-slant', 'bg-living', 'hatch-dots', 'bg-sheet'];
</script>

<script lang="ts">
  /** The season week by week: work by its kind against the the crews’ hours, with what each week is made of. */
  import { onDestroy } from 'svelte';
  import { api, ask, type Schemas } from '../api/client';
  import { brief, hours, inWords } from '../lib/dates';
  import { attempt } from '../lib/house.svelte';
  import { capital } from '../lib/words';
  import { kindWord, titled } from '../work/orders';

  let season = $state.raw<Schemas['WeeksAhead']>();
  let chosen = $state(0);
  let all = $state(false); // half a year, not a quarter
  let gone = false;
  onDestroy(() => (gone = true));
  void attempt(async () => {
    const s = await ask(api.GET('/api/v1/rounds/season', { params: { query: { weeks: 26 } } }));
    if (!gone) season = s;
  });
  const weeks = $derived(season?.weeks ?? []);
  const shown = $derived(all ? weeks : weeks.slice(0, 13));
  const most = $derived(Math.max(60, ...weeks.map((w) => Math.max(w.capacity, w.wanted, w.load))));
  const share = (minutes: number) => `${(100 * minutes) / most}%`;
  const word = (kind: string) => capital(kindWord(kind));
  /** The kinds that are drawn apart: those with the most work in all weeks. */
  const apart = $derived.by(() => {
    const sum: Record<string, number> = {};
    for (const w of weeks) for (const k of w.kinds) sum[k.kind] = (sum[k.kind] ?? 0) + k.minutes;
    return Object.entries(sum)
      .sort((a, b) => b[1] - a[1])
      .slice(0, fills.length - 1)
      .map(([kind]) => kind);
  });
  const parts = (w: Schemas['WeekAhead']) => {
    const own = apart.map((kind) => ({ kind, minutes: w.kinds.find((k) => k.kind === kind)?.minutes ?? 0 }));
    const rest = w.kinds.filter((k) => !apart.includes(k.kind)).reduce((n, k) => n + k.minutes, 0);
    return [...own, { kind: 'the rest', minutes: rest }];
  };
</script>

{#if season && weeks.length}
  <section class="mt-5" aria-label="The season in weeks">
    <h2>The season in weeks <span class="text-sm font-normal text-soft">estimate</span></h2>
    <ul class="mt-1 flex flex-wrap gap-x-4 gap-y-1 text-sm" aria-label="What the bars are made of">
      {#each [...apart, 'the rest'] as kind, i (kind)}<li class="flex items-center gap-1.5">
          <span class="inline-block h-3 w-5 border border-ink {fills[i]}"></span>{word(kind)}
        </li>{/each}
      <li class="flex items-center gap-1.5">
        <span class="inline-block h-4 w-5 border-2 border-dashed border-soft"></span>the crews’ hours
      </li>
      <li class="flex items-center gap-1.5"><span class="inline-block h-4 w-0.5 bg-bad"></span>if each had its best week</li>
    </ul>
    <ol class="mt-2 border-t border-rule text-sm">
      {#each shown as w, n (w.from)}
        <li class="border-b border-rule">
          <button
            type="button"
            class="grid min-h-11 w-full grid-cols-[4.5rem_minmax(0,1fr)_5.5rem] items-center gap-2 text-left md:min-h-8 {n ===
            chosen
              ? 'bg-moss-pale'
              : 'hover:bg-sheet'}"
            aria-expanded={n === chosen}
            onclick={() => (chosen = n === chosen ? -1 : n)}
          >
            <span class="pl-1 {n === chosen ? 'font-semibold' : ''}">{brief(w.from)}</span>
            <span class="relative block h-5" aria-hidden="true">
              <span class="absolute inset-y-0 left-0 border-2 border-dashed border-soft" style:width={share(w.capacity)}></span>
              <span class="absolute inset-y-1 left-0 flex" style:width={share(w.load)}>
                {#each parts(w) as p, i (p.kind)}{#if p.minutes}<span
                      class="block h-full overflow-hidden border border-ink {fills[i]}"
                      style:width={`${(100 * p.minutes) / Math.max(1, w.load)}%`}
                    ></span>{/if}{/each}
              </span>
              {#if w.wanted !== w.load}<span class="absolute -inset-y-0.5 w-0.5 bg-bad" style:left={share(w.wanted)}></span>{/if}
            </span>
            <span class="pr-1 text-right">{hours(w.load)}<span class="sr-only"> of {hours(w.capacity)}</span></span>
          </button>
          {#if n === chosen}
            <div class="px-1 pb-2 leading-snug">
              <p>
                {w.jobs}
                {w.jobs === 1 ? 'job' : 'jobs'}, <b>{hours(w.load)}</b> of {hours(w.capacity)} that people have, ways taken off.
                {#if w.wanted > w.capacity}<b class="text-bad"
                    >{hours(w.wanted - w.capacity)} more would be best here than there are hours.</b
                  >{:else if w.wanted !== w.load}Best here would be {hours(w.wanted)}.{/if}
              </p>
              {#if w.kinds.length}<p>
                  {w.kinds.map((k) => `${word(k.kind)} ${hours(k.minutes)}`).join(', ')}.
                </p>{/if}
              {#if w.most.length}
                <ul class="mt-1 grid gap-x-6 md:grid-cols-2" aria-label="The longest jobs of the week from {inWords(w.from)}">
                  {#each w.most as o (o.id)}<li class="flex min-w-0 items-center gap-2">
                      <a class="flex min-h-7 min-w-0 flex-1 items-center max-md:min-h-11" href="#/rounds/{o.id}">{titled(o)}</a
                      ><span class="max-w-[45%] text-right text-soft"
                        >{o.property}, {hours(o.minutes)}{o.crew_size > 1 ? ` for ${o.crew_size} people` : ''}</span
                      >
                    </li>{/each}
                </ul>
                {#if w.jobs > w.most.length}<p class="text-soft">and {w.jobs - w.most.length} shorter ones</p>{/if}
              {/if}
            </div>
          {/if}
        </li>
      {/each}
    </ol>
    {#if weeks.length > 13}<button type="button" class="min-h-11 text-sm text-moss underline" onclick={() => (all = !all)}
        >{all ? 'Show a quarter' : `Show all ${weeks.length} weeks`}</button
      >{/if}
    {#if season.moved?.length}
      <details class="text-sm">
        <summary class="flex min-h-11 cursor-pointer items-center text-moss"
          >{season.moved.length === 1 ? 'One job is' : `${season.moved.length} jobs are`} done in another week than the best</summary
        >
        <ul>
          {#each season.moved.slice(0, 40) as m (m.job.id)}<li class="border-b border-rule py-1">
              <a href="#/rounds/{m.job.id}">{m.job.title}</a>, {m.job.property}: week from {brief(m.to)} in place of {brief(
                m.best,
              )}<span class="text-soft">&nbsp;+{Math.round(m.cost)}</span>
            </li>{/each}
        </ul>
      </details>
    {/if}
    {#if season.left?.length}<p class="text-sm font-semibold text-bad">
        No week has the hours or the people for: {season.left
          .slice(0, 12)
          .map((o) => o.title)
          .join('; ')}{season.left.length > 12 ? ` and ${season.left.length - 12} more` : ''}.
      </p>{/if}
  </section>
{/if}

<style>
  :global(.hatch-slant) {
    background: repeating-linear-gradient(45deg, var(--color-moss) 0 2px, var(--color-paper) 2px 7px);
  }
  :global(.hatch-dots) {
    background: radial-gradient(var(--color-ink) 1px, var(--color-paper) 1.5px) 0 0 / 5px 5px;
  }
</style>
