<script lang="ts">
  /** The words of a find without a name: what is seen, what was sent where, when an answer is expected. */
  import { plusDays } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { house } from '../lib/house.svelte';
  import type { Words } from './unnamed';

  interface Props {
    words: Words;
    problem?: Record<string, string>;
    answer?: boolean; // ask for what came back too
  }
  let { words = $bindable(), problem, answer = false }: Props = $props();
</script>

<label class="block font-semibold"
  >What is seen
  <textarea
    class="mt-1 min-h-20 w-full rounded-sm border border-gray-400 bg-white p-2 font-normal"
    bind:value={words.words}
    placeholder="Where on the plant, its colour, how it feels, what wipes off"
    aria-invalid={problem?.words ? 'true' : undefined}></textarea>
  {#if problem?.words}<span class="text-sm font-normal text-bad">{problem.words}</span>{/if}</label
>
<div class="grid gap-3 sm:grid-cols-2">
  <Field
    label="What was sent (may stay empty)"
    bind:value={words.sent}
    placeholder="Two twigs, a picture, soil"
    problem={problem?.sent}
  />
  <Field label="To whom" bind:value={words.sent_to} problem={problem?.sent_to} />
  {#if words.sent || words.sent_to || words.sent_on}
    <Field
      label="Sent on"
      type="date"
      bind:value={() => words.sent_on || house.today, (v) => (words.sent_on = v)}
      problem={problem?.sent_on}
    />
  {/if}
  <div>
    <Field label="Answer expected by" type="date" bind:value={words.answer_by} problem={problem?.answer_by} />
    {#if !words.answer_by}<button
        type="button"
        class="min-h-11 text-sm text-moss underline"
        onclick={() => (words.answer_by = plusDays(house.today, 14))}>In a fortnight</button
      >{/if}
  </div>
</div>
{#if answer}<Field label="What came back" bind:value={words.answer} problem={problem?.answer} />{/if}
