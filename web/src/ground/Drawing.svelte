<script lang="ts">
  /** A property seen from above, in metres: drawn by mouse, touch and keys. It holds nothing: what is done is told. */
  import type { Schemas } from '../api/client';
  import { gridOf, metres } from '../lib/units';
  import { placed } from './labels';
  import { distance, kinds, middle, moved, near, snap, type At, type Kind, type Thing, type View } from './plan';

  interface Props {
    things: Thing[];
    shadows?: Schemas['SiteShadow'][];
    chosen?: string;
    tool: Kind | 'pick' | 'place' | 'several';
    group?: string[]; // picked together
    drawn: At[]; // corners of what is being drawn
    view: View;
    wide: number;
    high: number;
    north: number;
    under?: Schemas['SiteUnderlay']; // a picture beneath it all
    fixed?: boolean; // only looked at
    cursor?: At; // where keys draw
    marked?: Record<string, string>; // colour by id
    onpick: (id: string | undefined) => void;
    oncorner: (q: At) => void;
    onmove: (moved: Thing[]) => void; // things were moved, or a corner of one
    onframe?: (a: At, b: At) => void; // a frame was drawn about things
    onview: (v: View) => void;
  }
  let p: Props = $props();
  const X = (x: number) => (x - p.view.x0) * p.view.scale;
  const Y = (y: number) => (p.view.y1 - y) * p.view.scale;
  const line = (points: At[]) => points.map((q) => `${X(q.x).toFixed(1)},${Y(q.y).toFixed(1)}`).join(' ');
  const placeOf = (e: PointerEvent | WheelEvent): At => {
    const box = svg!.getBoundingClientRect();
    return { x: p.view.x0 + (e.clientX - box.left) / p.view.scale, y: p.view.y1 - (e.clientY - box.top) / p.view.scale };
  };
  let svg = $state<SVGSVGElement>();
  let held = $state.raw<{ id?: string; corner: number; from: At; px: { x: number; y: number }; far: boolean; view: View }>();
  let ghosts = $state.raw<Thing[]>([]); // things as they are being dragged
  let frame = $state.raw<[At, At]>(); // being drawn
  const picks = $derived(p.tool === 'pick' || p.tool === 'several');

  function down(e: PointerEvent, id?: string, corner = -1) {
    if (e.button !== 0) return;
    e.stopPropagation();
    svg!.setPointerCapture(e.pointerId);
    held = {
      id: picks ? id : undefined,
      corner,
      from: placeOf(e),
      px: { x: e.clientX, y: e.clientY },
      far: false,
      view: p.view,
    };
  }
  function move(e: PointerEvent) {
    const h = held;
    if (!h) return;
    const far = h.far || Math.hypot(e.clientX - h.px.x, e.clientY - h.px.y) > 6;
    held = { ...h, far };
    if (!far) return;
    const at = placeOf(e);
    const t = p.things.find((x) => x.id === h.id);
    if (!t && p.tool === 'several') {
      frame = [h.from, at];
      return;
    }
    if (!t) {
      const s = h.view.scale;
      p.onview({ ...h.view, x0: h.view.x0 - (e.clientX - h.px.x) / s, y1: h.view.y1 + (e.clientY - h.px.y) / s });
      return;
    }
    const [dx, dy] = [snap(at.x - h.from.x), snap(at.y - h.from.y)];
    const together = p.group?.includes(t.id) ? p.things.filter((x) => p.group!.includes(x.id)) : [t];
    ghosts =
      h.corner < 0
        ? together.map((x) => moved(x, dx, dy))
        : [{ ...t, points: t.points!.map((q, i) => (i === h.corner ? { x: near(q.x + dx), y: near(q.y + dy) } : q)) }];
  }
  function up(e: PointerEvent) {
    const h = held;
    held = undefined;
    if (!h) return;
    const [g, f] = [ghosts, frame];
    ghosts = [];
    frame = undefined;
    if (h.far && f) p.onframe?.(...f);
    else if (h.far && g.length) p.onmove(g);
    else if (!h.far && !picks) p.oncorner({ x: near(snap(placeOf(e).x)), y: near(snap(placeOf(e).y)) });
    else if (!h.far) p.onpick(h.id);
  }
  function wheel(e: WheelEvent) {
    e.preventDefault();
    const at = placeOf(e);
    const scale = Math.min(200, Math.max(0.8, p.view.scale * (e.deltaY < 0 ? 1.15 : 1 / 1.15)));
    const k = p.view.scale / scale;
    p.onview({ x0: at.x - (at.x - p.view.x0) * k, y1: at.y + (p.view.y1 - at.y) * k, scale });
  }
  const list = $derived(p.things.map((t) => ghosts.find((g) => g.id === t.id) ?? t));
  const order = [
    'ground',
    'lawn',
    'bed',
    'hollow',
    'water',
    'path',
    'drain',
    'building',
    'wall',
    'fence',
    'hedge',
    'plant',
    'tree',
  ];
  const rank = (t: Thing) => (order.includes(t.kind) ? order.indexOf(t.kind) : order.length);
  const shown = $derived([...list].sort((a, b) => rank(a) - rank(b)));
  const picked = $derived(list.find((t) => t.id === p.chosen));
  const grid = $derived(gridOf(p.view.scale));
  const each = $derived(grid.m); // between the lines of the ground
  const lines = $derived({
    x: Array.from({ length: Math.ceil(p.wide / p.view.scale / each) + 1 }, (_, i) => (Math.ceil(p.view.x0 / each) + i) * each),
    y: Array.from({ length: Math.ceil(p.high / p.view.scale / each) + 1 }, (_, i) => (Math.floor(p.view.y1 / each) - i) * each),
  });
  const width = (t: Thing) => Math.max(3, ((t.kind === 'hedge' ? t.spread_m : 0) || 0.25) * p.view.scale);
  const label = (t: Thing) => t.name || kinds[t.kind].name;
  const radius = (t: Thing) => Math.max(4, ((t.spread_m || (t.height_m ?? 0) / 2) / 2) * p.view.scale);
  /** Names beside what they name, none on another. */
  const names = $derived(
    placed(
      shown
        .filter((t) => t.kind !== 'ground' && (p.view.scale > 6 || t.id === p.chosen))
        .map((t) => {
          const q = middle(t);
          const round = t.kind === 'plant' || t.kind === 'tree';
          const first = t.id === p.chosen;
          return {
            id: t.id,
            text: label(t),
            x: X(q.x),
            y: Y(q.y),
            r: round ? Math.min(radius(t), 16) : 6,
            inside: kinds[t.kind].form !== 'point',
            size: p.view.scale < 14 && !first ? 11 : 12,
            first,
          };
        })
        .filter((n) => n.x > -40 && n.x < p.wide + 40 && n.y > -40 && n.y < p.high + 40),
      p.wide,
      p.high,
    ),
  );
  const at = $derived(Object.fromEntries(shown.map((t) => [t.id, middle(t)])));
  const leg = $derived(p.drawn.length > 1 ? distance(p.drawn[p.drawn.length - 2]!, p.drawn[p.drawn.length - 1]!) : 0);
