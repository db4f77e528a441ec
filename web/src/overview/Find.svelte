<script lang="ts">
  import { Input, Modal } from 'flowbite-svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask } from '../api/client';
  import { attempt } from '../lib/house.svelte';
  import { search } from './help';

  let { open = $bindable(), onhelp }: { open: boolean; onhelp: (page: string) => void } = $props();

  interface Found {
    path: string; // where it leads; of a page of help, ? and its id
    what: string;
    detail: string;
  }
  let found = $state<Found[]>([]);
  let words = $state('');
  let at = $state(0);
  let ready = $state(false);

  let more = $state(false);
  let turn = 0;
  async function look(text: string) {
    const mine = ++turn;
    await attempt(async () => {
      const h = await ask(api.GET('/api/v1/find', { params: { query: { text, limit: 8 } } }));
      if (mine !== turn) return; // a later word was typed
      found = [
        ...h.properties.map((p) => ({ path: `/grounds/${p.id}`, what: p.name, detail: `property · ${p.client}` })),
        ...h.plants.map((p) => ({
          path: `/plant/${p.id}`,
          what: `${p.common}, ${p.label}`,
          detail: `plant · ${p.property}`,
        })),
        ...h.species.map((s) => ({ path: `/almanac/${s.id}`, what: s.common, detail: 'species' })),
        ...h.causes.map((c) => ({ path: `/almanac/cause/${c.id}`, what: c.name, detail: 'cause' })),
        ...h.jobs.map((j) => ({ path: `/rounds/${j.id}`, what: j.title, detail: `job · ${j.property}` })),
        ...search(text)
          .slice(0, 3)
          .map(({ page, say }) => ({ path: `?${page.id}`, what: page.name, detail: `help${say ? ` · ${say}` : ''}` })),
      ];
      more = h.more;
      at = 0;
      ready = true;
    });
  }
  let waiting: ReturnType<typeof setTimeout> | undefined;
  $effect(() => {
    const text = words.trim();
    clearTimeout(waiting);
    turn++;
    ready = !text;
    if (!text) {
      found = [];
      more = false;
      return;
    }
    waiting = setTimeout(() => void look(text), 120);
  });
  $effect(() => {
    if (!open) return;
    words = '';
    ready = true;
  });
  function go(f: Found | undefined) {
    if (!f) return;
    open = false;
    if (f.path.startsWith('?')) onhelp(f.path.slice(1));
    else void push(f.path);
  }
  function onkeydown(e: KeyboardEvent) {
    if (e.key === 'ArrowDown') at = Math.min(found.length - 1, at + 1);
    else if (e.key === 'ArrowUp') at = Math.max(0, at - 1);
    else if (e.key === 'Enter') go(found[at]);
    else return;
    e.preventDefault();
  }
</script>

<Modal bind:open title="Find" size="md" placement="top-center" class="mt-16">
  <label class="block"
    ><span class="sr-only">Plant, property, species, cause, job or help</span>
    <!-- svelte-ignore a11y_autofocus -- the field is what the dialog was opened for -->
    <Input bind:value={words} {onkeydown} placeholder="Plant, property, species, cause, job or help" autofocus />
  </label>
  <ul class="mt-2 min-h-24">
    {#each found as f, i (f.path)}
      <li>
        <button
          class="flex min-h-11 w-full items-baseline gap-3 px-2 text-left {i === at ? 'bg-moss-pale' : ''}"
          onclick={() => go(f)}
        >
          <span class="font-semibold">{f.what}</span><span class="text-sm text-soft">{f.detail}</span>
        </button>
      </li>
    {:else}
      <li class="px-2 py-3 text-soft">
        {words.trim() === ''
          ? 'Type a part of a name; several words narrow it down.'
          : ready
            ? 'Nothing has these words.'
            : 'Looking …'}
      </li>
    {/each}
    {#if more}<li class="px-2 py-1 text-sm text-soft">More was found: another word narrows it down.</li>{/if}
  </ul>
</Modal>
