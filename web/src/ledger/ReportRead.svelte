<script lang="ts">
  /** A report as its client reads it: the first page, the weather in a small picture, then plant by plant. */
  import type { Schemas } from '../api/client';
  import { brief, degrees } from '../lib/dates';
  import Drawn from './Drawn.svelte';

  interface Props {
    report: Pick<Schemas['Report'], 'title' | 'summary' | 'nights' | 'sections'>;
    pictures: string; // where its pictures lie
    level?: 1 | 2; // of its head
  }
  let { report: r, pictures, level = 2 }: Props = $props();
  const [wide, high] = [560, 110];
  const low = $derived(Math.min(0, ...r.nights.map((n) => n.min_c)));
  const top = $derived(Math.max(0, ...r.nights.map((n) => n.min_c)));
  const y = (c: number) => 14 + ((high - 34) * (top - c)) / Math.max(1, top - low);
  const x = (i: number) => 4 + ((wide - 8) * i) / Math.max(1, r.nights.length - 1);
  const coldest = $derived(r.nights.reduce((best, n, i) => (n.min_c < r.nights[best]!.min_c ? i : best), 0));
  const words: Record<string, string> = {
    danger: 'may fall',
    lost: 'lost',
    hurt: 'hurt',
    waiting: 'too early to tell',
    found: 'needs attention',
    well: 'well',
  };
  const look = (s: string) => (s === 'danger' || s === 'lost' ? 'text-bad' : s === 'well' ? 'text-moss' : 'text-sun');
</script>

<svelte:element this={level === 1 ? 'h1' : 'h2'}>{r.title}</svelte:element>
<div class="mt-2 space-y-2">
  {#each r.summary as t, i (i)}<p class={i ? '' : 'text-lg'}>{t}</p>{/each}
</div>
{#if r.nights.length > 2}
  <figure class="mt-4">
    <svg
      viewBox="0 0 {wide} {high}"
      class="block w-full max-w-xl"
      role="img"
      aria-label="Lowest of each day: {degrees(r.nights[coldest]!.min_c, 0)} on {brief(r.nights[coldest]!.day)}"
    >
      <line x1="0" x2={wide} y1={y(0)} y2={y(0)} stroke="var(--color-soft)" stroke-dasharray="4 3" />
      <polyline
        points={r.nights.map((n, i) => `${x(i).toFixed(1)},${y(n.min_c).toFixed(1)}`).join(' ')}
        fill="none"
        stroke="var(--color-cold)"
        stroke-width="2.5"
      />
      <circle cx={x(coldest)} cy={y(r.nights[coldest]!.min_c)} r="4" fill="var(--color-cold)" />
      <text
        x={Math.min(wide - 4, Math.max(4, x(coldest)))}
        y={high - 2}
        text-anchor={coldest > r.nights.length * 0.7 ? 'end' : coldest < r.nights.length * 0.3 ? 'start' : 'middle'}
        font-size="13"
        font-weight="700">{degrees(r.nights[coldest]!.min_c, 0)}, {brief(r.nights[coldest]!.day)}</text
      >
    </svg>
    <figcaption class="text-sm text-soft">
      Lowest of each day, {brief(r.nights[0]!.day)} to {brief(r.nights.at(-1)!.day)}. The dashed line is freezing.
    </figcaption>
  </figure>
{/if}
<ul class="mt-4 border-t border-rule">
  {#each r.sections as s, i (i)}
    <li class="border-b border-rule py-3">
      <div class="flex gap-4">
        {#if s.drawn}<Drawn drawn={s.drawn} />{/if}
        <div class="min-w-0">
          <p class="flex flex-wrap items-baseline gap-x-3">
            <b>{s.head}</b>{#if s.state}<span class="text-sm font-semibold {look(s.state)}">{words[s.state]}</span>{/if}
          </p>
          {#if s.found}<p>{s.found}</p>{/if}
          {#if s.becomes}<p>{s.becomes}</p>{/if}
          {#if s.we}<p><span class="font-semibold">We:</span> {s.we}</p>{/if}
          {#if s.you}<p><span class="font-semibold">You:</span> {s.you}</p>{/if}
          {#if s.dont}<p><span class="font-semibold text-bad">Please not:</span> {s.dont}</p>{/if}
        </div>
      </div>
      {#if s.photos.length}
        <div class="mt-2 grid max-w-xl grid-cols-2 gap-3">
          {#each s.photos as f, k (k)}<figure>
              <img
                class="block h-48 w-full bg-sheet object-contain"
                loading="lazy"
                src="{pictures}/{f.hash}"
                alt="{s.head}, {brief(f.day)}"
              />
              <figcaption class="text-sm text-soft">{brief(f.day)}</figcaption>
            </figure>{/each}
        </div>
      {/if}
    </li>
  {/each}
</ul>
