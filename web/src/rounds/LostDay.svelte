<script lang="ts">
  /** A day that is lost: what falls off it, where it goes, and that clients who know the day get a letter. */
  import { Button, Modal } from 'flowbite-svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { hours, inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import { reading } from '../lib/reading';
  import Tickbox from '../lib/Tickbox.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import { visitBack } from './visits';

  interface Props {
    day: string;
    crew: number; // 0: all
    crewName: string;
    onkept: () => void;
    onclose: () => void;
  }
  let { day, crew, crewName, onkept, onclose }: Props = $props();
  type Why = Schemas['LostIn']['why'];
  let why = $state<Why>('rain');
  let all = $state(false);
  let lost = $state.raw<Schemas['Lost']>();
  let busy = $state(false);
  const reads = reading();
  $effect(() => {
    const query = { day, crew, why, all };
    void reads(async (signal) => {
      lost = await ask(api.GET('/api/v1/rounds/lost', { params: { query }, signal }));
    });
  });
  const told = $derived((lost?.visits ?? []).filter((v) => v.told).length);
  async function take() {
    busy = true;
    await attempt(async () => {
      const body: Schemas['LostIn'] = { day, why, all, ...(crew ? { crew } : {}) };
      const done = await ask(api.POST('/api/v1/rounds/lost', { params: { header: onceKey() }, body }));
      const letters = told ? ` ${told === 1 ? 'One letter is' : `${told} letters are`} drafted under Tell clients.` : '';
      onkept();
      onclose();
      house.say(`${inWords(day)}: ${done.moved === 1 ? 'one job' : `${done.moved} jobs`} taken off.${letters}`, () =>
        visitBack(done, onkept),
      );
    });
    busy = false;
  }
</script>

<Modal open title="{inWords(day)} is lost{crewName ? ` for ${crewName}` : ''}" size="md" class="text-ink!" {onclose}>
  <div class="flex flex-wrap items-end gap-3">
    <Pick
      label="Because"
      bind:value={why}
      options={[
        ['rain', 'it rains'],
        ['crew away', crewName ? `${crewName} is away` : 'the crews are away'],
        ['van broken', 'the van is broken'],
      ]}
    />
    {#if why === 'rain'}<Tickbox label="Take all work off" bind:checked={all} />{/if}
  </div>
  {#if !lost}<Waiting />
  {:else if !lost.visits.length}
    <p>
      Nothing falls off{lost.stays ? `: ${lost.stays === 1 ? 'one job' : `${lost.stays} jobs`} can be done all the same` : ''}.
    </p>
  {:else}
    <ul class="border-t border-rule" aria-label="What falls off">
      {#each lost.visits as v}
        <li class="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
          <span class="min-w-44 flex-1"
            ><b>{v.property}</b><span class="block text-sm text-soft"
              >{v.jobs === 1 ? 'one job' : `${v.jobs} jobs`}, {hours(v.minutes)}{v.told
                ? ' · the client knows the day'
                : ''}</span
            ></span
          >
          <span class={v.to ? '' : 'font-semibold text-sun'}
            >{v.to ? `to ${inWords(v.to)}` : 'no day within a fortnight: back to the list'}</span
          >
        </li>
      {/each}
    </ul>
    {#if lost.stays}<p class="text-sm">{lost.stays === 1 ? 'One job' : `${lost.stays} jobs`} can be done all the same.</p>{/if}
    {#if told}<p class="text-sm">
        {told === 1 ? 'One client knows' : `${told} clients know`} the day: letters that say so are drafted, and nothing is sent.
      </p>{/if}
    <div class="flex gap-2">
      <Button disabled={busy} onclick={take}>Move them there</Button>
      <Button color="light" onclick={onclose}>Back</Button>
    </div>
  {/if}
</Modal>
