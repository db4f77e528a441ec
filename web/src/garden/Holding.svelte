<script lang="ts">
  /** What holds where a property lies: rules of its country and state, by topic, with whom to ask. */
  import { api, ask, type Schemas } from '../api/client';
  import { brief } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import { basis, countryName, topics } from './regions';

  interface Props {
    property: number;
    version: number; // asked anew when the property changes
  }
  let { property, version }: Props = $props();
  let open = $state(false);
  let held = $state.raw<Schemas['Holding']>();
  let asked = $state(0);
  $effect(() => {
    if (open && asked !== version)
      void attempt(async () => {
        asked = version;
        held = await ask(api.GET('/api/v1/properties/{id}/holding', { params: { path: { id: property } } }));
      });
  });
  const by = $derived(
    Object.keys(topics)
      .map((t) => ({ topic: t, rules: (held?.rules ?? []).filter((r) => r.topic === t) }))
      .filter((g) => g.rules.length),
  );
  const sentence = (list: string[]) => list.join(', ') + '.';
  const stateless = $derived(['US', 'CA', 'AU'].includes(held?.lies ?? ''));
  const season = (r: Schemas['RegionRule']) =>
    r.from && r.to ? `${brief(`${house.today.slice(0, 4)}-${r.from}`)} to ${brief(`${house.today.slice(0, 4)}-${r.to}`)}` : '';
</script>

<details class="open:basis-full" bind:open>
  <summary class="flex min-h-11 cursor-pointer items-center text-moss">Rules and permits</summary>
  {#if open}
    {#if !held}<Waiting />
    {:else if !held.lies}<p class="text-sm text-soft">
        Nobody has said in which country this lies: change the property, and choose it.
      </p>
    {:else}
      <p class="text-sm text-soft">
        {countryName(held.lies)}{held.lies.includes('-') ? `, ${held.lies}` : ''}{held.entered ? '' : ', by its clock'}. In our
        own words, not the law’s, and not all of it: towns have rules of their own. Ask before you rely on it.
        {#if stateless}<b>Enter its state: much differs by state.</b>{/if}
      </p>
      {#if !by.length}<p class="mt-1">Nothing is known of this country that is not so everywhere.</p>{/if}
      {#each by as g (g.topic)}
        <h3 class="mt-2 text-sm font-bold">{topics[g.topic]}</h3>
        <ul>
          {#each g.rules as r (r.id)}<li class="border-t border-rule py-1 text-sm">
              {r.says}
              {#if (r.cause ?? r.weeds)?.length}<span data-testid="named"
                  >{sentence((r.cause ?? r.weeds ?? []).map((id) => held?.names[id] ?? id))}</span
                >{/if}
              <span class="text-soft">{basis[r.basis]}{season(r) ? `, ${season(r)}` : ''}. Ask {r.ask}.</span>
            </li>{/each}
        </ul>
      {/each}
    {/if}
  {/if}
</details>
