<script lang="ts">
  /** A labelled box to tick. */
  import type { Snippet } from 'svelte';

  interface Props {
    checked: boolean;
    label?: string;
    class?: string;
    onpick?: (on: boolean) => void;
    children?: Snippet;
  }
  let { checked = $bindable(), label = '', class: look = '', onpick, children }: Props = $props();
</script>

<label class="flex min-h-11 items-center gap-2 {look}"
  ><input
    type="checkbox"
    class="size-5 shrink-0 accent-moss"
    bind:checked
    onchange={(e) => onpick?.(e.currentTarget.checked)}
  /><span>{label}{@render children?.()}</span></label
>
