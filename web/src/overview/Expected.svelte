<script lang="ts">
  import type { Plant } from '../api/client';
  import { outline, type Form } from '../lib/portrait';

  /** A plant in little, with what the weather is expected to have taken: dead wood hatched from the tips. */
  let { plant, box = 46 }: { plant: Plant; box?: number } = $props();
  const id = $props.id();
  const look = $derived(plant.look);
  const organ = $derived(look?.worth ? look.expected : 'nothing');
  const ground = $derived(box - 6);
  const tall = $derived(Math.min(1, 0.45 + 0.55 * Math.min(1, plant.height_m / 4)) * (ground - 2));
  const half = $derived(Math.min(box / 2 - 1, Math.max(5, ((plant.spread_m / Math.max(0.1, plant.height_m)) * tall) / 2)));
  const shape = $derived(
    'M' +
      outline(plant.form as Form)
        .map(([w, z]) => `${(box / 2 + w * half).toFixed(1)} ${(ground - z * tall).toFixed(1)}`)
        .join('L') +
      'Z',
  );
  const dead = $derived(
    organ === 'crown' || organ === 'growing point' ? 1 : organ === 'wood' ? Math.max(0.06, look?.dieback ?? 0) : 0,
  );
  const dotted = $derived(organ === 'buds' || organ === 'leaves' || organ === 'new shoots' || organ === 'blossom');
  const words = $derived(
    organ === 'wood'
      ? `Expected: the top ${Math.round(100 * dead)} % dead`
      : organ === 'nothing'
        ? 'Expected: unhurt'
        : `Expected: ${organ} hurt`,
  );
</script>

<svg width={box} height={box} viewBox="0 0 {box} {box}" role="img" aria-label={words} class="shrink-0">
  <clipPath id="{id}-c"><path d={shape} /></clipPath>
  <pattern id="{id}-h" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <line x1="0" y1="0" x2="0" y2="5" stroke="var(--color-wood)" stroke-width="1.6" />
  </pattern>
  <pattern id="{id}-d" width="5" height="5" patternUnits="userSpaceOnUse">
    <circle cx="1.5" cy="1.5" r="1" fill="var(--color-wood)" /><circle cx="4" cy="4" r="1" fill="var(--color-wood)" />
  </pattern>
  <g clip-path="url(#{id}-c)">
    <rect width={box} height={ground} fill="var(--color-living)" />
    {#if dead > 0}
      <rect width={box} height={ground - tall + tall * dead} fill="var(--color-dead)" />
      <rect width={box} height={ground - tall + tall * dead} fill="url(#{id}-h)" />
    {:else if dotted}
      <rect width={box} height={ground - tall * (organ === 'leaves' ? 0.15 : 0.4)} fill="url(#{id}-d)" />
    {/if}
  </g>
  <path d={shape} fill="none" stroke="var(--color-ink)" stroke-width="1.1" />
  <line x1="2" x2={box - 2} y1={ground} y2={ground} stroke="var(--color-ink)" stroke-width="1" />
  {#if organ === 'roots'}
    <rect
      x={box / 2 - 9}
      y={ground + 1}
      width="18"
      height="5"
      fill="url(#{id}-h)"
      stroke="var(--color-wood)"
      stroke-width="0.8"
    />
  {/if}
</svg>
