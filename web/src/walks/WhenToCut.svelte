<script lang="ts">
  /** On the walk: when and how a plant is cut. */
  import { Modal } from 'flowbite-svelte';
  import type { Plant } from '../api/client';
  import CutSlip from '../cuts/CutSlip.svelte';

  let { open = $bindable(false), plant }: { open: boolean; plant: Plant } = $props();
</script>

<Modal bind:open title="When to cut the {plant.common.toLowerCase()}" size="md" class="text-ink!">
  {#if open}<CutSlip plant={plant.id} />{/if}
</Modal>
