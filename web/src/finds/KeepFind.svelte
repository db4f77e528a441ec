<script lang="ts">
  import { small } from '../lib/words';
  /** Keeps what was found: on the plant, with what was seen. Without a connection it waits on this device. */
  import { Button } from 'flowbite-svelte';
  import type { Problem } from '../api/client';
  import { finds, type Find, type FindIn } from '../field/finds.svelte';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import { type Case } from './case.svelte';
  import { removeFind } from './finds';

  interface Props {
    kase: Case;
    at: { plant_id?: number; property_id?: number; species?: string };
    how: 'look' | 'walk' | 'call';
    names?: Record<string, string>; // of signs
    onkept?: (f: Find | undefined, more: boolean) => void; // more: something else of this look is likely and not kept
    keeps?: string; // what one press keeps, in words; empty while there is nothing to keep
  }
  let { kase, at, how, names = {}, onkept, keeps = $bindable('') }: Props = $props();

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
  // What else one sees in the same look is kept with it: what is likely as well is ticked.
  let ticked = $state<Record<string, boolean>>({}); // by hand
  const others = $derived(causes.filter((c) => c.id !== cause?.id && !done.includes(c.id) && c.chance >= 0.1).slice(0, 4));
  const also = $derived(others.filter((c) => ticked[c.id] ?? c.chance >= 0.5));
  const named = $derived([cause, ...also].flatMap((c) => (c ? [small(c.name)] : [])));
  $effect(() => {
    keeps = named.join('; ');
  });
  const certainty = $derived(sure || (byHand ? 0.95 : (cause?.chance ?? 0)));

  /** Keeps what is chosen and ticked: each as a find of its own. */
  export async function keep() {
    if (!cause || busy) return;
    busy = true;
    const all = [{ ...cause, sure: certainty }, ...also.map((c) => ({ ...c, sure: c.chance }))];
    const said = note;
    let first: Find | undefined;
    const kept: Find[] = [];
    problem = await attempt(async () => {
      for (const [i, c] of all.entries()) {
        const words_ = kase.told.length ? `${said}\nTold by the client, not looked at: ${told}.`.trim() : said;
        const body: FindIn = {
          ...at,
          cause: c.id,
          certainty: c.sure,
          share: kase.share,
          ...kase.looked(),
          how,
          note: i ? '' : words_,
        };
        const f = await finds.keep(body, c.name);
        if (f) kept.push(f);
        first ??= f;
        done = [...done, c.id];
      }
      note = '';
      chosen = '';
      sure = 0;
      const words = all.map((c, i) => (i ? small(c.name) : c.name)).join('; ');
      if (kept.length)
        house.say(`${words}: saved.`, async () => {
          for (const f of kept) await removeFind(f);
          done = done.filter((id) => !all.some((c) => c.id === id));
          onkept?.(undefined, true);
        });
      else house.say(`${words}: kept on this device, and sent when the house can be reached.`);
      onkept?.(
        first,
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
    {#if others.length}
      <div role="group" aria-label="Also there">
        <p class="text-sm font-semibold">Also there</p>
        {#each others as c (c.id)}<Tickbox
            checked={ticked[c.id] ?? c.chance >= 0.5}
            onpick={(on) => (ticked = { ...ticked, [c.id]: on })}
            >{c.name} <span class="text-sm text-soft">{Math.round(100 * c.chance)} %</span></Tickbox
          >{/each}
      </div>
    {/if}
    <Field label="Note" bind:value={note} problem={problem?.fields.note} />
    <Button type="submit" disabled={busy}>Keep: {keeps}</Button>
    {#if kase.told.length}<p class="text-sm text-soft">
        Told and not looked at yet: {told}. It is kept as told, not as seen.
      </p>{/if}
    {#if cause.harm === 'harmless'}<p class="text-sm text-soft">Harmless: keeping it makes no job.</p>{/if}
  </form>
{/if}
