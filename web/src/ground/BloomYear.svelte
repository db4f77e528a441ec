<script lang="ts">
  /** What blooms on a property through the year, as bars by month, with the months in which nothing does. */
  import { api, ask, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import { reading } from '../lib/reading';
  import Waiting from '../lib/Waiting.svelte';
  import { months } from './plan';

  let { property }: { property: number } = $props();
  let year = $state.raw<Schemas['ReplacementCalendar']>();
  let all = $state(false);
  const reads = reading();
  $effect(() => {
    const id = property;
    void reads(async (signal) => {
      year = await ask(api.GET('/api/v1/properties/{id}/bloom', { params: { path: { id } }, signal }));
    });
  });
  const list = $derived((year?.plants ?? []).slice(0, all ? undefined : 12));
  /** Share of the year at which a day lies; a bloom over new year is drawn to its end. */
  const at = (d: string) => {
    const t = new Date(d + 'T00:00:00Z');
    return (t.getTime() - Date.UTC(t.getUTCFullYear(), 0, 1)) / (365.25 * 864e5);
  };
  const wide = 360;
  const bars = (p: Schemas['ReplacementInBloom']): [number, number][] => {
    const [a, b] = [at(p.from) * wide, at(p.to) * wide];
    return b >= a
      ? [[a, Math.max(3, b - a)]]
      : [
          [a, wide - a],
          [0, b],
        ];
  };
  const tint: Record<string, string> = {
    white: '#ffffff',
    cream: '#f3e9c6',
    yellow: '#e8c93a',
    orange: '#dd8a34',
    red: '#b8383a',
    pink: '#dc95ad',
    purple: '#84589c',
    blue: '#5474b8',
    green: '#93ab68',
  };
  const named = (list: number[] | null) => (list ?? []).map((m) => months[m - 1]).join(', ');
</script>

<section aria-label="Bloom of the year" class="border border-rule bg-white px-3 py-2">
  <h2>In bloom through the year</h2>
  {#if !year}<Waiting rows={4} />
  {:else if !year.plants?.length}<p class="text-soft">Nothing that is kept here has a flower to look at.</p>
  {:else}
    <div class="grid grid-cols-[9rem_minmax(0,1fr)] items-center gap-x-2 text-sm">
      <span></span>
      <svg viewBox="0 0 {wide} 14" class="w-full" aria-hidden="true"
        >{#each months as m, i (m)}<text x={i * 30 + 15} y="11" font-size="11" text-anchor="middle">{m}</text>{/each}</svg
      >
      {#each list as p}
        <span class="truncate" title={p.name}>{p.name}</span>
        <svg viewBox="0 0 {wide} 14" class="w-full" role="img" aria-label="{inWords(p.from)} to {inWords(p.to)}">
          {#each months as m, i (m)}<rect
              x={i * 30}
              width="30"
              height="14"
              fill={year.gaps?.includes(i + 1) ? 'var(--color-sheet)' : 'white'}
              stroke="var(--color-rule)"
              stroke-width="0.5"
            />{/each}
          {#each bars(p) as [x, w], k (k)}
            {#each p.colours.slice(0, 3) as c, j (c)}<rect
                {x}
                y={2 + (j * 10) / Math.min(3, p.colours!.length)}
                width={w}
                height={10 / Math.min(3, p.colours!.length)}
                fill={tint[c]}
              />{/each}
            <rect {x} y="2" width={w} height="10" fill="none" stroke="var(--color-ink)" stroke-width="0.6" />
          {/each}
        </svg>
      {/each}
    </div>
    {#if (year.plants?.length ?? 0) > list.length}<button class="min-h-11 text-moss underline" onclick={() => (all = true)}
        >All {year.plants?.length}</button
      >{/if}
    {#if year.gaps?.length}<p class="mt-1">
        <b>Nothing blooms in {named(year.gaps)}.</b>
        <a class="inline-flex min-h-11 items-center underline" href="#/replace/{property}?bloom={year.gaps.join(',')}"
          >What would bloom then</a
        >
      </p>{:else}<p class="mt-1">Something is in bloom in every month of the season.</p>{/if}
    {#if year.bee_gaps?.length}<p class="text-sm text-soft">Bees find little in {named(year.bee_gaps)}.</p>{/if}
    <p class="text-sm text-soft">By this year’s season; colours are the usual ones of a kind.</p>
  {/if}
</section>
