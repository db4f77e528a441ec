<script lang="ts">
  /** What to plant on a spot: how well kinds fit, what is left out and why, how they grow, and the planting as a job. */
  import { Button, Input } from 'flowbite-svelte';
  import { push, router } from 'svelte-spa-router';
  import { api, ask, dropOrder, onceKey, type Problem, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Field from '../lib/Field.svelte';
  import Pick from '../lib/Pick.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import { bare, figure } from '../lib/units';
  import Growth from './Growth.svelte';
  import KindRow from './KindRow.svelte';
  import MixedBed from './MixedBed.svelte';
  import type { Form } from '../lib/portrait';
  import { months } from './plan';

  let { params }: { params?: { property?: string; plant?: string } } = $props();
  const property = $derived(Number(params?.property ?? 0));
  const plantID = $derived(Number(params?.plant ?? 0));

  let place = $state('');
  let plant = $state.raw<Schemas['PlantOut']>();
  let plan = $state.raw<Schemas['PlanOut']>();
  let causes = $state.raw<[string, string][]>([]);
  // The spot
  let light = $state<'' | 'full sun' | 'part shade' | 'shade'>('');
  let water = $state<'' | 'dry' | 'well drained' | 'even' | 'moist' | 'wet'>('');
  let roomUp = $state('');
  let roomAcross = $state('');
  let wire = $state('');
  let pot = $state('');
  let marks = $state({
    water_stands: false,
    windy: false,
    salt: false,
    fire: false,
    children: false,
    pets: false,
    people: false,
  });
  let ph = $state('');
  // What stood there, and the wish
  let cause = $state('');
  let years = $state('0');
  let soil = $state(false);
  let screen = $state('');
  let wish = $state({
    evergreen: false,
    edible: false,
    low_upkeep: false,
    scent: false,
    pollinators: false,
    not_invasive: false,
  });
  let colours = $state<string[]>([]);
  let bloom = $state<number[]>(
    (new URLSearchParams(router.querystring ?? '').get('bloom') ?? '')
      .split(',')
      .map(Number)
      .filter((m) => m >= 1 && m <= 12),
  );
  let form = $state('');
  let area = $state('');

  let out = $state.raw<Schemas['ReplacementOut']>();
  let problem = $state.raw<Problem>();
  let search = $state('');
  const wide = () => window.innerWidth >= 1024;
  let asking = $state(wide()); // on a phone the kinds come first, and what they are asked by is behind a press
  let beside = $state<string[]>([]); // compared
  let busy = $state('');
  const [reads, ranks] = [reading(), reading()];

  const onPlan = $derived(plan?.plan.things?.find((t) => t.plant_id === plantID));
  $effect(() => {
    const [p, q] = [property, plantID];
    if (p) void load(p, q);
  });
  async function load(p: number, q: number) {
    await reads(async (signal) => {
      const params = { path: { id: p } };
      const [prop, drawn, list] = await Promise.all([
        ask(api.GET('/api/v1/properties/{id}', { params, signal })),
        ask(api.GET('/api/v1/properties/{id}/plan', { params, signal })),
        ask(api.GET('/api/v1/causes', { signal })),
      ]);
      const story = q ? await ask(api.GET('/api/v1/plants/{id}/story', { params: { path: { id: q } }, signal })) : undefined;
      place = prop.name;
      plan = drawn;
      void readBeds(drawn.plan, signal);
      causes = list.items
        .filter((c) => c.harm === 'deadly' || c.harm === 'weakening')
        .map((c): [string, string] => [c.id, c.name]);
      plant = story?.plant;
      if (plant) {
        // The gap is as large as what stood there, and half again.
        roomUp = String(Math.ceil(15 * plant.height_m) / 10);
        roomAcross = String(Math.ceil(15 * Math.max(plant.spread_m, 0.5 * plant.height_m)) / 10);
        pot = plant.pot_l ? String(plant.pot_l) : '';
      }
      if (plant && !drawn.plan.things?.some((t) => t.plant_id === q))
        light = plant.sun >= 0.6 ? 'full sun' : plant.sun >= 0.3 ? 'part shade' : 'shade';
      await rank();
    });
  }
  /** Beds that are drawn on the plan, with their areas. */
  let beds = $state.raw<{ id: string; name: string; m2: number }[]>([]);
  async function readBeds(of: Schemas['SitePlan'], signal: AbortSignal) {
    const drawn = of.things.filter((t) => t.kind === 'bed' || t.kind === 'lawn');
    if (!drawn.length) return;
    await attempt(async () => {
      const o = await ask(api.POST('/api/v1/reckon/site', { body: { plan: of } }));
      if (signal.aborted) return;
      beds = drawn.map((t) => ({
        id: t.id,
        name: t.name || t.kind,
        m2: o.areas?.find((a) => a.id === t.id)?.area_m2 ?? 0,
      }));
    });
  }
  const n = (text: string) => bare(text) || 0;
  function body(): Schemas['ReplacementIn'] {
    const spot: Schemas['ReplacementSpot'] = { ...marks };
    if (light) spot.light = light;
    if (water) spot.soil_water = water;
    if (n(roomUp)) spot.height_m = n(roomUp);
    if (n(roomAcross)) spot.spread_m = n(roomAcross);
    if (n(wire)) spot.wire_m = n(wire);
    if (n(pot)) spot.pot_l = n(pot);
    if (n(ph)) spot.ph = n(ph);
    const b: Schemas['ReplacementIn'] = { property, spot, limit: 60 };
    if (onPlan && !light) {
      b.plan = plan!.plan;
      b.at = onPlan.points![0]!;
      b.without = [onPlan.id];
    }
    if (plant) b.died = { species: plant.species, years_ago: n(years), soil_changed: soil, ...(cause ? { cause } : {}) };
    b.wish = {
      ...wish,
      ...(colours.length ? { colours } : {}),
      ...(n(screen) ? { screen_m: n(screen) } : {}),
      ...(bloom.length ? { bloom_months: bloom } : {}),
    };
    if (form) b.wish.forms = [form as 'tree'];
    if (n(area)) b.area_m2 = n(area);
    return b;
  }
  async function rank() {
    problem = await ranks(async (signal) => {
      out = await ask(api.POST('/api/v1/reckon/replacement', { body: body(), signal }));
    });
  }
  const words = $derived(search.toLowerCase().trim());
  const found = <T extends { common: string }>(list: T[] | null | undefined): T[] =>
    (list ?? []).filter((f) => f.common.toLowerCase().includes(words));
  const ranked = $derived(found(out?.ranked));
  const compared = $derived((out?.ranked ?? []).filter((r) => beside.includes(r.species)).slice(0, 3));
  function compare(id: string) {
    beside = beside.includes(id) ? beside.filter((x) => x !== id) : [...beside, id].slice(n(area) ? -8 : -3);
    const r = out?.ranked?.find((x) => x.species === id);
    if (r) named = { ...named, [id]: { species: id, common: r.common } };
  }

  /** The planting becomes a job that follows the season, and its water in the first season one that comes again. */
  async function order(kinds: Schemas['PlantedKind'][], name: string, where = '') {
    if (busy) return;
    busy = name;
    problem = await attempt(async () => {
      const body: Schemas['PlantingIn'] = { kinds, where };
      if (plant && kinds.length === 1) body.plant = plant.id;
      const made = await ask(
        api.POST('/api/v1/properties/{id}/planting', { params: { path: { id: property }, header: onceKey() }, body }),
      );
      const ids = made.orders;
      const back = `/replace/${property}${plantID ? `/${plantID}` : ''}`;
      const waters = made.litres > 0;
      const closed = made.closed.length;
      house.say(
        `${name}: ${kinds.length === 1 ? 'a job' : `${kinds.length} jobs`}, best on ${inWords(made.best)}${
          waters ? `, with its water after it: about ${figure(made.litres, 'L')} in the first season` : ''
        }${made.cost ? `; plants for ${made.cost.toFixed(2)}` : ''}.${
          closed
            ? ` ${closed === 1 ? 'One job' : `${closed} jobs`} of what stands there now ${closed === 1 ? 'is' : 'are'} not needed any more.`
            : ''
        }`,
        async () => {
          for (const o of [...ids].reverse()) await dropOrder(o);
          for (const id of made.closed)
            await ask(api.POST('/api/v1/orders/{id}/restore', { params: { path: { id }, header: onceKey() } }));
          await push(back);
        },
      );
      if (kinds.length === 1) await push(`/rounds/${ids[0]}`);
    });
    busy = '';
  }
  /** What the firm says of a kind: its price, and that it must not be planted here. */
  async function say(r: { species: string; common: string }, price: number, banned: boolean) {
    await attempt(async () => {
      await ask(
        api.PUT('/api/v1/kinds/{id}', { params: { path: { id: r.species }, header: onceKey() }, body: { price, banned } }),
      );
      if (banned)
        house.say(`${r.common} must not be planted in your region.`, async () => {
          await say(r, price, false);
        });
      await rank();
    });
  }
  const bed = $derived(beside.map((id) => named[id]).filter((k) => k !== undefined));
  let named = $state.raw<Record<string, { species: string; common: string }>>({}); // of what is compared
</script>

<svelte:head><title>What to plant · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  <p class="text-sm">
    <a href="#/grounds/{property}">{place || 'Grounds'}</a>{#if plant}&nbsp;· <a href="#/plant/{plant.id}"
        >{plant.common}{plant.label ? `, ${plant.label}` : ''}</a
      >{/if}
  </p>
  <h1>What to plant{plant ? ` in place of ${plant.common}` : ''}</h1>
  <div class="mt-3 grid gap-6 lg:grid-cols-[20rem_minmax(0,1fr)]">
    <details bind:open={asking}>
      <summary class="flex min-h-11 cursor-pointer items-center border border-rule bg-white px-3 font-semibold lg:hidden"
        >The spot and the wish</summary
      >
      <form
        class="space-y-3 max-lg:mt-3"
        aria-label="The spot and the wish"
        onsubmit={(e) => {
          e.preventDefault();
          asking = wide();
          void rank();
        }}
      >
        <fieldset class="space-y-2 border border-rule bg-white px-3 py-2">
          <legend class="px-1 font-bold">The spot</legend>
          <Pick
            label="Light"
            bind:value={light}
            options={[
              ['', onPlan ? 'as the plan says' : 'not known'],
              ['full sun', 'full sun'],
              ['part shade', 'part shade'],
              ['shade', 'shade'],
            ]}
            onpick={rank}
          />
          {#if out?.site && !light}<p class="text-sm text-soft">
              {out.site.strong.toFixed(1)} hours of strong sun a day in summer, by the plan{out.site.warm_wall
                ? '; at a warm wall'
                : ''}.
            </p>{/if}
          <Pick
            label="Soil"
            bind:value={water}
            options={[
              ['', 'not known'],
              ['dry', 'dry'],
              ['well drained', 'well drained'],
              ['even', 'evenly moist'],
              ['moist', 'moist'],
              ['wet', 'wet'],
            ]}
            onpick={rank}
          />
          <p class="font-semibold">Room there is</p>
          <div class="grid grid-cols-3 gap-2">
            <Field label="Up" kind="length" bind:value={roomUp} />
            <Field label="Across" kind="length" bind:value={roomAcross} />
            <Field label="Wire" kind="length" bind:value={wire} />
            <Field label="Pot" kind="volume" bind:value={pot} />
            <Field label="Soil pH" mode="decimal" bind:value={ph} />
          </div>
          <details open={Object.values(marks).some(Boolean)}>
            <summary class="flex min-h-11 cursor-pointer items-center text-moss underline"
              >Wet, wind, salt, children, pets</summary
            >
            <Tickbox bind:checked={marks.water_stands} label="Water stands there" />
            <Tickbox bind:checked={marks.windy} label="Open to the wind" />
            <Tickbox bind:checked={marks.salt} label="Salt: the sea, or a salted road" />
            <Tickbox bind:checked={marks.fire} label="Wildfire comes there" />
            <Tickbox bind:checked={marks.children} label="Small children play there" />
            <Tickbox bind:checked={marks.pets} label="Pets" />
            <Tickbox bind:checked={marks.people} label="People pass or sit beneath" />
          </details>
        </fieldset>
        {#if plant}
          <fieldset class="space-y-2 border border-rule bg-white px-3 py-2">
            <legend class="px-1 font-bold">What became of {plant.common}</legend>
            <Pick label="It died of" bind:value={cause} options={[['', 'not known'], ...causes]} onpick={rank} />
            <div class="grid grid-cols-2 items-end gap-2">
              <Field label="Years ago" mode="numeric" bind:value={years} />
              <Tickbox bind:checked={soil} label="Soil changed" />
            </div>
          </fieldset>
        {/if}
        <fieldset class="space-y-2 border border-rule bg-white px-3 py-2">
          <legend class="px-1 font-bold">The wish</legend>
          <Tickbox bind:checked={wish.evergreen} label="Evergreen" />
          <Tickbox bind:checked={wish.edible} label="Something to eat" />
          <Tickbox bind:checked={wish.low_upkeep} label="Little work" />
          <Tickbox bind:checked={wish.scent} label="Scent" />
          <Tickbox bind:checked={wish.pollinators} label="Something for bees" />
          <Tickbox bind:checked={wish.not_invasive} label="Nothing that spreads into the wild" />
          <Pick
            label="Form"
            bind:value={form}
            options={[
              ['', 'any'],
              ['tree', 'tree'],
              ['conifer', 'conifer'],
              ['shrub', 'shrub'],
              ['subshrub', 'subshrub'],
              ['climber', 'climber'],
              ['perennial', 'perennial'],
              ['palm', 'palm'],
            ]}
          />
          <div class="grid grid-cols-2 gap-2">
            <Field label="Hide up to" kind="length" bind:value={screen} />
            <Field label="Bed" kind="area" bind:value={area} />
          </div>
          {#if beds.length}<Pick
              label="As large as on the plan"
              value={beds.find((b) => b.m2.toFixed(1) === area)?.id ?? ''}
              options={[['', 'no bed of it'], ...beds.map((b): [string, string] => [b.id, `${b.name}, ${figure(b.m2, 'm²')}`])]}
              onpick={(id) => {
                area = beds.find((b) => b.id === id)?.m2.toFixed(1) ?? '';
                void rank();
              }}
            />{/if}
          <details open={!!colours.length || !!bloom.length}>
            <summary class="flex min-h-11 cursor-pointer items-center text-moss underline">Colour and months of bloom</summary>
            <p class="text-sm font-semibold">Colour of the flowers</p>
            <div class="grid grid-cols-3 gap-1">
              {#each ['white', 'cream', 'yellow', 'orange', 'red', 'pink', 'purple', 'blue', 'green'] as c}<button
                  type="button"
                  class="min-h-11 rounded-sm border text-sm {colours.includes(c)
                    ? 'border-ink bg-moss-pale font-bold'
                    : 'border-rule'}"
                  aria-pressed={colours.includes(c)}
                  onclick={() => (colours = colours.includes(c) ? colours.filter((x) => x !== c) : [...colours, c])}>{c}</button
                >{/each}
            </div>
            <p class="text-sm font-semibold">In bloom in</p>
            <div class="grid grid-cols-6 gap-1">
              {#each months as m, i (m)}<button
                  type="button"
                  class="min-h-11 rounded-sm border text-sm {bloom.includes(i + 1)
                    ? 'border-ink bg-moss-pale font-bold'
                    : 'border-rule'}"
                  aria-pressed={bloom.includes(i + 1)}
                  onclick={() => (bloom = bloom.includes(i + 1) ? bloom.filter((x) => x !== i + 1) : [...bloom, i + 1])}
                  >{m}</button
                >{/each}
            </div>
          </details>
        </fieldset>
        <Button type="submit" class="w-full">Rank kinds for it</Button>
      </form>
    </details>
    <div class="min-w-0">
      {#if problem}<p role="alert" class="border-l-4 border-bad pl-2">{problem.message}</p>{/if}
      {#if out}
        <div class="flex flex-wrap items-end gap-4">
          <p class="flex-1" role="status"><b>{out.fits}</b> kinds may stand there, {out.rejected?.length ?? 0} are left out.</p>
          <label
            ><span class="sr-only">Find a kind</span><Input
              class="min-h-11"
              placeholder="Find a kind"
              bind:value={search}
            /></label
          >
        </div>
        {#if n(area) && bed.length}<MixedBed
            {property}
            kinds={bed.map((k) => ({ ...k, price: out?.ranked?.find((r) => r.species === k.species)?.price ?? 0 }))}
            area={n(area)}
            busy={!!busy}
            onplant={(kinds) => order(kinds, `A bed of ${kinds.length} kinds`)}
            ondrop={compare}
          />{/if}
        {#if compared.length > 1}
          <section aria-label="Side by side" class="mt-3 grid gap-3 md:grid-cols-3">
            {#each compared as r (r.species)}
              <div class="border border-ink bg-white px-3 py-2">
                <p class="font-bold">{r.common} <span class="font-normal text-soft">{Math.round(r.score)}</span></p>
                <Growth form={r.form as Form} name={r.common} grown={r.grown} roomM={n(roomUp)} />
                <ul class="text-sm">
                  {#each r.parts as x}<li>
                      {x.points > 0 ? '+' : '−'}{Math.abs(Math.round(x.points))}
                      {x.text}
                    </li>{/each}
                </ul>
              </div>
            {/each}
          </section>
        {/if}
        {#if ranked.length}<p
            class="mt-3 grid grid-cols-[minmax(0,1fr)_auto] gap-x-3 border-b border-ink text-sm font-semibold"
            aria-hidden="true"
          >
            <span
              class="grid grid-cols-[2.75rem_minmax(0,1fr)_3rem] gap-x-3 md:grid-cols-[2.75rem_minmax(0,1fr)_8.5rem_9.5rem_3rem]"
              ><span class="col-span-2">Kind</span><span class="text-right max-md:hidden">Tall × wide</span><span
                class="max-md:hidden">Plant</span
              ><span class="text-right">Points</span></span
            ><span class="w-[5.2rem]"></span>
          </p>{/if}
        <ol>
          {#each ranked.slice(0, 24) as r (r.species)}
            <KindRow
              {r}
              roomM={n(roomUp)}
              picked={beside.includes(r.species)}
              pick={beside.includes(r.species)
                ? n(area)
                  ? 'Out of the bed'
                  : 'Not beside'
                : n(area)
                  ? 'Into the bed'
                  : 'Side by side'}
              busy={!!busy}
              onplant={() =>
                order(
                  [{ species: r.species, ...(r.count ? { count: r.count, spacing_m: r.spacing_m } : {}) }],
                  `Plant ${r.common}`,
                )}
              onpick={() => compare(r.species)}
              onsay={(price, banned) => say(r, price, banned)}
            />
          {/each}
        </ol>
        {#if !ranked.length}<p class="mt-3">
            {words
              ? 'No kind of that name may stand there.'
              : 'Nothing may stand there: look at what is left out, and give way on something.'}
          </p>{/if}
        <details class="mt-5" open={!!words && !ranked.length}>
          <summary class="min-h-11 py-2 font-bold">Why not these: {found(out.rejected).length}</summary>
          <ul class="text-sm">
            {#each found(out.rejected).slice(0, 200) as f (f.species)}<li class="border-t border-rule py-1">
                <b>{f.common}</b>: {f.out.join(' ')}
                {#if f.out?.some((o) => o.includes('must not be planted in this region'))}<button
                    class="min-h-9 text-moss underline"
                    onclick={() => say(f, 0, false)}>Allow it again</button
                  >{/if}
              </li>{/each}
          </ul>
        </details>
      {/if}
    </div>
  </div>
</div>
