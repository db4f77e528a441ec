<script lang="ts">
  /** A picture or an old plan that lies under the drawing, brought to scale by two points of which one knows how far they lie apart. */
  import { onceKey, sendFile, type Problem, type Schemas } from '../api/client';
  import FilePick from '../lib/FilePick.svelte';
  import { attempt } from '../lib/house.svelte';
  import Measure from './Measure.svelte';
  import { distance, near, type At, type Lie } from './plan';

  interface Props {
    property: number;
    lie: Lie;
    ends: At[]; // the two points that were pressed
    middle: At; // of what is seen
    onset: (l: Lie) => void;
    onmeasure: (on: boolean) => void; // the next two presses are its two points
  }
  let { property, lie, ends, middle, onset, onmeasure }: Props = $props();
  let problem = $state.raw<Problem>();
  let apart = $state(0);
  const under = $derived(lie.underlay);

  async function take(file: File) {
    problem = await attempt(async () => {
      const p = await sendFile<Schemas['Picture']>(
        `/api/v1/properties/${property}/plan/picture`,
        file,
        file.type || 'image/jpeg',
        onceKey(),
      );
      // At first it is thirty metres wide, about the middle of what is seen.
      const metres = 30 / p.width;
      const at = { x: near(middle.x - 15), y: near(middle.y + (metres * p.height) / 2) };
      onset({ ...lie, underlay: { photo: p.hash, at, metres_a_pixel: metres, faint: 0.4 } });
    });
  }
  /** The two points keep their places in the picture; the first keeps its place on the ground. */
  function scale() {
    const u = under;
    const [a, b] = ends;
    if (!u || !a || !b || !apart) return;
    const by = apart / distance(a, b);
    onset({
      ...lie,
      underlay: {
        ...u,
        metres_a_pixel: u.metres_a_pixel * by,
        at: { x: near(a.x + (u.at.x - a.x) * by), y: near(a.y + (u.at.y - a.y) * by) },
      },
    });
    apart = 0;
    onmeasure(false);
  }
  const shift = (dx: number, dy: number) =>
    under && onset({ ...lie, underlay: { ...under, at: { x: near(under.at.x + dx), y: near(under.at.y + dy) } } });
</script>

<details class="border border-rule bg-white px-3 py-1">
  <summary class="min-h-11 py-2 font-semibold">A picture under it</summary>
  <div class="space-y-2 pb-2">
    {#if problem}<p role="alert" class="border-l-4 border-bad pl-2 text-sm">{problem.message}</p>{/if}
    <FilePick name={under ? 'Another picture' : 'Take a picture'} accept="image/*" onfile={take} />
    {#if under}
      <p class="text-sm">
        Pick two points on it that you know the distance of, then say how far they are apart.
        <button class="min-h-11 text-moss underline" onclick={() => onmeasure(true)}>Pick two points</button>
      </p>
      {#if ends.length === 2}
        <div class="flex items-end gap-2">
          <Measure label="They are apart" value={apart || near(distance(ends[0]!, ends[1]!))} onset={(v) => (apart = v)} />
          <button class="min-h-11 rounded-sm border border-ink bg-white px-3 font-semibold" disabled={!apart} onclick={scale}
            >Scale it</button
          >
        </div>
      {/if}
      <div class="flex flex-wrap gap-2">
        {#each [['←', -0.5, 0, 'left'], ['→', 0.5, 0, 'right'], ['↑', 0, 0.5, 'up'], ['↓', 0, -0.5, 'down']] as const as [sign, dx, dy, word] (word)}
          <button
            class="min-h-11 min-w-11 rounded-sm border border-rule bg-white"
            aria-label="Move the picture {word}"
            onclick={() => shift(dx, dy)}>{sign}</button
          >{/each}
        <button
          class="min-h-11 rounded-sm border border-rule bg-white px-2"
          onclick={() => onset({ ...lie, underlay: { ...under, turn_deg: (under.turn_deg ?? 0) + 5 } })}>Turn it</button
        >
        <button class="min-h-11 text-moss underline" onclick={() => onset({ ...lie, underlay: undefined })}>Take it away</button>
      </div>
      <label class="block text-sm font-semibold"
        >Faded<input
          class="block h-11 w-full accent-moss"
          type="range"
          min="0"
          max="0.9"
          step="0.1"
          value={under.faint ?? 0}
          onchange={(e) => onset({ ...lie, underlay: { ...under, faint: Number(e.currentTarget.value) } })}
        /></label
      >
    {/if}
  </div>
</details>
