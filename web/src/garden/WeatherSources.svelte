<script lang="ts">
  /** Where the hours of a property's weather came from, the highest first; each can be taken back. */
  import { api, ask, onceKey, type Season } from '../api/client';
  import { inWords, span } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';

  let { property, season, onchange }: { property: number; season: Season; onchange: () => void } = $props();
  const at = (source: number) => ({ params: { path: { id: property, source }, header: onceKey() } });
  const takeBack = (s: Season['sources'][number]) =>
    attempt(async () => {
      await ask(api.DELETE('/api/v1/properties/{id}/weather/sources/{source}', at(s.id)));
      onchange();
      house.say(`${s.name}: taken back; what lies beneath counts again.`, () =>
        attempt(async () => {
          await ask(api.POST('/api/v1/properties/{id}/weather/sources/{source}/restore', at(s.id)));
          onchange();
        }).then(() => {}),
      );
    });
</script>

{#if season.sources.length}
  <section class="mt-5" aria-label="Where the weather came from">
    <h2>Where the weather came from</h2>
    <p class="text-sm text-soft">
      What was measured in the garden goes before what a station tells; what neither measured is as usual.
    </p>
    <ul class="border-t border-rule">
      {#each season.sources as s (s.id)}
        <li class="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
          <span class="min-w-52 flex-1"
            ><b>{s.name}</b>, {s.rank === 2 ? 'measured in the garden' : 'of the region'}
            <span class="block text-sm text-soft"
              >{s.hours} hours, {span(s.from, s.to, true)}{s.taken ? ` · taken over ${inWords(s.taken)}` : ''}</span
            ></span
          >
          {#if house.may('planner')}<button class="min-h-11 text-sm text-moss underline" onclick={() => takeBack(s)}
              >Take it back<span class="sr-only">: {s.name}</span></button
            >{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}
