<script lang="ts">
  /** The season in weeks: what the work wants against what the crews have, and what is done in another week than its best. */
  import { onDestroy } from 'svelte';
  import { api, ask, type Schemas } from '../api/client';
  import { brief, hours, inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';

  let season = $state.raw<Schemas['WeeksAhead']>();
  let chosen = $state(0);
  let width = $state(600);
  let gone = false;
  onDestroy(() => (gone = true));
  void attempt(async () => {
    const s = await ask(api.GET('/api/v1/rounds/season', { params: { query: { weeks: 26 } } }));
    if (!gone) season = s;
  });
  const weeks = $derived(season?.weeks ?? []);
  const most = $derived(Math.max(60, ...weeks.map((w) => Math.max(w.capacity, w.wanted))));
  const high = 110;
  const y = (m: number) => high - (m / most) * high;
  const wide = $derived(Math.max(26, width / Math.max(1, weeks.length)));
  const week = $derived(weeks[chosen]);
</script>

{#if season && weeks.length}
  <section class="mt-5" aria-label="The season in weeks">
    <h2>The season in weeks</h2>
    <div class="overflow-x-auto" bind:clientWidth={width}>
      <div class="relative" style:width="{wide * weeks.length}px" style:height="{high + 22}px">
        <svg width={wide * weeks.length} height={high + 22} class="absolute inset-0" aria-hidden="true">
          {#each weeks as w, i (w.from)}
            <rect x={i * wide + 2} y={y(w.capacity)} width={wide - 4} height={high - y(w.capacity)} fill="var(--color-sheet)" />
            <rect
              x={i * wide + 6}
              y={y(w.load)}
              width={wide - 12}
              height={high - y(w.load)}
              fill={w.load > 0.9 * w.capacity ? 'var(--color-sun)' : 'var(--color-moss)'}
            />
            <line
              x1={i * wide + 2}
              x2={(i + 1) * wide - 2}
              y1={y(w.wanted)}
              y2={y(w.wanted)}
              stroke={w.wanted > w.capacity ? 'var(--color-bad)' : 'var(--color-ink)'}
              stroke-width="2"
            />
            {#if i % (wide < 40 ? 4 : 2) === 0}<text x={i * wide + 3} y={high + 16} font-size="11" fill="var(--color-soft)"
                >{brief(w.from)}</text
              >{/if}
          {/each}
          <rect x={chosen * wide + 1} y="0" width={wide - 2} height={high} fill="none" stroke="var(--color-ink)" />
        </svg>
        {#each weeks as w, i (w.from)}
          <button
            class="absolute top-0"
            style:left="{i * wide}px"
            style:width="{wide}px"
            style:height="{high}px"
            aria-pressed={i === chosen}
            aria-label="Week from {inWords(w.from)}: {hours(w.load)} of {hours(w.capacity)}"
            onclick={() => (chosen = i)}
          ></button>
        {/each}
      </div>
    </div>
    {#if week}
      <p class="text-sm" aria-live="polite">
        Week from {inWords(week.from)}: {week.jobs}
        {week.jobs === 1 ? 'job' : 'jobs'}, <b>{hours(week.load)}</b> of {hours(week.capacity)} that people have, ways taken off.
        {#if week.wanted > week.capacity}<b class="text-bad"
            >{hours(week.wanted - week.capacity)} more would be best here than there are hours.</b
          >{:else if week.wanted !== week.load}Best here would be {hours(week.wanted)}.{/if}
      </p>
    {/if}
    <p class="text-sm text-soft">
      Bars: work as it is spread; pale: the crews’ hours; lines: were each job done in its best week. Estimates.
    </p>
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
