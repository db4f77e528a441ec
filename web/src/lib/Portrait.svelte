<script lang="ts">
  import type { Answer, Check } from '../api/client';
  import { found } from '../walks/checks';
  import { metres } from './dates';
  import { ruler } from './units';
  import { behind, lines, outline, type Form } from './portrait';

  interface Props {
    form: Form;
    rowM?: number; // how long a row or hedge is: it is drawn as one
    heightM: number;
    spreadM: number;
    name: string;
    answer?: Answer;
    checks?: Check[];
    graftM?: number; // height of the graft, 0 without one
    foretold?: boolean; // without checks, what the weather is expected to have done is drawn
    grownM?: number; // how tall it is foretold to be: the rest of what it was is drawn as a ghost
    active?: number; // height the next check is made at, m
    box?: [number, number];
    onpick?: (heightM: number) => void;
    drags?: boolean; // the height is dragged, too
  }
  let {
    form: grown,
    rowM = 0,
    heightM,
    spreadM: spread,
    name,
    answer,
    checks = [],
    graftM = 0,
    foretold = false,
    grownM,
    active,
    box = [340, 400],
    onpick,
    drags = false,
  }: Props = $props();

  const form = $derived<Form>(rowM > 0 ? 'hedge' : grown);
  const spreadM = $derived(rowM > 0 ? Math.max(spread, Math.min(rowM, 2 * heightM)) : spread);
  // The right margin is for what the checks found; a picture without checks to come does without.
  const longest = $derived(Math.max(0, ...checks.filter((c) => c.height_m).map((c) => found(c).length)));
  const margin = $derived({
    left: 44,
    right: onpick || checks.length ? Math.max(78, Math.min(120, 6.2 * longest + 14)) : 12,
    top: 16,
    bottom: 22,
  });
  const scale = $derived(
    Math.min(
      (box[1] - margin.top - margin.bottom) / heightM,
      (box[0] - margin.left - margin.right) / Math.max(spreadM, heightM * 0.35),
    ),
  );
  const ground = $derived(box[1] - margin.bottom);
  const mid = $derived(margin.left + (box[0] - margin.left - margin.right) / 2);
  const Y = $derived((m: number) => ground - m * scale);
  const half = $derived((Math.max(spreadM, heightM * 0.35) / 2) * scale);
  const shape = (upTo: number, size = 1) =>
    'M' +
    outline(form, upTo)
      .map(([w, z]) => `${(mid + w * half * Math.sqrt(size)).toFixed(1)} ${Y(z * heightM * size).toFixed(1)}`)
      .join('L') +
    'Z';
  const line = (points: [number, number][]) =>
    'M' + points.map(([w, z]) => `${(mid + w * half).toFixed(1)} ${Y(z * heightM).toFixed(1)}`).join('L');
  const whole = $derived(shape(1));
  const known = $derived(answer !== undefined && (checks.length > 0 || foretold));
  const living = $derived(shape(1, grownM === undefined ? 1 : Math.min(1, grownM / heightM)));
  const low = $derived(known ? answer!.boundary.low_m : heightM);
  const high = $derived(known ? answer!.boundary.high_m : heightM);
  const cut = $derived(answer?.verdict.cut_m ?? 0);
  const marks = $derived(ruler(heightM));
  const id = $props.id();

  // All that was found at one height stands on one line at the right.
  const ticks = $derived.by(() => {
    const at = new Map<number, string[]>();
    for (const c of checks) {
      if (!c.height_m) continue;
      const said = at.get(c.height_m) ?? [];
      said.push(found(c));
      at.set(c.height_m, said);
    }
    // Keep the words apart where heights lie close.
    let last = Infinity;
    return [...at]
      .sort((a, b) => a[0] - b[0])
      .map(([h, said]) => {
        const y = Math.min(Y(h), last - 15);
        last = y;
        return {
          h,
          y,
          said: said.join(', '),
          dead: said.every((s) => /^(brown|0\/|bark gone|leaves brown|split, loose)/.test(s)),
        };
      });
  });

  function drag(e: PointerEvent) {
    if (drags && e.buttons === 1) pick(e);
  }
  function pick(e: MouseEvent) {
    if (!onpick) return;
    const r = (e.currentTarget as SVGElement).getBoundingClientRect();
    const m = (ground - ((e.clientY - r.top) * box[1]) / r.height) / scale;
    const grain = heightM > 3 ? 0.1 : 0.05;
    onpick(Math.min(heightM, Math.max(grain, Math.round(m / grain) * grain)));
  }
  const words = $derived(
    `${name}, ${grownM === undefined ? metres(heightM) : `about ${metres(grownM)} of ${metres(heightM)}`} high and ${rowM > 0 ? `${metres(rowM)} long` : `${metres(spreadM)} wide`}. ` +
      (checks.length && answer
        ? `Alive up to ${metres(low)}, dead above ${metres(high)}, in doubt between. `
        : known
          ? `Not checked yet. Expected from the weather: alive up to ${metres(low)}, dead above ${metres(high)}. `
          : grownM === undefined
            ? 'Not checked yet. '
            : '') +
      (graftM ? `Graft at ${metres(graftM)}. ` : '') +
      (cut ? `Cut at ${metres(cut)}. ` : '') +
      ticks.map((t) => `At ${metres(t.h)}: ${t.said}.`).join(' '),
  );
