<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import type { Answer, Check, Plant } from '../api/client';
  import type { Waiting } from '../field/device';
  import { field } from '../field/field.svelte';
  import { found } from './checks';
  import { inWords, plusDays } from '../lib/dates';
  import { part } from '../lib/part';
  import { house } from '../lib/house.svelte';
  import Later from '../lib/Later.svelte';
  import Notes from '../lib/Notes.svelte';
  import Slip from './Slip.svelte';
  import type { Decision } from './decision.svelte';

  interface Props {
    plant: Plant;
    answer?: Answer;
    checks: Check[];
    waiting?: Waiting;
    wide: boolean;
    decision: Decision;
    onspot: (key: string, seen: 'yes' | 'no', amount?: number) => void;
    onnext: () => void;
  }
  let { plant, answer, checks, waiting, wide, decision, onspot, onnext }: Props = $props();

  const standing = $derived(plant.decided ? plant.verdict : undefined);
  let overruling = $state(false);
  function overrule() {
    decision.problem = undefined;
    overruling = true;
  }
  // The messages stand here, above the buttons and where none stands: a press meant to go on takes nothing back.
  onMount(() => {
    house.placed = true;
    return () => (house.placed = false);
  });
  const last = $derived.by(() => {
    const c = checks.at(-1);
    if (!c) return 'Kept';
    const t = found(c);
    const what = c.kind === 'scratch' ? `bark ${t}` : c.kind === 'bud_rub' ? `buds ${t}` : t;
    return `${what.charAt(0).toUpperCase()}${what.slice(1)} kept`;
  });
  const current = $derived(!waiting || field.current(plant.id)); // the verdict is on all that was found
  const unjudged = $derived(
    waiting || field.away ? (checks.length ? `${last}; judged when back.` : 'Judged when there is a connection.') : '',
  );
  const kept = $derived(field.decisions.of(field.walk?.walk ?? 0, plant.id));
  const refused = $derived(kept?.refused);
  const short = $derived(
    waiting?.theirs
      ? 'Two devices looked at this plant: say above what stands.'
      : standing?.decision === 'overruled'
        ? standing.sentence
        : waiting && field.away && !current
          ? unjudged
          : (answer?.verdict.sentence ?? unjudged),
  );
</script>

<section
  aria-label="Judgement"
  class="flex min-h-0 flex-col border-rule bg-sheet lg:border-l max-lg:mt-3 max-lg:border-t max-lg:pb-36"
>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -- what scrolls can be reached by keys -->
  <div class="min-h-0 flex-1 overflow-y-auto p-3" role="region" aria-label="Verdict in full" tabindex="0">
    {#if field.unkept}<p role="alert" class="mb-2 border-2 border-bad bg-white px-3 py-1.5 text-[0.9375rem]">
        <b>This device keeps nothing: its storage is full or shut.</b> Leave this page open until all is sent.
      </p>{/if}
    {#if field.away || waiting}
      <p class="mb-2 border-l-4 border-sun bg-white px-3 py-1.5 text-[0.9375rem] max-lg:hidden">
        {#if field.away}<b>No connection.</b> What you find and decide is kept on this device and sent when it is back.{/if}
        {#if field.away && answer && current}Judged on this device, by the weather known when it last had a connection.{:else if waiting && answer && !current}The
          verdict below is the last one judged; your newest checks are not in it yet.{:else if !answer}Will be judged when there
          is a connection.{/if}
      </p>
    {/if}
    {#if refused}<div role="alert" class="mb-2 border-2 border-bad bg-white px-3 py-1.5 text-[0.9375rem]">
        <p><b>Your decision ({kept?.kind}) was not taken.</b> {refused}</p>
        <button class="min-h-11 text-moss underline" onclick={() => kept && field.decisions.drop(kept)}>Decide again</button>
      </div>{/if}
    {#if answer}<Slip {answer} palm={plant.form === 'palm'} {onspot} {standing} />{/if}
  </div>
  <div
    class="bar border-t border-rule bg-paper p-3 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-12 max-lg:z-10 max-md:pb-3 md:max-lg:bottom-0"
  >
    <div role="status" class="space-y-1 {house.notes.length ? 'mb-2 max-lg:min-h-16' : ''}" data-testid="notes"><Notes /></div>
    {#if !wide && !house.notes.length}<p class="mb-2 line-clamp-3 min-h-16 leading-snug font-bold" aria-hidden="true">
        {#if refused}<span class="block text-sm text-bad">Your decision was not taken: {refused}</span>{:else if field.away}<span
            class="block text-sm text-sun"
            >No connection: {answer && current ? 'judged and kept' : 'kept'} on this phone, {field.left} to send.</span
          >{/if}
        {short}
      </p>{/if}
    {#if answer?.choices?.length && !standing && !decision.done}
      <div class="mb-2 flex flex-wrap items-center gap-2" role="group" aria-label="Settled with the owner">
        <span class="text-sm text-soft">Settled with the owner:</span>
        {#each answer.choices as c (c.kind)}<Button
            color="light"
            size="sm"
            disabled={!decision.ready}
            onclick={() => decision.decide('accepted', c.kind)}>{c.text}</Button
          >{/each}
      </div>
    {/if}
    <div class="flex flex-wrap items-center gap-2">
      {#if decision.done}
        <span class="min-w-0 flex-1 leading-tight font-semibold text-moss"
          >{plant.common}: {decision.done.text === 'not now' ? 'put off' : 'kept'}{kept ? ' on this device' : ''}.</span
        >
        <Button onclick={() => onnext()}>Next plant</Button>
      {:else}
        <Button class="flex-1" disabled={!decision.ready} onclick={() => decision.decide('accepted')}
          >{standing ? 'Accept again' : 'Accept'}</Button
        >
        <Button color="light" disabled={!decision.ready} onclick={overrule}>Overrule</Button>
        <Button color="light" disabled={!answer} onclick={() => decision.decide('not now')}>Not now</Button>
      {/if}
      <span class="sr-only" role="status"
        >{waiting?.refused ? 'Not taken' : field.away ? 'Kept on this device' : waiting ? 'Saving' : 'Checks saved'}</span
      >
    </div>
  </div>
</section>

<Later when={overruling}
  >{#await part(() => import('./Overrule.svelte')) then it}<it.default bind:open={overruling} {plant} {decision} />{/await}</Later
>
