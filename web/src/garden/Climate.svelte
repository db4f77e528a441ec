<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { push } from 'svelte-spa-router';
  import { allProperties, api, ask, type Property, type Schemas, type Season } from '../api/client';
  import { apart, imperial, shown, unit, warmth } from '../lib/units';
  import { brief, daysBetween, degrees, inWords, monthName, span } from '../lib/dates';
  import { between, lineThrough, scale } from '../lib/scale';
  import { attempt, keys } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Ribbon, { type RibbonLane } from '../lib/Ribbon.svelte';
  import { siteWords } from './site';
  import Waiting from '../lib/Waiting.svelte';
  import WeatherSources from './WeatherSources.svelte';

  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id ?? 0));

  let properties = $state<Property[]>([]);
  let season = $state<Season>();
  let answer = $state<Schemas['SeasonOut']>();
  const reads = reading();
  const property = $derived(properties.find((p) => p.id === id));

  onMount(() => {
    void attempt(async () => void (properties = await allProperties()));
    keys.screen = [{ key: 'G', does: 'back to the plants of the property', run: () => void push(`/grounds/${id}`) }];
    return () => (keys.screen = []);
  });
  $effect(() => {
    answer = undefined;
    void readIt(id);
  });
  const readIt = (of: number) =>
    reads(async (signal) => {
      const s = await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: of } }, signal }));
      const a = await ask(api.POST('/api/v1/reckon/season', { body: { property: of }, signal }));
      [season, answer] = [s, a];
    });
  type Band = Schemas['SeasonBand'] | null | undefined;
  const bands = $derived(
    answer
      ? (
          [
            ['Last frost', answer.outlook.last_frost, answer.usual?.last_frost, answer.outlook.last_frost_years],
            [
              'Last killing frost',
              answer.outlook.last_killing_frost,
              answer.usual?.last_killing_frost,
              answer.outlook.last_killing_years,
            ],
            ['Hottest week', answer.outlook.hottest_week, answer.usual?.hottest_week, 1],
            ['First frost', answer.outlook.first_frost, answer.usual?.first_frost, answer.outlook.first_frost_years],
            [
              'First killing frost',
              answer.outlook.first_killing_frost,
              answer.usual?.first_killing_frost,
              answer.outlook.first_killing_years,
            ],
          ] as [string, Band, Band, number][]
        ).map(([name, now, usual, years]) => ({ name, now, usual, years }))
      : [],
  );
  const wide = (b: Band) => (b ? daysBetween(b.early, b.late) : undefined);
  const lanes = $derived(
    bands
      .filter((b) => b.now && season && b.now.mid < season.to)
      .map((b): RibbonLane => ({
        id: b.name,
        label: b.name,
        note: b.now!.early === b.now!.late ? brief(b.now!.mid) : span(b.now!.early, b.now!.late),
        start: season!.from,
        costs: [],
        windows: [{ from: b.now!.early, to: b.now!.late, best: b.now!.mid }],
      })),
  );
  type Writes = (v: number) => string;
  const spreads = $derived(
    answer
      ? ([
          [
            'Coldest night',
            answer.outlook.extreme_min_c,
            answer.usual?.extreme_min_c,
            (v: number) => degrees(v),
            (v: number) => apart(v),
          ],
          [
            'Warmth of that week',
            answer.outlook.hottest_week_c,
            answer.usual?.hottest_week_c,
            (v: number) => degrees(v),
            (v: number) => apart(v),
          ],
          [
            'Chill',
            answer.outlook.chill_hours,
            answer.usual?.chill_hours,
            (v: number) => `${Math.round(v)} h`,
            (v: number) => `${Math.round(v)} h`,
          ],
        ] as [string, Schemas['SeasonSpread'], Schemas['SeasonSpread'] | undefined, Writes, Writes][])
      : [],
  );

  // Degree-days through the year: this year's fan over the usual one.
  let width = $state(560);
  const box = { left: 44, right: 8, top: 10, bottom: 22, height: 240 };
  const inScale = (list: Dated[] | undefined) =>
    (list ?? []).map((d) => ({ day: d.day, low: warmth(d.low), mid: warmth(d.mid), high: warmth(d.high) }));
  const heat = $derived(inScale(answer?.outlook.degree_days));
  const usual = $derived(inScale(answer?.usual?.degree_days));
  const x = $derived(
    scale([0, Math.max(1, heat.length ? daysBetween(heat[0]!.day, heat.at(-1)!.day) : 1)], [box.left, width - box.right]),
  );
  const y = $derived(
    scale([0, Math.max(10, ...heat.map((d) => d.high), ...usual.map((d) => d.high))], [box.height - box.bottom, box.top], 5),
  );
  type Dated = Schemas['SeasonDatedSpread'];
  const px = $derived((d: Dated) => x(daysBetween(heat[0]!.day, d.day)));
  const fan = (list: Dated[]) => between(list.map((d) => [px(d), y(d.low), y(d.high)]));
  const monthMarks = $derived.by(() => {
    const out: { at: number; name: string }[] = [];
    let last = '';
    for (const d of heat) {
      const m = d.day.slice(0, 7);
      if (m !== last && Number(d.day.slice(8)) <= 7) out.push({ at: px(d), name: monthName(d.day).slice(0, 3) });
      last = m;
    }
    return out;
  });
  const end = $derived(heat.at(-1));
  const site = $derived(property ? siteWords(property.site) : '');
  const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
  const normals: [string, (n: Schemas['SeasonNormal']) => string][] = [
    [
      `Night ${unit('temperature')}`,
      (n) =>
        shown('temperature', n.tmin_c)
          .toFixed(imperial() ? 0 : 1)
          .replace('-', '−'),
    ],
    [
      `Day ${unit('temperature')}`,
      (n) =>
        shown('temperature', n.tmax_c)
          .toFixed(imperial() ? 0 : 1)
          .replace('-', '−'),
    ],
    [`Rain ${unit('rain')}`, (n) => (imperial() ? shown('rain', n.rain_mm).toFixed(1) : String(Math.round(n.rain_mm)))],
    ['Humidity %', (n) => String(Math.round(n.rh_pct))],
    [`Wind ${unit('wind')}`, (n) => shown('wind', n.wind_ms).toFixed(imperial() ? 0 : 1)],
  ];
