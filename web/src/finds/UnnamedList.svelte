<script lang="ts">
  /** Finds without a name: their words and pictures, what was sent where, the answer awaited; named, changed and closed here. */
  import { Button, Modal } from 'flowbite-svelte';
  import { answerOf, api, ask, counted, onceKey, type Problem, type Schemas } from '../api/client';
  import { unnamed as waiting } from '../field/finds.svelte';
  import { shrink } from '../field/shrink';
  import { inWords } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import FilePick from '../lib/FilePick.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import { reading } from '../lib/reading';
  import UnnamedFields from './UnnamedFields.svelte';
  import {
    changeUnnamed,
    nameUnnamed,
    noWords,
    removeUnnamed,
    restoreUnnamed,
    unnamedOf,
    wordsOf,
    type Unnamed,
  } from './unnamed';

  interface Props {
    plant?: number;
    property?: number;
    turn?: number; // read again when this changes
    onchange?: () => void; // a find was made of one, or taken back
  }
  let { plant, property, turn = 0, onchange }: Props = $props();
  let list = $state.raw<Unnamed[]>([]);
  let causes = $state.raw<Schemas['CauseLine'][]>([]);
  let naming = $state.raw<Unnamed>();
  let changing = $state.raw<Unnamed>();
  let words = $state(noWords());
  let cause = $state('');
  let certainty = $state(0.95);
  let answer = $state('');
  let problem = $state<Problem>();

  const reads = reading();
  const read = () => reads(async (signal) => void (list = await unnamedOf({ plant, property }, signal)));
  $effect(() => {
    void [plant, property, turn, waiting.waiting.length];
    void read();
  });
  const open = $derived(list.filter((u) => u.state === 'open'));
  const closed = $derived(list.filter((u) => u.state === 'closed'));
  const kept = $derived(waiting.waiting.filter((w) => (plant ? w.body.plant_id === plant : w.body.property_id === property)));

  async function settle(f: () => Promise<unknown>, text?: string, undo?: () => Promise<unknown>) {
    problem = await attempt(async () => {
      await f();
      naming = changing = undefined;
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
    });
    await read();
    onchange?.();
  }
  const now = async (id: number) => (await unnamedOf({ plant, property })).find((x) => x.id === id);
  async function startNaming(u: Unnamed) {
    [cause, certainty, answer, problem, naming] = ['', 0.95, u.answer ?? '', undefined, u];
    if (!causes.length) await attempt(async () => void (causes = (await ask(api.GET('/api/v1/causes'))).items));
  }
  const nameIt = (u: Unnamed) =>
    settle(
      () => nameUnnamed(u, cause, certainty, answer),
      `It has its name: ${causes.find((c) => c.id === cause)?.name.toLowerCase()}.`,
      async () => {
        const x = await now(u.id);
        if (x) await changeUnnamed(x, wordsOf(x));
      },
    );
  const change = (u: Unnamed, w = words, state: 'open' | 'closed' = 'open', text = 'Kept.') =>
    settle(
      () => changeUnnamed(u, w, state),
      text,
      async () => {
        const x = await now(u.id);
        if (x) await changeUnnamed(x, wordsOf(u));
      },
    );
  const remove = (u: Unnamed) =>
    settle(
      () => removeUnnamed(u),
      'Removed.',
      () => restoreUnnamed(u),
    );
  async function picture(u: Unnamed, file: File) {
    await settle(async () => {
      const body = await shrink(file);
      const headers = { ...onceKey(), 'Content-Type': 'image/jpeg' };
      await answerOf<Unnamed>(counted(`/api/v1/unnamed/${u.id}/photos`, { method: 'POST', body, headers }));
    });
  }
  const dropPicture = (u: Unnamed, hash: string) =>
    settle(() =>
      ask(api.DELETE('/api/v1/unnamed/{id}/photos/{hash}', { params: { path: { id: u.id, hash }, header: onceKey() } })),
    );
  const late = (u: Unnamed) => !!u.answer_by && u.answer_by < house.today;
</script>

