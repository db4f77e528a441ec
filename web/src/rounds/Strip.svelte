<script lang="ts">
  /** A crew's day as a strip in time: visits as blocks, the way between them as a line. */
  import { house } from '../lib/house.svelte';
  import { clock, type Crew, type Visit } from './clock';

  interface Props {
    crew: Crew;
    visits: Visit[];
    hours?: { from: number; to: number };
    from: number; // of the scale, minutes
    to: number;
    width: number;
    chosen?: number; // id of a job
    onpick: (v: Visit) => void;
  }
  let { crew, visits, hours, from, to, width, chosen, onpick }: Props = $props();
  const high = 40;
  const x = (m: number) => ((m - from) / (to - from)) * width;
  const room = (v: Visit) => Math.floor((x(v.to) - x(v.from) - 8) / (house.glare ? 8.2 : 7));
  const short = (text: string, n: number) => (n < 2 ? '' : text.length > n ? text.slice(0, n - 1).trimEnd() + '…' : text);
  const minutes = (v: Visit) => `${clock(v.from)} – ${clock(v.to)}, ${v.property}: ${v.jobs?.map((j) => j.title).join('; ')}`;
</script>

<div class="relative" style:height="{high}px" style:width="{width}px" role="group" aria-label={crew.name}>
  <svg {width} height={high} class="absolute inset-0" aria-hidden="true">
    <rect x="0" y="0" {width} height={high - 1} fill="var(--color-sheet)" />
    {#if hours && hours.to > hours.from}<rect
        x={x(hours.from)}
        y="0"
        width={Math.max(0, x(hours.to) - x(hours.from))}
        height={high - 1}
        fill="white"
      />{/if}
    {#each { length: Math.floor((to - from) / 60) + 1 }, i (i)}<line
        x1={x(from + 60 * i)}
        x2={x(from + 60 * i)}
        y1="0"
        y2={high - 1}
        stroke="var(--color-rule)"
      />{/each}
    {#each visits as v (v.from)}
      {#if v.travel}<line
          x1={x(v.from - v.travel)}
          x2={x(v.from)}
          y1={high / 2}
          y2={high / 2}
          stroke="var(--color-ink)"
          stroke-width="2"
          stroke-dasharray="2 3"
        />{/if}
    {/each}
    <line x1="0" x2={width} y1={high - 0.5} y2={high - 0.5} stroke="var(--color-rule)" />
  </svg>
  {#each visits as v (v.from)}
    {@const on = v.jobs?.some((j) => j.id === chosen)}
    <button
      class="absolute top-1 overflow-hidden border bg-moss-pale px-1 text-left text-xs leading-[0.95rem] text-ink {on
        ? 'border-2 border-ink'
        : 'border-moss'}"
      style:left="{x(v.from)}px"
      style:width="{Math.max(10, x(v.to) - x(v.from))}px"
      style:height="{high - 9}px"
      title={minutes(v)}
      aria-label={minutes(v)}
      aria-pressed={on}
      onclick={() => onpick(v)}
      ><span aria-hidden="true" class="block font-semibold whitespace-nowrap">{short(v.property, room(v))}</span><span
        aria-hidden="true"
        class="block whitespace-nowrap"
        >{short(v.jobs?.length === 1 ? v.jobs[0]!.title : `${v.jobs?.length ?? 0} jobs`, room(v))}</span
      ></button
    >
  {/each}
</div>
