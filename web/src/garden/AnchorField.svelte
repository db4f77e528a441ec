<script lang="ts">
  import type { Schemas } from '../api/client';
  import { bare, degrees, entered, imperial, shown, unit, warmth } from '../lib/units';

  type Anchor = Schemas['SeasonAnchor'];
  type Kind =
    | 'warmth'
    | 'cooling'
    | 'chill_days'
    | 'degree_days'
    | 'daylength_rising_h'
    | 'daylength_falling_h'
    | 'last_frost'
    | 'first_frost'
    | 'after';

  /** An event of the plant's year, fixed to the season instead of a month. */
  let {
    label,
    anchor = $bindable(),
    after,
    problem = '',
  }: { label: string; anchor: Anchor; after: string[]; problem?: string } = $props();

  const warm = imperial() ? '°F·days' : '°C·days';
  const kinds: [Kind, string, string][] = [
    ['warmth', 'warmth since midwinter reaches', `${warm} over ${degrees(4, 0)}`],
    ['chill_days', 'chill since summer reaches', 'days'],
    ['cooling', 'autumn cool reaches', `${warm} under ${degrees(20, 0)}`],
    ['degree_days', 'degree-days reach', `${warm} over ${degrees(10, 0)}`],
    ['daylength_rising_h', 'days grow to', 'hours'],
    ['daylength_falling_h', 'days shrink to', 'hours'],
    ['last_frost', 'last frost is over in', '% of years'],
    ['first_frost', 'first frost has come in', '% of years'],
    ['after', 'days from', ''],
  ];
  const names: Record<string, string> = {
    leaf_out: 'leaf-out',
    leaf_drop: 'leaf drop',
    bloom_start: 'start of bloom',
    bloom_end: 'end of bloom',
  };
  const kind = $derived<Kind>(kinds.find(([k]) => anchor[k])?.[0] ?? 'warmth');
  const scaled = $derived(kind === 'warmth' || kind === 'cooling' || kind === 'degree_days');
  const starts: Record<Kind, number> = {
    warmth: 300,
    cooling: 300,
    chill_days: 40,
    degree_days: 100,
    daylength_rising_h: 12,
    daylength_falling_h: 12,
    last_frost: 50,
    first_frost: 50,
    after: 0,
  };
  function choose(k: Kind) {
    const of: Partial<Anchor> = k === 'warmth' ? { chill: 0.5 } : {};
    anchor = k === 'after' ? { after: after[0]!, days: 30 } : { [k]: starts[k], ...of, days: anchor.days };
  }
  const number = (s: string) => bare(s);
</script>

<fieldset class="sm:col-span-3">
  <legend class="font-semibold">{label}</legend>
  <div class="mt-1 flex flex-wrap items-center gap-1.5 text-[0.9375rem]">
    when
    <select
      class="min-h-11 rounded-sm border border-gray-400 bg-white px-1.5"
      aria-label="{label}: when"
      value={kind}
      onchange={(e) => choose(e.currentTarget.value as Kind)}
    >
      {#each kinds as [k, text] (k)}{#if k !== 'after' || after.length}<option value={k}>{text}</option>{/if}{/each}
    </select>
    {#if kind === 'after'}
      <select
        class="min-h-11 rounded-sm border border-gray-400 bg-white px-1.5"
        aria-label="{label}: after which event"
        value={anchor.after}
        onchange={(e) => (anchor = { ...anchor, after: e.currentTarget.value })}
      >
        {#each after as a}<option value={a}>{names[a]}</option>{/each}
      </select>
    {:else}
      <input
        class="min-h-11 w-20 rounded-sm border border-gray-400 bg-white px-2 text-right"
        inputmode="decimal"
        aria-label="{label}: figure"
        value={scaled ? Math.round(warmth(Number(anchor[kind]))) : anchor[kind]}
        onchange={(e) => (anchor = { ...anchor, [kind]: number(e.currentTarget.value) / (scaled ? warmth(1) : 1) })}
      />
      {kinds.find(([k]) => k === kind)?.[2]}
    {/if}
    {#if kind === 'warmth'}
      <label class="flex items-center gap-1.5"
        >without winter chill more by
        <input
          class="min-h-11 w-16 rounded-sm border border-gray-400 bg-white px-2 text-right"
          inputmode="numeric"
          value={Math.round(100 * (anchor.chill ?? 0))}
          onchange={(e) => (anchor = { ...anchor, chill: number(e.currentTarget.value) / 100 || undefined })}
        /> %</label
      >
    {/if}
    {#if kind === 'warmth' || kind === 'chill_days'}
      <label class="flex items-center gap-1.5"
        >not under a mean of
        <input
          class="min-h-11 w-16 rounded-sm border border-gray-400 bg-white px-2 text-right"
          inputmode="decimal"
          value={Number(shown('temperature', anchor.mean_c ?? 0).toFixed(1))}
          onchange={(e) => (anchor = { ...anchor, mean_c: entered('temperature', number(e.currentTarget.value)) || undefined })}
        />
        {unit('temperature')}</label
      >
    {/if}
    <label class="flex items-center gap-1.5"
      >moved by
      <input
        class="min-h-11 w-16 rounded-sm border border-gray-400 bg-white px-2 text-right"
        inputmode="numeric"
        value={anchor.days ?? 0}
        onchange={(e) => (anchor = { ...anchor, days: Math.round(number(e.currentTarget.value)) || undefined })}
      /> days</label
    >
  </div>
  {#if problem}<span class="text-sm text-bad">{problem}</span>{/if}
</fieldset>
