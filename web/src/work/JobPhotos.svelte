<script lang="ts">
  /** Pictures taken at a job; a new one waits on the device where there is no signal. */
  import { api, ask, onceKey, type Order, type Schemas } from '../api/client';
  import { shrink } from '../field/shrink';
  import { address, shots } from '../field/shots.svelte';
  import FilePick from '../lib/FilePick.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';

  interface Props {
    order: Order;
    photos?: Schemas['OrderPhoto'][]; // read where they are not given
  }
  let { order, photos }: Props = $props();
  let read = $state.raw<Schemas['OrderPhoto'][]>();
  const reads = reading();
  async function again() {
    await reads(async (signal) => {
      read = (await ask(api.GET('/api/v1/orders/{id}/photos', { params: { path: { id: order.id } }, signal }))).items;
    });
  }
  $effect(() => {
    if (!photos) void again();
  });
  const list = $derived(read ?? photos);
  const waits = $derived(shots.of(order.id));
  async function add(file: File) {
    await attempt(async () => {
      const data = await address(await shrink(file));
      const kept = await shots.keep({ order: order.id, data }, order.title);
      if (kept) await again();
      else house.say('The picture is kept on this device, and sent when there is a connection.');
    });
  }
  async function remove(p: Schemas['OrderPhoto']) {
    await attempt(async () => {
      const params = { path: { id: p.id }, header: onceKey() };
      await ask(api.DELETE('/api/v1/order-photos/{id}', { params }));
      await again();
      house.say('The picture is removed.', async () => {
        await ask(api.POST('/api/v1/order-photos/{id}/restore', { params: { path: { id: p.id }, header: onceKey() } }));
        await again();
      });
    });
  }
</script>

<div class="flex flex-wrap items-center gap-2 print:hidden">
  {#each list as p, i (p.id)}<span class="inline-block"
      ><a href="/api/v1/pictures/{p.hash}" target="_blank" rel="noopener"
        ><img src="/api/v1/pictures/{p.hash}" alt="{order.title}, {i + 1}" class="h-16 w-16 border border-rule object-cover" /></a
      ><button class="block min-h-9 w-16 text-xs underline" onclick={() => remove(p)}
        >Remove<span class="sr-only"> picture {i + 1} of {order.title}</span></button
      ></span
    >{/each}
  {#each waits as w (w.key)}<span class="inline-block"
      ><img src={w.body.data} alt="Waits to be sent" class="h-16 w-16 border-2 border-sun object-cover" />
      <span class="block w-16 text-xs {w.refused ? 'text-bad' : 'text-sun'}">{w.refused ?? 'waits'}</span></span
    >{/each}
  <FilePick name="Picture" accept="image/*" onfile={add} />
</div>
