<script lang="ts">
  /** The sun of a plant by month, where it stands on its property's plan; nothing where it does not. */
  import { onDestroy } from 'svelte';
  import { api, ask, type Schemas } from '../api/client';
  import { attempt } from '../lib/house.svelte';
  import SunBars from './SunBars.svelte';

  let { property, plant }: { property: number; plant: number } = $props();
  let spot = $state.raw<Schemas['SiteSpot']>();
  let turn = 0;
  onDestroy(() => turn++);
  $effect(() => {
    const mine = ++turn;
    const [id, of] = [property, plant];
    spot = undefined;
    void attempt(async () => {
      const { plan } = await ask(api.GET('/api/v1/properties/{id}/plan', { params: { path: { id } } }));
      const t = plan.things?.find((x) => x.plant_id === of && x.kind === 'plant');
      if (!t || mine !== turn) return;
      const o = await ask(api.POST('/api/v1/reckon/site', { body: { plan, plant: t.id } }));
      if (mine === turn) spot = o.spot;
    });
  });
</script>

{#if spot}
  <section aria-label="Sun by month" class="mt-4 max-w-lg border border-rule bg-white p-3">
    <h2>Its sun, by the plan</h2>
    <p>
      <b>{spot.class.charAt(0).toUpperCase() + spot.class.slice(1)}</b>: {spot.strong.toFixed(1)} hours of strong sun a day in summer.
      <a class="inline-flex min-h-11 items-center underline" href="#/grounds/{property}/plan">The plan</a>
    </p>
    <SunBars hours={spot.hours} />
  </section>
{/if}
