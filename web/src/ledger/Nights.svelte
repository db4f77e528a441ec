<script lang="ts">
  /** How well the station told the nights ahead, by how many days before. */
  import { api, ask, type Schemas } from '../api/client';
  import { house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { apart } from '../lib/units';

  let told = $state.raw<Schemas['NightsTold']>();
  const reads = reading();
  $effect(() => {
    void reads(async (signal) => {
      told = await ask(api.GET('/api/v1/nights-told', { signal }));
    });
  });
  const ahead = (s: { from: number; to: number }) =>
    s.from === s.to ? (s.from === 1 ? 'The day before' : `${s.from} days before`) : `${s.from} to ${s.to} days before`;
  const leans = (c: number) => (Math.abs(c) < 0.3 ? '' : c > 0 ? `, ${apart(c)} too warm` : `, ${apart(-c)} too cold`);
</script>

{#if told?.scores.length}
  <section class="mt-8 max-w-4xl" aria-label="Nights foretold">
    <h2>Nights foretold, and what came</h2>
    <p class="text-sm text-soft">
      What your station told of the lowest temperatures of the last {told.days} days.{house.frame?.firm.sample
        ? ' The sample’s station is simulated, and errs as real ones do.'
        : ''}
    </p>
    <div class="overflow-x-auto">
      <table class="mt-2 w-full text-sm tabular-nums sm:min-w-[40rem]">
        <thead
          ><tr class="border-b border-ink"
            ><th class="text-left">Told</th><th class="text-right">Nights</th><th class="pl-6 text-left">Off by</th><th
              class="text-right">Frosts told that came</th
            ><th class="text-right">Told, did not come</th><th class="text-right">Came untold</th></tr
          ></thead
        >
        <tbody>
          {#each told.scores as s (s.from)}
            <tr class="border-b border-rule">
              <td class="py-1.5">{ahead(s)}</td>
              <td class="text-right">{s.nights}</td>
              <td class="pl-6">{apart(s.off_c)}<span class="text-soft">{leans(s.bias_c)}</span></td>
              <td class="text-right">{s.hit}</td>
              <td class="text-right">{s.false_alarms}</td>
              <td class="text-right {s.missed ? 'font-semibold text-sun' : ''}">{s.missed}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  </section>
{/if}
