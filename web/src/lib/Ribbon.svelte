<script lang="ts" module>
  /** A lane hung from the ribbon: a row with bands of days on it. */
  export interface RibbonLane {
    id: number | string;
    label: string;
    note?: string;
    start: string;
    costs: number[];
    windows: { from: string; to: string; best: string }[];
    day?: string;
  }
</script>

<script lang="ts">
  import { onDestroy, untrack } from 'svelte';
  import type { Season } from '../api/client';
  import { causeOfEvent, mark } from './causes';
  import { brief, daysBetween, degrees, inWords, monthName, plusDays } from './dates';
  import { costOf, costWord } from '../work/orders';
  import { figure, imperial, warmth } from './units';
  import { keys } from './house.svelte';
  import { measured as watched } from './measured';
  import { between, lineThrough, scale } from './scale';
  import LaneMarks, { type Frame } from './LaneMarks.svelte';

  interface Props {
    season: Season;
    place?: string; // whose season it is
    slim?: boolean; // lanes of one line each, for lanes without costs
    lanes?: RibbonLane[];
    pointed?: string; // the day pointed at
    chosen?: number | string; // the lane pointed at
    onpoint?: (day: string, lane?: number | string) => void;
    onpick?: (day: string, lane: number | string) => void;
    frame?: Frame; // where its days stand, for what hangs below
  }
  let {
    season,
    place,
    slim = false,
    lanes = [],
    pointed = $bindable(),
    chosen = $bindable(),
    onpoint,
    onpick,
    frame = $bindable(),
  }: Props = $props();

  const narrowest = 640; // below that the ribbon is a strip to be swiped (see its class)
  let width = $state(innerWidth < narrowest ? narrowest : 900);
  const top = 20; // month names
  const high = 92; // the temperature band
  const row = $derived(slim ? 24 : 40);
  const drop = $derived(slim ? 3 : 19); // from a lane's top to its band
  const left = 34;
  const count = $derived(season.normal_min?.length ?? 0);
  // What is in view, in days from the start: the whole year, or down to a month of it.
  const least = 28;
  let view = $state<[number, number]>();
  const span = $derived(view ? view[1] - view[0] : count);
  const x = $derived(scale(view ?? [0, count], [left, width - 4]));
  $effect.pre(() => {
    frame = { x, from: season.from, count, left, width };
  });
  function show(from: number, days: number) {
    if (days >= count) view = undefined;
    else {
      const start = Math.max(0, Math.min(count - days, from));
      view = [start, start + days];
    }
  }
  /** Narrower or wider by a factor, with the day at i staying where it is. */
  function zoom(factor: number, i: number) {
    const days = Math.max(least, Math.min(count, span * factor));
    const from = view?.[0] ?? 0;
    show(i - ((i - from) * days) / span, days);
  }
  const pan = (share: number) => view && show(view[0] + share * span, span);
  const middle = () => daysBetween(season.from, pointed ?? season.today);
  function wheel(e: WheelEvent) {
    if (Math.abs(e.deltaX) > Math.abs(e.deltaY) || e.shiftKey) {
      if (!view) return;
      pan((e.deltaX || e.deltaY) / 800);
    } else if (e.deltaY > 0 && !view) {
      return; // the page scrolls on
    } else zoom(e.deltaY < 0 ? 0.8 : 1.25, x.back(e.clientX - svg!.getBoundingClientRect().left));
    e.preventDefault();
  }
  untrack(() => {
    keys.ribbon = [
      { key: '+', does: 'ribbon: closer, down to a month', run: () => zoom(0.6, middle()) },
      { key: '-', does: 'ribbon: wider, up to the year', run: () => zoom(1 / 0.6, middle()) },
      { key: ',', does: 'ribbon: earlier', run: () => pan(-0.3) },
      { key: '.', does: 'ribbon: later', run: () => pan(0.3) },
    ];
  });
  // The next screen's ribbon may be there before this one goes.
  const mine = untrack(() => keys.ribbon[0]?.run);
  onDestroy(() => keys.ribbon[0]?.run === mine && (keys.ribbon = []));
  const y = $derived.by(() => {
    const all = [...season.normal_min, ...season.normal_max, ...season.seen_min, ...season.seen_max].filter(
      (v): v is number => v !== null,
    );
    return scale([Math.min(...all, season.extreme_min_c) - 1, Math.max(...all) + 1], [top + high, top + 4]);
  });
  const dayAt = $derived((i: number) => plusDays(season.from, Math.max(0, Math.min(count - 1, Math.floor(i)))));
  const at = $derived((iso: string) => x(daysBetween(season.from, iso)));
  const band = $derived(between(season.normal_min.map((low, i) => [x(i + 0.5), y(low), y(season.normal_max[i]!)])));
  const seen = $derived.by(() => {
    const days = season.seen_min.map((low, i): [number, number, number] | undefined => {
      const high = season.seen_max?.[i] ?? null;
      return low === null || high === null ? undefined : [x(i + 0.5), y(low), y(high)];
    });
    return { band: between(days), low: lineThrough(days.map((d) => d && [d[0], d[1]])) };
  });
  /** Runs of days whose weather was measured, and where: under the year's band. */
  const measured = $derived.by(() => {
    const out: { rank: number; from: number; to: number }[] = [];
    season.seen_by.forEach((rank, i) => {
      const last = out.at(-1);
      if (last?.rank === rank && last.to === i) last.to = i + 1;
      else if (rank) out.push({ rank, from: i, to: i + 1 });
    });
    return out;
  });
  const months = $derived.by(() => {
    const out: { at: number; name: string }[] = [];
    const from = Math.ceil(view?.[0] ?? 0);
    for (let i = from; i < Math.min(count, view?.[1] ?? count); i++) {
      const d = plusDays(season.from, i);
      if (d.endsWith('-01') || (i === from && view && !d.endsWith('-31') && !d.endsWith('-30')))
        out.push({ at: d.endsWith('-01') ? x(i) : left, name: monthName(d) });
    }
    // The month one is in the midst of gives way to the next, where that stands close.
    return out.filter((m, k) => k > 0 || !out[1] || out[1].at - m.at > 70);
  });
  // Closer in, days of the month: every seventh, or every one.
  const dayTicks = $derived.by(() => {
    if (!view || span > 130) return [];
    const out: { at: number; name: string }[] = [];
    for (let i = Math.ceil(view[0]); i < view[1]; i++) {
      const n = Number(plusDays(season.from, i).slice(8));
      if (span <= 45 ? n % 2 === 1 && n < 31 : n % 7 === 1 && n < 29) out.push({ at: x(i), name: String(n) });
    }
    return out;
  });
  // Degree-days: the sums that find room.
  const sums = $derived.by(() => {
    const out: { at: number; sum: number }[] = [];
    for (const t of season.ticks) {
      const px = at(t.day);
      if (px > left + 12 && px < width - 16 && px - (out.at(-1)?.at ?? -99) > 34)
        out.push({ at: px, sum: Math.round(warmth(t.sum)) });
    }
    return out;
  });
  // Frost as a wash: five steps of likelihood, each a run of days.
  const wash = $derived.by(() => {
    const out: { from: number; to: number; step: number }[] = [];
    season.frost.forEach((p, i) => {
      const step = Math.round(p * 5);
      const last = out.at(-1);
      if (last && last.step === step) last.to = i + 1;
      else out.push({ from: i, to: i + 1, step });
    });
    return out.filter((w) => w.step > 0);
  });
  // What the weather did, each with its mark; the worst frost is named, closer in all are.
  const events = $derived.by(() => {
    const worst = Math.min(...season.events.filter((e) => e.unit === '°C' && e.kind !== 'heat').map((e) => e.value));
    return season.events
      .filter((e) => at(e.peak) >= left && at(e.peak) <= width - 4)
      .map((e) => ({
        key: e.kind + e.peak,
        x: at(e.peak),
        y: e.unit === '°C' ? y(e.value) : top + high - 8,
        cause: causeOfEvent(e.kind),
        peak: e.peak,
        named: (e.unit === '°C' && e.kind !== 'heat' && e.value <= worst + 0.01) || (view !== undefined && span < 100),
        words: e.unit === '°C' ? degrees(e.value, 0) : figure(e.value, e.unit),
        kind: e.kind,
      }));
  });
  // Words that would run into today's line stand on the other side of the mark.
  const near = (iso: string) => at(iso) < at(season.today) && at(iso) + 105 > at(season.today);
  const laneTop = top + high + 26;
  const height = $derived(laneTop + lanes.length * row + (lanes.length ? 4 : 0));
  // A note stands at the right end, or before the lane's last band where that lies there.
  const noteAt = (l: RibbonLane) => {
    const last = l.windows.at(-1);
    const over = slim && last && at(last.to) > width - 125 && at(last.from) < width;
    return over ? Math.min(width - 8, at(last.from) - 6) : width - 8;
  };
  // A name takes the room that its note leaves.
  const letters = $derived(Math.floor((width - left - 190) / 6.8));
  const short = (name: string) => (name.length > letters ? name.slice(0, letters - 1).trimEnd() + '…' : name);
  const id = $props.id();
  let svg = $state<SVGSVGElement>();
  // On a narrow screen the ribbon is a strip: it opens where today is.
  let laid = false;
  function lay(wide: number) {
    width = wide;
    const strip = svg?.parentElement?.parentElement;
    if (laid || !strip) return;
    laid = true;
    if (strip.scrollWidth > strip.clientWidth) strip.scrollLeft = at(season.today) - strip.clientWidth / 3;
    scrolled = strip.scrollLeft;
  }
  $effect(() => {
    const strip = svg?.parentElement?.parentElement;
    if (!strip) return;
    const follow = () => (scrolled = strip.scrollLeft);
    strip.addEventListener('scroll', follow);
    return () => strip.removeEventListener('scroll', follow);
  });
  // The names of lanes stay in sight while the strip is swiped.
  let scrolled = $state(0);
  const nameAt = $derived(scrolled > left ? scrolled + 6 : left + 2);
  function under(e: PointerEvent | MouseEvent): { day: string; lane?: number | string } {
    const box = svg!.getBoundingClientRect();
    const i = Math.floor((e.clientY - box.top - laneTop) / row);
    return { day: dayAt(x.back(e.clientX - box.left)), lane: lanes[i]?.id };
  }
  function point(e: PointerEvent) {
    const u = under(e);
    pointed = u.day;
    if (u.lane !== undefined) chosen = u.lane;
    onpoint?.(u.day, u.lane);
  }
  function press(e: MouseEvent) {
    const u = under(e);
    if (u.lane !== undefined) onpick?.(u.day, u.lane);
  }
  const summary = $derived(
    `The garden year from ${inWords(season.from)} on. Today ${inWords(season.today)}. ` +
      (season.last_frost
        ? `Last frost usually about ${brief(season.last_frost.mid)}, one year in ten after ${brief(season.last_frost.late)}. `
        : '') +
      `${Math.round(warmth(season.degree_days))} degree-days so far. ` +
      (view ? `In view: ${brief(dayAt(view[0]))} to ${brief(dayAt(view[1]))}. ` : '') +
      season.events.map((e) => `${e.kind} ${brief(e.peak)}, ${figure(e.value, e.unit)}. `).join('') +
      lanes
        .map(
          (l) =>
            `${l.label}: ${l.windows.map((w) => `${brief(w.from)} to ${brief(w.to)}`).join(', ') || 'no window'}${l.day ? `, on ${brief(l.day)}` : ''}.`,
        )
        .join(' '),
  );
