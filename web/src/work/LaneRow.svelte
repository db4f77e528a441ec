<script lang="ts">
  /** One job hung below the ribbon. */
  import type { Lane } from '../api/client';
  import { brief, daysBetween, inWords } from '../lib/dates';
  import { house } from '../lib/house.svelte';
  import LaneMarks, { type Frame } from '../lib/LaneMarks.svelte';
  import { costWord, titled } from './orders';

  interface Props {
    lane?: Lane; // none while it is read
    note?: string; // what it stands under
    frame: Frame;
    pointed?: string;
    chosen: boolean;
    carried: boolean; // it is being moved to another day
    height: number;
  }
  let { lane, note: under = '', frame, pointed, chosen, carried, height }: Props = $props();
  const cost = $derived(lane && pointed ? lane.costs?.[daysBetween(lane.start, pointed)] : undefined);
  const px = $derived(pointed ? frame.x(daysBetween(frame.from, pointed)) : 0);
  const later = $derived(lane?.window_from && daysBetween(frame.from, lane.window_from) >= frame.count);
  const note = $derived(!lane ? '' : lane.passed ? 'its time has passed' : later ? `from ${inWords(lane.window_from)}` : under);
  // Names are shortened to the room there is; the whole is told on asking.
  const room = $derived((frame.width - frame.left - 16) / (house.glare ? 8.6 : 7.4));
  const short = (text: string, share: number) =>
    text.length > room * share ? text.slice(0, Math.max(1, Math.floor(room * share) - 1)).trimEnd() + '…' : text;
</script>

{#if lane}
  <svg width={frame.width} {height} class="block" aria-hidden="true">
    <line x1={frame.left} x2={frame.width - 4} y1={height - 1} y2={height - 1} stroke="var(--color-rule)" />
    <g clip-path="url(#year-inside)" opacity={chosen ? 1 : 0.8}>
      <LaneMarks
        {frame}
        start={lane.start}
        costs={lane.costs}
        windows={lane.windows}
        day={carried ? undefined : lane.day || undefined}
        {height}
        drop={19}
        forbidden="year-forbidden"
        stage={lane.stage}
        waits={lane.waits}
        waiting="year-waiting"
      />
      {#if carried && pointed}
        <path d="M{px + 1} {height - 9}l-7 -10h14z" transform="translate(0,-6)" fill="var(--color-bad)" />
        <line x1={px + 1} x2={px + 1} y1={15} y2={height - 2} stroke="var(--color-bad)" stroke-width="2.4" />
      {/if}
    </g>
    {#if cost !== undefined && pointed && px > frame.left}<text
        x={Math.min(px + 6, frame.width - 96)}
        y={height - 8}
        font-size="12.5"
        font-weight="700"
        stroke="var(--color-white)"
        stroke-width="3"
        paint-order="stroke"
        fill="var(--color-ink)">{carried ? `${brief(pointed)}: ` : ''}{costWord(cost, pointed, lane)}</text
      >{/if}
  </svg>
  <p class="pointer-events-none absolute top-0.5 right-2 text-xs whitespace-nowrap text-soft" title={note}>{short(note, 0.36)}</p>
  <a
    class="absolute top-0 text-[0.8125rem] max-md:pt-0! max-md:pb-6! leading-5 whitespace-nowrap text-ink no-underline hover:underline {chosen
      ? 'font-bold'
      : 'font-medium'}"
    style:left="{frame.left + 2}px"
    draggable="false"
    title={titled(lane)}
    href="#/rounds/{lane.id}">{short(titled(lane), 0.6)}</a
  >
{:else}
  <div class="h-full border-b border-rule" style:margin-left="{frame.left}px"><span class="sr-only">Is read</span></div>
{/if}
