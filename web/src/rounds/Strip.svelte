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
    onhold?: (v: Visit, e: PointerEvent) => void; // it may be dragged to another day
    over?: boolean; // something is dragged over it
  }
  let { crew, visits, hours, from, to, width, chosen, onpick, onhold, over = false }: Props = $props();
  const high = 40;
  const x = (m: number) => ((m - from) / (to - from)) * width;
  const least = 25; // px: a finger's
  /** Where each visit is drawn: by its time, and never narrower than a finger, pushed on where short ones follow each other. */
  const blocks = $derived.by(() => {
    let free = 0;
    const out = visits.map((v) => {
      const left = Math.min(Math.max(x(v.from), free), width - least);
      const wide = Math.max(least, x(v.to) - left);
      free = left + wide + 1;
      return { v, left, wide, room: 0 };
    });
    // What a short visit has to say runs on as far as the next one.
    for (const [i, b] of out.entries()) {
      b.room = Math.floor(((out[i + 1]?.left ?? width) - b.left - 10) / (house.glare ? 8.2 : 7));
    }
    return out;
  });
  const short = (text: string, n: number) => (n < 2 ? '' : text.length > n ? text.slice(0, n - 1).trimEnd() + '…' : text);
  const minutes = (v: Visit) => `${clock(v.from)} – ${clock(v.to)}, ${v.property}: ${v.jobs?.map((j) => j.title).join('; ')}`;
</script>

<div class="relative" style:height="{high}px" style:width="{width}px" role="group" aria-label={crew.name}>
  <svg {width} height={high} class="absolute inset-0" aria-hidden="true">
    <rect x="0" y="0" {width} height={high - 1} fill={over ? 'var(--color-moss-pale)' : 'var(--color-sheet)'} />
    {#if hours && hours.to > hours.from}<rect
        x={x(hours.from)}
        y="0"
        width={Math.max(0, x(hours.to) - x(hours.from))}
        height={high - 1}
        fill={over ? 'var(--color-moss-pale)' : 'white'}
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
    {#each blocks as b (b.v.from)}
      {@const on = b.v.jobs?.some((j) => j.id === chosen)}
      <rect
        x={b.left}
        y="4"
        width={b.wide}
        height={high - 9}
        fill="var(--color-moss-pale)"
        stroke={on ? 'var(--color-ink)' : 'var(--color-moss)'}
        stroke-width={on ? 2.4 : 1}
      />
    {/each}
    {#each blocks as b (b.v.from)}
      <text
        x={b.left + 5}
        y="17"
        font-size="12"
        font-weight="700"
        fill="var(--color-ink)"
        stroke="var(--color-white)"
        stroke-width="2.5"
        paint-order="stroke">{short(b.v.property, b.room)}</text
      >
      <text
        x={b.left + 5}
        y="30"
        font-size="12"
        fill="var(--color-ink)"
        stroke="var(--color-white)"
        stroke-width="2.5"
        paint-order="stroke">{short(b.v.jobs?.length === 1 ? b.v.jobs[0]!.title : `${b.v.jobs?.length ?? 0} jobs`, b.room)}</text
      >
    {/each}
    <line x1="0" x2={width} y1={high - 0.5} y2={high - 0.5} stroke="var(--color-rule)" />
  </svg>
  {#each blocks as b (b.v.from)}
    <button
      class="absolute top-0 h-full cursor-grab touch-none"
      style:left="{b.left}px"
      style:width="{b.wide}px"
      title={minutes(b.v)}
      aria-label={minutes(b.v)}
      aria-pressed={b.v.jobs?.some((j) => j.id === chosen)}
      onclick={() => onpick(b.v)}
      onpointerdown={(e) => onhold?.(b.v, e)}
    ></button>
  {/each}
</div>
