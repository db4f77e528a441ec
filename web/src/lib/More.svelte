<script lang="ts">
  /** The rest of what can be done here, behind one button. */
  import type { Snippet } from 'svelte';
  import { whileOpen } from './opened';

  let { of = '', children }: { of?: string; children: Snippet } = $props();
  let open = $state(false);
  let at = $state<HTMLDetailsElement>();
</script>

<svelte:window onpointerdown={(e) => open && !at?.contains(e.target as Node) && (open = false)} />
<details bind:open bind:this={at} class="relative">
  <summary
    class="flex min-h-11 cursor-pointer list-none items-center rounded-sm border border-gray-300 bg-white px-5 text-sm font-semibold hover:bg-sheet [&::-webkit-details-marker]:hidden"
    >More{#if of}<span class="sr-only">&nbsp;for {of}</span>{/if}<span aria-hidden="true">&nbsp;▾</span></summary
  >
  {#if open}<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions: what is pressed inside has keys of its own -->
    <div
      class="absolute z-30 mt-1 grid min-w-52 border border-ink bg-paper py-1 shadow-md max-md:right-0 [&>*]:flex [&>*]:min-h-11 [&>*]:items-center [&>*]:px-4 [&>*]:text-left [&>*]:text-ink [&>*]:no-underline [&>*]:hover:bg-sheet"
      {@attach () => whileOpen(() => (open = false))}
      onclick={() => (open = false)}
    >
      {@render children()}
    </div>{/if}
</details>