{#snippet one(u: Unnamed)}
  <li class="border-b border-rule py-2">
    <p>
      <b>Without a name yet</b>
      <span class="text-sm text-soft"
        >{inWords(u.day)}{#if !plant && u.plant}, <a href="#/plant/{u.plant_id}">{u.plant}</a>{/if}</span
      >
    </p>
    <p>“{u.words}”</p>
    {#if u.sent}<p class="text-sm">
        {u.sent} sent{u.sent_to ? ` to ${u.sent_to}` : ''}{u.sent_on ? `, ${inWords(u.sent_on)}` : ''}.
      </p>{/if}
    {#if u.state === 'open' && u.answer_by}<p class="text-sm {late(u) ? 'font-semibold text-bad' : ''}">
        {late(u) ? 'An answer was expected' : 'An answer is expected'} by {inWords(u.answer_by)}.
      </p>{/if}
    {#if u.answer}<p class="text-sm">Answer: “{u.answer}”</p>{/if}
    <div class="flex flex-wrap items-center gap-2 py-1">
      {#each u.pictures as hash, i (hash)}<span class="inline-block"
          ><a href="/api/v1/pictures/{hash}" target="_blank" rel="noopener"
            ><img
              src="/api/v1/pictures/{hash}"
              alt="{u.words.slice(0, 60)}, {i + 1}"
              class="h-16 w-16 border border-rule object-cover"
            /></a
          ><button class="block min-h-9 w-16 text-xs underline" onclick={() => dropPicture(u, hash)}
            >Remove<span class="sr-only"> picture {i + 1}</span></button
          ></span
        >{/each}
      {#if u.state === 'open'}<FilePick name="Add a picture" accept="image/*" onfile={(f) => picture(u, f)} />{/if}
    </div>
    <div class="flex flex-wrap gap-x-4 text-sm">
      {#if u.state === 'open'}
        <button class="min-h-11 font-semibold text-moss underline" onclick={() => startNaming(u)}>Give it its name</button>
        <button class="min-h-11 text-moss underline" onclick={() => ([words, problem, changing] = [wordsOf(u), undefined, u])}
          >Sent, answered, changed</button
        >
        <button class="min-h-11 text-moss underline" onclick={() => change(u, wordsOf(u), 'closed', 'Closed without a name.')}
          >Close without a name</button
        >
      {:else}<button class="min-h-11 text-moss underline" onclick={() => change(u, wordsOf(u), 'open', 'Open again.')}
          >Open again</button
        >{/if}
      {#if house.may('planner')}<button class="min-h-11 text-moss underline" onclick={() => remove(u)}>Remove</button>{/if}
    </div>
  </li>
{/snippet}

{#if open.length || closed.length || kept.length}
  <section aria-label="Without a name">
    <ul>
      {#each kept as w (w.key)}<li class="border-b border-rule py-2">
          “{w.body.words}” <span class="text-sm text-sun">{w.refused ? `not taken: ${w.refused}` : 'waits to be sent'}</span>
          {#if w.refused}<button class="min-h-11 px-2 text-sm text-moss underline" onclick={() => waiting.drop(w.key)}
              >Drop it</button
            >{/if}
        </li>{/each}
      {#each open as u (u.id)}{@render one(u)}{/each}
    </ul>
    {#if closed.length}<details class="text-sm">
        <summary class="flex min-h-11 cursor-pointer items-center text-moss">{closed.length} closed without a name</summary>
        <ul>
          {#each closed as u (u.id)}{@render one(u)}{/each}
        </ul>
      </details>{/if}
  </section>
{/if}

{#if naming}
  {@const u = naming}
  <Modal open title="Give it its name" size="xs" onclose={() => (naming = undefined)}>
    <form
      class="space-y-3 text-ink"
      onsubmit={(e) => {
        e.preventDefault();
        void nameIt(u);
      }}
    >
      <p class="text-sm">“{u.words}”</p>
      <Pick
        label="It is"
        bind:value={cause}
        off="Choose a cause"
        options={causes.map((c): [string, string, string] => [c.id, c.name, c.group])}
        problem={problem?.fields.cause}
      />
      <Pick
        label="How sure"
        bind:value={certainty}
        options={[
          [0.95, 'sure'],
          [0.5, 'a guess'],
        ]}
      />
      <Field label="What came back" bind:value={answer} problem={problem?.fields.answer} />
      <div class="flex gap-2">
        <Button type="submit" disabled={!cause}>Save the name</Button>
        <Button color="light" onclick={() => (naming = undefined)}>Back</Button>
      </div>
    </form>
  </Modal>
{/if}
{#if changing}
  {@const u = changing}
  <Modal open title="Without a name yet" size="xs" onclose={() => (changing = undefined)}>
    <form
      class="space-y-3 text-ink"
      onsubmit={(e) => {
        e.preventDefault();
        void change(u);
      }}
    >
      <UnnamedFields bind:words problem={problem?.fields} answer />
      <div class="flex gap-2">
        <Button type="submit">Save</Button><Button color="light" onclick={() => (changing = undefined)}>Back</Button>
      </div>
    </form>
  </Modal>
{/if}
