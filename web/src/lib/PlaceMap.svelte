<script lang="ts">
  /** A plain map of the world's outlines, on which a place is pressed: for who has no coordinates at hand. */
  import { onMount } from 'svelte';
  import { distant } from './units';
  import { atMap, draw, lands, onMap, type Land, type Seen } from './world';

  interface Place {
    latitude: number;
    longitude: number;
  }
  interface Props {
    at?: Place; // what is chosen
    from?: Place; // what it opens at where nothing is chosen
    onpick: (at: Place) => void;
  }
  let { at, from, onpick }: Props = $props();
  const high = 320;
  const [least, most] = [0.8, 800]; // px a degree
  let wide = $state(600);
  let canvas = $state<HTMLCanvasElement>();
  let all = $state.raw<Land[]>();
  let fault = $state('');
  // svelte-ignore state_referenced_locally
  let seen = $state.raw<Seen>({
    latitude: 20,
    longitude: 10,
    scale: 1.6,
    ...(at ?? from),
    ...((at ?? from) && { scale: at ? 24 : 8 }),
  });
  let held = $state.raw<{ x: number; y: number; far: boolean; seen: Seen }>();

  onMount(() => {
    lands().then(
      (l) => (all = l),
      (e: Error) => (fault = e.message),
    );
  });
  $effect(() => {
    const c = canvas?.getContext('2d');
    if (!c || !all) return;
    const ratio = window.devicePixelRatio || 1;
    canvas!.width = wide * ratio;
    canvas!.height = high * ratio;
    c.scale(ratio, ratio);
    const style = getComputedStyle(canvas!);
    const colour = (name: string) => style.getPropertyValue(`--color-${name}`);
    draw(c, all, seen, wide, high, { land: colour('moss-pale'), line: colour('soft'), word: colour('ink') });
  });
  const pin = $derived(at ? onMap(seen, wide, high, at.latitude, at.longitude) : undefined);
  const inSight = (q: [number, number]) => q[0] >= 0 && q[0] <= wide && q[1] >= 0 && q[1] <= high;

  /** Nearer or farther, with what lies under a point staying there. */
  function zoom(by: number, x = wide / 2, y = high / 2) {
    const scale = Math.max(least, Math.min(most, seen.scale * by));
    const under = atMap({ ...seen }, wide, high, x, y);
    const next = { ...seen, scale };
    const [px, py] = onMap(next, wide, high, under.latitude, under.longitude);
    seen = moved(next, x - px, y - py);
  }
  const moved = (s: Seen, dx: number, dy: number): Seen => ({
    ...s,
    latitude: Math.max(-85, Math.min(85, s.latitude + dy / s.scale)),
    longitude: s.longitude - dx / (s.scale * Math.max(0.2, Math.cos((s.latitude * Math.PI) / 180))),
  });
  function down(e: PointerEvent) {
    canvas!.setPointerCapture(e.pointerId);
    held = { x: e.clientX, y: e.clientY, far: false, seen };
  }
  function move(e: PointerEvent) {
    if (!held) return;
    const [dx, dy] = [e.clientX - held.x, e.clientY - held.y];
    held = { ...held, far: held.far || Math.hypot(dx, dy) > 6 };
    if (held.far) seen = moved(held.seen, dx, dy);
  }
  function up(e: PointerEvent) {
    const h = held;
    held = undefined;
    if (!h || h.far) return;
    const box = canvas!.getBoundingClientRect();
    onpick(atMap(seen, wide, high, e.clientX - box.left, e.clientY - box.top));
  }
  function keys(e: KeyboardEvent) {
    const step = e.shiftKey ? 4 : 40;
    const by: Record<string, [number, number]> = {
      ArrowLeft: [step, 0],
      ArrowRight: [-step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    if (by[e.key]) seen = moved(seen, ...by[e.key]!);
    else if (e.key === '+') zoom(2);
    else if (e.key === '-') zoom(0.5);
    else if (e.key === 'Enter' || e.key === ' ') onpick(atMap(seen, wide, high, wide / 2, high / 2));
    else return;
    e.preventDefault();
  }
  const exact = $derived(seen.scale >= 24);
</script>

<div class="relative border border-rule" bind:clientWidth={wide}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <div
    tabindex="0"
    role="application"
    aria-label="Map: press where it lies. By keys: arrows move it, + and − bring it nearer and farther, Enter takes what is under the cross"
    class="cursor-crosshair touch-none"
    onpointerdown={down}
    onpointermove={move}
    onpointerup={up}
    onpointercancel={() => (held = undefined)}
    onwheel={(e) => {
      e.preventDefault();
      zoom(e.deltaY < 0 ? 1.3 : 1 / 1.3, e.offsetX, e.offsetY);
    }}
    onkeydown={keys}
  >
    <canvas bind:this={canvas} class="block w-full" style:height="{high}px"></canvas>
  </div>
  <svg class="pointer-events-none absolute inset-0" width={wide} height={high} aria-hidden="true">
    <path d="M{wide / 2 - 7} {high / 2}h14M{wide / 2} {high / 2 - 7}v14" stroke="var(--color-soft)" stroke-width="1" />
    {#if pin && inSight(pin)}
      <circle cx={pin[0]} cy={pin[1]} r="8" fill="none" stroke="var(--color-ink)" stroke-width="2.5" data-testid="pin" />
      <circle cx={pin[0]} cy={pin[1]} r="2" fill="var(--color-ink)" />
    {/if}
  </svg>
  <div class="absolute top-1 right-1 flex flex-col gap-1">
    <button
      type="button"
      class="size-11 border border-ink bg-white text-lg"
      aria-label="Nearer"
      onclick={() => (pin ? zoom(2, ...pin) : zoom(2))}>+</button
    >
    <button
      type="button"
      class="size-11 border border-ink bg-white text-lg"
      aria-label="Farther"
      onclick={() => (pin ? zoom(0.5, ...pin) : zoom(0.5))}>−</button
    >
  </div>
  {#if !all}<p class="absolute inset-0 m-auto h-6 w-60 text-center text-sm" role="status">
      {fault || 'The map is coming …'}
    </p>{/if}
</div>
<p class="text-sm text-soft" role="status">
  {#if !at}Press where it lies; drag to move the map, + to come nearer.
  {:else if !exact}Come nearer with + and press again, to place it within {distant(5)}.
  {:else}Placed to about {distant(seen.scale >= 100 ? 2 : 5)}. Outlines only: for the garden itself paste its coordinates.{/if}
</p>
