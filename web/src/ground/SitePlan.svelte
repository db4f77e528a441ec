<script lang="ts">
  /** A property drawn once in metres: what stands where, what sun each plant gets, and what a cut or a fall would change. */
  import { atHour, metres } from '../lib/dates';
  import { Button } from 'flowbite-svelte';
  import { onDestroy, onMount } from 'svelte';
  import { api, ask, onceKey, sendFile, type Problem, type Schemas } from '../api/client';
  import { attempt, house, keys } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { figure } from '../lib/units';
  import FilePick from '../lib/FilePick.svelte';
  import Pick from '../lib/Pick.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import Drawing from './Drawing.svelte';
  import {
    fit,
    fresh,
    lengthOf,
    kinds,
    least,
    middle,
    moved,
    near,
    snap,
    snapped,
    stood,
    tools,
    type At,
    type Kind,
    type Lie,
    type Thing,
    type View,
  } from './plan';
  import LieSlip from './LieSlip.svelte';
  import Paces from './Paces.svelte';
  import PickedSlip from './PickedSlip.svelte';
  import SpotSlip from './SpotSlip.svelte';
  import { areaOf, copied, copy, framed, putDown } from './several.svelte';
  import Underlay from './Underlay.svelte';

  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id ?? 0));

  let name = $state('');
  let things = $state.raw<Thing[]>();
  let loose = $state.raw<Schemas['LoosePlant'][]>([]);
  let latitude = $state(0);
  let lie = $state.raw<Lie>({});
  let version = 0;
  let chosen = $state<string>();
  let tool = $state<Kind | 'pick' | 'place' | 'several'>('pick');
  let group = $state.raw<string[]>([]); // picked together
  let measuring = $state(false); // of the picture under it: the next two presses are its two points
  let ends = $state.raw<At[]>([]);
  let placing = $state.raw<Schemas['LoosePlant']>();
  let drawn = $state.raw<At[]>([]);
  let as = $state<'spot' | 'row' | 'bed'>('spot'); // how what is placed stands: rows and beds are drawn corner after corner
  let indoors = $state.raw<{ thing: Thing; house: Thing }>(); // it would stand in a house: asked about
  let view = $state.raw<View>();
  let wide = $state(700);
  type Stand = { things: Thing[]; lie: Lie };
  let past = $state.raw<Stand[]>([]);
  let ahead = $state.raw<Stand[]>([]);
  let problem = $state.raw<Problem>();
  let saving = $state<'kept' | 'waiting' | 'keeping' | 'refused'>('kept');
  let shadows = $state.raw<Schemas['SiteShadow'][]>([]);
  let marked = $state.raw<Record<string, string>>({});
  let whatIf = $state.raw<Schemas['SiteChange']>(); // a cut or a fall that is looked at
  let shadowsAfter = $state.raw<Schemas['SiteShadow'][]>([]);
  let cursor = $state.raw<At>(); // where keys draw
  let split = $state(50); // how much of the width shows what is before
  let month = $state(5); // of the shadows; 0: none are shown
  let hour = $state(0);
  const high = $derived(Math.max(380, Math.min(640, Math.round(wide * 0.72))));
  const [reads, readShadows] = [reading(), reading()];
  onDestroy(() => {
    if (timer) void keep();
  });

  async function load(of: number) {
    await reads(async (signal) => {
      const params = { path: { id: of } };
      const [p, plan] = await Promise.all([
        ask(api.GET('/api/v1/properties/{id}', { params, signal })),
        ask(api.GET('/api/v1/properties/{id}/plan', { params, signal })),
      ]);
      name = p.name;
      take(plan);
      view = undefined;
    });
  }
  function take(plan: Schemas['PlanOut']) {
    things = plan.plan.things;
    const { north_deg, slope_pct, falls_to_deg, horizon_deg, wind_from, underlay } = plan.plan;
    lie = { north_deg, slope_pct, falls_to_deg, horizon_deg, wind_from, underlay };
    loose = plan.loose;
    latitude = plan.plan.latitude;
    version = plan.version;
    indoors = undefined;
  }
  $effect(() => {
    if (id) void load(id);
  });
  const shown = $derived(view ?? fit(things ?? [], wide, high));

  // What was drawn is kept by itself, a moment after the hand rests.
  let timer: ReturnType<typeof setTimeout> | undefined;
  let sending = false;
  function change(next: Thing[], nextLie = lie) {
    if (things) {
      past = [...past.slice(-60), { things, lie }];
      ahead = [];
    }
    lie = nextLie;
    view ??= fit(things ?? [], wide, high); // the ground stays still under the hand
    things = next;
    later();
  }
  function later() {
    saving = 'waiting';
    clearTimeout(timer);
    timer = setTimeout(() => void keep(), 700);
  }
  async function keep() {
    clearTimeout(timer);
    timer = undefined;
    if (!things) return;
    if (sending) return later(); // its answer brings the version that the next is based on
    sending = true;
    saving = 'keeping';
    const sent = things;
    const of = id;
    const body = { version, plan: { latitude, ...lie, things: sent } };
    const lay = lie;
    problem = await attempt(async () => {
      const got = await ask(api.PUT('/api/v1/properties/{id}/plan', { params: { path: { id: of }, header: onceKey() }, body }));
      version = got.version;
      if (of === id && things === sent && lie === lay) take(got);
      else loose = got.loose;
    });
    sending = false;
    if (saving === 'keeping') saving = problem ? 'refused' : 'kept';
  }
  function back() {
    if (!past.length || !things) return;
    ahead = [{ things, lie }, ...ahead];
    const to = past[past.length - 1]!;
    past = past.slice(0, -1);
    ({ things, lie } = to);
    later();
  }
  function forth() {
    if (!ahead.length || !things) return;
    past = [...past, { things, lie }];
    ({ things, lie } = ahead[0]!);
    ahead = ahead.slice(1);
    later();
  }

  function corner(q: At) {
    if (measuring) {
      ends = [...ends.slice(-1), q].slice(-2);
      return;
    }
    if (tool === 'place') {
      const l = placing;
      if (!l || !things) return;
      if (as !== 'spot') {
        drawn = [...drawn, snapped(things, q, 10 / shown.scale)];
        return;
      }
      const { at, within } = stood(things, q);
      const t = plantThing(l, 'plant', [at]);
      if (within) indoors = { thing: t, house: within };
      else stand(t);
      return;
    }
    if (tool === 'pick' || tool === 'several' || tool === 'plant') return;
    if (kinds[tool].form === 'point') return add(tool, [q]);
    drawn = [...drawn, snapped(things ?? [], q, 10 / shown.scale)];
  }
  const plantThing = (l: Schemas['LoosePlant'], kind: Kind, points: At[]): Thing => ({
    id: `plant-${l.id}`,
    kind,
    plant_id: l.id,
    species: l.species,
    name: l.name,
    height_m: l.height_m,
    spread_m: l.spread_m,
    points,
  });
  /** A plant of the property stands where it was placed. */
  function stand(t: Thing) {
    loose = loose.filter((x) => x.id !== t.plant_id);
    change([...things!.filter((x) => x.id !== t.id), t]);
    chosen = t.id;
    drawn = [];
    indoors = undefined;
    if (tool === 'place') next(loose[0]);
  }
  function next(l: Schemas['LoosePlant'] | undefined) {
    placing = l;
    drawn = [];
    if (l) as = l.count >= ROW_FROM ? 'row' : 'spot';
    else tool = 'pick';
  }
  const ROW_FROM = 10; // plants of a group that mostly stand in a row
  /** A plant that stands as a point is drawn anew, as a row or a bed. */
  function drawAs(t: Thing, how: 'row' | 'bed') {
    const l = {
      id: t.plant_id!,
      name: t.name ?? '',
      species: t.species ?? '',
      height_m: t.height_m ?? 0,
      spread_m: t.spread_m ?? 0,
      count: ROW_FROM,
    };
    pickTool('place');
    next(l);
    as = how;
  }
  function dragged(list: Thing[]) {
    const t = list[0]!;
    if (list.length > 1) return change(things!.map((x) => list.find((m) => m.id === x.id) ?? x));
    if (t.kind !== 'plant') return replace(t);
    const { at, within } = stood(things!, t.points[0]!);
    if (within) indoors = { thing: { ...t, points: [at] }, house: within };
    else replace({ ...t, points: [at] });
  }
  function add(kind: Kind, points: At[]) {
    const k = kinds[kind];
    const t: Thing = { id: fresh(things ?? [], kind), kind, points };
    if (k.height) t.height_m = k.height;
    if (k.spread) t.spread_m = k.spread;
    change([...(things ?? []), t]);
    chosen = t.id;
    drawn = [];
    tool = 'pick';
  }
  const corners = $derived(
    tool === 'place' ? as !== 'spot' : tool !== 'pick' && tool !== 'several' && kinds[tool].form !== 'point',
  );
  const enough = $derived(
    corners && drawn.length >= least[tool === 'place' ? (as === 'bed' ? 'area' : 'line') : kinds[tool as Kind].form],
  );
  const finish = () =>
    enough && (tool === 'place' ? stand(plantThing(placing!, as === 'bed' ? 'bed' : 'hedge', drawn)) : add(tool as Kind, drawn));
  const picked = $derived(things?.find((t) => t.id === chosen));
  function replace(t: Thing) {
    change(things!.map((x) => (x.id === t.id ? t : x)));
  }
  function removed(...gone: Thing[]) {
    change(things!.filter((x) => !gone.includes(x)));
    for (const t of gone)
      if (t.plant_id && t.kind !== 'grave')
        loose = [
          ...loose,
          {
            id: t.plant_id,
            name: t.name ?? '',
            species: t.species ?? '',
            height_m: t.height_m ?? 0,
            spread_m: t.spread_m ?? 0,
            count: t.kind === 'plant' ? 1 : ROW_FROM,
          },
        ];
    chosen = undefined;
    group = [];
    const t = gone[0]!;
    const what = gone.length > 1 ? `${gone.length} things are` : `${t.name || kinds[t.kind].name} is`;
    house.say(`${what} off the plan.`, async () => back());
  }
  const together = $derived((things ?? []).filter((t) => group.includes(t.id)));
  const toggled = (t: string | undefined) => (group = !t ? [] : group.includes(t) ? group.filter((x) => x !== t) : [...group, t]);
  function copyPicked() {
    const ids = tool === 'several' ? group : chosen ? [chosen] : [];
    if (!things || !ids.length) return;
    copy(things, ids, name);
    const n = copied.things.length;
    const to = n && 'Put it down here, or on the plan of another property.';
    house.say(n ? `${n === 1 ? 'One thing is' : `${n} things are`} copied. ${to}` : 'There is no copy of where one died.');
  }
  /** What was copied lies in the middle of what is seen, picked together, to be moved to its place. */
  function putCopy() {
    if (!things || !copied.things.length) return;
    const put = putDown(things, { x: shown.x0 + wide / shown.scale / 2, y: shown.y1 - high / shown.scale / 2 });
    change([...things, ...put]);
    pickTool('several');
    group = put.map((t) => t.id);
  }
  /** A drawn plan from another program, in degrees; what was here can be brought back. */
  async function takeFile(file: File) {
    if (timer) await keep();
    const before = things;
    problem = await attempt(async () => {
      const got = await sendFile<Schemas['PlanOut']>(
        `/api/v1/properties/${id}/plan.geojson?version=${version}`,
        file,
        'application/geo+json',
        onceKey(),
      );
      take(got);
      view = undefined;
      house.say(`${file.name} is the plan now.`, async () => {
        if (before) change(before);
      });
    });
  }
  /** The plants' records take the plan's sun and shelter, measured in place of guessed. */
  async function takeSpots(set?: Schemas['SpotSet'][]) {
    if (timer) await keep();
    await attempt(async () => {
      const list = (
        await ask(
          api.POST('/api/v1/properties/{id}/plan/spots', {
            params: { path: { id }, header: onceKey() },
            body: set ? { set } : {},
          }),
        )
      ).items;
      if (set) return;
      house.say(
        list.length
          ? `${list.length === 1 ? 'One plant stands' : `${list.length} plants stand`} in the record as the plan says: ${list
              .slice(0, 3)
              .map((x) => `${x.name} ${Math.round(x.before.sun * 100)} to ${Math.round(x.after.sun * 100)} % sun`)
              .join('; ')}${list.length > 3 ? ' …' : ''}.`
          : 'The record says what the plan says already.',
        list.length ? () => takeSpots(list.map((x) => x.before)) : undefined,
      );
    });
  }
  /** The plants' records take the way round from the plan: walks, labels and rounds follow it. */
  async function takeStops(set?: Schemas['StopSet'][]) {
    if (timer) await keep();
    await attempt(async () => {
      const path = { id };
      const body = set ? { set } : {};
      const before = (await ask(api.POST('/api/v1/properties/{id}/plan/stops', { params: { path, header: onceKey() }, body })))
        .items;
      if (set) return;
      house.say(
        before.length ? 'Walks and labels now go round as the plan says, from the gate.' : 'They go round so already.',
        before.length ? () => takeStops(before) : undefined,
      );
    });
  }
  function pickTool(t: Kind | 'pick' | 'place' | 'several') {
    measuring = false;
    group = [];
    cursor = undefined;
    tool = t;
    drawn = [];
  }
  function pressed(e: KeyboardEvent) {
    const on = e.target as HTMLElement;
    if (/^(INPUT|TEXTAREA|SELECT)$/.test(on.tagName)) return;
    const step = e.shiftKey ? 0.1 : 0.5;
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    const draws = tool !== 'pick' && tool !== 'several';
    if (draws && by[e.key]) {
      e.preventDefault();
      const from = cursor ?? { x: shown.x0 + wide / shown.scale / 2, y: shown.y1 - high / shown.scale / 2 };
      const [dx, dy] = by[e.key]!;
      cursor = { x: near(snap(from.x + dx)), y: near(snap(from.y + dy)) };
    } else if (draws && cursor && e.key === ' ') {
      e.preventDefault();
      corner(cursor);
    } else if (together.length && by[e.key]) {
      e.preventDefault();
      const [dx, dy] = by[e.key]!;
      change(things!.map((t) => (group.includes(t.id) ? moved(t, dx, dy) : t)));
    } else if (picked && by[e.key]) {
      e.preventDefault();
      replace(moved(picked, ...by[e.key]!));
    } else if (together.length && (e.key === 'Delete' || e.key === 'Backspace')) removed(...together);
    else if (picked && (e.key === 'Delete' || e.key === 'Backspace')) removed(picked);
    else if (e.key === 'Enter' && enough) finish();
    else if (e.key === 'Escape') pickTool('pick');
    else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'c' && !getSelection()?.toString()) copyPicked();
    else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'v') putCopy();
    else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z') {
      e.preventDefault();
      if (e.shiftKey) forth();
      else back();
    }
  }
  onMount(() => {
    keys.screen = [];
  });
  const plan = $derived(things ? { latitude, ...lie, things } : undefined);
  /** What stands after the change that is looked at. */
  const after = $derived(
    whatIf && things
      ? whatIf.do === 'remove'
        ? things.filter((t) => t.id !== whatIf!.thing)
        : things.map((t) => (t.id === whatIf!.thing ? { ...t, height_m: whatIf!.height_m ?? t.height_m } : t))
      : undefined,
  );

  /** The shadows of the 21st of a month at an hour of solar time, as it is and after what is looked at. */
  const shade = () =>
    readShadows(async (signal) => {
      if (!hour || !plan) {
        shadows = shadowsAfter = [];
        return;
      }
      const day = `${house.today.slice(0, 4)}-${String(month + 1).padStart(2, '0')}-21`;
      const of = async (changes?: Schemas['SiteChange'][]) =>
        (await ask(api.POST('/api/v1/reckon/site', { body: { plan: plan!, shadow: { day, hour }, changes }, signal }))).shadows;
      [shadows, shadowsAfter] = await Promise.all([of(), whatIf ? of([whatIf]) : Promise.resolve([])]);
    });
  $effect(() => {
    void [month, hour, things, lie, whatIf];
    void shade();
  });
  function lookAt(c: Schemas['SiteChange'] | undefined) {
    whatIf = c;
    if (c && !hour) hour = 12;
    const t = things?.find((x) => x.id === c?.thing);
    if (t) split = Math.min(95, Math.max(5, (100 * (middle(t).x - shown.x0) * shown.scale) / wide)); // it is half there
  }
  const zoom = (by: number) => {
    const v = shown;
    const scale = Math.min(200, Math.max(0.8, v.scale * by));
    const [cx, cy] = [v.x0 + wide / v.scale / 2, v.y1 - high / v.scale / 2];
    view = { x0: cx - wide / scale / 2, y1: cy + high / scale / 2, scale };
  };
