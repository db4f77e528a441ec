<script lang="ts">
  import { mark, type Cause } from '../lib/causes';

  /** The mark of a cause, filled from below by how bad it is; without words where those stand beside it. */
  let { cause = 'cold', share, words, size = 22 }: { cause?: Cause; share: number; words: string; size?: number } = $props();
  const id = $props.id();
  const full = $derived(Math.max(0.08, Math.min(1, share)));
</script>

<svg
  width={size}
  height={size}
  viewBox="0 0 22 22"
  role={words ? 'img' : undefined}
  aria-label={words || undefined}
  aria-hidden={words ? undefined : 'true'}
  class="shrink-0"
>
  <clipPath {id}><path d={mark[cause].whole} clip-rule="evenodd" /></clipPath>
  <rect x="0" width="22" y={19 - 16 * full} height={16 * full} fill="var(--color-{cause})" clip-path="url(#{id})" />
  <path d={mark[cause].whole} fill="none" stroke="var(--color-{cause})" stroke-width="1.8" />
</svg>
