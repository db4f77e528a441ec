<script lang="ts">
  /** A made-up round of ailing plants: one looks for signs, and names what it is among what it may be taken for. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import { attempt } from '../lib/house.svelte';
  import { capital, small } from '../lib/words';

  let { climate, named, onend }: { climate: string; named: (id: string) => string; onend: () => Promise<void> } = $props();

  type Mine = { seen: Record<string, boolean>; cause: string; done: boolean };
  let round = $state.raw<Schemas['PracticeAils']>();
  let mine = $state<Mine[]>([]);
  let at = $state(0);
  let out = $state.raw<Schemas['PracticeNamesOut']>();
  let problem = $state<Problem>();
  let busy = $state(false);

  export async function begin() {
    if (busy) return;
    busy = true;
    problem = await attempt(async () => {
      const seed = Math.floor(Math.random() * 1e9);
      round = await ask(api.GET('/api/v1/practice/ails', { params: { query: { climate, seed } } }));
      mine = round.plants.map(() => ({ seen: {}, cause: '', done: false }));
      out = undefined;
      at = 0;
    });
    busy = false;
  }
  async function look(sign: string) {
    const r = round;
    const m = mine[at];
    if (!r || !m || busy || sign in m.seen) return;
    busy = true;
    problem = await attempt(async () => {
      const query = { climate: r.climate, seed: r.seed, plant: at, sign };
      m.seen[sign] = (await ask(api.GET('/api/v1/practice/sign', { params: { query } }))).there;
    });
    busy = false;
  }
  const left = $derived(mine.filter((m) => !m.done).length);
  async function end() {
    const r = round;
    if (!r || busy) return;
    busy = true;
    problem = await attempt(async () => {
      out = await ask(
        api.POST('/api/v1/practice/ails', {
          params: { header: onceKey() },
          body: { climate: r.climate, seed: r.seed, plants: mine.map((m) => ({ looked: Object.keys(m.seen), cause: m.cause })) },
        }),
      );
      await onend();
    });
    busy = false;
  }
  const causeOf = (i: number, id: string) => round?.plants[i]?.causes.find((c) => c.id === id)?.name ?? 'Ask somebody';
</script>

{#if problem}<p role="alert" class="mt-2 border-l-4 border-bad pl-2">{problem.message}</p>{/if}
{#if round && out}
  <section class="mt-4" aria-label="How you did">
    <h2>{out.right} of {out.plants.length} named: {out.score} % of what mistakes cost was spared</h2>
    <p class="text-sm text-soft">By the same looks the program would have spared {out.program} %.</p>
    <div class="overflow-x-auto">
      <table class="mt-2 w-full text-sm sm:min-w-[48rem]">
        <thead
          ><tr class="border-b border-ink text-left"
            ><th>Plant</th><th>You</th><th>It was</th><th>The program</th><th>What comes of it</th></tr
          ></thead
        >
        <tbody>
          {#each out.plants as h, i (i)}<tr class="border-b border-rule align-top"
              ><td class="py-1.5 pr-3 font-semibold">{round.plants[i]?.common}</td><td
                class="pr-3 {h.right ? 'text-moss' : 'font-semibold text-bad'}">{h.took || 'Ask somebody'}</td
              ><td class="pr-3"><a class="underline" href="#/almanac/cause/{h.is_id}">{h.is}</a></td><td class="pr-3"
                >{capital(h.program)}</td
              ><td>{h.says} {h.tell}</td></tr
            >{/each}
        </tbody>
      </table>
    </div>
  </section>
{:else if round}
  {@const p = round.plants[at]!}
  {@const m = mine[at]!}
  <p class="mt-3 text-sm">{named(round.climate)}, {inWords(round.today)}.</p>
  <div class="mt-2 grid gap-5 md:grid-cols-[15rem_minmax(0,1fr)_minmax(0,20rem)]">
    <ol class="border-t border-rule">
      {#each round.plants as q, i (i)}<li class="border-b border-rule">
          <button
            class="min-h-12 w-full py-1 text-left leading-snug {i === at ? 'font-bold' : ''}"
            aria-pressed={i === at}
            onclick={() => (at = i)}
            >{q.common}<span class="block text-sm font-normal text-soft"
              >{mine[i]?.done ? causeOf(i, mine[i]!.cause) : small(q.first.name)}</span
            ></button
          >
        </li>{/each}
    </ol>
    <div>
      <h2>{p.common}: {small(p.first.name)}</h2>
      <p class="text-sm text-soft">Press what you look for.</p>
      {#each [...new Set(p.signs.map((s) => s.part ?? ''))] as part}
        <h3 class="mt-2 text-sm font-semibold">{capital(part)}</h3>
        <div class="mt-1 flex flex-wrap gap-1.5">
          {#each p.signs.filter((s) => (s.part ?? '') === part) as s (s.id)}
            <button
              class="min-h-11 border px-3 text-left text-[0.9375rem] {s.id in m.seen
                ? m.seen[s.id]
                  ? 'border-ink bg-ink text-paper'
                  : 'border-rule bg-paper text-soft line-through'
                : 'border-rule bg-white'}"
              title={s.how}
              disabled={busy}
              onclick={() => look(s.id)}
              >{s.name}{#if s.id in m.seen}<span class="sr-only">{m.seen[s.id] ? ': there' : ': not there'}</span>{/if}</button
            >
          {/each}
        </div>
      {/each}
      {#if Object.keys(m.seen).length}<p class="mt-2 text-sm text-soft">
          Dark: there. Struck through: looked for, and not there.
        </p>{/if}
    </div>
    <div>
      <fieldset>
        <legend class="font-semibold">What is it?</legend>
        <div class="mt-1 grid gap-1.5">
          {#each [...p.causes, { id: '', name: 'Ask somebody' }] as c (c.id)}<button
              class="min-h-11 rounded-sm border px-3 text-left {m.done && m.cause === c.id
                ? 'border-moss bg-moss text-white'
                : 'border-gray-400 bg-white'}"
              aria-pressed={m.done && m.cause === c.id}
              onclick={() => {
                m.cause = c.id;
                m.done = true;
              }}>{c.name}</button
            >{/each}
        </div>
      </fieldset>
      <p class="mt-4 flex flex-wrap items-center gap-3">
        {#if at < round.plants.length - 1}<Button color="light" onclick={() => (at += 1)}>Next plant</Button>{/if}
        <Button disabled={busy || left > 0} onclick={end}>See how you did</Button>
        {#if left}<span class="text-sm text-soft">{left} to name</span>{/if}
      </p>
    </div>
  </div>
{/if}
