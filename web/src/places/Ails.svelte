<script lang="ts">
  /** What ails a plant: what is seen on it, the question that parts the look-alikes, and the causes with what speaks for each. */
  import { onMount } from 'svelte';
  import { api, ask, type Plant, type Problem, type Schemas, type Species } from '../api/client';
  import Field from '../lib/Field.svelte';
  import Pick from '../lib/Pick.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import SpeciesPick from '../lib/SpeciesPick.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { plant?: string } } = $props();
  const plantId = $derived(Number(params?.plant ?? 0));

  type Sign = Schemas['CauseSign'];
  let signs = $state<Sign[]>();
  let species = $state<Species[]>([]);
  let plant = $state<Plant>();
  let name = $state('');
  let seen = $state<string[]>([]);
  let absent = $state<string[]>([]);
  let words = $state('');
  let part = $state('');
  let share = $state(0);
  let answer = $state<Schemas['CauseOut']>();
  let problem = $state<Problem>();

  onMount(() => {
    void attempt(async () => {
      signs = (await ask(api.GET('/api/v1/signs'))).items ?? [];
      species = (await ask(api.GET('/api/v1/species'))).items ?? [];
    });
  });
  $effect(() => {
    const id = plantId;
    if (!id) return;
    void attempt(async () => {
      plant = await ask(api.GET('/api/v1/plants/{id}', { params: { path: { id } } }));
      name = `${plant.common} (${plant.botanical})`;
    });
  });
  const kind = $derived(species.find((s) => `${s.common} (${s.botanical})` === name)?.id ?? plant?.species ?? '');
  let turn = 0;
  $effect(() => {
    const body: Schemas['CauseIn'] = {
      species: kind,
      seen: $state.snapshot(seen),
      not_seen: $state.snapshot(absent),
      share,
      ...(plant ? { property: plant.property_id } : {}),
    };
    const mine = ++turn;
    void attempt(async () => {
      const a = await ask(api.POST('/api/v1/reckon/cause', { body }));
      if (mine === turn) answer = a;
    }).then((p) => (problem = p));
  });
  const parts = $derived([...new Set((signs ?? []).map((s) => s.part))]);
  const shown = $derived.by(() => {
    const w = words.toLowerCase().split(/\s+/).filter(Boolean);
    return (signs ?? []).filter(
      (s) => (!part || s.part === part) && w.every((x) => `${s.name} ${s.ask} ${s.part}`.toLowerCase().includes(x)),
    );
  });
  const named = $derived(Object.fromEntries((signs ?? []).map((s) => [s.id, s])));
  function set(id: string, to: 'seen' | 'absent' | 'open') {
    seen = seen.filter((x) => x !== id);
    absent = absent.filter((x) => x !== id);
    if (to === 'seen') seen = [...seen, id];
    if (to === 'absent') absent = [...absent, id];
  }
  const is = (id: string) => (seen.includes(id) ? 'seen' : absent.includes(id) ? 'absent' : 'open');
  const likely = $derived((answer?.causes ?? []).filter((c, i) => i === 0 || c.chance >= 0.04).slice(0, 5));
  const harm: Record<string, string> = {
    harmless: 'harmless',
    ugly: 'ugly, seldom more',
    weakening: 'weakens it',
    deadly: 'can kill it',
  };
</script>

