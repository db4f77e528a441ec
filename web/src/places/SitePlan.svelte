<script lang="ts">
  /** A property drawn once in metres: what stands where, what sun each plant gets, and what a cut or a fall would change. */
  import { Button } from 'flowbite-svelte';
  import { onDestroy, onMount } from 'svelte';
  import { api, ask, onceKey, sendFile, type Problem, type Schemas } from '../api/client';
  import { attempt, house, keys } from '../lib/house.svelte';
  import Field from '../lib/Field.svelte';
  import FilePick from '../lib/FilePick.svelte';
  import Pick from '../lib/Pick.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import Drawing from '../plan/Drawing.svelte';
  import { fit, fresh, kinds, least, middle, moved, near, tools, type At, type Kind, type Thing, type View } from '../plan/plan';
  import SpotSlip from '../plan/SpotSlip.svelte';

  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id ?? 0));

  let name = $state('');
  let things = $state.raw<Thing[]>();
  let loose = $state.raw<Schemas['LoosePlant'][]>([]);
  let latitude = $state(0);
  let north = $state('0');
  let version = 0;
  let chosen = $state<string>();
  let tool = $state<Kind | 'pick' | 'place'>('pick');
  let placing = $state.raw<Schemas['LoosePlant']>();
  let drawn = $state.raw<At[]>([]);
  let view = $state.raw<View>();
  let wide = $state(700);
  let past = $state.raw<Thing[][]>([]);
  let ahead = $state.raw<Thing[][]>([]);
  let problem = $state.raw<Problem>();
  let saving = $state<'kept' | 'waiting' | 'keeping' | 'refused'>('kept');
  let shadows = $state.raw<Schemas['SiteShadow'][]>([]);
  let marked = $state.raw<Record<string, string>>({});
  let month = $state(5); // of the shadows; 0: none are shown
  let hour = $state(0);
  const high = $derived(Math.max(380, Math.min(640, Math.round(wide * 0.72))));
  let gone = false;
  onDestroy(() => {
    gone = true;
    if (timer) void keep();
  });

  async function load(of: number) {
    await attempt(async () => {
      const path = { id: of };
      const [p, plan] = await Promise.all([
        ask(api.GET('/api/v1/properties/{id}', { params: { path } })),
        ask(api.GET('/api/v1/properties/{id}/plan', { params: { path } })),
      ]);
      if (gone || of !== id) return;
      name = p.name;
      take(plan);
      north = String(plan.plan.north_deg ?? 0);
      view = undefined;
    });
  }
  function take(plan: Schemas['PlanOut']) {
    things = plan.plan.things ?? [];
    loose = plan.loose ?? [];
    latitude = plan.plan.latitude;
    version = plan.version;
  }
  $effect(() => {
    if (id) void load(id);
  });
  const shown = $derived(view ?? fit(things ?? [], wide, high));

  // What was drawn is kept by itself, a moment after the hand rests.
  let timer: ReturnType<typeof setTimeout> | undefined;
  let sending = false;
  function change(next: Thing[], history = true) {
    if (history && things) {
      past = [...past.slice(-60), things];
      ahead = [];
    }
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
    const body = { version, plan: { latitude, north_deg: Number(north) || 0, things: sent } };
    problem = await attempt(async () => {
      const got = await ask(api.PUT('/api/v1/properties/{id}/plan', { params: { path: { id: of }, header: onceKey() }, body }));
      version = got.version;
      if (of === id && things === sent) take(got);
      else loose = got.loose ?? [];
    });
    sending = false;
    if (saving === 'keeping') saving = problem ? 'refused' : 'kept';
  }
  function back() {
    if (!past.length || !things) return;
    ahead = [things, ...ahead];
    const to = past[past.length - 1]!;
    past = past.slice(0, -1);
    things = to;
    later();
  }
  function forth() {
    if (!ahead.length || !things) return;
    past = [...past, things];
    things = ahead[0]!;
    ahead = ahead.slice(1);
    later();
  }

  function corner(q: At) {
    if (tool === 'place') {
      const l = placing;
      if (!l || !things) return;
      const t: Thing = {
        id: `plant-${l.id}`,
        kind: 'plant',
        plant_id: l.id,
        species: l.species,
        name: l.name,
        height_m: l.height_m,
        spread_m: l.spread_m,
        points: [q],
      };
      loose = loose.filter((x) => x.id !== l.id);
      change([...things, t]);
      chosen = t.id;
      placing = loose[0];
      if (!placing) tool = 'pick';
      return;
    }
    if (tool === 'pick' || tool === 'plant') return;
    if (kinds[tool].form === 'point') return add(tool, [q]);
    drawn = [...drawn, q];
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
  const enough = $derived(tool !== 'pick' && tool !== 'place' && drawn.length >= least[kinds[tool].form]);
  const finish = () => enough && add(tool as Kind, drawn);
  const picked = $derived(things?.find((t) => t.id === chosen));
  function replace(t: Thing) {
    change(things!.map((x) => (x.id === t.id ? t : x)));
  }
  function figure(field: 'height_m' | 'spread_m' | 'clear_m', text: string) {
    const v = Number(text.replace(',', '.'));
    if (!picked || Number.isNaN(v) || v === (picked[field] ?? 0)) return;
    replace({ ...picked, [field]: v });
  }
  function removed(t: Thing) {
    change(things!.filter((x) => x.id !== t.id));
    if (t.plant_id)
      loose = [
        ...loose,
        { id: t.plant_id, name: t.name ?? '', species: t.species ?? '', height_m: t.height_m ?? 0, spread_m: t.spread_m ?? 0 },
      ];
    chosen = undefined;
    house.say(`${t.name || kinds[t.kind].name} is off the plan.`, async () => back());
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
      const list =
        (
          await ask(
            api.POST('/api/v1/properties/{id}/plan/spots', {
              params: { path: { id }, header: onceKey() },
              body: set ? { set } : {},
            }),
          )
        ).items ?? [];
      void house.refresh();
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
  function pickTool(t: Kind | 'pick' | 'place') {
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
    if (picked && by[e.key]) {
      e.preventDefault();
      replace(moved(picked, ...by[e.key]!));
    } else if (picked && (e.key === 'Delete' || e.key === 'Backspace')) removed(picked);
    else if (e.key === 'Enter' && enough) finish();
    else if (e.key === 'Escape') pickTool('pick');
    else if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z') {
      e.preventDefault();
      if (e.shiftKey) forth();
      else back();
    }
  }
  onMount(() => {
    keys.screen = [];
  });
  const plan = $derived(things ? { latitude, north_deg: Number(north) || 0, things } : undefined);

  /** The shadows of the 21st of a month at an hour of solar time. */
  let asked = 0;
  async function shade() {
    const mine = ++asked;
    if (!hour || !plan) {
      shadows = [];
      return;
    }
    await attempt(async () => {
      const day = `${house.today.slice(0, 4)}-${String(month + 1).padStart(2, '0')}-21`;
      const o = await ask(api.POST('/api/v1/reckon/site', { body: { plan: plan!, shadow: { day, hour } } }));
      if (mine === asked && !gone) shadows = o.shadows ?? [];
    });
  }
  $effect(() => {
    void [month, hour, things];
    void shade();
  });
  const zoom = (by: number) => {
    const v = shown;
    const scale = Math.min(200, Math.max(0.8, v.scale * by));
    const [cx, cy] = [v.x0 + wide / v.scale / 2, v.y1 - high / v.scale / 2];
    view = { x0: cx - wide / scale / 2, y1: cy + high / scale / 2, scale };
  };
  const clock = (h: number) => `${String(Math.floor(h)).padStart(2, '0')}:${h % 1 ? '30' : '00'}`;
</script>

<svelte:window onkeydown={pressed} />
<svelte:head><title>{name ? `${name} · ` : ''}Plan · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/grounds/{id}">{name || 'Grounds'}</a></p>
  <div class="flex flex-wrap items-end gap-x-4 gap-y-1">
    <h1 class="flex-1">Plan</h1>
    <span class="pb-2 text-sm text-soft" role="status"
      >{{ kept: 'Kept', waiting: 'Drawing …', keeping: 'Keeping …', refused: 'Not kept yet' }[saving]}</span
    >
    <Button size="sm" color="light" class="min-h-11" disabled={!past.length} onclick={back}>Undo</Button>
    <Button size="sm" color="light" class="min-h-11" disabled={!ahead.length} onclick={forth}>Redo</Button>
    <a class="inline-flex min-h-11 items-center underline" href="/api/v1/properties/{id}/plan.geojson" download>As GeoJSON</a>
    <FilePick name="From GeoJSON" accept=".geojson,.json,application/geo+json" onfile={takeFile} />
  </div>
  {#if problem}<p role="alert" class="mt-1 border-l-4 border-bad pl-2">
      {problem.message}
      {#if problem.status === 409}<button class="min-h-11 underline" onclick={() => load(id)}>Read what is kept</button>{/if}
    </p>{/if}
  {#if !things}<Waiting rows={8} />
  {:else}
    <div class="mt-2 grid gap-5 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div class="min-w-0">
        <div class="mb-2 flex flex-wrap items-end gap-2">
          <Button size="sm" class="min-h-11" color={tool === 'pick' ? 'primary' : 'light'} onclick={() => pickTool('pick')}
            >Pick and move</Button
          >
          <label class="font-semibold"
            ><span class="sr-only">Draw</span>
            <select
              class="min-h-11 rounded-sm border border-gray-400 bg-white px-2 font-normal"
              value={tool === 'pick' || tool === 'place' ? '' : tool}
              onchange={(e) => pickTool((e.currentTarget.value || 'pick') as Kind)}
            >
              <option value="">Draw …</option>
              {#each tools as k (k)}<option value={k}>{kinds[k].name}</option>{/each}
            </select></label
          >
          {#if loose.length}<Button
              size="sm"
              class="min-h-11"
              color={tool === 'place' ? 'primary' : 'light'}
              onclick={() => {
                placing ??= loose[0];
                pickTool('place');
              }}>Place plants ({loose.length})</Button
            >{/if}
          {#if drawn.length}
            <Button size="sm" class="min-h-11" disabled={!enough} onclick={finish}>Done</Button>
            <Button size="sm" class="min-h-11" color="light" onclick={() => (drawn = drawn.slice(0, -1))}>One corner back</Button>
          {/if}
          <span class="flex-1"></span>
          <Button size="sm" class="min-h-11" color="light" onclick={() => zoom(1.4)}>+<span class="sr-only"> nearer</span></Button
          >
          <Button size="sm" class="min-h-11" color="light" onclick={() => zoom(1 / 1.4)}
            >−<span class="sr-only"> farther</span></Button
          >
          <Button size="sm" class="min-h-11" color="light" onclick={() => (view = undefined)}>All</Button>
        </div>
        {#if tool === 'place' && placing}
          <Pick
            label="Which one stands where you press next"
            value={placing.id}
            options={loose.map((l): [number, string] => [l.id, l.name])}
            onpick={(v) => (placing = loose.find((l) => l.id === v))}
            class="mb-2"
          />
        {:else if tool !== 'pick' && tool !== 'place'}
          <p class="mb-2 text-sm" role="status">
            {kinds[tool].form === 'point' ? 'Press where it is.' : 'Press corner after corner, then Done.'} Measured to a hand’s breadth.
          </p>
        {/if}
        <div bind:clientWidth={wide}>
          <Drawing
            {things}
            {shadows}
            {chosen}
            {tool}
            {drawn}
            view={shown}
            {wide}
            {high}
            north={Number(north) || 0}
            {marked}
            onpick={(t) => (chosen = t)}
            oncorner={corner}
            onmove={(t) => {
              replace(t);
              chosen = t.id;
            }}
            onview={(v) => (view = v)}
          />
        </div>
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
            >{hour ? `at ${clock(hour)}, solar time` : 'at no hour'}
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
          <div class="w-40"><Field label="Up is at a bearing of (°)" mode="decimal" bind:value={north} /></div>
          <Button size="sm" color="light" class="min-h-11" onclick={later}>Turn it</Button>
        </div>
        {#if things.some((t) => t.plant_id)}<p class="mt-2 flex flex-wrap items-center gap-3">
            <Button size="sm" color="light" class="min-h-11" onclick={() => takeSpots()}
              >Take sun and shelter into the record</Button
            >
            <span class="text-sm text-soft">Verdicts, causes and forecasts then go by the plan, not by what was guessed.</span>
          </p>{/if}
        {#if !things.length}<p class="mt-3 text-soft">
            Nothing is drawn yet. Draw the house first, then walls and hedges, and place the plants: their sun is reckoned from
            that.
          </p>{/if}
      </div>
      <div class="space-y-4">
        {#if picked}
          {#key picked.id}
            <section aria-label="What is picked" class="border border-ink bg-white px-3 py-2">
              <p class="font-bold">{picked.name || kinds[picked.kind].name}</p>
              {#if picked.plant_id}<p class="text-sm text-soft">
                  <a href="#/plant/{picked.plant_id}">Its page</a> · its size is kept there
                </p>{/if}
              <div class="mt-1 grid grid-cols-3 gap-2">
                {#if !picked.plant_id && (picked.height_m || kinds[picked.kind].height)}
                  <label class="text-sm font-semibold"
                    >Height (m)<input
                      class="min-h-11 w-full rounded-sm border border-gray-400 px-2 font-normal"
                      inputmode="decimal"
                      value={picked.height_m ?? ''}
                      onchange={(e) => figure('height_m', e.currentTarget.value)}
                    /></label
                  >{/if}
                {#if !picked.plant_id && kinds[picked.kind].spread}
                  <label class="text-sm font-semibold"
                    >{picked.kind === 'hedge' ? 'Thick' : 'Spread'} (m)<input
                      class="min-h-11 w-full rounded-sm border border-gray-400 px-2 font-normal"
                      inputmode="decimal"
                      value={picked.spread_m ?? ''}
                      onchange={(e) => figure('spread_m', e.currentTarget.value)}
                    /></label
                  >{/if}
                {#if picked.kind === 'tree' || picked.kind === 'plant'}
                  <label class="text-sm font-semibold"
                    >Clear stem (m)<input
                      class="min-h-11 w-full rounded-sm border border-gray-400 px-2 font-normal"
                      inputmode="decimal"
                      value={picked.clear_m ?? ''}
                      onchange={(e) => figure('clear_m', e.currentTarget.value)}
                    /></label
                  >{/if}
                {#each ['x', 'y'] as const as axis (axis)}
                  <label class="text-sm font-semibold"
                    >{axis === 'x' ? 'Right' : 'Up'} (m)<input
                      class="min-h-11 w-full rounded-sm border border-gray-400 px-2 font-normal"
                      inputmode="decimal"
                      value={near(middle(picked)[axis])}
                      onchange={(e) => {
                        const d = Number(e.currentTarget.value.replace(',', '.')) - middle(picked!)[axis];
                        if (!Number.isNaN(d)) replace(moved(picked!, axis === 'x' ? d : 0, axis === 'y' ? d : 0));
                      }}
                    /></label
                  >
                {/each}
              </div>
              {#if picked.kind === 'tree' || picked.kind === 'hedge'}
                <Pick
                  label="Leaves"
                  class="mt-2"
                  value={picked.leaf ?? 'evergreen'}
                  options={[
                    ['evergreen', 'evergreen'],
                    ['deciduous', 'bare in winter'],
                  ]}
                  onpick={(leaf) => replace({ ...picked!, leaf })}
                />
              {/if}
              {#if !picked.plant_id}<div class="mt-2">
                  <label class="text-sm font-semibold"
                    >Name<input
                      class="min-h-11 w-full rounded-sm border border-gray-400 px-2 font-normal"
                      value={picked.name ?? ''}
                      onchange={(e) => replace({ ...picked!, name: e.currentTarget.value.trim() })}
                    /></label
                  >
                </div>{/if}
              <p class="mt-2 flex flex-wrap gap-3">
                <button class="min-h-11 text-moss underline" onclick={() => removed(picked!)}>Take off the plan</button>
              </p>
            </section>
            {#if plan}<SpotSlip {plan} thing={picked} onmark={(m) => (marked = m)} property={id} />{/if}
          {/key}
        {:else}
          <p class="text-soft">
            Press a thing to see its measures, a plant to see its sun. Drag to move it, arrow keys move it by half a metre, with
            Shift by ten centimetres.
          </p>
        {/if}
      </div>
    </div>
  {/if}
</div>
