<script lang="ts">
  import { capital, small } from '../lib/words';
  /** Causes of the book: each with its look-alikes side by side, its year in this climate's dates, and the firm's plants that take it. */
  import { untrack } from 'svelte';
  import { acts, harms } from './case.svelte';
  import Drawing from './Drawing.svelte';
  import { allProperties, api, ask, type Property, type Schemas, type Season } from '../api/client';
  import { brief, inWords, monthName, plantsOf, span } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Pick from '../lib/Pick.svelte';
  import Ribbon, { type RibbonLane } from '../lib/Ribbon.svelte';
  import { rungs } from '../treat/treat';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(params?.id ?? '');

  let causes = $state<Schemas['CauseLine'][]>();
  let properties = $state<Property[]>([]);
  let at = $state(0); // property whose dates are shown
  let page = $state<Schemas['CausePage']>();
  let season = $state<Season>();
  let missing = $state('');
  let words = $state('');
  const [readBook, reads] = [reading(), reading()];

  $effect(() => {
    void readBook(async (signal) => {
      causes = (await ask(api.GET('/api/v1/causes', { signal }))).items;
      properties = await allProperties();
      if (!untrack(() => at)) at = properties[0]?.id ?? 0;
    });
  });
  $effect(() => {
    const [of, property] = [id, at];
    missing = '';
    if (!of) {
      page = undefined;
      return;
    }
    void reads(async (signal) => {
      const query = property ? { property } : {};
      const p = await ask(api.GET('/api/v1/causes/{id}', { params: { path: { id: of }, query }, signal }));
      const s = property
        ? await ask(api.GET('/api/v1/properties/{id}/season', { params: { path: { id: property } }, signal }))
        : undefined;
      page = p;
      season = s;
    }).then((p) => p?.status === 404 && (missing = 'The book has no cause of that name.'));
  });
  const groups = $derived.by(() => {
    const w = words.toLowerCase().split(/\s+/).filter(Boolean);
    const list = (causes ?? []).filter((c) => w.every((x) => `${c.name} ${c.group} ${c.harm}`.toLowerCase().includes(x)));
    return [...new Set(list.map((c) => c.group))].map((g) => ({ name: g, list: list.filter((c) => c.group === g) }));
  });
  const lanes = $derived.by((): RibbonLane[] => {
    const p = page;
    if (!p || !season) return [];
    const out: RibbonLane[] = [];
    const run = (label: string, from: string, to: string, best: string) =>
      out.push({
        id: label,
        label,
        start: from,
        costs: [],
        windows: [{ from, to, best }],
        note: span(from, to),
      });
    if (p.from && p.to) {
      run('Can be at work', p.from, p.to, p.from);
      // A season that runs over the end of the garden year has its end in this one too.
      const end = `${Number(p.to.slice(0, 4)) - 1}${p.to.slice(4)}`;
      if (p.to >= season.to && end > season.from) run('… and until', season.from, end, season.from);
    }
    if (p.wakes) run('Warm enough to wake, this year', p.wakes, p.wakes, p.wakes);
    return out;
  });
  const months = $derived(
    page?.months?.length === 2 ? page.months.map((m) => monthName(`2027-${String(m).padStart(2, '0')}-01`)).join(' to ') : '',
  );
</script>

<svelte:head><title>{page ? `${page.name} · ` : ''}Causes · Mezzadro</title></svelte:head>

