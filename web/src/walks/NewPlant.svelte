<script lang="ts">
  /** A plant that stands here and is not on the list: added on the spot, and next to be looked at. */
  import { Modal } from 'flowbite-svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, type Plant, type Species } from '../api/client';
  import { field } from '../field/field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import PlantForm from '../garden/PlantForm.svelte';

  let { open = $bindable(), propertyId, stop }: { open: boolean; propertyId: number; stop: number } = $props();

  let species = $state<Species[]>([]);
  $effect(() => {
    if (!open || species.length) return;
    void attempt(async () => void (species = (await ask(api.GET('/api/v1/species'))).items));
  });
  function kept(p: Plant) {
    field.addPlant(p);
    open = false;
    house.say(`${p.common} is on the list.`);
    void push(`/walk/${propertyId}/${p.id}`);
  }
</script>

<Modal bind:open title="Add a plant that is not on the list" size="md" class="text-ink!">
  {#if open}<PlantForm {species} property={propertyId} {stop} onkept={kept} onclose={() => (open = false)} />{/if}
</Modal>
