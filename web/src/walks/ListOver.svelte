<script lang="ts">
  /** The plants of the walk, over the screen of a phone. */
  import { Modal } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';

  let { open = $bindable(), children }: { open: boolean; children: Snippet } = $props();
</script>

<Modal bind:open title="Plants of the walk" size="sm" class="text-ink!"
  >{#if open}{@render children()}{/if}</Modal
>