</script>

<svelte:window onkeydown={pressed} />
<svelte:head><title>{name ? `${name} · ` : ''}Plan · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/grounds/{id}">{name || 'Grounds'}</a></p>
  <div class="flex flex-wrap items-end gap-x-4 gap-y-1">
    <h1 class="flex-1">Plan</h1>
    <span class="pb-2 text-sm text-soft" role="status"
      >{{ kept: 'Saved', waiting: 'Drawing …', keeping: 'Saving …', refused: 'Not saved yet' }[saving]}</span
    >
    <Button size="sm" color="light" class="min-h-11" disabled={!past.length} onclick={back}>Undo</Button>
    <Button size="sm" color="light" class="min-h-11" disabled={!ahead.length} onclick={forth}>Redo</Button>
    <a class="inline-flex min-h-11 items-center underline" href="/api/v1/properties/{id}/plan.pdf" download>To print</a>
    <a class="inline-flex min-h-11 items-center underline" href="/api/v1/properties/{id}/plan.geojson" download>As GeoJSON</a>
    <FilePick name="From GeoJSON" accept=".geojson,.json,application/geo+json" onfile={takeFile} />
  </div>
  {#if problem}<p role="alert" class="mt-1 border-l-4 border-bad pl-2">
      {problem.message}
      {#if problem.status === 409}<button class="min-h-11 underline" onclick={() => load(id)}>Load the saved version</button>{/if}
    </p>{/if}
  {#if !things}<Waiting rows={8} />
  {:else}
    <div class="mt-2 grid gap-5 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div class="min-w-0">
        <div class="mb-2 flex flex-wrap items-end gap-2">
          <Button size="sm" class="min-h-11" color={tool === 'pick' ? 'primary' : 'light'} onclick={() => pickTool('pick')}
            >Pick and move</Button
          >
          {#if things.length > 1}<Button
              size="sm"
              class="min-h-11"
              color={tool === 'several' ? 'primary' : 'light'}
              onclick={() => pickTool('several')}>Several</Button
            >{/if}
          <label class="font-semibold"
            ><span class="sr-only">Draw</span>
            <select
              class="min-h-11 w-28 rounded-sm border border-gray-400 bg-white px-2 font-normal"
              value={tool === 'pick' || tool === 'several' || tool === 'place' ? '' : tool}
              onchange={(e) => pickTool((e.currentTarget.value || 'pick') as Kind)}
            >
              <option value="">Draw …</option>
              {#each tools as k}<option value={k}>{kinds[k].name}</option>{/each}
            </select></label
          >
          {#if things.length}<label
              ><span class="sr-only">Pick a thing</span>
              <select
                class="min-h-11 w-28 rounded-sm border border-gray-400 bg-white px-2"
                value={chosen ?? ''}
                onchange={(e) => {
                  pickTool('pick');
                  chosen = e.currentTarget.value || undefined;
                }}
              >
                <option value="">Pick …</option>
                {#each things as t (t.id)}<option value={t.id}>{t.name || kinds[t.kind].name}</option>{/each}
              </select></label
            >{/if}
          {#if loose.length}<Button
              size="sm"
              class="min-h-11"
              color={tool === 'place' ? 'primary' : 'light'}
              onclick={() => {
                pickTool('place');
                next(placing ?? loose[0]);
              }}>Place plants ({loose.length})</Button
            >{/if}
          <span class="flex-1"></span>
          <Button size="sm" class="min-h-11" color="light" onclick={() => zoom(1.4)}>+<span class="sr-only"> nearer</span></Button
          >
          <Button size="sm" class="min-h-11" color="light" onclick={() => zoom(1 / 1.4)}
            >−<span class="sr-only"> farther</span></Button
          >
          <Button size="sm" class="min-h-11" color="light" onclick={() => (view = undefined)}>All</Button>
        </div>
        <!-- One row, whatever is being done: the drawing stays where it is under the hand. -->
        <div class="mb-2 flex h-12 items-center gap-2 max-md:h-24 max-md:flex-wrap">
          <p class="line-clamp-2 min-w-0 flex-1 text-sm leading-5 max-md:basis-full" role="status">
            {#if measuring}Press two points on the picture that you know the distance of.
            {:else if tool === 'several'}{together.length
                ? `${together.length} picked. Drag one to move them all.`
                : 'Draw a frame about what belongs together, or press one after another.'}
            {:else if tool === 'place' && placing}{as === 'spot'
                ? `Press where ${placing.name} stands.`
                : as === 'row'
                  ? `Press along the row of ${placing.name}, corner after corner, then Done${drawn.length > 1 ? `: ${metres(lengthOf(drawn))} so far` : ''}.`
                  : `Press round the bed of ${placing.name}, corner after corner, then Done${drawn.length > 2 ? `: ${figure(areaOf(drawn), 'm²')} so far` : ''}.`}
            {:else if tool === 'pick' || tool === 'place'}Press a thing to see its measures, a plant to see its sun. Drag to move
              it; arrow keys move it by half a metre, with Shift by ten centimetres.
            {:else}{kinds[tool].form === 'point' ? 'Press where it is.' : 'Press corner after corner, then Done.'} By keys: arrows move
              a cross, Space sets a corner, Enter is Done.{/if}
          </p>
          {#if tool === 'several' || copied.things.length}
            {#if tool === 'several'}
              <Button size="sm" class="min-h-11 shrink-0" color="light" disabled={!together.length} onclick={copyPicked}
                >Copy</Button
              >
              <Button
                size="sm"
                class="min-h-11 shrink-0"
                color="light"
                disabled={!together.length}
                onclick={() => removed(...together)}>Take off</Button
              >
            {/if}
            {#if copied.things.length && (tool === 'several' || tool === 'pick')}<Button
                size="sm"
                class="min-h-11 shrink-0"
                color="light"
                onclick={putCopy}>Put down the copy ({copied.things.length})</Button
              >{/if}
          {/if}
          {#if corners}
            <Button size="sm" class="min-h-11 shrink-0" disabled={!enough} onclick={finish}>Done</Button>
            <Button
              size="sm"
              class="min-h-11 shrink-0"
              color="light"
              disabled={!drawn.length}
              onclick={() => (drawn = drawn.slice(0, -1))}>One corner back</Button
            >
          {/if}
        </div>
        <div class="relative" bind:clientWidth={wide}>
          <Drawing
            {things}
            {shadows}
            {chosen}
            tool={measuring ? 'gate' : tool}
            drawn={measuring ? ends : drawn}
            cursor={tool === 'pick' || tool === 'several' ? undefined : cursor}
            {group}
            onframe={(a, b) => (group = [...new Set([...group, ...framed(things!, a, b)])])}
            view={shown}
            {wide}
            {high}
            north={lie.north_deg ?? 0}
            under={lie.underlay}
            {marked}
            onpick={(t) => (tool === 'several' ? toggled(t) : (chosen = t))}
            oncorner={corner}
            onmove={(list) => {
              dragged(list);
              if (list.length === 1) chosen = list[0]!.id;
            }}
            onview={(v) => (view = v)}
          />
          {#if after}
            <div
              class="pointer-events-none absolute inset-0 bg-white"
              style:clip-path="inset(0 0 0 {split}%)"
              data-testid="after"
            >
              <Drawing
                things={after}
                shadows={shadowsAfter}
                {chosen}
                tool="pick"
                drawn={[]}
                view={shown}
                {wide}
                {high}
                north={lie.north_deg ?? 0}
                under={lie.underlay}
                {marked}
                fixed
                onpick={() => {}}
                oncorner={() => {}}
                onmove={() => {}}
                onview={() => {}}
              />
            </div>
            <div class="pointer-events-none absolute inset-y-0 w-0.5 bg-ink" style:left="{split}%">
              <span class="absolute top-1 right-1 bg-white px-1 text-xs font-semibold whitespace-nowrap">as it is</span>
              <span class="absolute top-1 left-1 bg-white px-1 text-xs font-semibold whitespace-nowrap">after it</span>
            </div>
          {/if}
        </div>
        {#if after}<label class="mt-1 block text-sm font-semibold"
            >Before and after
            <input class="block h-11 w-full accent-moss" type="range" min="0" max="100" bind:value={split} /></label
          >{/if}
        <div class="mt-2 flex flex-wrap items-end gap-4">
          <Pick
            label="Shadows of the 21st of"
            bind:value={month}
            options={[
              'January',
              'February',
              'March',
              'April',
              'May',
              'June',
              'July',
              'August',
              'September',
              'October',
              'November',
              'December',
            ].map((m, i): [number, string] => [i, m])}
          />
          <label class="min-w-48 flex-1 font-semibold"
            >{hour ? `at ${atHour(60 * hour)}, solar time` : 'no shadows drawn'}
            <input
              class="mt-1 block h-11 w-full accent-moss"
              type="range"
              min="3.5"
              max="20.5"
              step="0.5"
              value={hour || 3.5}
              oninput={(e) => (hour = Number(e.currentTarget.value) <= 3.5 ? 0 : Number(e.currentTarget.value))}
            />
          </label>
        </div>
        {#if things.some((t) => t.plant_id)}<p class="mt-2 flex flex-wrap items-center gap-3">
            <Button size="sm" color="light" class="min-h-11" onclick={() => takeSpots()}
              >Save sun and shelter to the plants</Button
            >
            <Button size="sm" color="light" class="min-h-11" onclick={() => takeStops()}>Take the way round</Button>
            <span class="text-sm text-soft">Verdicts, causes and forecasts then go by the plan, not by what was guessed.</span>
          </p>{/if}
        {#if !things.length}<p class="mt-3 text-soft">
            Nothing is drawn yet. Draw the house first, then walls and hedges, and place the plants: their sun is reckoned from
            that.
          </p>{/if}
      </div>
      <div class="space-y-4">
        {#if indoors}
          <div class="border-2 border-sun bg-white px-3 py-2" role="alert">
            <p>
              <b>{indoors.thing.name} would stand inside {indoors.house.name || 'the house'}.</b> Plants in a house have no sun and
              no frost on this plan.
            </p>
            <p class="flex flex-wrap gap-x-4">
              <button class="min-h-11 text-moss underline" onclick={() => indoors && stand(indoors.thing)}
                >It stands in there</button
              >
              <button class="min-h-11 text-moss underline" onclick={() => (indoors = undefined)}>No, I will press again</button>
            </p>
          </div>
        {/if}
        {#if tool === 'place' && placing}
          <Pick
            label="Plant to place with the next press"
            value={placing.id}
            options={[...loose, ...(loose.some((l) => l.id === placing?.id) ? [] : [placing])].map((l): [number, string] => [
              l.id,
              l.name,
            ])}
            onpick={(v) => next(loose.find((l) => l.id === v))}
          />
          <Pick
            label="It stands as"
            bind:value={as}
            options={[
              ['spot', 'one plant or clump: one press'],
              ['row', 'a row or hedge: drawn along'],
              ['bed', 'a bed of them: drawn round'],
            ]}
            onpick={() => (drawn = [])}
          />
        {/if}
        {#if picked && tool !== 'several'}
          {#key picked.id}
            <PickedSlip thing={picked} {things} onset={replace} onremove={removed} onredraw={drawAs} oncopy={copyPicked} />
            {#if plan}<SpotSlip {plan} thing={picked} onmark={(m) => (marked = m)} onlook={lookAt} property={id} />{/if}
          {/key}
        {/if}
        {#if plan}
          <LieSlip {lie} onset={(l) => change(things!, l)} />
          <Paces
            {plan}
            onplace={(q) => {
              if (tool === 'pick') house.say('Choose first what stands there: draw something, or place a plant.');
              else corner(q);
            }}
          />
          <Underlay
            property={id}
            {lie}
            {ends}
            middle={{ x: shown.x0 + wide / shown.scale / 2, y: shown.y1 - high / shown.scale / 2 }}
            onset={(l) => change(things!, l)}
            onmeasure={(on) => {
              measuring = on;
              ends = [];
            }}
          />
        {/if}
      </div>
    </div>
  {/if}
</div>
