<script lang="ts">
  import type { Schemas } from '../api/client';
  import { brief, degrees } from '../lib/dates';
  import { lineThrough, scale } from '../lib/scale';
  import { entered, figure, shown, unit, type Kind } from '../lib/units';

  /** The hours of an event against what the plants that matter bore. */
  let { chart, height = 176 }: { chart: Schemas['EventChart']; height?: number } = $props();

  let width = $state(460);
  const values = $derived(chart.values);
  const cold = $derived(chart.event.kind === 'freeze' || chart.event.kind === 'late frost');
  const words = $derived(width > 380 ? 168 : 128); // room for the names at the right
  const left = 34;
  const x = $derived(scale([0, Math.max(1, values.length - 1)], [left, width - words]));
  const bounds = $derived.by((): [number, number] => {
    const all = [
      ...values.filter((v) => v !== null),
      ...chart.lines.map((l) => l.c),
      ...(chart.event.kind === 'heat' ? [] : [0]),
    ];
    const [lo, hi] = [Math.min(...all), Math.max(...all)];
    const under = chart.unit === '°C' || lo < 0 ? lo - (hi - lo) * 0.06 : 0; // no wind and no rain is less than none
    return [under, hi + (hi - lo) * 0.06];
  });
  const upright = $derived<[number, number]>([height - 18, 8]);
  const y = $derived(scale(bounds, upright, 5));
  const path = $derived(lineThrough(values.map((v, i) => (v === null ? undefined : [x(i), y(v)]))));
  // Midnights by the property's clock.
  const days = $derived.by(() => {
    const hourOf = new Intl.DateTimeFormat('en-GB', { timeZone: chart.zone, hour: '2-digit', hour12: false });
    const dayOf = new Intl.DateTimeFormat('sv-SE', { timeZone: chart.zone, dateStyle: 'short' }); // YYYY-MM-DD
    const out: { at: number; name: string }[] = [];
    chart.times.forEach((t, i) => {
      const at = new Date(t);
      if (Number(hourOf.format(at)) % 24 === 0) out.push({ at: x(i), name: brief(dayOf.format(at)) });
    });
    return out;
  });
  // Of days whose names would run into each other every so many-th is marked.
  const apart = $derived(days.length > 1 ? Math.max(1, Math.ceil(44 / (days[1]!.at - days[0]!.at))) : 1);
  const named = $derived(days.filter((_, i) => i % apart === 0));
  const low = $derived(Math.min(...values.filter((v) => v !== null)));
  // The names are kept apart; a thin line leads to where each belongs.
  const lines = $derived.by(() => {
    const sorted = [...chart.lines].sort((a, b) => b.c - a.c);
    let last = -99;
    const placed = sorted.map((l) => {
      const at = Math.max(y(l.c) + 4, last + 14);
      last = at;
      return { ...l, at, passed: cold && low < l.c };
    });
    const over = last - (height - 20);
    return over > 0 ? placed.map((l) => ({ ...l, at: l.at - over })) : placed;
  });
  // Figures stay SI; the scale is marked in the firm's unit.
  const kind = $derived<Kind | undefined>(
    ({ '°C': 'temperature', 'm/s': 'wind', mm: 'rain' } as Record<string, Kind>)[chart.unit],
  );
  const marks = $derived.by(() => {
    const k = kind;
    if (!k) return y.ticks(5).map((t) => ({ t, at: y(t) }));
    const own = scale([shown(k, y.back(upright[0])), shown(k, y.back(upright[1]))], upright);
    return own.ticks(5).map((t) => ({ t, at: y(entered(k, t)) }));
  });
  const of = $derived(kind ? unit(kind) : chart.unit);
  const short = (s: string, n: number) => (s.length > n ? s.slice(0, n - 1).trim() + '…' : s);
  const said = $derived(
    `${chart.label} in ${of} from ${days[0]?.name ?? ''} to ${days.at(-1)?.name ?? ''}, ` +
      (cold ? `down to ${degrees(low)}. ` : `up to ${figure(chart.event.value, chart.unit)}. `) +
      chart.lines
        .map((l) =>
          l.organ ? `${l.common}: half of its ${l.organ} die at ${degrees(l.c)}. ` : `${figure(l.c, chart.unit)} ${l.common}. `,
        )
        .join(''),
  );
</script>

<div bind:clientWidth={width} class="min-w-0">
  <svg {width} {height} role="img" aria-label={said} class="block">
    {#each marks as { t, at } (t)}
      <line x1={left} x2={width - words} y1={at} y2={at} stroke="var(--color-rule)" stroke-dasharray={t === 0 ? '' : '1 4'} />
      <text x={left - 5} y={at + 4} font-size="11" text-anchor="end" fill="var(--color-soft)">{t < 0 ? `−${-t}` : t}</text>
    {/each}
    {#each apart > 3 ? named : days as d (d.at)}
      <line x1={d.at} x2={d.at} y1="6" y2={height - 16} stroke="var(--color-rule)" />
      {#if d.at < width - words - 24 && named.includes(d)}<text
          x={d.at + 3}
          y={height - 4}
          font-size="11"
          fill="var(--color-soft)">{d.name}</text
        >{/if}
    {/each}
    {#each lines as l}
      <path
        d="M{left} {y(l.c)}H{width - words}L{width - words + 8} {l.at - 4}"
        fill="none"
        stroke={l.passed ? 'var(--color-bad)' : 'var(--color-soft)'}
        stroke-width={l.passed ? 1.4 : 1}
        stroke-dasharray="5 3"
      />
      <text x={width - words + 11} y={l.at} font-size="12" fill={l.passed ? 'var(--color-bad)' : 'var(--color-soft)'}
        >{#if l.organ}<tspan font-weight="650">{degrees(l.c, 0).replace(/ °.$/, '°')}</tspan>
          {short(l.common, 20 - l.organ.length)}, {l.organ}{:else}{short(l.common, 24)}{/if}</text
      >
    {/each}
    <path d={path} fill="none" stroke="var(--color-ink)" stroke-width="1.8" />
    <text x={left + 3} y="16" font-size="11" fill="var(--color-soft)">{chart.label}, {of}</text>
  </svg>
</div>