</script>

<div use:watched={lay} class="w-full min-w-[640px]">
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -- each day can be reached by keys in the panel beside -->
  <svg
    bind:this={svg}
    {width}
    {height}
    role="img"
    aria-label={summary}
    class="block select-none"
    onpointermove={point}
    onclick={press}
    onwheel={wheel}
  >
    <defs>
      <clipPath id="{id}-all"><rect x={left} y="0" width={Math.max(0, width - left - 4)} {height} /></clipPath>
      <pattern id="{id}-forbidden" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="6" stroke="var(--color-rule)" stroke-width="2" />
      </pattern>
      <clipPath id="{id}-inside"><rect x={left} y={top} width={Math.max(0, width - left - 4)} height={high} /></clipPath>
    </defs>
    <g clip-path="url(#{id}-inside)">
      {#each wash as w (w.from)}
        <rect x={x(w.from)} y={top} width={x(w.to) - x(w.from)} height={high} fill="var(--color-cold)" opacity={w.step * 0.045} />
      {/each}
    </g>
    {#each months as m (m.at)}
      <line x1={m.at} x2={m.at} y1={4} y2={height} stroke="var(--color-rule)" />
      <text x={m.at + 4} y={14} font-size="12" fill="var(--color-soft)">{width > 800 || view ? m.name : m.name.slice(0, 3)}</text>
    {/each}
    {#each dayTicks as t (t.at)}
      <line x1={t.at} x2={t.at} y1={top} y2={top + 4} stroke="var(--color-soft)" />
      <text x={t.at} y={top + 15} font-size="11" text-anchor="middle" fill="var(--color-soft)">{t.name}</text>
    {/each}
    <text x={left - 5} y={top + high + 14} font-size="11" text-anchor="end" fill="var(--color-soft)"
      ><title>Degree-days, base {degrees(10, 0)}, from midwinter on</title>°C·d</text
    >
    {#each sums as t (t.sum)}
      <line x1={t.at} x2={t.at} y1={top + high} y2={top + high + 4} stroke="var(--color-soft)" />
      <text x={t.at} y={top + high + 15} font-size="11" text-anchor="middle" fill="var(--color-soft)">{t.sum}</text>
    {/each}
    {#each imperial() ? [14, 32, 50, 68, 86] : [-10, 0, 10, 20, 30] as mark_}
      {@const t = imperial() ? (mark_ - 32) / 1.8 : mark_}
      {#if y(t) > top && y(t) < top + high}
        <line
          x1={left}
          x2={width - 4}
          y1={y(t)}
          y2={y(t)}
          stroke="var(--color-rule)"
          stroke-dasharray={t === 0 ? '' : '1 4'}
          stroke-width={t === 0 ? 1.2 : 1}
        />
        <text x={left - 5} y={y(t) + 4} font-size="11" text-anchor="end" fill="var(--color-soft)"
          >{mark_ < 0 ? `−${-mark_}` : mark_}{t === 0 ? '°' : ''}</text
        >
      {/if}
    {/each}
    <g clip-path="url(#{id}-inside)">
      <path d={band} fill="var(--color-ink)" opacity="0.09" />
      <path d={seen.band} fill="var(--color-moss)" opacity="0.28" />
      <path d={seen.low} fill="none" stroke="var(--color-ink)" stroke-width="1.1" />
      {#each measured as m (m.from)}
        <line
          x1={x(m.from)}
          x2={x(m.to)}
          y1={top + high - 1.5}
          y2={top + high - 1.5}
          stroke="var(--color-moss)"
          stroke-width={m.rank === 2 ? 3.5 : 2}
          stroke-dasharray={m.rank === 2 ? '' : '2 3'}
          ><title>{m.rank === 2 ? 'Measured in the garden' : 'By the station, or a file of the region'}</title></line
        >
      {/each}
    </g>
    {#each events as e (e.key)}
      <g transform="translate({e.x + 1},{e.y})" opacity={e.named ? 1 : 0.75}>
        <path d={mark[e.cause].small} fill="var(--color-{e.cause})" stroke="var(--color-white)" stroke-width="0.6" />
        {#if e.named}
          <text
            x={near(e.peak) ? -9 : 9}
            y="4"
            font-size="12"
            font-weight="650"
            text-anchor={near(e.peak) ? 'end' : 'start'}
            stroke="var(--color-white)"
            stroke-width="3"
            paint-order="stroke"
            fill="var(--color-{e.cause})">{e.words}, {brief(e.peak)}</text
          >
        {/if}
      </g>
    {/each}
    {#if place}<text x={width - 8} y={top + high - 4} font-size="12" text-anchor="end" fill="var(--color-soft)">{place}</text
      >{/if}
    {#each lanes as lane, i (lane.id)}
      {@const ly = laneTop + i * row}
      <g opacity={chosen === undefined || chosen === lane.id ? 1 : 0.75}>
        <line x1={left} x2={width - 4} y1={ly + row - 3} y2={ly + row - 3} stroke="var(--color-rule)" />
        <g clip-path="url(#{id}-all)">
          <g transform="translate(0,{ly})">
            <LaneMarks
              frame={{ x, from: season.from, count, left, width }}
              start={lane.start}
              costs={lane.costs}
              windows={lane.windows}
              day={lane.day}
              height={row}
              {drop}
              forbidden="{id}-forbidden"
            />
          </g>
        </g>
        <text
          x={nameAt}
          y={ly + (slim ? 16 : 14)}
          font-size="13"
          font-weight={chosen === lane.id ? 700 : 500}
          stroke="var(--color-white)"
          stroke-width="3"
          paint-order="stroke"
          fill="var(--color-ink)">{short(lane.label)}<title>{lane.label}</title></text
        >
        {#if lane.note}<text
            x={noteAt(lane)}
            y={ly + (slim ? 16 : 14)}
            font-size="12"
            text-anchor="end"
            stroke="var(--color-white)"
            stroke-width="3"
            paint-order="stroke"
            fill="var(--color-soft)">{lane.note}</text
          >{/if}
      </g>
    {/each}
    {#if at(season.today) >= left && at(season.today) <= width - 4}
      <line x1={at(season.today)} x2={at(season.today)} y1={2} y2={height} stroke="var(--color-bad)" stroke-width="1.6" />
      <path d="M{at(season.today) - 4} 2h8l-4 7z" fill="var(--color-bad)" />
    {/if}
    {#if pointed && at(pointed) >= left - 1 && at(pointed) <= width}
      {#if pointed !== season.today}
        <line x1={at(pointed) + 1} x2={at(pointed) + 1} y1={top} y2={height} stroke="var(--color-ink)" stroke-dasharray="3 3" />
        <text x={Math.min(at(pointed) + 5, width - 70)} y={top + 12} font-size="12" font-weight="650" fill="var(--color-ink)"
          >{brief(pointed)}</text
        >
      {/if}
      {#each lanes as lane, i (lane.id)}
        {@const cost = lane.costs[daysBetween(lane.start, pointed)]}
        {#if cost !== undefined}
          <text
            x={Math.min(at(pointed) + 6, width - 96)}
            y={laneTop + i * row + row - 9}
            font-size="12.5"
            font-weight="700"
            fill="var(--color-ink)"
            stroke="var(--color-white)"
            stroke-width="3"
            paint-order="stroke"
            >{costWord(cost, pointed, {
              window_from: lane.windows[0]?.from ?? '',
              window_to: lane.windows.at(-1)?.to ?? '',
              best_day: lane.windows[0]?.best ?? '',
            })}<title>{costOf(cost)}</title></text
          >
        {/if}
      {/each}
    {/if}
  </svg>
</div>
