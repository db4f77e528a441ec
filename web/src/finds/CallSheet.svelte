<script lang="ts">
  /** A client calls: what is asked in a client's words, what it may be, and how the call ends. Kept with the client. */
  import { Button } from 'flowbite-svelte';
  import { untrack } from 'svelte';
  import { push } from 'svelte-spa-router';
  import {
    api,
    ask,
    onceKey,
    plantsOn,
    type Plant,
    type Problem,
    type Property,
    type Schemas,
    type Species,
  } from '../api/client';
  import { Case, type Sign } from './case.svelte';
  import Causes from './Causes.svelte';
  import KeepFind from './KeepFind.svelte';
  import NoneOfThese from './NoneOfThese.svelte';
  import Signs from './Signs.svelte';
  import { plusDays } from '../lib/dates';
  import { draftOf, dropDraft, keepDraft } from '../lib/draft';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Pick from '../lib/Pick.svelte';
  import SpeciesPick from '../lib/SpeciesPick.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { property?: string } } = $props();
  const propertyId = $derived(Number(params?.property ?? 0));

  let property = $state<Property>();
  let plants = $state<Plant[]>([]);
  let sheet = $state<Schemas['CauseAsked'][]>();
  let signs = $state<Sign[]>();
  let species = $state<Species[]>([]);
  let plantId = $state(0);
  let name = $state('');
  let caller = $state('');
  let answers = $state<Record<string, string>>({});
  let ending = $state<'open' | 'advice' | 'visit' | 'picture'>('open');
  let said = $state('');
  let on = $state('');
  let problem = $state<Problem>();
  let busy = $state(false);
  let key = onceKey();
  const reads = reading();

  $effect(() => {
    const of = propertyId;
    void reads(async (signal) => {
      const p = await ask(api.GET('/api/v1/properties/{id}', { params: { path: { id: of } }, signal }));
      const list = await plantsOn(of, signal);
      property = p;
      caller ||= p.client;
      plants = list;
      sheet = (await ask(api.GET('/api/v1/call-sheet', { signal }))).items;
      signs = (await ask(api.GET('/api/v1/signs', { signal }))).items;
      species = (await ask(api.GET('/api/v1/species', { signal }))).items;
    });
  });
  // A call that is broken off is there again when the sheet is opened anew.
  const draft = $derived(`call ${propertyId}`);
  type Draft = {
    plantId: number;
    name: string;
    caller: string;
    answers: Record<string, string>;
    seen: string[];
    absent: string[];
    share: number;
    said: string;
    on: string;
    ending: typeof ending;
  };
  let restored = 0;
  $effect(() => {
    const of = propertyId;
    if (!of || restored === of) return;
    restored = of;
    const d = draftOf<Draft>(`call ${of}`);
    if (!d) return;
    untrack(() => {
      ({ plantId, name, caller, answers, said, on, ending } = d);
      [kase.seen, kase.absent, kase.share] = [d.seen, d.absent, d.share];
    });
  });
  $effect(() => {
    if (restored !== propertyId) return;
    const now: Draft = {
      ...{ plantId, name, caller, said, on, ending, share: kase.share },
      ...{ answers: $state.snapshot(answers), seen: $state.snapshot(kase.seen), absent: $state.snapshot(kase.absent) },
    };
    const begun = now.seen.length || now.absent.length || Object.keys(now.answers).length || now.said || now.name;
    if (begun) keepDraft(draft, now, undefined as unknown as Draft);
    else dropDraft(draft);
  });
  const plant = $derived(plants.find((p) => p.id === plantId));
  const kind = $derived(plant?.species ?? species.find((s) => `${s.common} (${s.botanical})` === name)?.id);
  const kase = new Case(() =>
    propertyId ? { property: propertyId, species: kind, ...(plantId ? { plant: plantId } : {}) } : undefined,
  );

  // What an answer says of signs goes with it, and goes again when the answer does.
  function reply(q: Schemas['CauseAsked'], a: string) {
    const of = (k: string) => q.answers?.find((x) => x.key === k);
    const before = of(answers[q.key] ?? '');
    for (const s of [...(before?.seen ?? []), ...(before?.not_seen ?? [])]) kase.set(s, 'open');
    if (answers[q.key] === a) {
      delete answers[q.key];
      return;
    }
    answers[q.key] = a;
    for (const s of of(a)?.seen ?? []) kase.set(s, 'seen');
    for (const s of of(a)?.not_seen ?? []) kase.set(s, 'absent');
  }
  const top = $derived(kase.answer?.causes?.[0]);
  function end(how: typeof ending) {
    ending = how;
    if (said) return;
    if (how === 'advice' && kase.answer) said = kase.answer.text;
    if (how === 'picture') said = 'Please send a picture of the whole plant, and one of the underside of a leaf, close up.';
    if (how === 'visit') said = 'We come and look. Please leave it as it is until then.';
  }
  async function keep() {
    if (busy) return;
    busy = true;
    problem = await attempt(async () => {
      const body: Schemas['CallIn'] = {
        property_id: propertyId,
        ...(plantId ? { plant_id: plantId } : kind ? { species: kind } : {}),
        caller,
        answers: $state.snapshot(answers),
        seen: $state.snapshot(kase.seen),
        not_seen: $state.snapshot(kase.absent),
        share: kase.share,
        ending,
        said,
        ...(ending === 'visit' && on ? { visit_on: on } : {}),
      };
      const c = await ask(api.POST('/api/v1/calls', { body, params: { header: key } }));
      key = onceKey();
      dropDraft(draft);
      [restored, answers, said, name] = [-1, {}, '', ''];
      kase.clear();
      house.say('The call is saved.', async () => {
        await ask(api.DELETE('/api/v1/calls/{id}', { params: { path: { id: c.id }, header: onceKey() } }));
      });
      await push(c.order_id ? `/rounds/${c.order_id}` : `/grounds/${propertyId}`);
    });
    busy = false;
  }
  const endings = [
    ['advice', 'Advice'],
    ['visit', 'A visit'],
    ['picture', 'A picture to be sent'],
    ['open', 'Nothing yet'],
  ] as const;
