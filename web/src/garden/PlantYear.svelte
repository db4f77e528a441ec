<script lang="ts">
  /** A plant's year as one picture: leaves, flowers and next year's buds, the frosty months, and under them its jobs. */
  import { api, ask, type Order, type Schemas, type Season } from '../api/client';
  import { daysBetween, monthName, plusDays, span } from '../lib/dates';
  import { reading } from '../lib/reading';
  import { when } from '../work/orders';

  let {
    plant,
    jobs,
    today,
    cut,
  }: { plant: Schemas['PlantOut']; jobs: readonly Order[]; today: string; cut?: Schemas['PruningOut'] } = $props();

  let season = $state<Season>();
  let year = $state<Schemas['SpeciesYear']>();
  let unknown = $state('');
  const reads = reading();
  $effect(() => {
    const [id, property] = [plant.species, plant.property_id];
    void reads(async (signal) => {
      const [y, s] = await Promise.all([
        ask(api.GET('/api/v1/species/{id}/year', { params: { path: { id }, query: { property } }, signal })),
        ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: property } }, signal })),
      ]);
      [year, season] = [y, s];
    }).then((p) => (unknown = p?.message ?? ''));
  });

  const days = $derived(season?.normal_min.length ?? 1);
  /** Where a day stands, in hundredths of the width. */
  const at = (day: string) => (100 * daysBetween(season!.from, day)) / days;
  const within = (from: string, to: string) => to >= season!.from && from < season!.to;
  const clip = (v: number) => Math.max(0, Math.min(100, v));
  const bar = (from: string, to: string) => `left:${clip(at(from))}%;width:${clip(at(to)) - clip(at(from))}%`;

  const months = $derived.by(() => {
    const out: { at: number; name: string }[] = [];
    for (let d = new Date(`${season!.from}T00:00Z`); ; d.setUTCMonth(d.getUTCMonth() + 1, 1)) {
      const iso = d.toISOString().slice(0, 10);
      if (iso >= season!.to) return out;
      out.push({ at: at(iso), name: monthName(iso).slice(0, 3) });
    }
  });
  /** Runs of days whose usual night is below 0 °C. */
  const frosty = $derived.by(() => {
    const out: { from: number; to: number }[] = [];
    season!.normal_min.forEach((v, i) => {
      if (v >= 0) return;
      const last = out.at(-1);
      if (last?.to === i) last.to = i + 1;
      else out.push({ from: i, to: i + 1 });
    });
    return out;
  });

  interface Row {
    name: string;
    says: string;
    href?: string;
    look: 'leaves' | 'flowers' | 'buds' | 'cut' | 'job';
    from: string;
    to: string;
    tick?: string;
    on?: string;
    last?: string; // the end of last year’s, where that lies in this one
    waits?: boolean;
  }
  const rows = $derived.by((): Row[] => {
    const y = year!;
    const out: Row[] = [];
    if (y.leaf_out && y.leaf_drop)
      out.push({
        name: 'In leaf',
        says: span(y.leaf_out.mid, y.leaf_drop.mid),
        look: 'leaves',
        from: y.leaf_out.mid,
        to: y.leaf_drop.mid,
        last: plusDays(y.leaf_drop.mid, -365),
      });
    else if (y.leaf_out)
      out.push({
        name: 'New leaves',
        says: span(y.leaf_out.early, y.leaf_out.late),
        look: 'leaves',
        from: y.leaf_out.early,
        to: y.leaf_out.late,
      });
    if (y.bloom_start && y.bloom_end)
      out.push({
        name: 'In bloom',
        says: span(y.bloom_start.mid, y.bloom_end.mid),
        look: 'flowers',
        from: y.bloom_start.mid,
        to: y.bloom_end.mid,
      });
    if (y.buds_set)
      out.push({
        name: 'Next year’s buds form',
        says: span(y.buds_set.early, y.buds_set.late),
        look: 'buds',
        from: y.buds_set.early,
        to: y.buds_set.late,
      });
    for (const w of cut?.windows ?? [])
      out.push({
        name: cut?.hold ? 'Cut, were it sound' : 'Time to cut',
        says: span(w.from, w.to),
        look: 'cut',
        from: w.from,
        to: w.to,
      });
    for (const j of jobs) {
      if (j.state === 'done' || j.state === 'skipped') continue;
      const [from, to] = j.window_from ? [j.window_from, j.window_to] : [j.day || j.best_day, j.day || j.best_day];
      if (!from) continue;
      out.push({
        name: j.title,
        says: when(j, today),
        href: `#/rounds/${j.id}`,
        look: 'job',
        from,
        to,
        tick: j.best_day,
        on: j.day || undefined,
        waits: !!j.hold && !j.hold.anyway,
      });
    }
    return out.filter((r) => within(r.from, r.to));
  });
  const petals = (r: Row) => Math.max(1, Math.round(daysBetween(r.from, r.to) / 9));
