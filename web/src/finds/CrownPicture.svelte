<script lang="ts">
  /** A picture with the outline of a crown and the points in it: drawn by a finger, and each point to be tapped. */
  import type { Class, Point } from '../field/crown';

  interface Props {
    picture: HTMLCanvasElement;
    outline: Point[];
    points: Point[];
    classes: Class[];
    current: number; // -1 for none
    ondrawn: (outline: Point[]) => void;
    onpick: (i: number) => void;
  }
  let { picture, outline, points, classes, current, ondrawn, onpick }: Props = $props();
  let drawing = $state<Point[]>();
  let svg = $state<SVGSVGElement>();
  const url = $derived(picture.toDataURL('image/jpeg', 0.8));
  const size = $derived(Math.max(picture.width, picture.height) / 85); // of a mark, px of the picture

  function at(e: PointerEvent): Point {
    const box = svg!.getBoundingClientRect();
    return {
      x: Math.round(((e.clientX - box.left) / box.width) * picture.width),
      y: Math.round(((e.clientY - box.top) / box.height) * picture.height),
    };
  }
  function down(e: PointerEvent) {
    const p = at(e);
    if (points.length) {
      const far = points.map((q) => Math.hypot(q.x - p.x, q.y - p.y));
      return onpick(far.indexOf(Math.min(...far)));
    }
    svg!.setPointerCapture(e.pointerId);
    drawing = [p];
  }
  function move(e: PointerEvent) {
    const last = drawing?.at(-1);
    if (!last) return;
    const p = at(e);
    if (Math.hypot(p.x - last.x, p.y - last.y) > size) drawing = [...drawing!, p];
  }
  function up() {
    const drawn = drawing;
    drawing = undefined;
    if (drawn) ondrawn(drawn);
  }
  const line = $derived((drawing ?? outline).map((p) => `${p.x},${p.y}`).join(' '));
</script>

<svg
  bind:this={svg}
  viewBox="0 0 {picture.width} {picture.height}"
  class="block max-h-[60vh] w-full touch-none select-none {points.length ? '' : 'cursor-crosshair'}"
  role="img"
  aria-label={points.length
    ? `The crown with ${points.length} points`
    : 'The picture: draw a line round the crown, or take the whole picture'}
  onpointerdown={down}
  onpointermove={move}
  onpointerup={up}
  onpointercancel={up}
>
  <image href={url} width={picture.width} height={picture.height} />
  {#if line}
    <polygon points={line} fill="none" stroke="black" stroke-width={size * 0.8} stroke-linejoin="round" />
    <polygon points={line} fill="none" stroke="white" stroke-width={size * 0.4} stroke-linejoin="round" />
  {/if}
  {#each points as p, i (i)}
    <g transform="translate({p.x} {p.y})" stroke="white" stroke-width={size * 0.28}>
      {#if classes[i] === 'green'}<circle r={size * 0.75} fill="#1f7a3a" />
      {:else if classes[i] === 'brown'}<rect
          x={-size * 0.75}
          y={-size * 0.75}
          width={size * 1.5}
          height={size * 1.5}
          fill="#8a4b12"
        />
      {:else if classes[i] === 'bare'}<path d="M0 {-size} L{size} {size * 0.8} L{-size} {size * 0.8} Z" fill="#4a4a4a" />
      {:else}<circle r={size * 0.55} fill="none" stroke="#1b4f8a" stroke-width={size * 0.35} />{/if}
      {#if i === current}<circle r={size * 1.9} fill="none" stroke="black" stroke-width={size * 0.7} /><circle
          r={size * 1.9}
          fill="none"
          stroke="#ffd23f"
          stroke-width={size * 0.4}
        />{/if}
    </g>
  {/each}
</svg>
