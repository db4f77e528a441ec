<script lang="ts">
  /** What decides how much is done: how much shows it, on how many, whether hunters are there, when it is picked. */
  import { Button } from 'flowbite-svelte';
  import type { Problem } from '../api/client';
  import { changeFind, type FindChange } from '../finds/finds';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import type { Treatment } from './treat';
  import { bare } from '../lib/units';

  let { t, onkept }: { t: Treatment; onkept: () => void } = $props();
  const helper = 'helpers_larvae';
  const start = (f: Treatment['find']) => ({
    share: f.share ? String(Math.round(100 * f.share)) : '',
    affected: f.affected ? String(f.affected) : '',
    harvest: f.harvest ?? '',
    bed: f.bed_m2 ? String(f.bed_m2) : '',
    helpers: f.seen?.some((s) => s === helper || s === 'mummies') ?? false,
  });
  // svelte-ignore state_referenced_locally -- the form starts from the find and then is the user's
  let f = $state(start(t.find));
  let problem = $state<Problem>();
  const number = (s: string) => bare(s) || 0;
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    const before = t.find;
    problem = await attempt(async () => {
      const seen = before.seen.filter((s) => s !== helper && s !== 'mummies');
      const kept = f.helpers ? [...new Set([...before.seen, ...(start(before).helpers ? [] : [helper])])] : seen;
      const change: Partial<FindChange> = {
        share: number(f.share) / 100,
        affected: number(f.affected),
        seen: kept,
        bed_m2: number(f.bed),
      };
      change.not_seen = before.not_seen.filter((s) => !kept.includes(s));
      change.harvest = f.harvest || undefined;
      await changeFind(before, change);
      house.say('Saved: the treatment follows.');
      onkept();
    });
  }
</script>

<form class="border border-rule bg-white px-3 py-2" onsubmit={keep} aria-label="How bad it is">
  <h2>How bad it is</h2>
  <div class="grid grid-cols-2 gap-3">
    <Field label="Shows it, %" mode="numeric" bind:value={f.share} placeholder="nobody said" problem={problem?.fields.share} />
    {#if t.count > 1}<Field
        label="On how many of {t.count}"
        mode="numeric"
        bind:value={f.affected}
        placeholder="all"
        problem={problem?.fields.affected}
      />{/if}
    {#if t.answer.steps?.some((s) => s.amount?.area_m2)}<Field
        label="Area of the bed"
        kind="area"
        bind:value={f.bed}
        placeholder="below the crowns"
        problem={problem?.fields.bed_m2}
      />{/if}
    {#if t.edible}<Field label="Next picked on" type="date" bind:value={f.harvest} problem={problem?.fields.harvest} />{/if}
  </div>
  <Tickbox bind:checked={f.helpers} label="Hunters or parasitised ones are seen" />
  <Button type="submit" size="sm" color="light">Work it out again</Button>
</form>
