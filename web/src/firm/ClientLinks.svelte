<script lang="ts">
  /** Links by which a client reads what was found and what is planned at a property. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';

  let { property }: { property: number } = $props();
  let list = $state.raw<Schemas['ClientLink'][]>([]);
  let url = $state('');
  $effect(() => {
    url = '';
    void read(property);
  });
  const read = (id: number) =>
    attempt(
      async () => void (list = (await ask(api.GET('/api/v1/properties/{id}/client-links', { params: { path: { id } } }))).items),
    );
  const make = () =>
    attempt(async () => {
      const path = { id: property };
      const l = await ask(
        api.POST('/api/v1/properties/{id}/client-links', { params: { path, header: onceKey() }, body: { days: 90 } }),
      );
      url = `${location.origin}/#/client/${l.token}`;
      await read(property);
    });
  const revoke = (l: Schemas['ClientLink']) =>
    attempt(async () => {
      await ask(api.DELETE('/api/v1/client-links/{id}', { params: { path: { id: l.id }, header: onceKey() } }));
      house.say('The link does not work any more.');
      await read(property);
    });
</script>

<section aria-label="Client links">
  <p class="text-sm">
    By a link a client reads what was found and what is planned here, and nothing else. It holds for ninety days.
  </p>
  <ul>
    {#each list as l (l.id)}<li class="flex flex-wrap items-center gap-4 border-t border-rule py-1">
        <span class="flex-1">Given {inWords(l.made)}, holds until {inWords(l.until)}</span>
        <button class="min-h-11 text-moss underline" onclick={() => revoke(l)}>Revoke it</button>
      </li>{/each}
  </ul>
  {#if url}<p class="mt-1 border border-ink bg-white p-2 font-mono text-sm break-all" role="status" data-testid="client-link">
      {url}
    </p>
    <p class="text-sm text-soft">Pass it on now: it is not shown again.</p>{/if}
  <Button size="sm" color="light" class="mt-1 min-h-11" onclick={make}>Make a link</Button>
</section>
