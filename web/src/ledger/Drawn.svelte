<script lang="ts">
  /** A plant in little, as a report has it: what lives is filled, what is dead hatched, the cut a line. */
  import type { Schemas } from '../api/client';
  import { metres } from '../lib/dates';
  import { behind, lines, outline, type Form } from '../lib/portrait';

  let { drawn: d }: { drawn: NonNullable<Schemas['ReportSection']['drawn']> } = $props();
  const [wide, high] = [104, 120];
  const id = $props.id();
  const half = $derived(Math.max(d.spread_m, 0.35 * d.height_m) / 2);
  const scale = $derived(Math.min((high - 6) / d.height_m, (wide - 8) / 2 / half));
  const y = $derived((m: number) => high - 4 - Math.min(m, d.height_m) * scale);
  const path = $derived(
    (points: [number, number][]) =>
      'M' + points.map(([w, z]) => `${(wide / 2 + w * half * scale).toFixed(1)} ${y(z * d.height_m).toFixed(1)}`).join('L'),
  );
  const words = $derived(
    `Alive up to ${metres(d.low_m)}, dead above ${metres(d.high_m)} of ${metres(d.height_m)}` +
      (d.cut_m ? `; cut at ${metres(d.cut_m)}` : ''),
  );
</script>

<svg viewBox="0 0 {wide} {high}" width={wide} height={high} role="img" aria-label={words} class="shrink-0">
  <defs>
    <clipPath id="{id}-c"><path d={path(outline(d.form as Form)) + 'Z'} /></clipPath>
    <pattern id="{id}-h" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <line x1="0" y1="0" x2="0" y2="6" stroke="var(--color-wood)" stroke-width="1.6" />
    </pattern>
  </defs>
  <line x1="0" x2={wide} y1={high - 4} y2={high - 4} stroke="var(--color-rule)" />
  {#each behind(d.form as Form) as l, i (i)}<path d={path(l)} fill="none" stroke="var(--color-rule)" />{/each}
  <g clip-path="url(#{id}-c)">
    <rect width={wide} y={y(d.low_m)} height={high} fill="var(--color-living)" />
    <rect width={wide} y={y(d.high_m)} height={Math.max(0, y(d.low_m) - y(d.high_m))} fill="var(--color-unsure)" />
    <rect width={wide} y="0" height={Math.max(0, y(d.high_m))} fill="var(--color-dead)" />
    <rect width={wide} y="0" height={Math.max(0, y(d.high_m))} fill="url(#{id}-h)" />
    {#each lines(d.form as Form) as l, i (i)}<path d={path(l)} fill="none" stroke="var(--color-ink)" opacity="0.45" />{/each}
  </g>
  <path d={path(outline(d.form as Form)) + 'Z'} fill="none" stroke="var(--color-ink)" stroke-width="1.2" />
  {#if d.cut_m}<line x1="2" x2={wide - 2} y1={y(d.cut_m)} y2={y(d.cut_m)} stroke="var(--color-bad)" stroke-width="2" />{/if}
</svg>
