<script lang="ts" module>
  import type { Scale } from './scale';

  /** Where a ribbon's days stand: what hangs below it is drawn by the same measure. */
  export interface Frame {
    x: Scale; // days from the start to px
    from: string; // the first day
    count: number; // days
    left: number;
    width: number;
  }
</script>

<script lang="ts">
  /** The days of a lane: what each costs as shades, its windows, its best day and the day it is on. */
  import { daysBetween, plusDays } from './dates';

  interface Props {
    frame: Frame;
    start: string;
    costs: readonly number[];
    windows: readonly { from: string; to: string; best: string }[];
    day?: string;
    height: number; // of the row
    drop: number; // from its top to the band
    forbidden: string; // id of the pattern
    stage?: { from: string; to: string }; // of the pest that it hits
    waits?: readonly { from: string; to: string }[]; // after what was used there
    waiting?: string; // id of their pattern
  }
  let { frame, start, costs, windows, day, height, drop, forbidden, stage, waits = [], waiting = '' }: Props = $props();
  const at = $derived((iso: string) => frame.x(daysBetween(frame.from, iso)));
  const shade = (cost: number) =>
    cost > 100
      ? `url(#${forbidden})`
      : `color-mix(in srgb, var(--color-moss) ${Math.round(34 * (1 - cost / 100))}%, transparent)`;
  // Runs of days of about the same cost, so that a year is a few rectangles.
  const runs = $derived.by(() => {
    const out: { from: number; to: number; cost: number }[] = [];
    const off = daysBetween(frame.from, start);
    costs.forEach((c, i) => {
      const step = c > 100 ? 101 : Math.round(c / 10) * 10;
      const last = out.at(-1);
      if (last && last.cost === step) last.to = off + i + 1;
      else out.push({ from: off + i, to: off + i + 1, cost: step });
    });
    return out
      .map((r) => ({ ...r, from: Math.max(0, r.from), to: Math.min(frame.count, r.to) }))
      .filter((r) => r.to > r.from && r.cost < 100);
  });
</script>

{#each runs as r (r.from)}
  <rect x={frame.x(r.from)} y={drop} width={frame.x(r.to) - frame.x(r.from)} height={height - drop - 4} fill={shade(r.cost)} />
{/each}
{#each windows as w (w.from)}
  <rect
    x={at(w.from)}
    y={drop}
    width={Math.max(3, at(plusDays(w.to, 1)) - at(w.from))}
    height={height - drop - 4}
    fill="none"
    stroke="var(--color-moss)"
    stroke-width="1.4"
  />
  <line x1={at(w.best) + 1} x2={at(w.best) + 1} y1={drop} y2={height - 4} stroke="var(--color-moss)" stroke-width="2.4" />
{/each}
{#if stage}
  <line
    data-stage
    x1={at(stage.from)}
    x2={Math.max(at(stage.from) + 3, at(plusDays(stage.to, 1)))}
    y1={height - 3}
    y2={height - 3}
    stroke="var(--color-sun)"
    stroke-width="3"
    stroke-dasharray="7 3"
  />
{/if}
{#each waits as w, i (i)}
  <rect
    data-wait
    x={at(w.from)}
    y={drop}
    width={Math.max(3, at(plusDays(w.to, 1)) - at(w.from))}
    height={height - drop - 4}
    fill="url(#{waiting})"
    stroke="var(--color-sun)"
  />
{/each}
{#if day}
  <path d="M{at(day) + 1} {height - 9}l-6 -8h12z" transform="translate(0,-6)" fill="var(--color-ink)" />
  <line x1={at(day) + 1} x2={at(day) + 1} y1={drop - 2} y2={height - 3} stroke="var(--color-ink)" stroke-width="1.6" />
{/if}
