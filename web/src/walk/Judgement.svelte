<script lang="ts">
  import { Button, Modal, Select, Textarea } from 'flowbite-svelte';
  import type { Answer, Plant } from '../api/client';
  import type { Waiting } from '../field/device';
  import { field } from '../field/field.svelte';
  import Field from '../lib/Field.svelte';
  import Slip from '../lib/Slip.svelte';
  import type { Decision } from './decision.svelte';

  interface Props {
    plant: Plant;
    propertyId: number;
    answer?: Answer;
    waiting?: Waiting;
    wide: boolean;
    decision: Decision;
    onspot: (key: string, seen: 'yes' | 'no', amount?: number) => void;
    onnext: () => void;
  }
  let { plant, propertyId, answer, waiting, wide, decision, onspot, onnext }: Props = $props();

  const standing = $derived(plant.decided ? plant.verdict : undefined);
  let overruling = $state(false);
  let over = $state({ kind: 'wait until', cut: '', note: '' });
  const kinds = [
    'leave',
    'wait until',
    'tip back',
    'cut back to live wood',
    'cut to the base',
    'regraft or replace',
    'replace',
    'lift and shelter',
    'make safe first',
  ].map((k) => ({
    value: k,
    name: k,
  }));
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
        {#if field.away}<b>No connection.</b> What you find is kept on this device and sent when it is back.{/if}
        {#if waiting && answer}The verdict below is the last one judged; your newest checks are not in it yet.{:else if waiting || !answer}Will
          be judged when back on line.{/if}
      </p>
    {/if}
    {#if answer}<Slip
        {answer}
        palm={plant.form === 'palm'}
        {onspot}
        decided={standing ? `Decided: ${standing.decision}` : undefined}
      />{/if}
    {#if standing}<p class="mt-2 text-sm">
        Decided {standing.decision === 'overruled'
          ? `otherwise: ${standing.kind}. “${standing.note}”`
          : `as: ${standing.sentence}`} <a href="#/year/{propertyId}">See it on the year</a>
      </p>{/if}
  </div>
  <div
    class="border-t border-rule bg-paper p-3 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-12 max-lg:z-10 max-md:pb-4 md:max-lg:bottom-0"
  >
    {#if !wide}<p class="mb-2 leading-snug font-bold" aria-hidden="true">
        {#if field.away}<span class="block text-sm text-sun">No connection: kept on this phone, {field.left} to send.</span>{/if}
        {waiting?.theirs
          ? 'Two devices looked at this plant: say above what stands.'
          : (answer?.verdict.sentence ?? (waiting || field.away ? 'Will be judged when back on line.' : ''))}
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
    <div class="flex items-center gap-2">
      {#if decision.done}
        <span class="flex-1 font-semibold text-moss">{decision.done.text === 'not now' ? 'Put off.' : 'Kept.'}</span>
        <Button onclick={() => onnext()}>Next plant</Button>
      {:else}
        <Button class="flex-1" disabled={!decision.ready} onclick={() => decision.decide('accepted')}
          >{standing ? 'Accept anew' : 'Accept'}</Button
        >
        <Button color="light" disabled={!decision.ready} onclick={() => ((overruling = true), (decision.problem = undefined))}
          >Overrule</Button
        >
        <Button color="light" disabled={!answer || field.away} onclick={() => decision.decide('not now')}>Not now</Button>
      {/if}
      <span class="sr-only" role="status"
        >{waiting?.refused ? 'Not taken' : field.away ? 'Kept on this device' : waiting ? 'Saving' : 'Checks saved'}</span
      >
    </div>
  </div>
</section>

<Modal bind:open={overruling} title="Overrule the verdict" size="sm">
  <form
    class="space-y-3 text-ink"
    onsubmit={(e) => {
      e.preventDefault();
      void decision.decide('overruled', over.kind, over).then((kept) => kept && (overruling = false));
    }}
  >
    <label class="block font-semibold"
      >Your verdict<Select class="mt-1" items={kinds} bind:value={over.kind} placeholder="" /></label
    >
    {#if over.kind === 'tip back' || over.kind === 'cut back to live wood'}
      <Field label="Cut at" kind="length" bind:value={over.cut} problem={decision.problem?.fields.cut_m} />
    {/if}
    <label class="block font-semibold">Why<Textarea class="mt-1 w-full bg-white" rows={3} bind:value={over.note} /></label>
    {#if decision.problem?.fields.note}<p class="text-bad">{decision.problem.fields.note}</p>{/if}
    <div class="flex gap-2">
      <Button type="submit">Keep my verdict</Button><Button color="light" onclick={() => (overruling = false)}>Back</Button>
    </div>
  </form>
</Modal>
