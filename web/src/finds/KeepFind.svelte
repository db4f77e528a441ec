<script lang="ts">
  import { small } from '../lib/words';
  /** Keeps what was found: on the plant, with what was seen. Without a connection it waits on this device. */
  import { Button } from 'flowbite-svelte';
  import type { Problem } from '../api/client';
  import { finds, type Find, type FindIn } from '../field/finds.svelte';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import { type Case } from './case.svelte';
  import { removeFind } from './finds';

  interface Props {
    kase: Case;
    at: { plant_id?: number; property_id?: number; species?: string };
    how: 'look' | 'walk' | 'call';
    names?: Record<string, string>; // of signs
    onkept?: (f: Find | undefined, more: boolean) => void; // more: something else of this look is likely and not kept
  }
  let { kase, at, how, names = {}, onkept }: Props = $props();

  const causes = $derived((kase.answer?.causes ?? []).filter((c, i) => i === 0 || c.chance >= 0.01));
  let chosen = $state('');
  let sure = $state(0); // 0: as reckoned, or, where another cause was picked by hand, sure
  let note = $state('');
  let busy = $state(false);
  let problem = $state<Problem>();
  let done = $state<string[]>([]); // kept of this look
  // Several may be there: what is likely and not kept yet comes next.
  const next = $derived(causes.find((c, i) => !done.includes(c.id) && (i === 0 || c.chance >= 0.5)));
  const cause = $derived(causes.find((c) => c.id === chosen) ?? next ?? causes[0]);
  const told = $derived(kase.told.map((id) => small(names[id] ?? id)).join(', '));
  const byHand = $derived(!!cause && cause.id !== causes[0]?.id && cause.chance < 0.5);
  const certainty = $derived(sure || (byHand ? 0.95 : (cause?.chance ?? 0)));

  async function keep() {
    const c = cause;
    if (!c || busy) return;
    busy = true;
    problem = await attempt(async () => {
      const body: FindIn = {
        ...at,
        cause: c.id,
        certainty: certainty,
        share: kase.share,
        ...kase.looked(),
        how,
        note: kase.told.length ? `${note}\nTold by the client, not looked at: ${told}.`.trim() : note,
      };
      const kept = await finds.keep(body, c.name);
      note = '';
      done = [...done, c.id];
      chosen = '';
      sure = 0;
      if (kept)
        house.say(`${c.name}: kept.`, async () => {
          await removeFind(kept);
          done = done.filter((id) => id !== c.id);
          onkept?.(undefined, true);
        });
      else house.say(`${c.name}: kept on this device, and sent when the house can be reached.`);
      onkept?.(
        kept,
        causes.some((x) => x.chance >= 0.5 && !done.includes(x.id)),
      );
    });
    busy = false;
  }
</script>

{#if cause}
  <form
    class="mt-3 space-y-2 border-t border-rule pt-3"
    aria-label="Keep what was found"
    onsubmit={(e) => {
      e.preventDefault();
      void keep();
    }}
  >
    <Pick
      label="Keep as"
      value={cause.id}
      onpick={(v) => (chosen = v)}
      options={causes.map((c): [string, string] => [c.id, c.name])}
    />
    <Pick
      label="How sure"
      value={certainty}
      onpick={(v) => (sure = v)}
      options={[
        ...(byHand ? [] : ([[cause.chance, `as reckoned, ${Math.round(100 * cause.chance)} %`]] as [number, string][])),
        [0.95, 'sure'],
        [0.5, 'a guess'],
      ]}
    />
    <Field label="Note" bind:value={note} problem={problem?.fields.note} />
    <Button type="submit" disabled={busy}>Keep: {small(cause.name)}</Button>
    {#if kase.told.length}<p class="text-sm text-soft">
        Told and not looked at yet: {told}. It is kept as told, not as seen.
      </p>{/if}
    {#if cause.harm === 'harmless'}<p class="text-sm text-soft">Harmless: keeping it makes no job.</p>{/if}
  </form>
{/if}
