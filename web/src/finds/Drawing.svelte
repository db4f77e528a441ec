<script lang="ts">
  /** A sign, or a part of the plant, drawn from its words. */
  import { drawing } from './drawings';

  let { words, size = 48, name = '' }: { words?: readonly string[] | null; size?: number; name?: string } = $props();
  const shapes = $derived(drawing(words));
</script>

{#if shapes}
  <svg
    viewBox="0 0 64 64"
    width={size}
    height={size}
    class="by-day shrink-0"
    role={name ? 'img' : undefined}
    aria-label={name || undefined}
    aria-hidden={name ? undefined : 'true'}
    data-drawn={shapes.length}
  >
    {#each shapes as s, i (i)}<path
        d={s.d}
        fill={s.fill ?? 'none'}
        stroke={s.stroke ?? 'none'}
        stroke-width={s.w ?? 1}
        stroke-linecap="round"
        stroke-linejoin="round"
      />{/each}
  </svg>
{/if}
