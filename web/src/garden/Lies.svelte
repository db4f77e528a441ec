<script lang="ts">
  /** The country and, where rules tell them apart, the state in which a property lies. */
  import { onMount } from 'svelte';
  import { api, ask, type Schemas } from '../api/client';
  import { attempt } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import { countryName } from './regions';

  interface Props {
    region: string; // as entered: "AU-VIC"; empty: by the clock
    lies?: string; // the country of its clock, where that is known
    problem?: string;
  }
  let { region = $bindable(), lies, problem }: Props = $props();
  let known = $state.raw<Schemas['Regions']>();
  onMount(() => void attempt(async () => void (known = await ask(api.GET('/api/v1/regions')))));

  const country = $derived(region.slice(0, 2));
  const of = $derived(country || lies?.slice(0, 2) || '');
  const states = $derived(Object.entries(known?.states[of] ?? {}).sort(([, a], [, b]) => a.localeCompare(b)));
  const countries = $derived(
    (known?.countries ?? []).map((c): [string, string] => [c, countryName(c)]).sort(([, a], [, b]) => a.localeCompare(b)),
  );
</script>

<Pick
  class="sm:col-span-3"
  label="Country"
  value={country}
  options={[['', lies && !country ? `${countryName(lies)}, by its clock` : 'By its clock'], ...countries]}
  {problem}
  onpick={(c) => (region = c)}
/>
{#if states.length}<Pick
    class="sm:col-span-3"
    label="State or province"
    value={region.includes('-') ? region : ''}
    options={[
      ['', 'Not entered: rules differ by state'],
      ...states.map(([code, name]): [string, string] => [`${of}-${code}`, name]),
    ]}
    onpick={(s) => (region = s || country)}
  />{/if}
