<script lang="ts">
  import { capital, small } from '../lib/words';
  /** What to look at because of what was found elsewhere: clean properties before those where it was found. */
  import { dropOrder, api, ask, onceKey, type Schemas } from '../api/client';
  import { hours } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { harms } from './case.svelte';

  type Group = Schemas['WatchGroup'];
  let groups = $state.raw<Group[]>([]);
  let all = $state(false);
  let asked = $state<Record<string, number>>({}); // the job made of a group
  const reads = reading();
  const read = () => reads(async (signal) => void (groups = (await ask(api.GET('/api/v1/watch', { signal }))).items));
  let { onread }: { onread?: () => void } = $props(); // said once, whether there is something or not
  $effect(() => {
    void read().then(() => onread?.());
  });
  const few = 3;
  const shown = $derived(all ? groups : groups.slice(0, few));
  const keyOf = (g: Group) => `${g.cause} ${g.property_id}`;
  const lookFor = (g: Group) =>
    attempt(async () => {
      const o = await ask(
        api.POST('/api/v1/finds/{id}/look', {
          params: { path: { id: g.find }, header: onceKey() },
          body: { property_id: g.property_id },
        }),
      );
      asked = { ...asked, [keyOf(g)]: o.id };
      house.say(`A job: ${small(o.title)} at ${g.property}.`, async () => {
        await dropOrder(o.id);
        const { [keyOf(g)]: _, ...rest } = asked;
        asked = rest;
      });
    });
</script>

{#if groups.length}
  <section aria-label="Spread watch" class="border border-pest bg-white p-3">
    <h2>Look for it elsewhere</h2>
    <p class="text-sm text-soft">
      By what was found on other plants. Clean before sick: in this order on a day, blades and boots cleaned between.
    </p>
    <ul>
      {#each shown as g (keyOf(g))}
        <li class="border-t border-rule py-2">
          <p class="leading-tight">
            <a class="font-semibold" href="#/almanac/cause/{g.cause}">{g.name}</a>
            <span class="block text-sm"
              >{g.property}: {g.plants?.length} to look at, {hours(g.minutes)}{g.sick ? '. Found here: last' : ''}</span
            >
          </p>
          <p class="text-sm text-soft">{capital(harms[g.harm] ?? '')}. {g.why}</p>
          <details class="text-sm">
            <summary class="flex min-h-11 cursor-pointer items-center text-moss">Which plants</summary>
            <ul>
              {#each g.plants as p (p.id)}<li><a class="block min-h-9 py-1" href="#/ails/{p.id}">{p.title}</a></li>{/each}
            </ul>
          </details>
          {#if asked[keyOf(g)]}<a
              class="inline-flex min-h-11 items-center text-sm font-semibold"
              href="#/rounds/{asked[keyOf(g)]}">The job</a
            >
          {:else}<button
              class="min-h-11 rounded-sm border border-rule bg-white px-3 text-sm font-semibold hover:bg-sheet"
              onclick={() => lookFor(g)}
              >Make it a job<span class="sr-only">: look for {small(g.name)} at {g.property}</span></button
            >{/if}
        </li>
      {/each}
    </ul>
    {#if groups.length > few}<button class="min-h-11 text-sm text-moss underline" onclick={() => (all = !all)}
        >{all ? 'Fewer' : `${groups.length - few} more`}</button
      >{/if}
  </section>
{/if}