</script>

<svelte:head><title>{property ? `Climate of ${property.name} · ` : ''}Mezzadro</title></svelte:head>

<div class="border-b border-rule bg-white max-lg:overflow-x-auto">
  {#if season && property}<Ribbon {season} {lanes} slim place={property.name} />{/if}
</div>

<div class="px-5 py-4 max-md:px-3">
  <header class="flex flex-wrap items-start gap-3">
    <div class="min-w-[min(100%,16rem)] flex-1 break-words">
      <h1>Climate{property ? ` of ${property.name}` : ''}</h1>
      {#if property}
        <p class="text-[0.9375rem]">
          Zone <b>{property.hardiness_zone}</b>, from a coldest night of {degrees(property.climate_here.extreme_min_c)} in a usual year.
          {Math.round(shown('elevation', property.climate.elevation_m))}
          {unit('elevation')}, {Math.abs(property.climate.latitude).toFixed(2)}° {property.climate.latitude < 0 ? 'S' : 'N'}.
          {site ? `Corrected for: ${site}.` : 'No correction for its site.'}
        </p>
      {/if}
    </div>
    <label class="text-sm"
      >Property
      <select
        class="ml-1 min-h-11 max-w-[min(20rem,60vw)] rounded-sm border border-gray-400 bg-white px-2"
        value={id}
        onchange={(e) => push(`/grounds/${e.currentTarget.value}/climate`)}
      >
        {#each properties as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
      </select>
    </label>
    <Button color="light" href="#/grounds/{id}">Plants</Button>
  </header>

  {#if answer}
    <div class="mt-3 grid grid-cols-[minmax(0,1fr)] gap-6 xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
      <section aria-labelledby="outlook">
        <h2 id="outlook">Outlook of this garden year</h2>
        <p class="text-sm text-soft">{answer.reasons?.join(' ')}</p>
        <div class="overflow-x-auto">
          <table class="mt-1 w-full text-left text-[0.9375rem] max-sm:text-sm">
            <thead class="text-sm text-soft">
              <tr
                ><th></th><th class="pr-3 font-semibold">1 in 10 before</th><th class="pr-3 font-semibold">usually</th><th
                  class="pr-3 font-semibold">1 in 10 after</th
                ><th class="text-right font-semibold">spread</th></tr
              >
            </thead>
            <tbody>
              {#each bands as b (b.name)}
                <tr class="border-t border-rule">
                  <th class="py-1 pr-3 font-normal whitespace-nowrap">{b.name}</th>
                  {#if b.now && season && b.now.early === b.now.late && b.now.mid <= season.observed_to}
                    <td colspan="3" class="font-semibold">{brief(b.now.mid)}</td>
                    <td class="text-right whitespace-nowrap" data-testid="spread"
                      >seen{#if b.usual}<span class="text-soft">&nbsp;(spread of {wide(b.usual)} d)</span>{/if}</td
                    >
                  {:else if b.now}
                    <td class="pr-3">{brief(b.now.early)}</td>
                    <td class="pr-3 font-semibold whitespace-nowrap">{brief(b.now.mid)}</td>
                    <td class="pr-3">{brief(b.now.late)}</td>
                    <td class="text-right whitespace-nowrap" data-testid="spread"
                      >{wide(b.now)} d{#if b.usual && wide(b.now)! < 0.9 * wide(b.usual)!}<span class="text-soft">
                          &nbsp;(of {wide(b.usual)})</span
                        >{/if}</td
                    >
                  {:else}<td colspan="4" class="text-soft"
                      >{b.years < 0.05 ? 'hardly ever' : `in about ${Math.round(10 * b.years)} years of ten`}</td
                    >{/if}
                </tr>
              {/each}
              {#each spreads as [name, now, before, write, gap] (name)}
                <tr class="border-t border-rule">
                  <th class="py-1 pr-3 font-normal whitespace-nowrap">{name}</th>
                  {#if now.low === now.high}
                    <td colspan="3" class="font-semibold">{write(now.mid)} so far</td>
                    <td class="text-right text-soft">beyond it in fewer than one year in ten</td>
                  {:else}
                    <td class="pr-3">{write(now.low)}</td>
                    <td class="pr-3 font-semibold whitespace-nowrap">{write(now.mid)}</td>
                    <td class="pr-3">{write(now.high)}</td>
                    <td class="text-right whitespace-nowrap"
                      >{gap(now.high - now.low)}{#if before && now.high - now.low < 0.9 * (before.high - before.low)}<span
                          class="text-soft">&nbsp;(of {gap(before.high - before.low)})</span
                        >{/if}</td
                    >
                  {/if}
                </tr>
              {/each}
            </tbody>
          </table>
        </div>
        {#if answer.usual}<p class="mt-1 text-sm text-soft">
            Frost is a night under {degrees(0, 0)}, a killing one under {degrees(-2.2)}; chill, the hours from {degrees(0, 0)} to {degrees(
              7.2,
            )}. In brackets: the spread before anything of this year’s weather was known.
          </p>{/if}
      </section>
      <section aria-labelledby="warmth">
        <h2 id="warmth">Degree-days, base {degrees(10, 0)}</h2>
        <p class="text-sm text-soft">
          {Math.round(warmth(answer.degree_days))} so far.{#if end}&nbsp;By {inWords(end.day)}: {Math.round(end.low)} to {Math.round(
              end.high,
            )}, four years in five.{/if}
        </p>
        <div bind:clientWidth={width}>
          <svg
            {width}
            height={box.height}
            role="img"
            aria-label="Degree-days through the year: {heat
              .filter((_, i) => i % 8 === 7)
              .map((d) => `${brief(d.day)} ${Math.round(d.mid)}, ${Math.round(d.low)} to ${Math.round(d.high)}`)
              .join('; ')}."
            class="block"
          >
            {#each y.ticks(5) as t}
              <line x1={box.left} x2={width - box.right} y1={y(t)} y2={y(t)} stroke="var(--color-rule)" stroke-dasharray="1 4" />
              <text x={box.left - 6} y={y(t) + 4} font-size="11" text-anchor="end" fill="var(--color-soft)">{t}</text>
            {/each}
            {#each monthMarks as m (m.at)}
              <line x1={m.at} x2={m.at} y1={box.top} y2={box.height - box.bottom} stroke="var(--color-rule)" />
              <text x={m.at + 3} y={box.height - 8} font-size="11" fill="var(--color-soft)">{m.name}</text>
            {/each}
            {#if usual.length}<path d={fan(usual)} fill="var(--color-ink)" opacity="0.1" />{/if}
            <path d={fan(heat)} fill="var(--color-moss)" opacity="0.35" />
            <path d={lineThrough(heat.map((d) => [px(d), y(d.mid)]))} fill="none" stroke="var(--color-moss)" stroke-width="1.8" />
            {#if season && heat.length && season.today > heat[0]!.day}
              {@const at = x(daysBetween(heat[0]!.day, season.today))}
              <line x1={at} x2={at} y1={box.top} y2={box.height - box.bottom} stroke="var(--color-bad)" stroke-width="1.4" />
            {/if}
          </svg>
        </div>
        <p class="text-sm text-soft">
          Green: this year, eight years in ten. {usual.length ? 'Grey: before its weather was known.' : ''}
        </p>
      </section>
    </div>
    {#if season}<WeatherSources property={id} {season} onchange={() => void readIt(id)} />{/if}
    {#if property}
      <section class="mt-5 overflow-x-auto" aria-labelledby="normals">
        <div class="flex flex-wrap items-center gap-x-6">
          <h2 id="normals">Monthly normals{site ? ' on its site' : ''}</h2>
          <a class="flex min-h-11 items-center text-sm underline" href="/api/v1/properties/{id}/normals.csv" download
            >Normals as a file</a
          >
          <a class="flex min-h-11 items-center text-sm underline" href="/api/v1/properties/{id}/weather.csv" download
            >Weather as a file</a
          >
        </div>
        <table class="w-full text-right text-sm">
          <thead
            ><tr
              ><th></th>{#each months as m}<th class="font-semibold">{m}</th>{/each}</tr
            ></thead
          >
          <tbody>
            {#each normals as [name, write] (name)}
              <tr class="border-t border-rule"
                ><th class="pr-2 text-left font-semibold whitespace-nowrap">{name}</th>
                {#each property.climate_here.normals as n, i (i)}<td class="pl-2">{write(n)}</td>{/each}</tr
              >
            {/each}
          </tbody>
        </table>
        <p class="mt-1 text-sm text-soft">
          Own figures, by hand or from a CSV file, and corrections for the site are entered with <a href="#/grounds/{id}"
            >Change</a
          > on the property.
        </p>
      </section>
    {/if}
  {:else}<Waiting rows={6} />{/if}
</div>
