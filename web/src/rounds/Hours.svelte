<script lang="ts">
  /** Hours by weekday: a day is ticked, then it has a beginning and an end. */
  import { house } from '../lib/house.svelte';
  import { clock, inOrder, minutesOf, weekdays, type Span } from './clock';

  interface Props {
    week: Span[];
    legend: string;
    problems?: Record<string, string>;
    field?: string; // how the house calls them
  }
  let { week = $bindable(), legend, problems = {}, field = 'hours' }: Props = $props();
  const set = (d: number, s: Span) => (week = week.map((w, i) => (i === d ? s : w)));
  const look = 'min-h-11 rounded-sm border border-gray-400 bg-white px-2';
</script>

<fieldset>
  <legend class="font-semibold">{legend}</legend>
  <div class="grid gap-y-1">
    {#each inOrder(house.frame?.firm.week_start ?? 1) as d}
      {@const s = week[d]!}
      <div class="flex flex-wrap items-center gap-2">
        <label class="flex min-h-11 w-32 items-center gap-2"
          ><input
            type="checkbox"
            class="size-5 accent-moss"
            checked={s.to > s.from}
            onchange={(e) => set(d, e.currentTarget.checked ? { from: 480, to: 1020 } : { from: 0, to: 0 })}
          />{weekdays[d]}</label
        >
        {#if s.to > s.from || s.from > 0}
          <span class="text-sm" aria-hidden="true">from</span>
          <input
            type="time"
            class={look}
            aria-label="{weekdays[d]}, from"
            value={clock(s.from)}
            onchange={(e) => set(d, { ...s, from: minutesOf(e.currentTarget.value) })}
          />
          <span class="text-sm" aria-hidden="true">to</span>
          <input
            type="time"
            class={look}
            aria-label="{weekdays[d]}, to"
            value={clock(s.to)}
            onchange={(e) => set(d, { ...s, to: minutesOf(e.currentTarget.value) })}
          />
        {/if}
        {#if problems[`${field}[${d}]`]}<span class="text-sm text-bad">{problems[`${field}[${d}]`]}</span>{/if}
      </div>
    {/each}
  </div>
  {#if problems[field]}<p class="text-sm text-bad">{problems[field]}</p>{/if}
</fieldset>
