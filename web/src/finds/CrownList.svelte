<script lang="ts">
  /** The counts of a plant's crown: each beside the one before it from the same side. */
  import { Button } from 'flowbite-svelte';
  import { counts, countsOf, type Counted } from '../field/counts.svelte';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Doubt from '../lib/Doubt.svelte';
  import CrownCount from './CrownCount.svelte';
  import { removeCount, restoreCount, sides } from './crown';

  let { plant }: { plant: { id: number; common: string } } = $props();
  let list = $state.raw<Counted[]>([]);
  let counting = $state(false);
  const reads = reading();
  const fetch = () => reads(async (signal) => void (list = await countsOf(plant.id, signal)));
  $effect(() => {
    void [plant.id, counts.waiting.length, counting];
    void fetch();
  });
  const from = Object.fromEntries(sides);
  const change = (c: Counted) =>
    !c.since
      ? ''
      : c.change
        ? `${c.change === 'more' ? 'more' : 'less'} than ${Math.round(100 * (c.before ?? 0))} % on ${inWords(c.since)}`
        : `as on ${inWords(c.since)} (${Math.round(100 * (c.before ?? 0))} %), as far as the points tell`;
  async function remove(c: Counted) {
    await attempt(async () => {
      await removeCount(c.id);
      await fetch();
      house.say('Crown count removed.', async () => {
        await restoreCount(c.id);
        await fetch();
      });
    });
  }
</script>

<section class="mt-5" aria-label="Crown counted">
  <div class="flex flex-wrap items-baseline gap-x-4">
    <h2 class="flex-1">Crown counted</h2>
    <Button color="light" size="sm" class="min-h-11" onclick={() => (counting = true)}>Count the crown</Button>
  </div>
  {#each counts.of(plant.id) as w (w.key)}<p class="text-sm text-sun">
      {w.refused ? `Not taken: ${w.refused}` : 'A count waits to be sent.'}
      {#if w.refused}<button class="min-h-11 text-moss underline" onclick={() => counts.drop(w.key)}>Drop it</button>{/if}
    </p>{/each}
  {#if list.length}
    <table class="mt-1 w-full text-sm tabular-nums">
      <thead
        ><tr class="border-b border-ink"
          ><th class="text-left">Day</th><th class="text-left">From</th><th class="text-right">Brown or bare</th><th
            class="w-40 pl-4 max-sm:hidden"><span class="sr-only">Interval</span></th
          ><th class="pl-4 text-left">Against the time before</th><th><span class="sr-only">Remove</span></th></tr
        ></thead
      >
      <tbody>
        {#each list as c (c.id)}
          <tr class="border-b border-rule">
            <td class="py-1">{inWords(c.day)}</td>
            <td>{c.side ? from[c.side] : ''}</td>
            <td class="text-right"
              ><b>{Math.round(100 * c.share)} %</b>
              <span class="text-soft">{Math.round(100 * c.low)} to {Math.round(100 * c.high)}</span></td
            >
            <td class="pl-4 max-sm:hidden"
              ><Doubt at={c.share} low={c.low} high={c.high} mark={c.since ? (c.before ?? 0) : -1} /></td
            >
            <td class="pl-4 {c.change === 'more' ? 'font-semibold text-bad' : ''}">{change(c)}</td>
            <td class="text-right"
              ><button class="min-h-11 text-moss underline" onclick={() => remove(c)}
                >Remove<span class="sr-only"> the count of {inWords(c.day)}</span></button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="text-sm text-soft">
      Estimates from points on a picture: 4 times in 5, or 19 in 20 where every point was looked at.
    </p>
  {/if}
</section>
{#if counting}<CrownCount bind:open={counting} {plant} />{/if}
