<script lang="ts">
  /** Hours of direct sun a day by month, as bars; a second row of figures as outlines before them. */
  import { months } from './plan';

  interface Props {
    hours: number[];
    after?: number[];
  }
  let { hours, after }: Props = $props();
  const high = 90;
  const bar = (h: number) => (Math.min(18, h) / 18) * high;
  const told = $derived(
    months.map((m, i) => `${m} ${hours[i]?.toFixed(1)}${after ? ` to ${after[i]?.toFixed(1)}` : ''}`).join(', '),
  );
</script>

<figure>
  <svg viewBox="0 0 312 {high + 34}" class="w-full" role="img" aria-label="Hours of direct sun a day: {told}">
    {#each [6, 12] as h}<line x1="0" x2="312" y1={high + 14 - bar(h)} y2={high + 14 - bar(h)} stroke="var(--color-rule)" />
      <text x="312" y={high + 11 - bar(h)} font-size="10" text-anchor="end" fill="var(--color-soft)">{h} h</text>{/each}
    {#each months as m, i (m)}
      <rect
        x={i * 25 + 2}
        y={high + 14 - bar(hours[i] ?? 0)}
        width="16"
        height={bar(hours[i] ?? 0)}
        fill="var(--color-sun)"
        fill-opacity="0.55"
      />
      {#if after}<rect
          x={i * 25 + 2}
          y={high + 14 - bar(after[i] ?? 0)}
          width="16"
          height={bar(after[i] ?? 0)}
          fill="none"
          stroke="var(--color-ink)"
          stroke-width="1.5"
        />{/if}
      <text x={i * 25 + 10} y={high + 27} font-size="10" text-anchor="middle">{m}</text>
      <text x={i * 25 + 10} y={high + 10 - bar(Math.max(hours[i] ?? 0, after?.[i] ?? 0))} font-size="9" text-anchor="middle"
        >{(after?.[i] ?? hours[i] ?? 0).toFixed(0)}</text
      >
    {/each}
  </svg>
</figure>