{#if season && page}
  <div class="border-b border-rule bg-white max-lg:overflow-x-auto">
    <Ribbon {season} {lanes} slim place={properties.find((p) => p.id === at)?.name} />
  </div>
{/if}

<div class="grid grid-cols-[minmax(0,1fr)] lg:grid-cols-[17rem_minmax(0,1fr)]">
  <section aria-label="Causes" class="border-r border-rule px-3 py-3 {id ? 'max-lg:order-last' : ''}">
    <div class="mb-2 flex flex-wrap gap-x-4 text-sm">
      <a class="flex min-h-11 items-center" href="#/almanac">Species</a>
      <a class="flex min-h-11 items-center" href="#/ails">By what is seen</a>
    </div>
    <Field label="Search the causes" bind:value={words} placeholder="Scale, wilt, frost …" />
    {#if !causes}<Waiting />{/if}
    <div class="mt-2 lg:max-h-[calc(100dvh-18rem)] lg:min-h-64 lg:overflow-y-auto">
      {#each groups as g (g.name)}
        <h2 class="mt-2 text-sm text-soft">{g.name.charAt(0).toUpperCase() + g.name.slice(1)}</h2>
        <ul>
          {#each g.list as c (c.id)}
            <li>
              <a
                href="#/almanac/cause/{c.id}"
                aria-current={c.id === id ? 'true' : undefined}
                class="flex min-h-11 items-center gap-2 border-t border-rule px-2 py-1 leading-tight text-ink no-underline hover:bg-sheet hover:no-underline {c.id ===
                id
                  ? 'bg-moss-pale font-bold'
                  : ''}"
                ><span class="flex w-18 shrink-0 gap-1"
                  >{#each c.picture as words}<Drawing {words} size={32} />{/each}</span
                ><span class="min-w-0 flex-1">{c.name}</span>{#if c.finds}<span class="text-sm font-semibold text-bad"
                    >{c.finds} open</span
                  >{/if}</a
              >
            </li>
          {/each}
        </ul>
      {:else}{#if causes}<p class="py-3 text-soft">No cause is like that.</p>{/if}{/each}
    </div>
  </section>

  {#if missing}<p class="p-5">{missing} <a class="underline" href="#/almanac/cause">See all</a>.</p>
  {:else if !id}
    <div class="px-5 py-4 max-md:px-3">
      <h1>What may be wrong with a plant</h1>
      <p class="mt-1 max-w-prose text-soft">
        Choose a cause to see what it looks like, when it is at work here and which of your plants take it. You also see what it
        is taken for, and the sign that tells them apart. Or <a href="#/ails">start from what is seen</a>.
      </p>
    </div>
  {:else if page}
    <article class="min-w-0 space-y-4 px-5 py-4 max-md:px-3">
      <header class="flex flex-wrap items-start gap-x-4 gap-y-2">
        <div class="flex shrink-0 gap-1">
          {#each page.picture as words}<Drawing {words} size={72} />{/each}
        </div>
        <div class="min-w-[min(100%,16rem)] flex-1">
          <h1>{page.name}</h1>
          <p class="text-soft">
            {page.group}: {harms[page.harm]}{page.to === 'it'
              ? ''
              : page.to === 'all'
                ? ', spreads to other kinds'
                : ', spreads to its kind'}{page.travels ? ` (${page.travels})` : ''}. Least that is enough: {acts[page.act]}.
          </p>
        </div>
        {#if properties.length}<Pick
            class="w-56"
            label="In the dates of"
            bind:value={at}
            options={properties.map((p): [number, string] => [p.id, p.name])}
          />{/if}
      </header>
      {#if page.report}<p class="border-l-4 border-bad pl-3 font-semibold text-bad">
          In many places this must be reported: ask the plant health office before cutting or moving anything.
        </p>{/if}
      <section aria-label="What to do" class="max-w-prose">
        <h2>What to do</h2>
        <dl class="grid grid-cols-[7rem_minmax(0,1fr)] gap-x-3 gap-y-1">
          {#if page.light}<dt class="text-soft">A little of it</dt>
            <dd>{page.light}</dd>{/if}
          <dt class="text-soft">{page.light || page.heavy ? 'Plainly' : 'Once found'}</dt>
          <dd>{page.do}</dd>
          {#if page.heavy}<dt class="text-soft">Most of it</dt>
            <dd>{page.heavy}</dd>{/if}
        </dl>
        <p class="mt-1 text-sm text-soft">
          {#if months}At work from {months} of the northern year.{/if}
          {#if page.wakes}Warm enough to wake about {inWords(page.wakes)} this year (estimate).{/if}
          Local rules and a product’s label come first.
        </p>
      </section>
      {#if page.programme}
        {@const a = page.programme}
        <section aria-label="As a programme" class="max-w-prose">
          <h2>
            As a programme <span class="text-sm font-normal text-soft"
              >on {small(page.programme_on ?? '')}, where it shows plainly, today</span
            >
          </h2>
          <p class="font-semibold">{a.text}</p>
          <ol class="mt-1 border-t border-rule">
            {#each a.ladder as r}<li class="border-b border-rule py-1 {r.chosen ? 'border-l-4 border-l-moss pl-3' : 'pl-3'}">
                <b>{capital(rungs[r.rung] ?? r.rung)}</b>{r.chosen ? ', enough now' : ''}: {r.do}
              </li>{/each}
          </ol>
          {#each a.never as w}<p class="font-semibold">{w}</p>{/each}
          {#each a.rules as r}<p class="text-sm text-soft">House rule: {r}.</p>{/each}
          {#if page.guard?.steps?.length}
            <h3 class="mt-2 font-semibold">Before it is there</h3>
            <ul>
              {#each page.guard.steps as s (s.n)}<li>
                  {inWords(s.day)}{s.to ? `, until ${brief(s.to)}` : ''}: {s.do}{s.use_name ? ` With ${s.use_name}.` : ''}
                </li>{/each}
            </ul>
          {/if}
        </section>
      {/if}
      <section aria-label="Signs">
        <h2>What is seen</h2>
        <ul class="grid grid-cols-[repeat(auto-fill,minmax(min(100%,17rem),1fr))] gap-x-6">
          {#each page.signs.filter((s) => s.chance >= 0.15) as s (s.id)}
            <li class="flex items-center gap-3 border-t border-rule py-1">
              <span class="w-12 shrink-0"><Drawing words={s.draw} /></span>
              <span class="min-w-0 flex-1 leading-tight">{s.name}<span class="block text-sm text-soft">{s.part}</span></span>
              <span class="text-sm text-soft">{Math.round(100 * s.chance)} %</span>
            </li>
          {/each}
        </ul>
      </section>
      {#if page.alike?.length}
        <section aria-label="Look-alikes">
          <h2>Taken for</h2>
          <div class="grid grid-cols-[repeat(auto-fill,minmax(min(100%,24rem),1fr))] gap-4">
            {#each page.alike as l (l.id)}
              <section class="border border-rule bg-white p-3" aria-label="Against {small(l.name)}">
                <div class="overflow-x-auto">
                  <table class="w-full text-[0.9375rem]">
                    <thead
                      ><tr class="text-left align-top"
                        ><th class="pr-2 text-sm font-semibold text-soft">Look for</th><th class="w-24 pr-2 font-semibold"
                          >{page.name}</th
                        ><th class="w-24 font-semibold"><a href="#/almanac/cause/{l.id}">{l.name}</a></th></tr
                      ></thead
                    >
                    <tbody>
                      {#each l.parts as s, i (s.id)}
                        <tr class="border-t border-rule {i ? '' : 'font-semibold'}">
                          <td class="py-1 pr-2"
                            ><span class="flex items-center gap-2"><Drawing words={s.draw} size={36} />{s.name}</span></td
                          >
                          {#each [s.mine, s.theirs] as p, n (n)}<td class={p >= 0.5 ? '' : 'text-soft'}
                              >{p >= 0.5 ? 'yes' : p >= 0.15 ? 'at times' : 'no'}
                              <span class="text-xs">{Math.round(100 * p)} %</span></td
                            >{/each}
                        </tr>
                      {/each}
                    </tbody>
                  </table>
                </div>
                <p class="mt-1 text-sm text-soft">{l.name}: {harms[l.harm]}; {acts[l.act]}.</p>
              </section>
            {/each}
          </div>
        </section>
      {/if}
      <section aria-label="Hosts">
        <h2>Kinds you keep that take it</h2>
        {#if page.kinds?.length}
          <ul class="grid grid-cols-[repeat(auto-fill,minmax(min(100%,17rem),1fr))] gap-x-6">
            {#each page.kinds.slice(0, 60) as k (k.species)}
              <li class="border-t border-rule py-1">
                <a class="underline" href="#/almanac/{k.species}">{k.common}</a>
                <span class="text-sm text-soft">{plantsOf(k.plants)}</span>{#if k.prone}<span
                    class="text-sm font-semibold text-sun">&nbsp;prone</span
                  >{/if}
              </li>
            {/each}
          </ul>
        {:else}<p class="text-soft">None of the kinds on your properties.</p>{/if}
        {#if page.spared_are?.length}<p class="mt-1 text-sm text-soft">
            Seldom on: {page.spared_are.map(small).join(', ')}.
          </p>{/if}
      </section>
      {#if page.open?.length}
        <section aria-label="Open finds">
          <h2>Found and open</h2>
          <ul>
            {#each page.open as f (f.id)}<li class="border-t border-rule py-1">
                {#if f.plant_id}<a class="underline" href="#/plant/{f.plant_id}">{f.plant}</a>{:else}<a
                    href="#/grounds/{f.property_id}">{f.property}</a
                  >{/if}
                <span class="text-sm text-soft">{f.property}, {inWords(f.day)}</span>
              </li>{/each}
          </ul>
        </section>
      {/if}
    </article>
  {:else}<Waiting />{/if}
</div>