<svelte:head><title>What ails it · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  <h1>What ails {plant ? `the ${plant.common.toLowerCase()}${plant.label ? `, ${plant.label}` : ''}` : 'it'}?</h1>
  <p class="text-soft">Say what is seen; what nobody has looked at stays open. (The chances are estimates.)</p>
  {#if !signs}
    <Waiting />
  {:else}
    <div class="mt-3 grid items-start gap-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <section aria-label="What is seen" class="min-w-0">
        {#if !plant}<SpeciesPick {species} bind:value={name} />{/if}
        {#if answer && seen.length}<p class="mt-2 border-l-4 border-moss pl-3 font-bold lg:hidden" aria-hidden="true">
            {answer.text}
          </p>{/if}
        {#if answer?.next && seen.length && !answer.settled}
          {@const n = answer.next}
          <div class="mt-3 border-2 border-cold bg-white p-3" role="group" aria-label="The next question">
            <p class="text-lg font-bold">{n.ask}</p>
            <p class="text-sm text-soft">
              {n.part.charAt(0).toUpperCase() + n.part.slice(1)}. {n.how ?? ''}
              {n.why}
            </p>
            <div class="mt-2 grid grid-cols-2 gap-2">
              <button class="min-h-14 border-2 border-moss bg-white text-lg font-bold" onclick={() => set(n.id, 'seen')}
                >Yes</button
              >
              <button class="min-h-14 border-2 border-hand bg-white text-lg font-bold" onclick={() => set(n.id, 'absent')}
                >No, looked</button
              >
            </div>
          </div>
        {/if}
        {#if seen.length || absent.length}
          <ul class="mt-3 space-y-1" aria-label="Said so far">
            {#each [...seen, ...absent] as id (id)}
              <li class="flex items-center gap-2 border-b border-rule">
                <span class="min-w-0 flex-1 {is(id) === 'absent' ? 'text-soft' : 'font-semibold'}"
                  >{is(id) === 'absent' ? 'Not there: ' : ''}{named[id]?.name}</span
                >
                <button
                  class="min-h-11 px-2 text-sm text-moss underline"
                  aria-label="Take back: {named[id]?.name}"
                  onclick={() => set(id, 'open')}>Take back</button
                >
              </li>
            {/each}
          </ul>
        {/if}
        <div class="mt-3 flex flex-wrap gap-2">
          <Field class="min-w-32 flex-1" label="Search the signs" bind:value={words} placeholder="Speckled, wilting, holes …" />
          <Pick
            class="w-40"
            label="Part of the plant"
            bind:value={part}
            options={[['', 'all parts'], ...parts.map((p): [string, string] => [p, p])]}
          />
        </div>
        <ul class="mt-2 max-h-[28rem] overflow-y-auto border-t border-rule" aria-label="Signs">
          {#each shown as s (s.id)}
            <li class="flex items-center gap-2 border-b border-rule py-0.5">
              <span class="min-w-0 flex-1 leading-tight">{s.name}<span class="block text-sm text-soft">{s.part}</span></span>
              <button
                class="min-h-11 border px-3 {is(s.id) === 'seen' ? 'border-ink bg-ink text-paper' : 'border-rule bg-white'}"
                aria-label="Seen: {s.name}"
                aria-pressed={is(s.id) === 'seen'}
                onclick={() => set(s.id, is(s.id) === 'seen' ? 'open' : 'seen')}>Seen</button
              >
              <button
                class="min-h-11 border px-3 {is(s.id) === 'absent' ? 'border-ink bg-ink text-paper' : 'border-rule bg-white'}"
                aria-label="Not there: {s.name}"
                aria-pressed={is(s.id) === 'absent'}
                onclick={() => set(s.id, is(s.id) === 'absent' ? 'open' : 'absent')}>Not there</button
              >
            </li>
          {:else}<li class="py-3 text-soft">
              No sign has these words. <button class="min-h-9 text-moss underline" onclick={() => ((words = ''), (part = ''))}
                >Show all</button
              >
            </li>{/each}
        </ul>
      </section>

      <section aria-label="What it may be" class="min-w-0 border border-ink bg-white p-4" aria-live="polite">
        {#if answer}
          <p class="text-lg leading-snug font-bold" data-testid="diagnosis">{answer.text}</p>
          {#if seen.length}
            <Pick
              class="mt-2 max-w-xs"
              label="How much of it shows it"
              bind:value={share}
              options={[
                [0, 'not told'],
                [0.05, 'a leaf here and there'],
                [0.2, 'a fifth or so'],
                [0.6, 'most of it'],
              ]}
            />
            <ol class="mt-3 space-y-3">
              {#each likely as c (c.id)}
                <li>
                  <div class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-2">
                    <b>{c.name}</b><span class="text-sm">{Math.round(100 * c.chance)} %</span>
                  </div>
                  <div class="my-0.5 h-2 border border-soft bg-white" aria-hidden="true">
                    <div class="h-full bg-moss" style="width:{100 * c.chance}%"></div>
                  </div>
                  <p class="text-sm text-soft">
                    {harm[c.harm]}{c.to === 'it' ? '' : c.to === 'all' ? '; spreads to other kinds' : '; spreads to its kind'}. {c.do}
                  </p>
                  <ul class="text-sm">
                    {#each (c.evidence ?? []).filter((e) => Math.abs(e.weight) > 0.3).slice(0, 4) as e (e.sign)}
                      <li>
                        <span class={e.weight > 0 ? 'text-moss' : 'text-bad'}>{e.weight > 0 ? 'for' : 'against'}</span>: {e.seen
                          ? ''
                          : 'not there: '}{e.name.toLowerCase()}
                      </li>
                    {/each}
                  </ul>
                </li>
              {/each}
            </ol>
            {#if answer.unknown >= 0.05}<p class="mt-2 text-sm text-soft">
                Something that is not in the book: {Math.round(100 * answer.unknown)} %.
              </p>{/if}
            {#if answer.also?.length}<p class="mt-2">
                Beside it: {answer.also.map((a) => a.name.toLowerCase()).join(', ')}.
              </p>{/if}
            {#each answer.cautions ?? [] as c (c)}<p class="mt-2 border-l-4 border-sun pl-3 text-sm">{c}</p>{/each}
            <p class="mt-3 text-sm text-soft">
              {house.today ? 'Reckoned for today’s season.' : ''} Local rules and a product’s label come before all that is said here.
            </p>
          {/if}
        {:else if problem}<p role="alert">{problem.message}</p>{:else}<Waiting rows={3} />{/if}
      </section>
    </div>
  {/if}
</div>