</script>

<svg
  bind:this={svg}
  width={p.wide}
  height={p.high}
  class="block touch-none border border-rule bg-white {p.tool === 'pick' ? 'cursor-grab' : 'cursor-crosshair'}"
  role="group"
  aria-label={p.fixed ? 'Plan after the change' : 'Plan of the property'}
  onpointerdown={(e) => down(e)}
  onpointermove={move}
  onpointerup={up}
  onpointercancel={() => {
    held = undefined;
    ghosts = [];
    frame = undefined;
  }}
  onwheel={wheel}
>
  <defs>
    <pattern id="roof" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <rect width="7" height="7" fill="var(--color-sheet)" /><line
        x1="0"
        y1="0"
        x2="0"
        y2="7"
        stroke="var(--color-rule)"
        stroke-width="3"
      />
    </pattern>
  </defs>
  {#if p.under}
    {@const u = p.under}
    <image
      href="/api/v1/pictures/{u.photo}"
      x={X(u.at.x)}
      y={Y(u.at.y)}
      opacity={1 - (u.faint ?? 0)}
      style:transform-origin="{X(u.at.x)}px {Y(u.at.y)}px"
      style:transform="rotate({u.turn_deg ?? 0}deg) scale({u.metres_a_pixel * p.view.scale})"
      pointer-events="none"
    />
  {/if}
  {#each lines.x as x}<line x1={X(x)} x2={X(x)} y1="0" y2={p.high} stroke="var(--color-rule)" stroke-width="0.5" />{/each}
  {#each lines.y as y}<line x1="0" x2={p.wide} y1={Y(y)} y2={Y(y)} stroke="var(--color-rule)" stroke-width="0.5" />{/each}
  {#each shown as t (t.id)}
    {@const form = kinds[t.kind].form}
    {@const on = t.id === p.chosen || !!p.group?.includes(t.id)}
    {@const stroke = p.marked?.[t.id] ?? (on ? 'var(--color-ink)' : 'var(--color-moss)')}
    <g role="button" tabindex="-1" aria-label={label(t)} onpointerdown={(e) => (picks ? down(e, t.id) : undefined)}>
      {#if form === 'area'}
        <polygon
          points={line(t.points)}
          fill={t.kind === 'building'
            ? 'url(#roof)'
            : t.kind === 'lawn'
              ? 'var(--color-moss-pale)'
              : t.kind === 'bed'
                ? t.plant_id
                  ? (p.marked?.[t.id] ?? 'var(--color-moss)')
                  : 'var(--color-sheet)'
                : 'transparent'}
          fill-opacity={t.kind === 'bed' && t.plant_id ? 0.22 : 1}
          stroke={on ? 'var(--color-ink)' : t.kind === 'water' ? 'var(--color-water, #1f7a80)' : 'var(--color-soft)'}
          stroke-width={on ? 3 : t.kind === 'building' ? 2 : 1}
          stroke-dasharray={t.kind === 'hollow' ? '2 4' : t.kind === 'water' ? '6 3' : t.kind === 'ground' ? '10 4' : undefined}
        />
      {:else if form === 'line'}
        <polyline points={line(t.points)} fill="none" stroke="transparent" stroke-width="22" />
        <polyline
          points={line(t.points)}
          fill="none"
          stroke={t.kind === 'hedge'
            ? stroke
            : t.kind === 'path'
              ? 'var(--color-rule)'
              : on
                ? 'var(--color-ink)'
                : 'var(--color-soft)'}
          stroke-opacity={t.kind === 'hedge' ? 0.75 : 1}
          stroke-width={t.kind === 'wire' || t.kind === 'drain' ? 1.5 : t.kind === 'path' ? Math.max(4, p.view.scale) : width(t)}
          stroke-dasharray={t.kind === 'fence' ? '8 4' : t.kind === 'wire' ? '14 4 2 4' : t.kind === 'drain' ? '3 5' : undefined}
          stroke-linecap="square"
        />
      {:else if t.kind === 'plant' || t.kind === 'tree'}
        <circle
          cx={X(t.points![0]!.x)}
          cy={Y(t.points![0]!.y)}
          r={radius(t)}
          fill={p.marked?.[t.id] ?? 'var(--color-moss)'}
          fill-opacity="0.22"
          {stroke}
          stroke-width={on ? 3 : 1.4}
          stroke-dasharray={t.leaf === 'deciduous' ? '5 2' : undefined}
        />
        <circle cx={X(t.points![0]!.x)} cy={Y(t.points![0]!.y)} r="2" fill="var(--color-ink)" />
      {:else if t.kind === 'grave'}
        {@const [x, y] = [X(t.points![0]!.x), Y(t.points![0]!.y)]}
        <circle cx={x} cy={y} r="14" fill="transparent" />
        <path
          d="M{x - 6} {y - 6}L{x + 6} {y + 6}M{x - 6} {y + 6}L{x + 6} {y - 6}"
          stroke={on ? 'var(--color-ink)' : 'var(--color-soft)'}
          stroke-width={on ? 3 : 2}
        />
      {:else}
        <rect
          x={X(t.points![0]!.x) - 6}
          y={Y(t.points![0]!.y) - 6}
          width="12"
          height="12"
          fill="var(--color-white)"
          stroke={on ? 'var(--color-ink)' : 'var(--color-soft)'}
          stroke-width={on ? 3 : 1.5}
          transform={t.kind === 'sprinkler' ? `rotate(45 ${X(t.points![0]!.x)} ${Y(t.points![0]!.y)})` : undefined}
        />
      {/if}
    </g>
  {/each}
  {#each p.shadows as s, i (i)}<polygon
      points={line(s.points)}
      fill="var(--color-ink)"
      fill-opacity="0.13"
      pointer-events="none"
    />{/each}
  {#each names as n (n.id)}
    {#if n.led}<line
        x1={X(at[n.id]!.x)}
        y1={Y(at[n.id]!.y)}
        x2={n.x}
        y2={n.y - 4}
        stroke="var(--color-soft)"
        stroke-width="0.8"
        pointer-events="none"
      />{/if}
    <text
      x={n.x}
      y={n.y}
      text-anchor="middle"
      font-size={p.view.scale < 14 && n.id !== p.chosen ? 11 : 12}
      font-weight={n.id === p.chosen ? 700 : 400}
      fill="var(--color-ink)"
      stroke="var(--color-white)"
      stroke-width="3"
      paint-order="stroke"
      pointer-events="none"
      data-name={n.id}>{n.text}</text
    >
  {/each}
  {#if picked && p.tool === 'pick' && kinds[picked.kind].form !== 'point'}
    {#each picked.points as q, i (i)}<circle
        cx={X(q.x)}
        cy={Y(q.y)}
        r="9"
        fill="var(--color-white)"
        stroke="var(--color-ink)"
        stroke-width="2"
        role="button"
        tabindex="-1"
        aria-label="Corner {i + 1}"
        onpointerdown={(e) => down(e, picked.id, i)}
      />{/each}
  {/if}
  {#if frame}
    {@const [a, b] = frame}
    <rect
      x={Math.min(X(a.x), X(b.x))}
      y={Math.min(Y(a.y), Y(b.y))}
      width={Math.abs(X(a.x) - X(b.x))}
      height={Math.abs(Y(a.y) - Y(b.y))}
      fill="none"
      stroke="var(--color-ink)"
      stroke-width="1.5"
      stroke-dasharray="6 3"
    />
  {/if}
  {#if p.drawn.length}
    <polyline points={line(p.drawn)} fill="none" stroke="var(--color-ink)" stroke-width="2" stroke-dasharray="6 3" />
    {#each p.drawn as q, i (i)}<circle cx={X(q.x)} cy={Y(q.y)} r="6" fill="var(--color-ink)" />{/each}
    {#if leg}<text
        x={X(p.drawn[p.drawn.length - 1]!.x) + 10}
        y={Y(p.drawn[p.drawn.length - 1]!.y)}
        font-size="13"
        font-weight="700">{metres(leg)}</text
      >{/if}
  {/if}
  {#if p.cursor}
    {@const [x, y] = [X(p.cursor.x), Y(p.cursor.y)]}
    <path
      d="M{x - 14} {y}H{x + 14}M{x} {y - 14}V{y + 14}"
      stroke="var(--color-ink)"
      stroke-width="2"
      pointer-events="none"
      data-testid="cursor"
    />
  {/if}
  <g transform="translate(16 {p.high - 16})" pointer-events="none">
    <line x1="0" x2={each * p.view.scale} y1="0" y2="0" stroke="var(--color-ink)" stroke-width="3" />
    <text x={each * p.view.scale + 6} y="4" font-size="12">{grid.text}</text>
  </g>
  <g transform="translate({p.wide - 26} 30) rotate({-p.north})" pointer-events="none">
    <path d="M0 -18 L7 10 L0 5 L-7 10 Z" fill="var(--color-ink)" />
    <text y="24" text-anchor="middle" font-size="12" font-weight="700">N</text>
  </g>
</svg>
