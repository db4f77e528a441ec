<script lang="ts" generics="T extends { id: number; name: string; version: number }, F extends { id: number; version: number }">
  /** A list of who or what the firm has, with one form to enter and to change: kept, removed and brought back here. */
  import { Button } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { onceKey, type Problem } from '../api/client';
  import { attempt, house } from './house.svelte';
  import { keptOf } from './kept';
  import { reading } from './reading';

  type Once = ReturnType<typeof onceKey>;
  interface Props {
    title: string;
    bare?: boolean; // it stands under a heading of its own
    one: string; // "person"
    list: T[] | undefined;
    read: (signal: AbortSignal) => Promise<void>; // into list, and what the form needs
    stamp?: number; // read anew when it changes
    may?: boolean; // whether one can be entered
    began: (of?: T) => F; // the form as it opens
    keep: (form: F, header: Once) => Promise<T>;
    drop: (id: number, header: Once) => Promise<unknown>;
    restore: (id: number, header: Once) => Promise<unknown>;
    told: (theirs: T) => string; // what another has kept meanwhile
    fields: Snippet<[F, Problem | undefined]>;
    line: Snippet<[T]>;
    after?: Snippet; // below the list
    empty: Snippet;
  }
  let p: Props = $props();
  let form = $state<F>();
  let problem = $state<Problem>();
  const theirs = $derived(keptOf<T>(problem));
  const reads = reading();
  const anew = () => reads(p.read);
  $effect(() => {
    void p.stamp;
    void anew();
  });
  function open(of?: T) {
    problem = undefined;
    form = p.began(of);
  }
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    const f = form;
    if (!f) return;
    problem = await attempt(async () => {
      const kept = await p.keep($state.snapshot(f) as F, onceKey());
      form = undefined;
      house.say(`${kept.name}: saved.`);
      await anew();
    });
  }
  async function remove(of: T) {
    await attempt(async () => {
      await p.drop(of.id, onceKey());
      house.say(`${of.name}: removed.`, async () => {
        await p.restore(of.id, onceKey());
        await anew();
      });
      await anew();
    });
  }
</script>

<section class={p.bare ? 'space-y-2' : 'mt-4 space-y-2 border border-rule bg-white p-4'} aria-label={p.title}>
  <div class="flex flex-wrap items-baseline gap-3">
    {#if !p.bare}<h2 class="flex-1">{p.title}</h2>{/if}
    {#if !form && (p.may ?? true)}<button class="min-h-11 text-moss underline" onclick={() => open()}>Enter a {p.one}</button
      >{/if}
  </div>
  {#if form}
    <form class="space-y-3 border border-ink p-3" onsubmit={keep} aria-label="A {p.one}">
      {@render p.fields(form, problem)}
      {#if theirs}<p role="alert" class="border-2 border-sun p-2">
          Another device has changed this {p.one} meanwhile: {p.told(theirs)}.
          <button
            type="button"
            class="min-h-11 text-moss underline"
            onclick={() => ((form!.version = theirs.version), (problem = undefined))}>Keep mine: press Keep again</button
          >
        </p>{/if}
      <div class="flex gap-2">
        <Button type="submit">Save</Button><Button color="light" onclick={() => (form = undefined)}>Back</Button>
      </div>
    </form>
  {/if}
  {#if p.list?.length}
    <ul class="border-t border-rule">
      {#each p.list as t (t.id)}
        <li class="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
          <span class="min-w-44 flex-1">{@render p.line(t)}</span>
          <button class="min-h-11 text-sm text-moss underline" onclick={() => open(t)}
            >Change<span class="sr-only">: {t.name}</span></button
          >
          <button class="min-h-11 text-sm text-moss underline" onclick={() => remove(t)}
            >Remove<span class="sr-only">: {t.name}</span></button
          >
        </li>
      {/each}
    </ul>
    {@render p.after?.()}
  {:else if p.list && !form}<p class="text-soft">{@render p.empty()}</p>{/if}
</section>