</script>

<svelte:head><title>Call · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  {#if !property || !sheet || !signs}
    <Waiting rows={8} />
  {:else}
    <h1>A call from <a href="#/grounds/{property.id}">{property.name}</a></h1>
    {#if property.note}<p class="mt-1 border-l-4 border-sun pl-2 text-[0.9375rem]">{property.note}</p>{/if}
    <div class="mt-3 grid grid-cols-[minmax(0,1fr)] items-start gap-6 lg:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
      <div class="min-w-0">
        <div class="grid gap-3 sm:grid-cols-2">
          <Field label="Who calls" bind:value={caller} problem={problem?.fields.caller} />
          <Pick
            label="Which plant"
            bind:value={plantId}
            options={[
              [0, 'not known, or not on the list'],
              ...plants.map((p): [number, string] => [p.id, `${p.common}${p.label ? `, ${p.label}` : ''}`]),
            ]}
            problem={problem?.fields.plant_id}
          />
          {#if !plantId}<SpeciesPick class="sm:col-span-2" {species} bind:value={name} />{/if}
        </div>
        <ol class="mt-3 border-t border-rule" aria-label="What to ask">
          {#each sheet as q (q.key)}
            <li class="border-b border-rule py-2">
              <p class="font-semibold">{q.ask}</p>
              <p class="text-sm text-soft">{q.why}</p>
              <div class="mt-1 flex flex-wrap gap-2" role="group" aria-label={q.ask}>
                {#each q.answers as a (a.key)}
                  <button
                    class="min-h-11 border px-3 text-left {answers[q.key] === a.key
                      ? 'border-ink bg-ink text-paper'
                      : 'border-rule bg-white'}"
                    aria-pressed={answers[q.key] === a.key}
                    onclick={() => reply(q, a.key)}>{a.text}</button
                  >
                {/each}
              </div>
              {#if problem?.fields[`answers.${q.key}`]}<p class="text-sm text-bad">{problem.fields[`answers.${q.key}`]}</p>{/if}
            </li>
          {/each}
        </ol>
        <Signs {kase} {signs} {plant} />
      </div>
      <div class="min-w-0 space-y-4 lg:sticky lg:top-4">
        <Causes {kase}>
          {#snippet end()}
            {#if top && plant}<KeepFind {kase} at={{ plant_id: plant.id }} how="call" />{/if}
          {/snippet}
        </Causes>
        <NoneOfThese {kase} at={plant ? { plant_id: plant.id } : { property_id: propertyId }} />
        <form
          class="space-y-3 border border-rule bg-white p-4"
          aria-label="How the call ends"
          onsubmit={(e) => {
            e.preventDefault();
            void keep();
          }}
        >
          <h2>How the call ends</h2>
          <div class="flex flex-wrap gap-2" role="group" aria-label="It ends in">
            {#each endings as [value, text] (value)}
              <button
                type="button"
                class="min-h-11 border px-3 {ending === value ? 'border-ink bg-ink text-paper' : 'border-rule bg-white'}"
                aria-pressed={ending === value}
                onclick={() => end(value)}>{text}</button
              >
            {/each}
          </div>
          {#if ending === 'visit'}<Field
              class="max-w-52"
              label="On (may stay open)"
              type="date"
              bind:value={on}
              problem={problem?.fields.visit_on}
            />
            {#if !on}<button
                type="button"
                class="min-h-11 text-sm text-moss underline"
                onclick={() => (on = plusDays(house.today, 1))}>Tomorrow</button
              >{/if}{/if}
          <label class="block font-semibold"
            >What was said
            <textarea
              class="mt-1 min-h-24 w-full rounded-sm border border-gray-400 bg-white p-2 font-normal"
              bind:value={said}
              aria-invalid={problem?.fields.said ? 'true' : undefined}></textarea>
            {#if problem?.fields.said}<span class="text-sm font-normal text-bad">{problem.fields.said}</span>{/if}</label
          >
          <Button type="submit" disabled={busy}>Save the call</Button>
        </form>
      </div>
    </div>
  {/if}
</div>
