<script lang="ts">
  /** A figure on a scale with where the truth lies in 19 of 20 cases, and a mark for what was reckoned (none below 0); all from 0 to 1. */
  let { at, low, high, mark }: { at: number; low: number; high: number; mark: number } = $props();
  const wide = 220;
  const x = (v: number) => Math.min(1, Math.max(0, v)) * wide;
</script>

<svg viewBox="0 0 {wide} 18" aria-hidden="true" class="block w-full max-w-[220px] overflow-visible">
  <line x1="0" x2={wide} y1="9" y2="9" stroke="var(--color-rule)" />
  {#if mark >= 0}<line x1={x(mark)} x2={x(mark)} y1="1" y2="17" stroke="var(--color-soft)" />{/if}
  <line x1={x(low)} x2={x(high)} y1="9" y2="9" stroke="var(--color-moss)" stroke-width="5" />
  <circle cx={x(at)} cy="9" r="5" fill="var(--color-ink)" />
</svg>
