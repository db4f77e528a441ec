<script lang="ts">
  /** A made-up garden to learn on, after a made-up freeze or with something wrong: each look shows what a real plant would, and
   *  at the end what was decided is held against the truth. Nothing of it gets into the record. */
  import { Button } from 'flowbite-svelte';
  import { tick } from 'svelte';
  import { api, ask, onceKey, type Check, type Problem, type Schemas } from '../api/client';
  import { brief, inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import Portrait from '../lib/Portrait.svelte';
  import { degrees, metres } from '../lib/units';
  import { capital } from '../lib/words';
  import { found } from './checks';
  import PracticeCauses from './PracticeCauses.svelte';

  type Garden = Schemas['PracticeGarden'];
  type Kind = Schemas['PracticeDecided']['kind'];
  type Mine = { checks: Check[]; looks: number; unseen: number; kind: Kind | ''; cut: number };

  let types = $state.raw<[string, string][]>([]);
  let climate = $state('');
  let garden = $state.raw<Garden>();
  let mine = $state<Mine[]>([]);
  let at = $state(0);
  let height = $state(0.5);
  let done = $state.raw<Schemas['PracticeOut']>();
  let past = $state.raw<Schemas['Practised'][]>([]);
  let problem = $state<Problem>();
  let busy = $state(false);
  let about = $state<'freeze' | 'causes'>('freeze');
  let begun = $state(false);
  let causes = $state<PracticeCauses>();

  const kinds: [Kind, string][] = [
    ['leave', 'Leave it as it is'],
    ['wait until', 'Wait'],
    ['tip back', 'Take off dead tips'],
    ['cut back to live wood', 'Cut back to live wood'],
    ['cut to the base', 'Cut to the base'],
    ['replace', 'Replace it'],
  ];
  const cuts = (k: string) => k === 'cut back to live wood' || k === 'tip back';
  void attempt(async () => {
    const list = (await ask(api.GET('/api/v1/climates'))).items;
    types = list.map((c): [string, string] => [c.id, c.name]).sort((a, b) => a[1].localeCompare(b[1]));
    climate ||= types[0]?.[0] ?? '';
    await readPast();
  });
  const readPast = async () => {
    past = (await ask(api.GET('/api/v1/practice'))).items;
  };
  async function begin() {
    if (busy) return;
    if (about === 'causes') {
      begun = true;
      await tick();
      return causes?.begin();
    }
    busy = true;
    problem = await attempt(async () => {
      const seed = Math.floor(Math.random() * 1e9);
      garden = await ask(api.GET('/api/v1/practice/garden', { params: { query: { climate, seed } } }));
      mine = garden.plants.map(() => ({ checks: [], looks: 0, unseen: 0, kind: '', cut: 0 }));
      done = undefined;
      open(0);
    });
    busy = false;
  }
  function open(i: number) {
    at = i;
    height = Math.round(50 * garden!.plants[i]!.height_m) / 100;
  }
  async function look(kind: 'scratch' | 'bud_rub' | 'shoot') {
    const g = garden;
    const m = mine[at];
    if (!g || !m || busy) return;
    busy = true;
    problem = await attempt(async () => {
      const c = await ask(
        api.GET('/api/v1/practice/look', {
          params: { query: { climate: g.climate, seed: g.seed, plant: at, kind, height_m: height, look: m.looks } },
        }),
      );
      m.looks++;
      if (kind === 'shoot' && !c.height_m) m.unseen++;
      else m.checks = [...m.checks, c];
    });
    busy = false;
  }
  const open6 = $derived(mine.filter((m) => !m.kind).length);
  async function end() {
    const g = garden;
    if (!g || busy) return;
    busy = true;
    problem = await attempt(async () => {
      done = await ask(
        api.POST('/api/v1/practice', {
          params: { header: onceKey() },
          body: {
            climate: g.climate,
            seed: g.seed,
            plants: mine.map((m) => ({ checks: m.checks, kind: m.kind || 'wait until', cut_m: cuts(m.kind) ? m.cut : 0 })),
          },
        }),
      );
      await readPast();
    });
    busy = false;
  }
  const said = (kind: string, cut: number) =>
    `${kind === 'wait until' ? 'Wait' : capital(kind)}${cut ? `, at ${metres(cut)}` : ''}`;
  const named = (id: string) => types.find(([t]) => t === id)?.[1] ?? id;
</script>

<svelte:head><title>Practice · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/walk">Walk</a></p>
  <h1>Practice</h1>
  <p class="mt-1 border-l-4 border-sun pl-2">
    Made up: garden, weather and plants. Nothing of it gets into your record but your score.
  </p>
  <div class="mt-3 flex flex-wrap items-end gap-3">
    <Pick
      class="min-w-64"
      label="Practise on"
      bind:value={about}
      options={[
        ['freeze', 'Plants after a freeze'],
        ['causes', 'What ails plants'],
      ]}
      onpick={() => {
        garden = undefined;
        begun = false;
      }}
    />
    <Pick class="min-w-64" label="Climate" bind:value={climate} options={types} />
    <Button color={garden || begun ? 'light' : undefined} disabled={busy || !climate} onclick={begin}
      >{garden || begun ? 'Another garden' : 'Begin'}</Button
    >
  </div>
  {#if problem}<p role="alert" class="mt-2 border-l-4 border-bad pl-2">{problem.message}</p>{/if}

  {#if begun}<PracticeCauses bind:this={causes} {climate} {named} onend={readPast} />
  {:else if !garden}
    {#if about === 'causes'}<p class="mt-4 max-w-2xl text-soft">
        Six plants with one thing wrong each. You see one sign at once; press others to look for them, then name the cause among
        those it may be taken for. At the end you read what it was, what your mistake would have cost, and which sign tells the
        two apart.
      </p>{:else}<p class="mt-4 max-w-2xl text-soft">
        Six plants after a hard night. Scratch bark, rub buds, look for shoots, then decide on each: at the end you read how far
        up it really lived, what your decision cost, and which check would have told you. A scratch is misread now and then, as
        outside.
      </p>{/if}
    {#if past.length}
      <section class="mt-6 max-w-3xl" aria-label="How it went">
        <h2>How it went</h2>
        <table class="mt-1 w-full text-sm tabular-nums">
          <thead
            ><tr class="border-b border-ink text-left"
              ><th>Who</th><th>When</th><th>What</th><th>Climate</th><th class="text-right">Looks</th><th class="text-right"
                >Right</th
              ><th class="text-right">Saved</th></tr
            ></thead
          >
          <tbody>
            {#each past as p, i (i)}<tr class="border-b border-rule"
                ><td class="py-1.5">{p.by || 'nobody named'}</td><td>{brief(p.day)}</td><td
                  >{p.about === 'causes' ? 'What ails plants' : 'After a freeze'}</td
                ><td>{p.climate}</td><td class="text-right">{p.checks}</td><td class="text-right">{p.right} of {p.plants}</td><td
                  class="text-right font-semibold">{p.score} %</td
                ></tr
              >{/each}
          </tbody>
        </table>
      </section>
    {/if}
  {:else if done}
    <section class="mt-4" aria-label="How you did">
      <h2>
        {done.right} of {done.plants.length} right: you saved {done.score} % of what was to be saved
      </h2>
      <p class="text-sm text-soft">By the same checks the program would have saved {done.program} %.</p>
      <div class="overflow-x-auto">
        <table class="mt-2 w-full text-sm sm:min-w-[48rem]">
          <thead
            ><tr class="border-b border-ink text-left"
              ><th>Plant</th><th>You</th><th>Best, had one known</th><th>The program</th><th>What came of it</th></tr
            ></thead
          >
          <tbody>
            {#each done.plants as h, i (i)}<tr class="border-b border-rule align-top"
                ><td class="py-1.5 pr-3 font-semibold">{garden.plants[i]?.common}</td><td
                  class="pr-3 {h.right ? 'text-moss' : 'font-semibold text-bad'}">{said(h.kind, h.cut_m ?? 0)}</td
                ><td class="pr-3">{said(h.best, h.best_cut_m)}</td><td class="pr-3">{said(h.program, h.program_cut_m)}</td><td
                  >{h.says}
                  {h.buds_dead ? 'Its buds were dead, its wood was not.' : ''}
                  {h.tell}</td
                ></tr
              >{/each}
          </tbody>
        </table>
      </div>
    </section>
  {:else}
    {@const g = garden}
    {@const p = g.plants[at]!}
    {@const m = mine[at]!}
    <p class="mt-3 text-sm">
      {named(g.climate)}, {inWords(g.today)}. The night of {inWords(g.freeze)} went down to {degrees(g.min_c)}.
    </p>
    <div class="mt-2 grid gap-5 md:grid-cols-[15rem_minmax(0,22rem)_minmax(0,1fr)]">
      <ol class="border-t border-rule">
        {#each g.plants as q, i (i)}<li class="border-b border-rule">
            <button
              class="min-h-12 w-full py-1 text-left leading-snug {i === at ? 'font-bold' : ''}"
              aria-pressed={i === at}
              onclick={() => open(i)}
              >{q.common}, {metres(q.height_m)}<span class="block text-sm font-normal text-soft"
                >{mine[i]?.kind ? said(mine[i]!.kind, cuts(mine[i]!.kind) ? mine[i]!.cut : 0) : 'to decide'}</span
              ></button
            >
          </li>{/each}
      </ol>
      <div>
        <Portrait
          form={p.form}
          heightM={p.height_m}
          spreadM={0.7 * p.height_m}
          name={p.common}
          checks={m.checks}
          active={height}
          drags
          onpick={(v) => (height = Math.max(0.05, Math.min(p.height_m, Math.round(20 * v) / 20)))}
        />
        <p class="text-center text-sm" aria-live="polite">At {metres(height)}: press the plant to go up or down.</p>
      </div>
      <div>
        <p class="text-sm text-soft">Expected (an estimate): {p.expected}</p>
        <div class="mt-2 flex flex-wrap gap-2">
          <Button disabled={busy} onclick={() => look('scratch')}>Scratch the bark at {metres(height)}</Button>
          <Button color="light" disabled={busy} onclick={() => look('bud_rub')}>Rub ten buds there</Button>
          <Button color="light" disabled={busy} onclick={() => look('shoot')}>Look for shoots</Button>
        </div>
        <ul class="mt-2 text-sm">
          {#each m.checks as c, i (i)}<li class="border-b border-rule py-1">{metres(c.height_m ?? 0)}: {found(c)}</li>{/each}
          {#if m.unseen}<li class="border-b border-rule py-1">No shoot is out yet.</li>{/if}
        </ul>
        <fieldset class="mt-3">
          <legend class="font-semibold">What do you do with it?</legend>
          <div class="mt-1 flex flex-wrap gap-2">
            {#each kinds as [k, label]}<button
                class="min-h-11 rounded-sm border px-3 {m.kind === k
                  ? 'border-moss bg-moss text-white'
                  : 'border-gray-400 bg-white'}"
                aria-pressed={m.kind === k}
                onclick={() => {
                  m.kind = k;
                  m.cut = height;
                }}>{label}{cuts(k) ? ` at ${metres(m.kind === k ? m.cut : height)}` : ''}</button
              >{/each}
          </div>
        </fieldset>
        <p class="mt-4 flex flex-wrap items-center gap-3">
          {#if at < g.plants.length - 1}<Button color="light" onclick={() => open(at + 1)}>Next plant</Button>{/if}
          <Button disabled={busy || open6 > 0} onclick={end}>See how you did</Button>
          {#if open6}<span class="text-sm text-soft">{open6} to decide</span>{/if}
        </p>
      </div>
    </div>
  {/if}
</div>
