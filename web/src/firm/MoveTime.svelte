<script lang="ts">
  import { Button, Input, Modal } from 'flowbite-svelte';
  import { api, ask, type Problem } from '../api/client';
  import { inWords, plusDays } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';

  /** Moves the day the sample stands at, so that one can see its year go by. */
  let { open = $bindable() }: { open: boolean } = $props();
  let wanted = $state('');
  let busy = $state(false);
  let problem = $state<Problem>();

  $effect(() => {
    if (open) {
      wanted = house.today;
      problem = undefined;
    }
  });
  function month(by: number): string {
    const [y, m, d] = house.today.split('-').map(Number) as [number, number, number];
    const last = new Date(Date.UTC(y, m - 1 + by + 1, 0)).getUTCDate();
    return new Date(Date.UTC(y, m - 1 + by, Math.min(d, last))).toISOString().slice(0, 10);
  }
  async function go(to: string) {
    busy = true;
    const from = house.today;
    problem = await attempt(async () => {
      house.frame = await ask(api.PUT('/api/v1/today', { body: { day: to } }));
      wanted = to;
      house.say(`It is ${inWords(to, true)} now.`, async () => {
        await attempt(async () => void (house.frame = await ask(api.PUT('/api/v1/today', { body: { day: from } }))));
      });
      open = false;
    });
    busy = false;
  }
  const steps: [string, () => string][] = [
    ['A month back', () => month(-1)],
    ['A week back', () => plusDays(house.today, -7)],
    ['A day on', () => plusDays(house.today, 1)],
    ['A week on', () => plusDays(house.today, 7)],
    ['A month on', () => month(1)],
  ];
</script>

<Modal bind:open title="Move the sample’s time" size="sm">
  <p class="text-ink">
    The sample stands at {inWords(house.today, true)}. Its simulated weather is read up to the day you choose, and everything
    follows: events, look-list, windows, outlook.
  </p>
  <div class="flex flex-wrap gap-2">
    {#each steps as [name, to] (name)}<Button color="light" disabled={busy} onclick={() => go(to())}>{name}</Button>{/each}
    {#if house.frame?.home && house.frame.home !== house.today}<Button
        color="light"
        disabled={busy}
        onclick={() => go(house.frame!.home!)}>Back to {inWords(house.frame.home)}</Button
      >{/if}
  </div>
  <form
    class="flex flex-wrap items-end gap-2"
    onsubmit={(e) => {
      e.preventDefault();
      void go(wanted);
    }}
  >
    <label class="font-semibold text-ink">Day<Input type="date" class="mt-1 font-normal" bind:value={wanted} /> </label>
    <Button type="submit" disabled={busy || !wanted}>Go to this day</Button>
    {#if busy}<span role="status" class="text-sm">Reading the weather …</span>{/if}
    {#if problem}<p class="basis-full text-sm text-bad">{problem.message}</p>{/if}
  </form>
</Modal>
