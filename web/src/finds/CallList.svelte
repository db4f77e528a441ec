<script lang="ts">
  /** A client's calls, the newest first. */
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';

  let { property }: { property: number } = $props();
  let calls = $state<Schemas['Call'][]>([]);
  const reads = reading();
  const read = () =>
    reads(async (signal) => {
      calls = (await ask(api.GET('/api/v1/calls', { params: { query: { property } }, signal }))).items;
    });
  $effect(() => {
    void property;
    void read();
  });
  const ends: Record<string, string> = {
    open: 'still open',
    advice: 'advice given',
    visit: 'a visit',
    picture: 'a picture asked for',
  };
  const remove = (c: Schemas['Call']) =>
    attempt(async () => {
      const where = { params: { path: { id: c.id }, header: onceKey() } };
      await ask(api.DELETE('/api/v1/calls/{id}', where));
      await read();
      house.say('Call removed.', async () => {
        await ask(api.POST('/api/v1/calls/{id}/restore', { params: { path: { id: c.id }, header: onceKey() } }));
        await read();
      });
    });
</script>

{#if calls.length}
  <section aria-label="Calls" class="mt-4">
    <h2>Calls</h2>
    <ul class="border-t border-rule">
      {#each calls as c (c.id)}
        <li class="border-b border-rule py-1.5">
          <b>{inWords(c.day)}</b>{c.caller ? `, ${c.caller}` : ''}{c.plant ? `: ${c.plant}` : ''}
          <span class="text-sm text-soft">· {ends[c.ending]}</span>
          {#if c.said}<span class="block text-sm">“{c.said}”</span>{/if}
          <span class="flex flex-wrap gap-x-4 text-sm">
            {#if c.order_id}<a class="inline-flex min-h-11 items-center" href="#/rounds/{c.order_id}">The visit</a>{/if}
            {#if c.plant_id}<a class="inline-flex min-h-11 items-center" href="#/plant/{c.plant_id}">The plant</a>{/if}
            <button class="min-h-11 text-moss underline" onclick={() => remove(c)}
              >Remove<span class="sr-only">: call</span></button
            >
          </span>
        </li>
      {/each}
    </ul>
  </section>
{/if}
