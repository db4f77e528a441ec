<script lang="ts">
  /** A kind at planting and after three and ten years, side by side, before the room there is. */
  import type { Schemas } from '../api/client';
  import { metres } from '../lib/dates';
  import { silhouette, type Form } from '../lib/portrait';

  interface Props {
    form: Form;
    name: string;
    grown: Schemas['ReplacementGrown'][];
    roomM?: number; // height of the room there is
  }
  let { form, name, grown, roomM = 0 }: Props = $props();
  const wide = 300;
  const high = 118;
  const foot = 20;
  const tallest = $derived(Math.max(0.5, roomM * 1.05, ...grown.map((g) => g.height_m)));
  const across = $derived(grown.reduce((s, g) => s + Math.max(g.spread_m, 0.35 * g.height_m), 0) + 0.2 * tallest);
  const scale = $derived(Math.min((high - foot - 8) / tallest, (wide - 60) / across));
  const widths = $derived(grown.map((g) => Math.max(g.spread_m, 0.35 * g.height_m) * scale));
  const gap = $derived((wide - 20 - widths.reduce((s, w) => s + w, 0)) / (grown.length + 1));
  /** The middle of each: wide ones take more room. */
  const columns = $derived(widths.map((w, i) => 10 + gap * (i + 1) + widths.slice(0, i).reduce((s, x) => s + x, 0) + w / 2));
  const shape = (g: Schemas['ReplacementGrown'], middle: number) =>
    silhouette(form, middle, high - foot, (Math.max(g.spread_m, 0.35 * g.height_m) / 2) * scale, g.height_m * scale);
  const told = $derived(
    grown.map((g) => `${g.years ? `after ${g.years} years` : 'at planting'} ${metres(g.height_m)} tall`).join(', '),
  );
</script>

<svg
  viewBox="0 0 {wide} {high}"
  class="w-full"
  role="img"
  aria-label="{name}: {told}{roomM ? `; room for ${metres(roomM)}` : ''}"
>
  <line x1="0" x2={wide} y1={high - foot} y2={high - foot} stroke="var(--color-ink)" />
  {#if roomM}<line
      x1="0"
      x2={wide}
      y1={high - foot - roomM * scale}
      y2={high - foot - roomM * scale}
      stroke="var(--color-sun)"
      stroke-width="1.5"
      stroke-dasharray="6 4"
    />{/if}
  {#each grown as g, i (g.years)}
    <path d={shape(g, columns[i]!)} fill="var(--color-moss-pale)" stroke="var(--color-moss)" />
    <text x={columns[i]} y={high - 5} text-anchor="middle" font-size="11"
      >{g.years ? `${g.years} y` : 'new'}: {metres(g.height_m)}</text
    >
  {/each}
</svg>
