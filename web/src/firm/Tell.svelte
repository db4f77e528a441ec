<script lang="ts">
  /** What clients are to be told of the days to come: drafts, to be looked over, copied and sent by hand. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Waiting from '../lib/Waiting.svelte';

  let list = $state.raw<Schemas['Telling'][]>();
  let texts = $state<Record<string, string>>({});
  const reads = reading();
  const key = (t: Schemas['Telling']) => `${t.property_id} ${t.day} ${t.before ?? ''} ${t.thanks ?? ''}`;
  let after = $state.raw<Schemas['Telling'][]>([]); // visits that are over
  let sent = $state.raw<Schemas['Letter'][]>([]);
  let sending = $state('');
  let mail = $state(false); // it goes out indeed
  async function read() {
    await reads(async (signal) => {
      sent = (await ask(api.GET('/api/v1/rounds/letters', { signal }))).items;
      mail = !!(await ask(api.GET('/api/v1/mail', { signal }))).host;
      const l = (await ask(api.GET('/api/v1/rounds/tellings', { signal }))).items;
      after = (await ask(api.GET('/api/v1/rounds/thanks', { signal }))).items;
      for (const t of [...l, ...after]) texts[key(t)] ??= t.text;
      list = l;
    });
  }
  void read();
  async function know(t: Schemas['Telling'], told: boolean) {
    await attempt(async () => {
      await ask(api.PUT('/api/v1/rounds/told', { params: { header: onceKey() }, body: { orders: t.orders, told } }));
      if (told) house.say(`${t.property}: knows ${t.day ? inWords(t.day) : 'that the day falls'}.`, () => know(t, false));
      await read();
    });
  }
  async function send(t: Schemas['Telling']) {
    sending = key(t);
    await attempt(async () => {
      const about = t.day ? { day: t.day } : { day: t.before ?? house.today, off: true };
      const params = { header: onceKey() };
      const letter = { property_id: t.property_id, text: texts[key(t)] ?? t.text };
      const hours = t.to_minute ? { from_minute: t.from_minute ?? 0, to_minute: t.to_minute } : {};
      const l = t.thanks
        ? await ask(api.POST('/api/v1/rounds/thanks', { params, body: { ...letter, day: t.day } }))
        : await ask(api.POST('/api/v1/rounds/letters', { params, body: { ...letter, ...about, ...hours, orders: t.orders } }));
      house.say(`${t.property}: ${l.receipt}.`);
      await read();
    });
    sending = '';
  }
  async function copy(t: Schemas['Telling']) {
    await attempt(async () => {
      await navigator.clipboard.writeText(texts[key(t)] ?? t.text);
      house.say('Copied.');
    });
  }
</script>

<svelte:head><title>Tell clients · Mezzadro</title></svelte:head>

{#snippet draft(t: Schemas['Telling'])}
  {@const which = `: ${t.property}, ${inWords(t.day)}`}
  <label class="block text-sm"
    >Draft for {t.client || t.property}
    <textarea class="mt-1 h-44 w-full rounded-sm border border-gray-400 bg-white p-2 text-base" bind:value={texts[key(t)]}
    ></textarea></label
  >
  <div class="mt-1 flex flex-wrap gap-3">
    <Button size="sm" disabled={sending === key(t)} onclick={() => send(t)}>Send<span class="sr-only">{which}</span></Button>
    {#if !t.thanks}
      <Button size="sm" color="light" onclick={() => know(t, true)}>They know<span class="sr-only">{which}</span></Button>
    {/if}
    <Button size="sm" color="light" onclick={() => copy(t)}>Copy the draft<span class="sr-only">{which}</span></Button>
  </div>
{/snippet}

<div class="max-w-3xl px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/rounds">Rounds</a></p>
  <h1>Tell clients</h1>
  <p class="text-soft">
    Days of the next fortnight that a client does not know yet. Look the draft over and send it{#if mail}: it goes by mail to the
      clients who get the days{:else}; no mail server is entered in Settings, so the post is simulated and delivers to nobody:
      copy the draft into your own letter and note that they know{/if}. A day they know stays when rounds are proposed again.
  </p>
  {#if !list}<Waiting rows={6} />
  {:else if !list.length}
    <p class="mt-3">Every client knows the planned days.</p>
  {:else}
    <ul class="mt-3 space-y-4">
      {#each list as t (key(t))}
        <li class="border border-rule bg-white px-3 py-2">
          <p class="font-bold">
            {t.property}<span class="font-normal text-soft">&nbsp;· {t.day ? inWords(t.day) : 'no day any more'}</span>
          </p>
          {#if t.before}<p class="font-semibold text-sun">They were told {inWords(t.before)}.</p>{/if}
          {@render draft(t)}
        </li>
      {/each}
    </ul>
  {/if}
  {#if after.length}
    <details class="mt-6">
      <summary class="min-h-11 py-2 font-bold"
        >After the visit: {after.length} {after.length === 1 ? 'letter' : 'letters'} you may send</summary
      >
      <p class="text-soft">Visits of the last five days whose work is all done. Nobody has to be written to.</p>
      <ul class="mt-3 space-y-4">
        {#each after as t (key(t))}
          <li class="border border-rule bg-white px-3 py-2">
            <p class="font-bold">{t.property}<span class="font-normal text-soft">&nbsp;· done {inWords(t.day)}</span></p>
            {@render draft(t)}
          </li>
        {/each}
      </ul>
    </details>
  {/if}
  {#if sent.length}
    <section class="mt-6" aria-label="Sent">
      <h2>Sent</h2>
      <ul>
        {#each sent as l (l.id)}<li class="border-t border-rule py-1">
            <details>
              <summary class="min-h-11 py-2"
                ><b>{l.property}</b>, {l.to}: told of {inWords(l.day)}<span class="block text-sm text-soft">{l.receipt}</span
                ></summary
              >
              <p class="pb-2 text-sm whitespace-pre-line">{l.text}</p>
            </details>
          </li>{/each}
      </ul>
    </section>
  {/if}
</div>
