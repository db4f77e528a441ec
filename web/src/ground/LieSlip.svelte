<script lang="ts">
  /** How the ground lies: where north is, how it falls, which hills stand round it, whence the wind comes. */
  import Field from '../lib/Field.svelte';
  import Pick from '../lib/Pick.svelte';
  import { winds, type Lie } from './plan';
  import { bare } from '../lib/units';

  interface Props {
    lie: Lie;
    onset: (l: Lie) => void;
  }
  let { lie, onset }: Props = $props();
  const n = (text: string) => bare(text) || 0;
  let north = $state('');
  let slope = $state('');
  let hills = $state<string[]>([]);
  $effect(() => {
    north = String(lie.north_deg ?? 0);
    slope = lie.slope_pct ? String(lie.slope_pct) : '';
    hills = winds.map((_, i) => (lie.horizon_deg?.[i] ? String(lie.horizon_deg[i]) : ''));
  });
  const falls = $derived(winds[Math.round((((lie.falls_to_deg ?? 180) + 360) % 360) / 45) % 8]!);
  function keep(e: Event) {
    e.preventDefault();
    const high = hills.map(n);
    onset({ ...lie, north_deg: n(north), slope_pct: n(slope), horizon_deg: high.some((h) => h > 0) ? high : undefined });
  }
</script>

<details class="border border-rule bg-white px-3 py-1">
  <summary class="min-h-11 py-2 font-semibold">How the ground lies</summary>
  <form class="space-y-2 pb-2" onsubmit={keep}>
    <div class="grid grid-cols-2 items-end gap-2">
      <Field label="Bearing of the top (°)" mode="decimal" bind:value={north} />
      <Field label="Slope (m in 100)" mode="decimal" bind:value={slope} />
      <Pick
        label="towards the"
        value={falls}
        options={winds.map((w): [string, string] => [w, w])}
        onpick={(w) => onset({ ...lie, falls_to_deg: 45 * winds.indexOf(w as 'north') })}
      />
      <Pick
        label="Wind comes from the"
        value={lie.wind_from ?? ''}
        options={[['', 'all sides alike'], ...winds.map((w): [string, string] => [w, w])]}
        onpick={(w) => onset({ ...lie, wind_from: (w || undefined) as Lie['wind_from'] })}
      />
    </div>
    <p class="text-sm font-semibold">Hills or houses beyond the plan, degrees above the level</p>
    <div class="grid grid-cols-4 gap-2">
      {#each winds as w, i (w)}<Field label={w} mode="decimal" bind:value={() => hills[i] ?? '', (v) => (hills[i] = v)} />{/each}
    </div>
    <p class="text-sm text-soft">A fist at arm’s length is about ten degrees.</p>
    <button class="min-h-11 rounded-sm border border-ink bg-white px-3 font-semibold">Keep how it lies</button>
  </form>
</details>
