<script lang="ts">
  /** The mark of cold: a notched square, filled from below by how bad it is. */
  let { share, words }: { share: number; words: string } = $props();
  const id = $props.id();
  const full = $derived(Math.max(0.08, Math.min(1, share)));
</script>

<svg width="22" height="22" viewBox="0 0 22 22" role="img" aria-label={words} class="shrink-0">
  <clipPath {id}><path d="M3 3h5v5h6v-5h5v16H3z" /></clipPath>
  <rect x="0" width="22" y={19 - 16 * full} height={16 * full} fill="var(--color-cold)" clip-path="url(#{id})" />
  <path d="M3 3h5v5h6v-5h5v16H3z" fill="none" stroke="var(--color-cold)" stroke-width="1.8" />
</svg>
