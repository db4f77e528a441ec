<script lang="ts">
  /** What the firm finds, against what the book lets expect, and what looks after treatments found. */
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { capital } from '../lib/words';
  import { rungs } from '../treat/treat';
  import Doubt from '../lib/Doubt.svelte';

  let told = $state.raw<Schemas['CausesTold']>();
  const reads = reading();
  $effect(() => {
    void reads(async (signal) => {
      told = await ask(api.GET('/api/v1/found-causes', { signal }));
    });
  });
  const put = async (on: boolean) => {
    told = await ask(api.PUT('/api/v1/found-causes', { params: { header: onceKey() }, body: { on } }));
  };
  async function use(on: boolean) {
    await attempt(async () => {
      await put(on);
      house.say(on ? 'Your finds count from now on.' : 'Your finds do not count any more.', () => put(!on));
    });
  }
  // On a scale from a fourth to four times as often.
  const x = (times: number) => (Math.log2(Math.max(times, 0.01)) + 2) / 4;
  const says = (c: Schemas['CauseOften']) =>
    c.beyond ? `${c.times.toPrecision(2)} times as often` : 'as often as expected, as far as is known';
</script>

{#if told && (told.causes.length || told.helped.length)}
  <section class="mt-8 max-w-4xl" aria-label="What you find, and what helped">
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h2 class="flex-1">What you find, and what helped</h2>
      {#if told.causes.length}<button class="min-h-11 text-moss underline" onclick={() => use(!told!.on)}
          >{told.on ? 'Go by the book alone' : 'Count what you find'}</button
        >{/if}
    </div>
    {#if told.causes.length}
      <p class="text-sm text-soft">
        From {told.finds} finds. Expected is how often the book lets you meet a cause on the same plants in the same months. {told.on
          ? 'A cause you clearly find more often is named sooner; one that kills is never taken for rarer.'
          : 'Not used: causes are named by the book alone.'}
      </p>
      <div class="overflow-x-auto">
        <table class="mt-2 w-full text-sm tabular-nums sm:min-w-[40rem]">
          <thead
            ><tr class="border-b border-ink"
              ><th class="text-left">Cause</th><th class="text-right">Found</th><th class="text-right">Expected</th><th
                class="w-64 pl-6 max-sm:w-36 max-sm:pl-3"
                ><span class="flex max-w-[220px] justify-between font-normal"
                  ><span>¼</span><span>1</span><span>4 times</span></span
                ></th
              ><th class="pl-4 text-left">Against the book</th></tr
            ></thead
          >
          <tbody>
            {#each told.causes.slice(0, 12) as c (c.cause)}
              <tr class="border-b border-rule {told.on ? '' : 'text-soft'}">
                <td class="py-1.5"><a class="underline" href="#/almanac/cause/{c.cause}">{c.name}</a></td>
                <td class="text-right">{c.found}</td>
                <td class="text-right">{c.expected.toFixed(1)}</td>
                <td class="pl-6 max-sm:pl-3"><Doubt at={x(c.times)} low={x(c.low)} high={x(c.high)} mark={0.5} /></td>
                <td class="pl-4 {c.beyond ? 'font-semibold' : ''}">{says(c)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
    {#if told.helped.length}
      <div class="overflow-x-auto">
        <table class="mt-4 w-full max-w-2xl text-sm tabular-nums">
          <thead
            ><tr class="border-b border-ink"
              ><th class="text-left">Looked at again</th><th class="text-left">What was done</th><th class="text-right">Gone</th
              ><th class="text-right">Less</th><th class="text-right">The same</th></tr
            ></thead
          >
          <tbody>
            {#each told.helped as h, i (h.cause + h.rung)}
              <tr class="border-b border-rule">
                <td class="py-1.5">{told.helped[i - 1]?.cause === h.cause ? '' : h.name}</td>
                <td>{capital(rungs[h.rung] ?? 'no treatment recorded')}</td>
                <td class="text-right">{h.gone}</td>
                <td class="text-right">{h.less}</td>
                <td class="text-right">{h.same}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      <p class="mt-1 text-sm text-soft">
        Counts, no proof: much goes by itself, and the strongest means are used where it is worst.
      </p>
    {/if}
  </section>
{/if}
