<script lang="ts">
  /** A letter to a property's clients with a link to what is there for them: sent by mail, or copied. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { attempt, house } from '../lib/house.svelte';

  interface Props {
    property: number;
    gets: 'estimates' | 'reports';
    subject: string;
    text: string; // before the link
  }
  let { property, gets, subject, text }: Props = $props();
  let letter = $state('');
  let to = $state.raw<Schemas['Client'][]>([]);
  let mail = $state.raw<Schemas['MailSet']>();
  let busy = $state(false);
  const addresses = $derived(to.filter((c) => c.email).map((c) => c.email));
  async function write() {
    busy = true;
    await attempt(async () => {
      const path = { id: property };
      const [link, clients, m] = await Promise.all([
        ask(api.POST('/api/v1/properties/{id}/client-links', { params: { path, header: onceKey() }, body: { days: 90 } })),
        ask(api.GET('/api/v1/clients', { params: { query: { property } } })),
        ask(api.GET('/api/v1/mail')),
      ]);
      to = clients.items.filter((c) => c.of.some((o) => o.property_id === property && o.gets?.includes(gets)));
      mail = m;
      letter =
        `${to.map((c) => c.name).join(', ')}\n\n${text}\n${location.origin}/#/client/${link.token}\n\n${house.frame?.firm.name ?? ''}`.trim();
    });
    busy = false;
  }
  async function send() {
    busy = true;
    await attempt(async () => {
      const l = await ask(
        api.POST('/api/v1/properties/{id}/notices', {
          params: { path: { id: property }, header: onceKey() },
          body: { gets, subject, text: letter },
        }),
      );
      house.say(`${l.to}: ${l.receipt}.`);
      letter = '';
    });
    busy = false;
  }
  const copy = () =>
    attempt(async () => {
      await navigator.clipboard.writeText(letter);
      house.say('Copied.');
    });
</script>

{#if !letter}
  <Button color="light" class="mt-3 min-h-11" disabled={busy} onclick={write}>Write to them with a link</Button>
{:else}
  <section class="mt-3 border border-ink bg-white p-3" aria-label="A letter with the link">
    <label class="block text-sm"
      ><span class="font-semibold"
        >{addresses.length ? `To ${addresses.join(', ')}` : 'Nobody who gets them has an address for mail'}</span
      >
      <textarea class="mt-1 h-40 w-full rounded-sm border border-gray-400 bg-white p-2 text-base" bind:value={letter}
      ></textarea></label
    >
    <p class="text-sm text-soft">The link is shown only here: it holds for ninety days.</p>
    <p class="mt-1 flex flex-wrap items-center gap-3">
      {#if mail?.host && addresses.length}<Button class="min-h-11" disabled={busy} onclick={send}>Send by mail</Button>{/if}
      <Button class="min-h-11" color="light" onclick={copy}>Copy it</Button>
      <a
        class="inline-flex min-h-11 items-center underline"
        href="mailto:{addresses.join(',')}?subject={encodeURIComponent(subject)}&body={encodeURIComponent(letter)}"
        >In your own mail program</a
      >
      <button class="min-h-11 text-moss underline" onclick={() => (letter = '')}>Put away</button>
    </p>
  </section>
{/if}
