<script lang="ts">
  import { capital } from '../lib/words';
  /** Finds that stand open, and those that are closed: corrected, closed, opened again and removed here. */
  import { Button, Modal } from 'flowbite-svelte';
  import { api, ask, type Problem, type Schemas } from '../api/client';
  import { finds as waiting } from '../field/finds.svelte';
  import { inWords } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Pick from '../lib/Pick.svelte';
  import { acts, harms } from './case.svelte';
  import UnnamedList from './UnnamedList.svelte';
  import { changeFind, findsOf, removeFind, restoreFind, type Find } from './finds';

  interface Props {
    plant?: number;
    property?: number;
    onchange?: () => void;
  }
  let { plant, property, onchange }: Props = $props();
  let list = $state<Find[]>();
  let causes = $state<Schemas['CauseLine'][]>([]);
  let closing = $state<Find>();
  let correcting = $state<Find>();
  let ending = $state('');
  let to = $state('');
  let problem = $state<Problem>();

  const reads = reading();
  const read = () => reads(async (signal) => void (list = await findsOf({ plant, property }, signal)));
  $effect(() => {
    void [plant, property, waiting.waiting.length];
    void read();
  });
  const open = $derived((list ?? []).filter((f) => f.state === 'open'));
  const closed = $derived((list ?? []).filter((f) => f.state === 'closed').reverse());
  const kept = $derived(plant ? waiting.of(plant) : []);
  async function settle(f: () => Promise<unknown>, text?: string, undo?: () => Promise<unknown>) {
    problem = await attempt(async () => {
      await f();
      if (text)
        house.say(
          text,
          undo &&
            (async () => {
              await undo();
              await read();
              onchange?.();
            }),
        );
      closing = correcting = undefined;
    });
    // Another may have changed it meanwhile: what stands now is shown.
    await read();
    onchange?.();
  }
  async function startCorrecting(f: Find) {
    to = f.cause;
    correcting = f;
    if (!causes.length) await attempt(async () => void (causes = (await ask(api.GET('/api/v1/causes'))).items));
  }
  /** Changes what stands now of a find, whatever was done to it meanwhile. */
  async function changeNow(id: number, change: Parameters<typeof changeFind>[1]) {
    const now = (await findsOf({ plant, property })).find((x) => x.id === id);
    if (now) await changeFind(now, change);
  }
  const close = (f: Find) =>
    settle(
      () => changeFind(f, { state: 'closed', ending }),
      `${f.name}: closed.`,
      () => changeNow(f.id, { state: 'open', ending: '' }),
    );
  const looked: Record<string, string> = { gone: 'gone', less: 'less than before', same: 'the same' };
  /** Looked at again: what is gone is closed. */
  const look = (f: Find, helped: 'gone' | 'less' | 'same') =>
    settle(
      () => changeFind(f, { helped, ...(helped === 'gone' ? { state: 'closed' } : {}) }),
      `${f.name}: ${looked[helped]}.`,
      () => changeNow(f.id, { helped: f.helped, state: 'open' }),
    );
  const correct = (f: Find) =>
    settle(
      () => changeFind(f, { cause: to, certainty: 1 }),
      'Corrected.',
      () => changeNow(f.id, { cause: f.cause, certainty: f.certainty }),
    );
  const remove = (f: Find) =>
    settle(
      () => removeFind(f),
      `${f.name}: removed.`,
      () => restoreFind(f),
    );
</script>

