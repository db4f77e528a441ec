<script lang="ts">
  /** The columns of a weather file told by hand: each with its first figures, and what it holds. Kept for the next file like it. */
  import { Button } from 'flowbite-svelte';
  import type { Schemas } from '../api/client';
  import Pick from '../lib/Pick.svelte';

  type Asked = Schemas['WeatherColumns'];
  interface Props {
    name: string;
    asked: Asked;
    why: string; // it could not be read by itself
    ontold: (told: Asked) => void;
    onclose: () => void;
  }
  let { name, asked, why, ontold, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally -- asked of one file: another one is another slip
  let columns = $state([...asked.columns]);
  // svelte-ignore state_referenced_locally
  let zone = $state(asked.zone);
  const holds: [string, string][] = [
    ['-', 'nothing we keep'],
    ['when', 'date, time, or both'],
    ['temp_c', 'temperature, °C'],
    ['temp_f', 'temperature, °F'],
    ['low_c', 'lowest of the day, °C'],
    ['low_f', 'lowest of the day, °F'],
    ['high_c', 'highest of the day, °C'],
    ['high_f', 'highest of the day, °F'],
    ['rain_mm', 'rain, mm'],
    ['rain_cm', 'rain, cm'],
    ['rain_in', 'rain, in'],
    ['wind_ms', 'wind, m/s'],
    ['wind_kmh', 'wind, km/h'],
    ['wind_mph', 'wind, mph'],
    ['wind_kn', 'wind, knots'],
    ['rh_pct', 'humidity, %'],
  ];
  const template = 'time,temp_c,wind_ms,rain_mm,rh_pct\n2027-02-27T05:00:00Z,-5.2,1.4,0,80\n2027-02-27T06:00:00Z,-5.6,1.1,0,82\n';
  const has = (...any: string[]) => any.some((c) => columns.includes(c));
  const missing = $derived(
    !has('when')
      ? 'Which column holds the date and time?'
      : !has('temp_c', 'temp_f') && !(has('low_c', 'low_f') && has('high_c', 'high_f'))
        ? 'Which column holds the temperature, or which two the lowest and the highest of each day?'
        : '',
  );
</script>

<form
  class="my-2 border border-ink bg-white p-3"
  aria-label="Columns of the weather file"
  onsubmit={(e) => {
    e.preventDefault();
    if (!missing) ontold({ ...asked, columns, zone: zone as Asked['zone'] });
  }}
>
  <p>
    <b>What do the columns of {name} hold?</b>
    {why || 'Their names do not say it. Nothing is taken yet.'} What is told here is known of the next file with these columns.
    <a class="underline" download="weather template.csv" href="data:text/csv,{encodeURIComponent(template)}"
      >A template that is always understood</a
    >
  </p>
  <ul class="mt-2">
    {#each asked.names as n, i}
      <li class="grid items-center gap-x-4 border-t border-rule py-2 sm:grid-cols-[18rem_minmax(0,1fr)]">
        <Pick label={n || `Column ${i + 1}`} bind:value={columns[i]!} options={holds} />
        <span class="min-w-0 truncate text-sm text-soft sm:pt-6"
          >{asked.samples.map((row) => row[i]?.trim() || '–').join(' · ')}</span
        >
      </li>
    {/each}
  </ul>
  <Pick
    class="mt-1 max-w-xs"
    label="Its times are by"
    bind:value={zone}
    options={[
      ['garden', 'the clock of the garden'],
      ['UTC', 'world time (UTC)'],
    ] as ['garden' | 'UTC', string][]}
  />
  <div class="mt-3 flex flex-wrap items-center gap-2">
    <Button type="submit" disabled={!!missing}>Import the weather</Button>
    <Button color="light" onclick={onclose}>Import nothing</Button>
    {#if missing}<span class="text-sm" role="status">{missing}</span>{/if}
  </div>
</form>
