<script lang="ts">
  /** Why work waits for what is not known yet of its plant, and what can be done about it: let it wait, or do it all the same. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Order, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';

  interface Props {
    hold: Schemas['Held'] | Schemas['Hold'];
    order?: Order; // what waits; without it nothing can be done about it here
    onkept?: () => void;
  }
  let { hold, order, onkept }: Props = $props();
  const anyway = $derived('anyway' in hold ? hold.anyway : undefined);
  let asking = $state(false);
  let why = $state('');
  const may = $derived(!!order && house.may('planner') && (order.state === 'waiting' || order.state === 'on a day'));

  const say = (o: Order, reason: string) =>
    ask(
      api.PUT('/api/v1/orders/{id}/anyway', {
        params: { path: { id: o.id }, header: onceKey() },
        body: { ...(reason ? { why: reason } : {}), version: o.version },
      }),
    );
  async function overrule(o: Order, reason: string) {
    await attempt(async () => {
      const before = anyway ?? '';
      const kept = await say(o, reason);
      asking = false;
      onkept?.();
      house.say(reason ? `${o.title}: done all the same.` : `${o.title}: waits again.`, () =>
        attempt(async () => {
          await say(kept, before);
          onkept?.();
        }).then(() => {}),
      );
    });
  }
  async function letWait(o: Order) {
    await attempt(async () => {
      const off = await ask(
        api.PUT('/api/v1/orders/{id}/day', {
          params: { path: { id: o.id }, header: onceKey() },
          body: { day: null, crew: o.crew, version: o.version } as never,
        }),
      );
      onkept?.();
      // Back where it stood: that is against what was found, and not put there anew.
      const was = { order: o.id, version: off.job.version, day: o.day, ...(o.crew ? { crew: o.crew, crew_id: o.crew_id } : {}) };
      house.say(`${o.title}: off its day, and waits.`, () =>
        attempt(async () => {
          await ask(api.POST('/api/v1/rounds/visits/back', { params: { header: onceKey() }, body: { was: [was] } }));
          onkept?.();
        }).then(() => {}),
      );
    });
  }
</script>

<div class="border-l-4 {anyway ? 'border-rule' : 'border-sun'} bg-white py-1 pl-2 text-[0.9375rem]" data-testid="hold">
  <p class={anyway ? 'text-soft' : 'font-semibold'}>{hold.why}</p>
  {#if anyway}<p>Done all the same: “{anyway}”</p>{/if}
  {#if may && order}
    {#if asking}
      <form
        class="mt-1 flex flex-wrap items-end gap-2 print:hidden"
        aria-label="All the same: {order.title}"
        onsubmit={(e) => {
          e.preventDefault();
          if (why.trim()) void overrule(order, why.trim());
        }}
      >
        <Field class="min-w-48 flex-1" label="Why it is done anyway" bind:value={why} autofocus />
        <Button size="sm" class="min-h-11" type="submit" disabled={!why.trim()}>Do it anyway</Button>
        <Button size="sm" class="min-h-11" color="light" onclick={() => (asking = false)}>Back</Button>
      </form>
    {:else}
      <p class="flex flex-wrap gap-x-4 print:hidden">
        {#if !anyway && order.day}<button class="min-h-11 font-semibold text-moss underline" onclick={() => letWait(order)}
            >Let it wait<span class="sr-only">: {order.title}</span></button
          >{/if}
        {#if order.plant_id}<a
            class="inline-flex min-h-11 items-center underline"
            href="#/walk/{order.property_id}/{order.plant_id}">Look at it</a
          >{/if}
        {#if anyway}<button class="min-h-11 text-moss underline" onclick={() => overrule(order, '')}
            >Let it wait after all<span class="sr-only">: {order.title}</span></button
          >{:else}<button class="min-h-11 text-moss underline" onclick={() => ((asking = true), (why = ''))}
            >All the same …<span class="sr-only">: {order.title}</span></button
          >{/if}
      </p>
    {/if}
  {/if}
</div>
