<script lang="ts">
  /** How did they turn out: plants that were decided on, each with one press for what is seen. */
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { inWords } from './dates';
  import { attempt, house } from './house.svelte';
  import { reading } from './reading';

  type Plant = Schemas['DueList']['plants'][number];
  let { first = 8, onkept }: { first?: number; onkept?: () => void } = $props();
  let due = $state.raw<Schemas['DueList']>();
  let all = $state(false);
  let busy = $state(0); // the plant whose answer is on its way
  const reads = reading();
  const load = () =>
    reads(async (signal) => {
      due = await ask(api.GET('/api/v1/due', { signal }));
    });
  $effect(() => {
    void house.today;
    void load();
  });
  const shown = $derived(due ? (all ? due.plants : due.plants.slice(0, first)) : []);
  const answers = (p: Plant): [string, 'right' | 'alive' | 'dead'][] =>
    p.gone
      ? [
          ['It was dead', 'dead'],
          ['It lived', 'alive'],
        ]
      : p.what === 'alive'
        ? [
            ['Alive', 'alive'],
            ['Dead', 'dead'],
          ]
        : [
            ['Looks right', 'right'],
            ['On its way', 'alive'],
            ['Dead', 'dead'],
          ];
  async function keep(p: Plant, state: 'right' | 'alive' | 'dead', said: string) {
    if (busy) return;
    busy = p.plant_id;
    await attempt(async () => {
      const story = await ask(
        api.POST('/api/v1/plants/{id}/outcomes', {
          params: { path: { id: p.plant_id }, header: onceKey() },
          body: { verdict_id: p.verdict_id, state, height_m: 0, note: '' },
        }),
      );
      const last = story.turned?.[0];
      await load();
      onkept?.();
      if (last)
        house.say(`${p.plant}: ${said.toLowerCase()}.`, async () => {
          await ask(api.DELETE('/api/v1/outcomes/{id}', { params: { path: { id: last.id } } }));
          await load();
          onkept?.();
        });
    });
    busy = 0;
  }
</script>

{#if due?.all}
  <section class="mt-8 max-w-4xl" aria-label="How did they turn out">
    <h2>How did they turn out?</h2>
    <p class="text-sm text-soft">
      {due.all === 1 ? 'One plant was' : `${due.all} plants were`} decided on and can be judged now: say what you see, and what was
      foretold is held against it.
    </p>
    <ul class="mt-2 border-t border-rule">
      {#each shown as p (p.verdict_id)}
        <li class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5">
          <span class="min-w-60 flex-1"
            ><a class="font-semibold underline" href="#/plant/{p.plant_id}">{p.plant}</a>, {p.property}
            <span class="block text-sm text-soft">On {inWords(p.given)}: {p.sentence} {p.foretold}</span></span
          >
          <span class="flex gap-2">
            {#each answers(p) as [label, state]}<button
                class="min-h-11 rounded-sm border border-gray-400 bg-white px-3 disabled:opacity-50"
                disabled={busy === p.plant_id}
                onclick={() => keep(p, state, label)}>{label}<span class="sr-only">: {p.plant}</span></button
              >{/each}
          </span>
        </li>
      {/each}
    </ul>
    {#if due.plants.length > shown.length}<button class="min-h-11 text-moss underline" onclick={() => (all = true)}
        >Show all {due.plants.length}</button
      >{/if}
  </section>
{/if}
