<script lang="ts">
  /** The sun of a plant by month, where it stands on its property's plan; nothing where it does not. */
  import { api, ask, type Schemas } from '../api/client';
  import { reading } from '../lib/reading';
  import SunBars from './SunBars.svelte';

  let { property, plant }: { property: number; plant: number } = $props();
  let spot = $state.raw<Schemas['SiteSpot']>();
  const reads = reading();
  $effect(() => {
    const [id, of] = [property, plant];
    spot = undefined;
    void reads(async (signal) => {
      const { plan } = await ask(api.GET('/api/v1/properties/{id}/plan', { params: { path: { id } }, signal }));
      const t = plan.things?.find((x) => x.plant_id === of && x.kind === 'plant');
      if (t) spot = (await ask(api.POST('/api/v1/reckon/site', { body: { plan, plant: t.id }, signal }))).spot;
    });
  });
</script>

{#if spot}
  <section aria-label="Sun by month" class="mt-4 border-t border-rule pt-3">
    <h2>Sun <span class="text-sm font-normal text-soft">by the plan</span></h2>
    <p>
      <b>{spot.class.charAt(0).toUpperCase() + spot.class.slice(1)}</b>: {spot.strong.toFixed(1)} hours of strong sun a day in summer.
      <a class="underline" href="#/grounds/{property}/plan">The plan</a>
    </p>
    <div class="max-w-md"><SunBars hours={spot.hours} /></div>
  </section>
{/if}
