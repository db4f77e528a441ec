<script lang="ts">
  /** How the day by which a living plant would have shown leaf lies ahead: the band of this year, which narrows as spring goes. */
  import type { Answer } from '../api/client';
  import { brief, daysBetween, span } from '../lib/dates';
  import { house } from '../lib/house.svelte';

  let { answer }: { answer: Answer } = $props();
  const W = 340;
  const from = $derived([house.today, answer.leaf_out.early].sort()[0]!);
  const to = $derived([answer.patience_date, answer.leaf_out.late, house.today].sort().at(-1)!);
  const days = $derived(Math.max(1, daysBetween(from, to)));
  const x = (d: string) => 10 + (daysBetween(from, d) / days) * (W - 20);
  const anchor = (at: number) => (at < W / 3 ? 'start' : at > (2 * W) / 3 ? 'end' : 'middle');
  const width = $derived(daysBetween(answer.leaf_out.early, answer.leaf_out.late));
</script>

<figure>
  <svg
    viewBox="0 0 {W} 52"
    class="block w-full"
    role="img"
    aria-label="Leaf due between {brief(answer.leaf_out.early)} and {brief(
      answer.leaf_out.late,
    )} in eight years of ten; with the days for coming late, wait until {brief(answer.patience_date)}."
  >
    <line x1="10" x2={W - 10} y1="26" y2="26" stroke="var(--color-rule)" stroke-width="2" />
    <rect
      x={x(answer.leaf_out.early)}
      width={Math.max(3, x(answer.leaf_out.late) - x(answer.leaf_out.early))}
      y="20"
      height="12"
      fill="var(--color-living)"
      stroke="var(--color-moss)"
    />
    <line x1={x(answer.leaf_out.mid)} x2={x(answer.leaf_out.mid)} y1="17" y2="35" stroke="var(--color-moss)" stroke-width="2" />
    <path d="M{x(house.today)} 12v28" stroke="var(--color-ink)" stroke-width="2" />
    <path d="M{x(answer.patience_date)} 12v28" stroke="var(--color-bad)" stroke-width="2" stroke-dasharray="4 3" />
    <text x={x(house.today)} y="50" font-size="11" text-anchor={x(house.today) < W / 2 ? 'start' : 'end'}>today</text>
    <text x={x(answer.patience_date)} y="50" font-size="11" text-anchor="end" fill="var(--color-bad)"
      >{brief(answer.patience_date)}</text
    >
    <text
      x={Math.min(W - 10, Math.max(10, x(answer.leaf_out.mid)))}
      y="10"
      font-size="11"
      text-anchor={anchor(x(answer.leaf_out.mid))}
      fill="var(--color-moss)">leaf due {span(answer.leaf_out.early, answer.leaf_out.late)}</text
    >
  </svg>
  <figcaption class="text-xs text-soft">
    {width === 0
      ? 'The warmth so far settles the day.'
      : `${width} ${width === 1 ? 'day' : 'days'} wide today; it narrows as spring’s warmth is counted.`} (estimate)
  </figcaption>
</figure>