</script>

{#if unknown}<p class="mt-4 text-soft">Its year could not be read: {unknown}</p>{/if}
{#if season && year}
  <section class="mt-4" aria-label="Its year">
    <h2>Its year <span class="text-sm font-normal text-soft">in this year’s weather, estimate</span></h2>
    <dl
      class="mt-1 grid grid-cols-[minmax(0,1fr)] border-t border-rule text-sm leading-tight md:grid-cols-[12.5rem_minmax(0,1fr)]"
    >
      <dt class="sr-only">Months</dt>
      <dd class="relative h-5 text-xs text-soft md:col-start-2">
        {#each months as m (m.at)}<span class="absolute top-0.5 pl-1" style="left:{m.at}%">{m.name}</span>{/each}
      </dd>
      {#each rows as r (r.name + r.from + (r.href ?? ''))}
        <dt class="flex min-h-7 min-w-0 items-center border-rule pr-3 md:border-t">
          {#if r.href}<a class="flex min-h-7 items-center py-0.5 max-md:min-h-11" href={r.href}>{r.name}</a>{:else}{r.name}{/if}
        </dt>
        <dd class="relative min-h-7 overflow-hidden border-rule max-md:border-b md:border-t" title={r.says}>
          {#each frosty as f (f.from)}<span
              class="absolute inset-y-0 bg-cold/10"
              style="left:{(100 * f.from) / days}%;width:{(100 * (f.to - f.from)) / days}%"
            ></span>{/each}
          {#each months.slice(1) as m (m.at)}<span class="absolute inset-y-0 border-l border-rule" style="left:{m.at}%"
            ></span>{/each}
          <span class="absolute inset-y-0 border-l-2 border-ink" style="left:{at(today)}%"></span>
          {#if r.look === 'flowers'}
            {#each { length: petals(r) } as _, i (i)}<svg
                viewBox="0 0 12 12"
                class="absolute top-2 size-3 -translate-x-1/2"
                style="left:{clip(at(r.from) + ((i + 0.5) / petals(r)) * (at(r.to) - at(r.from)))}%"
                aria-hidden="true"
                >{#each [0, 72, 144, 216, 288] as turn}<circle
                    cx="6"
                    cy="3.2"
                    r="2.4"
                    class="fill-pest"
                    transform="rotate({turn} 6 6)"
                  />{/each}<circle cx="6" cy="6" r="1.5" class="fill-paper" /></svg
              >{/each}
          {:else if r.look === 'job'}
            <span
              class="absolute top-2 h-3 min-w-1 border border-moss {r.waits ? 'border-dashed' : 'bg-moss-pale'}"
              style={bar(r.from, r.to)}
            ></span>
            {#if r.tick && !r.on && !r.waits && within(r.tick, r.tick)}<span
                class="absolute top-1 h-5 w-1 -translate-x-1/2 bg-moss"
                style="left:{at(r.tick)}%"
              ></span>{/if}
            {#if r.on && within(r.on, r.on)}<span
                class="absolute top-1.5 size-4 -translate-x-1/2 rotate-45 bg-moss"
                style="left:{at(r.on)}%"
              ></span>{/if}
          {:else}
            {#if r.last && r.last > season.from}<span class="absolute top-2 h-3 bg-living" style={bar(season.from, r.last)}
              ></span>{/if}
            <span
              class="absolute top-2 h-3 min-w-1 {r.look === 'buds'
                ? 'border border-dashed border-pest'
                : r.look === 'cut'
                  ? 'border border-ink bg-wood'
                  : 'bg-living'}"
              style={bar(r.from, r.to)}
            ></span>
          {/if}
          <span class="sr-only">{r.says}</span>
        </dd>
      {/each}
    </dl>
    <p class="mt-1 text-xs text-soft">
      {frosty.length ? 'Shaded: nights usually below freezing. ' : ''}{rows.some((r) => r.look === 'job')
        ? 'Green frame: when a job may be done, with its best day; a square on its corner: the day it has. '
        : ''}{rows.some((r) => r.waits) ? 'Dashed frame: it waits for a look. ' : ''}Line: today.
    </p>
  </section>
{/if}