</script>

<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -- the height field and arrow keys do the same -->
<svg
  viewBox="0 0 {box[0]} {box[1]}"
  class="block h-full w-full select-none {drags ? 'cursor-ns-resize touch-none' : onpick ? 'cursor-crosshair' : ''}"
  role="img"
  aria-label={words}
  onclick={pick}
  onpointermove={drag}
>
  <defs>
    <clipPath id="{id}-whole"><path d={living} /></clipPath>
    <pattern id="{id}-dead" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <line x1="0" y1="0" x2="0" y2="7" stroke="var(--color-wood)" stroke-width="1.7" />
    </pattern>
    <pattern id="{id}-doubt" width="7" height="7" patternUnits="userSpaceOnUse">
      <circle cx="2" cy="2" r="1.15" fill="var(--color-wood)" />
      <circle cx="5.5" cy="5.5" r="1.15" fill="var(--color-moss)" />
    </pattern>
  </defs>
  {#each marks as { m, text } (m)}
    <line
      x1={margin.left - 6}
      x2={box[0] - margin.right}
      y1={Y(m)}
      y2={Y(m)}
      stroke="var(--color-rule)"
      stroke-dasharray={m ? '1 5' : ''}
    />
    <text x={margin.left - 9} y={Y(m) + 4} font-size="12" text-anchor="end" fill="var(--color-soft)">{text}</text>
  {/each}
  {#each behind(form) as l, i (i)}<path d={line(l)} fill="none" stroke="var(--color-rule)" stroke-width="1.5" />{/each}
  <g clip-path="url(#{id}-whole)">
    <rect x="0" width={box[0]} y={Y(low)} height={Math.max(0, ground - Y(low))} fill="var(--color-living)" />
    <rect x="0" width={box[0]} y={Y(high)} height={Math.max(0, Y(low) - Y(high))} fill="var(--color-unsure)" />
    <rect x="0" width={box[0]} y={Y(high)} height={Math.max(0, Y(low) - Y(high))} fill="url(#{id}-doubt)" />
    <rect x="0" width={box[0]} y="0" height={Math.max(0, Y(high))} fill="var(--color-dead)" />
    <rect x="0" width={box[0]} y="0" height={Math.max(0, Y(high))} fill="url(#{id}-dead)" />
    {#each lines(form) as l, i (i)}
      <path d={line(l)} fill="none" stroke="var(--color-ink)" stroke-width={i ? 1.3 : 2} opacity="0.5" />
    {/each}
  </g>
  <path d={living} fill="none" stroke="var(--color-ink)" stroke-width="1.5" />
  {#if grownM !== undefined}<path d={whole} fill="none" stroke="var(--color-moss)" stroke-dasharray="2 5" />{/if}
  {#if graftM > 0}
    <path
      d="M{mid - 14} {Y(graftM) + 3}h28M{mid - 14} {Y(graftM) - 3}h28"
      fill="none"
      stroke="var(--color-ink)"
      stroke-width="1.6"
    />
    <text
      x={mid - 18}
      y={Y(graftM) + 4}
      font-size="12"
      text-anchor="end"
      stroke="var(--color-white)"
      stroke-width="3"
      paint-order="stroke">graft</text
    >
  {/if}
  {#if cut > 0}
    <path
      d={shape(Math.min(1, (cut + (heightM - cut) * 0.6) / heightM))}
      fill="none"
      stroke="var(--color-moss)"
      stroke-dasharray="2 5"
    />
    <line
      x1={margin.left}
      x2={box[0] - margin.right + 6}
      y1={Y(cut)}
      y2={Y(cut)}
      stroke="var(--color-bad)"
      stroke-width="2.4"
      class="transition-all duration-200"
    />
    <text x={margin.left + 2} y={Y(cut) - 5} font-size="12.5" font-weight="700" fill="var(--color-bad)">cut {metres(cut)}</text>
  {/if}
  {#each ticks as t (t.h)}
    <path
      d="M{mid} {Y(t.h)}H{box[0] - margin.right}L{box[0] - margin.right + 5} {t.y}"
      fill="none"
      stroke="var(--color-ink)"
      stroke-width="1"
      opacity="0.6"
    />
    <circle
      cx={mid}
      cy={Y(t.h)}
      r="4.5"
      fill={t.dead ? 'var(--color-paper)' : 'var(--color-moss)'}
      stroke="var(--color-ink)"
      stroke-width="1.4"
    />
    <text x={box[0] - margin.right + 7} y={t.y + 4} font-size="12" fill="var(--color-ink)">{t.said}</text>
  {/each}
  {#if active !== undefined}
    <g>
      <line
        x1={margin.left - 6}
        x2={box[0] - margin.right}
        y1={Y(active)}
        y2={Y(active)}
        stroke="var(--color-cold)"
        stroke-width="2"
        stroke-dasharray="7 4"
      />
      <path d="M{margin.left - 6} {Y(active)}l-9 -6v12z" fill="var(--color-cold)" />
    </g>
  {/if}
</svg>
