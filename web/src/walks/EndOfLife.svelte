<script lang="ts">
  /** Where life ended on a plant, look by look: the bar is where it likely ends, the mark where most likely. */
  import type { Schemas } from '../api/client';
  import { brief, inWords, metres, utc } from '../lib/dates';
  import { house } from '../lib/house.svelte';

  let { ends, name }: { ends: Schemas['EndOfLife'][]; name: string } = $props();
  let width = $state(400);
  const [left, right, top, high, foot] = [46, 34, 14, 130, 22];
  const from = $derived(utc(ends[0]!.day));
  const span = $derived(Math.max(7 * 864e5, utc(ends.at(-1)!.day) - from));
  const x = (d: string) => left + ((utc(d) - from) / span) * (width - left - right);
  const tallest = $derived(Math.max(...ends.map((e) => e.top_m), 0.1));
  const y = (m: number) => top + (1 - m / tallest) * high;
  /** Days that stand far enough apart to be written. */
  const written = $derived(
    ends.reduce<string[]>((out, e) => (out.length && x(e.day) - x(out.at(-1)!) < 64 ? out : [...out, e.day]), []),
  );
  const line = (of: (e: Schemas['EndOfLife']) => number) => ends.map((e) => `${x(e.day)},${y(of(e))}`).join(' ');
  const told = $derived(
    ends.map((e) => `${inWords(e.day)}: life ends at about ${metres(e.best_m)} of ${metres(e.top_m)}`).join('; '),
  );
</script>

<figure bind:clientWidth={width}>
  <svg {width} height={top + high + foot} role="img" aria-label="{name}. {told}">
    <line x1={left} x2={width - right} y1={y(0)} y2={y(0)} stroke="var(--color-ink)" />
    {#each [0, tallest] as m}<text x={left - 6} y={y(m) + 4} text-anchor="end" class="fill-soft text-xs">{metres(m)}</text>{/each}
    <polyline points={line((e) => e.top_m)} fill="none" stroke="var(--color-rule)" stroke-width="2" />
    <polyline points={line((e) => e.best_m)} fill="none" stroke="var(--color-moss)" stroke-width="2" />
    {#each ends as e (e.day)}
      <rect
        x={x(e.day) - 5}
        y={y(e.high_m)}
        width="10"
        height={Math.max(2, y(e.low_m) - y(e.high_m))}
        fill="var(--color-moss)"
        fill-opacity="0.25"
        stroke="var(--color-moss)"
      />
      <line x1={x(e.day) - 9} x2={x(e.day) + 9} y1={y(e.best_m)} y2={y(e.best_m)} stroke="var(--color-moss)" stroke-width="3" />
    {/each}
    {#each written as d}<text x={x(d)} y={top + high + 16} text-anchor="middle" class="fill-soft text-xs">{brief(d)}</text>{/each}
  </svg>
  <figcaption class="text-sm text-soft">
    Green line: where life most likely ends; bars: where it does four times in five. Grey line: how tall it stands.
  </figcaption>
</figure>