{#snippet one(f: Find)}
  <li class="border-b border-rule py-2">
    <p>
      <a class="font-semibold" href="#/almanac/cause/{f.cause}">{f.name}</a>
      <span class="text-sm text-soft"
        >{inWords(f.day)}{f.certainty < 0.8 ? `, ${Math.round(100 * f.certainty)} % sure` : ''}{f.how === 'call'
          ? ', by what was said on the telephone'
          : ''}{f.along_of ? ', treated along with another: not found on it by itself' : ''}</span
      >
    </p>
    {#if !plant && f.plant}<p class="text-sm">
        <a class="inline-flex min-h-8 items-center" href="#/plant/{f.plant_id}">{f.plant}</a>
      </p>{/if}
    {#if f.state === 'open'}
      <p class="text-sm">
        {capital(harms[f.harm] ?? '')}; least that is enough: {acts[f.act]}. <span class="text-soft">{f.do}</span>
      </p>
      {#if f.report}<p class="text-sm font-semibold text-bad">
          In many places this must be reported: ask the plant health office.
        </p>{/if}
    {:else}<p class="text-sm text-soft">Closed {inWords(f.closed ?? '')}{f.ending ? `: ${f.ending}` : ''}</p>{/if}
    {#if f.helped}<p class="text-sm">Looked at again {inWords(f.helped_on ?? '')}: {looked[f.helped]}.</p>{/if}
    {#if f.note}<p class="text-sm">“{f.note}”</p>{/if}
    <div class="flex flex-wrap gap-x-4 text-sm">
      {#if f.state === 'open' && f.plant_id}<a class="inline-flex min-h-11 items-center font-semibold" href="#/treat/{f.id}"
          >What to do<span class="sr-only">: {f.name}</span></a
        >{/if}
      {#if f.state === 'open'}
        <span class="flex flex-wrap items-center gap-x-3" role="group" aria-label="Looked again at {f.name}"
          ><span class="text-soft">Looked again:</span
          >{#each [['gone', 'Gone'], ['less', 'Less'], ['same', 'The same']] as const as [how, word] (how)}<button
              class="min-h-11 text-moss underline"
              onclick={() => look(f, how)}>{word}<span class="sr-only">: {f.name}</span></button
            >{/each}</span
        >
        <button class="min-h-11 text-moss underline" onclick={() => ((ending = ''), (closing = f))}
          >Close<span class="sr-only">: {f.name}</span></button
        >
        <button class="min-h-11 text-moss underline" onclick={() => startCorrecting(f)}
          >Correct<span class="sr-only">: {f.name}</span></button
        >
      {:else}
        <button class="min-h-11 text-moss underline" onclick={() => settle(() => changeFind(f, { state: 'open', ending: '' }))}
          >Open again<span class="sr-only">: {f.name}</span></button
        >
      {/if}
      <button class="min-h-11 text-moss underline" onclick={() => remove(f)}>Remove<span class="sr-only">: {f.name}</span></button
      >
    </div>
  </li>
{/snippet}

{#if list?.length || kept.length}
  <section aria-label="Finds">
    <h2>What ails {plant ? 'it' : 'plants here'}</h2>
    <ul>
      {#each kept as f (f.key)}<li class="border-b border-rule py-2">
          <b>{f.name}</b> <span class="text-sm text-sun">{f.refused ? `not taken: ${f.refused}` : 'waits to be sent'}</span>
          {#if f.refused}<button class="min-h-11 px-2 text-sm text-moss underline" onclick={() => waiting.drop(f.key)}
              >Drop it</button
            >{/if}
        </li>{/each}
      {#each open as f (f.id)}{@render one(f)}{/each}
    </ul>
    {#if closed.length}
      <details class="text-sm" open={!open.length}>
        <summary class="flex min-h-11 cursor-pointer items-center text-moss">{closed.length} closed</summary>
        <ul>
          {#each closed as f (f.id)}{@render one(f)}{/each}
        </ul>
      </details>
    {/if}
  </section>
{/if}

<UnnamedList
  {plant}
  {property}
  onchange={() => {
    void read();
    onchange?.();
  }}
/>
{#if closing}
  {@const f = closing}
  <Modal open title="Close: {f.name}" size="xs" onclose={() => (closing = undefined)}>
    <form
      class="space-y-3 text-ink"
      onsubmit={(e) => {
        e.preventDefault();
        void close(f);
      }}
    >
      <Field label="How it ended" bind:value={ending} problem={problem?.fields.ending} autofocus />
      <div class="flex gap-2">
        <Button type="submit">Close it</Button><Button color="light" onclick={() => (closing = undefined)}>Back</Button>
      </div>
    </form>
  </Modal>
{/if}
{#if correcting}
  {@const f = correcting}
  <Modal open title="Correct: {f.name}" size="xs" onclose={() => (correcting = undefined)}>
    <form
      class="space-y-3 text-ink"
      onsubmit={(e) => {
        e.preventDefault();
        void correct(f);
      }}
    >
      <Pick
        label="It was"
        bind:value={to}
        options={causes.map((c): [string, string, string] => [c.id, c.name, c.group])}
        problem={problem?.fields.cause}
      />
      <div class="flex gap-2">
        <Button type="submit">Correct it</Button><Button color="light" onclick={() => (correcting = undefined)}>Back</Button>
      </div>
    </form>
  </Modal>
{/if}
