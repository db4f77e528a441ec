<script lang="ts">
  import { Input, Modal } from 'flowbite-svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, type Plant } from '../api/client';
  import { attempt } from './house.svelte';

  let { open = $bindable() }: { open: boolean } = $props();

  interface Found {
    path: string;
    what: string;
    detail: string;
    text: string;
  }
  let all = $state<Found[]>([]);
  let words = $state('');
  let at = $state(0);
  let ready = $state(false);

  const gather = () =>
    attempt(async () => {
      const props = await ask(api.GET('/api/v1/properties', { params: { query: { limit: 1000 } } }));
      const out: Found[] = (props.items ?? []).map((p) => ({
        path: `/grounds/${p.id}`,
        what: p.name,
        detail: `property · ${p.client}`,
        text: `${p.name} ${p.client} ${p.address}`,
      }));
      const book = await ask(api.GET('/api/v1/species'));
      for (const e of book.items ?? [])
        out.push({ path: `/almanac/${e.id}`, what: e.common, detail: 'species', text: `${e.common} ${e.botanical} species` });
      const year = await ask(api.GET('/api/v1/year'));
      for (const j of year.lanes ?? [])
        out.push({
          path: `/rounds/${j.id}`,
          what: j.title,
          detail: `job · ${j.property}`,
          text: `${j.title} ${j.property} ${j.label}`,
        });
      for (let cursor = 0, more = true; more;) {
        const page = await ask(api.GET('/api/v1/plants', { params: { query: { limit: 1000, cursor } } }));
        out.push(
          ...(page.items ?? []).map((p: Plant) => ({
            path: `/plant/${p.id}`,
            what: `${p.common}, ${p.label}`,
            detail: `plant · ${p.property}`,
            text: `${p.common} ${p.botanical} ${p.label} ${p.property}`,
          })),
        );
        cursor = page.next;
        more = cursor > 0;
      }
      all = out.map((f) => ({ ...f, text: f.text.toLowerCase() }));
      ready = true;
    });

  const found = $derived.by(() => {
    const parts = words.toLowerCase().split(/\s+/).filter(Boolean);
    return parts.length ? all.filter((f) => parts.every((p) => f.text.includes(p))).slice(0, 12) : [];
  });
  $effect(() => {
    void found;
    at = 0;
  });
  $effect(() => {
    if (!open) return;
    words = '';
    ready = false;
    void gather();
  });
  function go(f: Found | undefined) {
    if (!f) return;
    open = false;
    void push(f.path);
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
    ><span class="sr-only">Plant, property, species or job</span>
    <!-- svelte-ignore a11y_autofocus -- the field is what the dialog was opened for -->
    <Input bind:value={words} {onkeydown} placeholder="Plant, property, species or job" autofocus />
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
            : 'Gathering the record …'}
      </li>
    {/each}
  </ul>
</Modal>
