<script lang="ts">
  /** Where the blade goes, drawn for one way of cutting. */
  import { drawings } from './drawings';

  let { of, class: wide = '' }: { of: string; class?: string } = $props();
  const d = $derived(drawings[of]);
</script>

{#if d}
  <svg viewBox="0 0 240 170" role="img" aria-label={d.says} class="block {wide}">
    {#if d.ground}<line x1="8" x2="232" y1={d.ground} y2={d.ground} stroke="var(--color-soft)" stroke-width="1.5" />{/if}
    <g fill="none" stroke-linecap="round" stroke-linejoin="round">
      {#each d.goes as p}<path d={p} stroke="var(--color-soft)" stroke-width="2.4" stroke-dasharray="5 5" />{/each}
      {#each d.thin as p}<path d={p} stroke="var(--color-moss)" stroke-width="2" />{/each}
      {#each d.stays as p}<path d={p} stroke="var(--color-ink)" stroke-width="3.4" />{/each}
    </g>
    {#each d.buds as [x, y] (`${x} ${y}`)}<circle cx={x} cy={y} r="4" fill="var(--color-moss)" />{/each}
    {#each d.cuts as [x1, y1, x2, y2], i (i)}<line {x1} {y1} {x2} {y2} stroke="var(--color-cold)" stroke-width="4" />{/each}
    {#each d.words as [x, y, text]}<text
        {x}
        {y}
        font-size="12"
        stroke="var(--color-white)"
        stroke-width="3"
        paint-order="stroke"
        fill="var(--color-ink)">{text}</text
      >{/each}
  </svg>
{/if}
