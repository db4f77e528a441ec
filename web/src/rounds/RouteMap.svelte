<script lang="ts">
  /** A crew's day on a map of its own: properties where they lie, the way between them in order. No tiles, no network. */
  import { atHour } from '../lib/dates';
  import { type Crew, type Visit } from './clock';

  interface Spot {
    id: number;
    name: string;
    latitude: number;
    longitude: number;
  }
  interface Props {
    crew: Crew;
    visits: Visit[]; // of one day, in order
    spots: Spot[];
  }
  let { crew, visits, spots }: Props = $props();
  const wide = 330;
  const high = 240;
  const edge = 26;
  const all = $derived([...spots, ...(crew.start ? [{ id: 0, name: crew.name, ...crew.start }] : [])]);
  // Degrees of longitude are shorter than those of latitude, the more so towards the poles.
  const shrink = $derived(Math.cos(((all[0]?.latitude ?? 0) * Math.PI) / 180));
  const box = $derived.by(() => {
    const xs = all.map((s) => s.longitude * shrink);
    const ys = all.map((s) => s.latitude);
    const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const scale = Math.min((wide - 2 * edge) / Math.max(1e-4, x1 - x0), (high - 2 * edge) / Math.max(1e-4, y1 - y0));
    return { x0, y1, scale, left: (wide - (x1 - x0) * scale) / 2, top: (high - (y1 - y0) * scale) / 2 };
  });
  const at = (s: { latitude: number; longitude: number }) => ({
    x: box.left + (s.longitude * shrink - box.x0) * box.scale,
    y: box.top + (box.y1 - s.latitude) * box.scale,
  });
  const stops = $derived(
    visits
      .map((v, i) => ({ v, n: i + 1, s: spots.find((s) => s.id === v.property_id) }))
      .filter((x): x is { v: Visit; n: number; s: Spot } => !!x.s),
  );
  const line = $derived(
    [...(crew.start ? [at(crew.start)] : []), ...stops.map((x) => at(x.s)), ...(crew.start ? [at(crew.start)] : [])]
      .map((p) => `${p.x},${p.y}`)
      .join(' '),
  );
  const told = $derived(stops.map((x) => `${x.n} ${atHour(x.v.from)} ${x.v.property}`).join(', '));
</script>

{#if all.length > 1 && stops.length}
  <figure class="mt-2">
    <svg
      viewBox="0 0 {wide} {high}"
      class="w-full border border-rule bg-sheet"
      role="img"
      aria-label="The way of the day: {told}"
    >
      {#each spots as s (s.id)}
        <circle cx={at(s).x} cy={at(s).y} r="4" fill="var(--color-rule)" stroke="var(--color-soft)" />
      {/each}
      <polyline points={line} fill="none" stroke="var(--color-ink)" stroke-width="1.6" stroke-dasharray="5 3" />
      {#if crew.start}
        <path
          d="M{at(crew.start).x - 7} {at(crew.start).y + 6}v-7l7 -6l7 6v7z"
          fill="var(--color-white)"
          stroke="var(--color-ink)"
          stroke-width="1.6"
        />
      {/if}
      {#each stops as x (x.n)}
        <circle cx={at(x.s).x} cy={at(x.s).y} r="9" fill="var(--color-moss)" stroke="var(--color-white)" />
        <text x={at(x.s).x} y={at(x.s).y + 4} text-anchor="middle" font-size="12" font-weight="700" fill="var(--color-white)"
          >{x.n}</text
        >
      {/each}
    </svg>
    <figcaption class="text-sm text-soft">
      {#each stops as x (x.n)}<span class="block">{x.n} · {atHour(x.v.from)} {x.v.property}</span>{/each}
      As the crow flies, north above; the house is where the day begins.
    </figcaption>
  </figure>
{/if}
