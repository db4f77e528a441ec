<script lang="ts">
  /** A place measured on site from two known corners: so far from one, so far from the other. */
  import { api, ask, type Problem, type Schemas } from '../api/client';
  import { attempt } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import Measure from './Measure.svelte';
  import { kinds, type At, type Thing } from './plan';

  interface Props {
    plan: Schemas['SitePlan'];
    onplace: (q: At) => void; // where it stands
  }
  let { plan, onplace }: Props = $props();
  /** Corners one can find again on site. */
  const corners = $derived(
    plan.things
      .filter((t: Thing) => ['building', 'wall', 'fence', 'gate', 'door', 'ground', 'tree'].includes(t.kind))
      .flatMap((t: Thing) =>
        t.points.map((q, i): [string, string] => [
          `${q.x} ${q.y}`,
          `${t.name || kinds[t.kind].name}${(t.points?.length ?? 0) > 1 ? `, corner ${i + 1}` : ''}`,
        ]),
      )
      .filter(([at], i, all) => all.findIndex(([other]) => other === at) === i), // two things may share a corner
  );
  let a = $state('');
  let b = $state('');
  let fromA = $state(0);
  let fromB = $state(0);
  let side = $state('right');
  let problem = $state.raw<Problem>();
  const at = (text: string): At => ({ x: Number(text.split(' ')[0]), y: Number(text.split(' ')[1]) });
  async function place() {
    problem = await attempt(async () => {
      const o = await ask(
        api.POST('/api/v1/reckon/site', {
          body: { plan, paced: { a: at(a), b: at(b), from_a: fromA, from_b: fromB, left: side === 'left' } },
        }),
      );
      if (o.paced) onplace(o.paced);
    });
  }
</script>

<details class="border border-rule bg-white px-3 py-1">
  <summary class="min-h-11 py-2 font-semibold">Measured from two corners</summary>
  {#if corners.length < 2}<p class="pb-2 text-sm text-soft">Draw a house or a wall first: its corners are measured from.</p>
  {:else}
    <div class="space-y-2 pb-2">
      <div class="grid grid-cols-[1fr_6rem] items-end gap-2">
        <Pick label="From" bind:value={a} off="Pick a corner" options={corners} />
        <Measure label="It is" value={fromA || undefined} onset={(v) => (fromA = v)} />
        <Pick label="and from" bind:value={b} off="Pick a corner" options={corners} />
        <Measure label="it is" value={fromB || undefined} onset={(v) => (fromB = v)} />
      </div>
      <Pick
        label="Going from the first to the second it lies on the"
        bind:value={side}
        options={[
          ['left', 'left'],
          ['right', 'right'],
        ]}
      />
      {#if problem}<p role="alert" class="border-l-4 border-bad pl-2 text-sm">{problem.message}</p>{/if}
      <button
        class="min-h-11 rounded-sm border border-ink bg-white px-3 font-semibold disabled:opacity-50"
        disabled={!a || !b || !fromA || !fromB}
        onclick={place}>Pick it there</button
      >
    </div>
  {/if}
</details>
