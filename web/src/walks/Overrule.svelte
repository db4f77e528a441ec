<script lang="ts">
  /** Another verdict than the one that was worked out, and why. */
  import { Button, Modal, Textarea } from 'flowbite-svelte';
  import type { Plant } from '../api/client';
  import { inWords, plusDays } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import type { Decision } from './decision.svelte';

  let { open = $bindable(), plant, decision }: { open: boolean; plant: Plant; decision: Decision } = $props();
  const blank = () => ({ kind: 'wait until', cut: '', note: '', until: '' });
  let over = $state(blank());
  let of = 0; // the plant it was begun for: what was typed stays until it is kept
  $effect(() => {
    if (!open || of === plant.id) return;
    of = plant.id;
    over = blank();
  });
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
  ].map((k): [string, string] => [k, k]);
</script>

<Modal bind:open title="Overrule the verdict" size="sm">
  <form
    class="space-y-3 text-ink"
    onsubmit={(e) => {
      e.preventDefault();
      void decision.decide('overruled', over.kind, over).then((kept) => kept && ((open = false), (of = 0)));
    }}
  >
    <Pick label="Your verdict" bind:value={over.kind} options={kinds} />
    {#if over.kind === 'wait until'}
      <Field
        label="Until (the day leaf is due, unless you say another)"
        type="date"
        bind:value={over.until}
        problem={decision.problem?.fields.until}
      />
      {#if over.until && over.until <= house.today}<p class="text-bad">
          {inWords(over.until)} is past: from {inWords(plusDays(house.today, 1))} on.
        </p>{/if}
    {/if}
    {#if over.kind === 'tip back' || over.kind === 'cut back to live wood'}
      <Field label="Cut at" kind="length" bind:value={over.cut} problem={decision.problem?.fields.cut_m} />
    {/if}
    <label class="block font-semibold">Why<Textarea class="mt-1 w-full bg-white" rows={3} bind:value={over.note} /></label>
    {#if decision.problem?.fields.note}<p class="text-bad">{decision.problem.fields.note}</p>{/if}
    <div class="flex gap-2">
      <Button type="submit">Keep my verdict</Button><Button color="light" onclick={() => (open = false)}>Back</Button>
    </div>
  </form>
</Modal>
