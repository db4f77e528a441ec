<script lang="ts">
  /** Jobs that ended, the newest first: found by their words, and taken back where one was ended by mistake. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, type Order } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { when } from './orders';
  import Tick from './Tick.svelte';

  let { stamp, onkept }: { stamp: unknown; onkept: () => void } = $props(); // read anew when it changes
  let list = $state.raw<Order[]>();
  let next = $state('');
  let words = $state('');
  const reads = reading();
  const page = (cursor: string, signal?: AbortSignal) =>
    ask(api.GET('/api/v1/orders', { params: { query: { list: 'ended', limit: 60, ...(cursor ? { cursor } : {}) } }, signal }));
  const read = () =>
    reads(async (signal) => {
      const p = await page('', signal);
      [list, next] = [p.items, p.next];
    });
  const more = () =>
    reads(async (signal) => {
      const p = await page(next, signal);
      [list, next] = [[...(list ?? []), ...p.items], p.next];
    });
  let open = $state(false);
  $effect(() => {
    void stamp;
    if (open) void read();
  });
  const found = $derived.by(() => {
    const w = words.toLowerCase().split(/\s+/).filter(Boolean);
    return (list ?? []).filter((o) =>
      w.every((x) => `${o.title} ${o.label} ${o.property} ${o.note} ${o.state}`.toLowerCase().includes(x)),
    );
  });
</script>

<details class="mt-4" bind:open>
  <summary class="flex min-h-11 cursor-pointer items-center font-semibold text-moss">Ended jobs</summary>
  <Field label="With these words" bind:value={words} />
  <ul class="mt-1" aria-label="Ended jobs">
    {#each found as o (o.id)}
      <li class="border-t border-rule px-2 py-1.5 leading-snug">
        <a href="#/rounds/{o.id}">{o.title}</a>
        <span class="block text-sm text-soft">{o.property}{o.label ? `, ${o.label}` : ''} · {when(o, house.today)}</span>
        {#key o.id + o.state}<Tick
            order={o}
            small
            onkept={() => {
              void read();
              onkept();
            }}
          />{/key}
      </li>
    {:else}
      <li class="py-2 text-soft">
        {list ? (words ? 'No ended job has these words.' : 'No job has ended yet.') : ''}
      </li>
    {/each}
  </ul>
  {#if next}<Button color="light" size="sm" class="mt-2 min-h-11" onclick={more}>Show more</Button>{/if}
</details>
