<script lang="ts">
  /** What clients are to be told of the days to come: drafts, to be looked over, copied and sent by hand. */
  import { Button } from 'flowbite-svelte';
  import { onDestroy } from 'svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let list = $state.raw<Schemas['Telling'][]>();
  let texts = $state<Record<string, string>>({});
  let gone = false;
  onDestroy(() => (gone = true));
  const key = (t: Schemas['Telling']) => `${t.property_id} ${t.day}`;
  async function read() {
    await attempt(async () => {
      const l = (await ask(api.GET('/api/v1/rounds/tellings'))).items ?? [];
      if (gone) return;
      for (const t of l) texts[key(t)] ??= t.text;
      list = l;
    });
  }
  void read();
  async function know(t: Schemas['Telling'], told: boolean) {
    await attempt(async () => {
      await ask(api.PUT('/api/v1/rounds/told', { params: { header: onceKey() }, body: { orders: t.orders ?? [], told } }));
      if (told) house.say(`${t.property}: knows ${inWords(t.day, house.today)}.`, () => know(t, false));
      await read();
    });
  }
  async function copy(t: Schemas['Telling']) {
    await attempt(async () => {
      await navigator.clipboard.writeText(texts[key(t)] ?? t.text);
      house.say('Copied.');
    });
  }
</script>

<svelte:head><title>Tell clients · Mezzadro</title></svelte:head>

<div class="max-w-3xl px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/rounds">Rounds</a></p>
  <h1>Tell clients</h1>
  <p class="text-soft">
    Days of the next fortnight that a client does not know yet. Nothing is sent from here: look the draft over, copy it into your
    own letter, and note that they know. A day they know stays when rounds are found anew.
  </p>
  {#if !list}<Waiting rows={6} />
  {:else if !list.length}
    <p class="mt-3">Every client knows the days that stand.</p>
  {:else}
    <ul class="mt-3 space-y-4">
      {#each list as t (key(t))}
        <li class="border border-rule bg-white px-3 py-2">
          <p class="font-bold">
            {t.property}<span class="font-normal text-soft">&nbsp;· {inWords(t.day, house.today)}</span>
          </p>
          {#if t.before}<p class="font-semibold text-sun">They were told {inWords(t.before, house.today)}.</p>{/if}
          <label class="block text-sm"
            >Draft for {t.client || t.property}
            <textarea class="mt-1 h-44 w-full rounded-sm border border-gray-400 bg-white p-2 text-base" bind:value={texts[key(t)]}
            ></textarea></label
          >
          <div class="mt-1 flex flex-wrap gap-3">
            <Button size="sm" onclick={() => know(t, true)}
              >They know<span class="sr-only">: {t.property}, {inWords(t.day)}</span></Button
            >
            <Button size="sm" color="light" onclick={() => copy(t)}
              >Copy the draft<span class="sr-only">: {t.property}, {inWords(t.day)}</span></Button
            >
          </div>
        </li>
      {/each}
    </ul>
  {/if}
</div>
