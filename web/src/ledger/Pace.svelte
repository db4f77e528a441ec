<script lang="ts">
  /** How long work takes the firm against what is reckoned, as its own record has it; used until that is switched off. */
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Doubt from '../lib/Doubt.svelte';
  import { capital } from '../lib/words';

  type Factor = Schemas['PaceTold']['kinds'][number];
  let pace = $state.raw<Schemas['PaceTold']>();
  const reads = reading();
  $effect(() => {
    void reads(async (signal) => {
      pace = await ask(api.GET('/api/v1/pace', { signal }));
    });
  });
  async function use(on: boolean) {
    await attempt(async () => {
      pace = await ask(api.PUT('/api/v1/pace', { params: { header: onceKey() }, body: { on } }));
      house.say(
        on ? 'Rounds and estimates go by your own pace.' : 'Rounds and estimates go by the times as reckoned.',
        async () => {
          pace = await ask(api.PUT('/api/v1/pace', { params: { header: onceKey() }, body: { on: !on } }));
        },
      );
    });
  }
  const times = (v: number) => `${v.toFixed(2)}\u00a0×`;
  const says = (f: Factor) => (f.low > 1 ? 'longer' : f.high < 1 ? 'quicker' : 'as reckoned, as far as is known');
  // On a scale from half as long to twice as long, each doubling as wide as the next.
  const x = (v: number) => (Math.log2(Math.max(0.01, v)) + 1) / 2;
  const groups = $derived(
    pace
      ? ([
          ['Kind of work', pace.kinds],
          ['Crew, against the others', pace.crews.filter((f) => f.name)],
          ['Size of the job, against the others', pace.sizes],
        ] as [string, Factor[]][])
      : [],
  );
  const called = (f: Factor) =>
    f.name === 'short' ? 'Short: up to 30 min' : f.name === 'long' ? 'Long: over 2 h' : capital(f.name ?? '');
</script>

{#if pace}
  <section class="mt-8 max-w-4xl" aria-label="Our pace">
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h2 class="flex-1">Our pace</h2>
      {#if pace.known}<button class="min-h-11 text-moss underline" onclick={() => use(!pace!.on)}
          >{pace.on ? 'Go by the times as reckoned' : 'Go by our pace'}</button
        >{/if}
    </div>
    {#if !pace.known}
      <p class="text-soft">
        Not known yet. Note the minutes when you tick jobs off: from eight on, rounds and estimates go by your own pace. {pace.jobs
          ? `${pace.jobs} so far.`
          : ''}
      </p>
    {:else}
      <p class="text-sm text-soft">
        Drawn from {pace.jobs} jobs whose minutes were noted. {pace.on
          ? 'Rounds and estimates go by it where it differs beyond doubt.'
          : 'Not used: rounds and estimates go by the times as reckoned.'}
      </p>
      <div class="overflow-x-auto">
        <table class="mt-2 w-full text-sm sm:min-w-[40rem]">
          {#each groups as [title, list]}
            {#if list.length}
              <thead
                ><tr class="border-b border-ink text-left"
                  ><th class="pt-3">{title}</th><th class="pt-3 text-right">Jobs</th><th class="pt-3 text-right">Takes</th><th
                    class="w-64 pt-3 pl-6 max-sm:w-36 max-sm:pl-3"
                    ><span class="flex max-w-[220px] justify-between font-normal"
                      ><span>half</span><span class="max-sm:hidden">as reckoned</span><span>twice</span></span
                    ></th
                  ><th class="pt-3 max-sm:hidden"><span class="sr-only">In words</span></th></tr
                ></thead
              >
              <tbody>
                {#each list as f (f.name)}
                  <tr class="border-b border-rule">
                    <td class="py-1.5">{called(f)}</td>
                    <td class="text-right tabular-nums">{f.jobs}</td>
                    <td class="text-right font-semibold tabular-nums">{times(f.times)}</td>
                    <td class="pl-6 max-sm:pl-3"><Doubt at={x(f.times)} low={x(f.low)} high={x(f.high)} mark={x(1)} /></td>
                    <td class="pl-4 text-soft max-sm:hidden"
                      >{says(f)}<span class="sr-only">, {times(f.low)} to {times(f.high)}</span></td
                    >
                  </tr>
                {/each}
              </tbody>
            {/if}
          {/each}
        </table>
      </div>
      <p class="mt-1 text-sm text-soft">
        The bar is where the truth lies in 19 of 20 cases. A single job differs from it by about {Math.round(
          100 * (pace.kinds[0]?.spread ?? 0),
        )} % either way.
      </p>
    {/if}
  </section>
{/if}
