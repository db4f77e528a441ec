<script lang="ts">
  /** A line of an estimate: to be changed part by part, or to be answered by what the client told. */
  import { inWords } from '../lib/dates';
  import MoneyField from './MoneyField.svelte';
  import { amount, range, sumOf, type Line } from './money';

  interface Props {
    line: Line;
    changing: boolean;
    answers: boolean; // what the client told can be entered
    currency: string;
    digits: number;
    problems: Record<string, string>;
    at: string; // its place among the fields
    onout: () => void;
    onanswer: (yes: boolean, name: string, remark: string) => void;
  }
  let { line = $bindable(), changing, answers, currency, digits, problems, at, onout, onanswer }: Props = $props();
  let telling = $state(false);
  let name = $state('');
  let remark = $state('');
  function price(k: number, v: number) {
    const p = line.parts[k]!;
    line.parts[k] = {
      ...p,
      from: v,
      amount: v,
      to: v,
      by_hand: true,
      unpriced: false,
      of: p.what === 'free' ? '' : 'as entered',
    };
    Object.assign(line, sumOf(line.parts));
  }
  function out(k: number) {
    line.parts.splice(k, 1);
    Object.assign(line, sumOf(line.parts));
  }
  function say(yes: boolean) {
    telling = false;
    onanswer(yes, name, remark);
  }
  const field = 'min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2';
</script>

<div class="flex flex-wrap items-baseline gap-x-4">
  {#if changing}
    <label class="min-w-60 flex-1"
      ><span class="sr-only">What it is for</span><input class="{field} font-semibold" bind:value={line.title} /></label
    >
  {:else}<b class="min-w-60 flex-1">{line.title}</b>{/if}
  <span class="font-semibold tabular-nums">{range(line, currency, digits)}</span>
  {#if changing}<button class="min-h-11 text-moss underline" onclick={onout}
      >Take out<span class="sr-only">: {line.title}</span></button
    >{/if}
</div>
{#if problems[`${at}title`]}<p class="text-sm text-bad">{problems[`${at}title`]}</p>{/if}
{#if line.plant}<p class="text-soft">{line.plant}</p>{/if}
<ul class="text-sm">
  {#each line.parts as p, k (k)}
    <li class="flex flex-wrap items-center gap-x-3">
      <span class="min-w-48 flex-1">{p.text}{p.of ? `, ${p.of}` : ''}</span>
      {#if changing}
        {#if p.from !== p.to}<span class="text-soft tabular-nums">{range(p, currency, digits)}</span>{/if}
        <MoneyField
          class="w-28"
          quiet
          label="{p.text}: amount"
          value={p.amount}
          {currency}
          {digits}
          problem={problems[`${at}parts[${k}].amount`] ?? (p.unpriced ? 'no price yet' : undefined)}
          onset={(v) => price(k, v)}
        />
        <button class="min-h-11 text-moss underline" onclick={() => out(k)}>Out<span class="sr-only">: {p.text}</span></button>
      {:else}<span class="text-soft tabular-nums">{line.parts.length > 1 ? range(p, currency, digits) : ''}</span>{/if}
    </li>
  {/each}
</ul>
{#if line.waits && !line.answer?.yes}<p class="text-sm text-soft">{line.waits}</p>{/if}
{#if changing}<label class="mt-1 block text-sm"
    ><span class="font-semibold">To the client</span><input
      class={field}
      bind:value={() => line.note ?? '', (v) => (line.note = v)}
    /></label
  >{:else if line.note}<p class="text-sm">{line.note}</p>{/if}
{#if line.answer}
  <p class="text-sm font-semibold {line.answer.yes ? 'text-moss' : 'text-bad'}">
    {line.answer.yes ? 'Agreed' : 'Declined'} by {line.answer.name}, {inWords(line.answer.on)}{line.answer.way === 'told'
      ? ', told us'
      : ''}, at {amount(line.answer.said.amount, currency, digits)}{line.answer.remark ? `: ${line.answer.remark}` : ''}
  </p>
{/if}
{#if answers}
  {#if telling}
    <div class="mt-1 flex flex-wrap items-end gap-2 text-sm">
      <label class="min-w-40 flex-1"
        ><span class="font-semibold">Who said it</span><input class={field} bind:value={name} /></label
      >
      <label class="min-w-40 flex-1"><span class="font-semibold">Remark</span><input class={field} bind:value={remark} /></label>
      <button class="min-h-11 border border-moss px-3" disabled={!name.trim()} onclick={() => say(true)}>Agreed</button>
      <button class="min-h-11 border border-rule px-3" disabled={!name.trim()} onclick={() => say(false)}>Declined</button>
      <button class="min-h-11 text-moss underline" onclick={() => (telling = false)}>Back</button>
    </div>
  {:else}<button class="min-h-11 text-sm text-moss underline" onclick={() => (telling = true)}
      >They told us<span class="sr-only"> about {line.title}</span></button
    >{/if}
{/if}
