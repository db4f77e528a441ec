<script lang="ts">
  /** Who works for the firm, with skills and licences: entered, changed and removed here. */
  import { Button } from 'flowbite-svelte';
  import { onDestroy } from 'svelte';
  import { api, ask, onceKey, type Problem } from '../api/client';
  import Field from './Field.svelte';
  import { attempt, house } from './house.svelte';
  import { keptOf } from './kept';
  import { people, type Person } from './people';
  import Tickbox from './Tickbox.svelte';
  import { capital } from './words';

  let { onchange }: { onchange?: () => void } = $props();
  let list = $state<Person[]>();
  let skills = $state<string[]>([]);
  let form = $state<{ id: number; name: string; skills: string[]; version: number }>();
  let problem = $state<Problem>();
  const theirs = $derived(keptOf<Person>(problem));
  let gone = false;
  onDestroy(() => (gone = true));
  const read = () =>
    attempt(async () => {
      const [p, s] = await Promise.all([people(), ask(api.GET('/api/v1/skills'))]);
      if (gone) return;
      [list, skills] = [p, s.items];
      onchange?.();
    });
  void read();

  function open(p?: Person) {
    problem = undefined;
    form = { id: p?.id ?? 0, name: p?.name ?? '', skills: [...(p?.skills ?? [])], version: p?.version ?? 0 };
  }
  const swap = (skill: string, on: boolean) => {
    if (form) form.skills = on ? [...form.skills, skill] : form.skills.filter((s) => s !== skill);
  };
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    const f = form;
    if (!f) return;
    problem = await attempt(async () => {
      const body = { name: f.name, skills: $state.snapshot(f.skills), version: f.version };
      const p = f.id
        ? await ask(api.PUT('/api/v1/people/{id}', { params: { path: { id: f.id }, header: onceKey() }, body }))
        : await ask(api.POST('/api/v1/people', { params: { header: onceKey() }, body }));
      form = undefined;
      house.say(`${p.name}: kept.`);
      await read();
    });
  }
  async function remove(p: Person) {
    await attempt(async () => {
      const path = { id: p.id };
      await ask(api.DELETE('/api/v1/people/{id}', { params: { path, header: onceKey() } }));
      house.say(`${p.name}: removed.`, async () => {
        await ask(api.POST('/api/v1/people/{id}/restore', { params: { path, header: onceKey() } }));
        await read();
      });
      await read();
    });
  }
</script>

<section class="mt-4 space-y-2 border border-rule bg-white p-4" aria-label="People">
  <div class="flex flex-wrap items-baseline gap-3">
    <h2 class="flex-1">People</h2>
    {#if !form}<button class="min-h-11 text-moss underline" onclick={() => open()}>Enter a person</button>{/if}
  </div>
  {#if form}
    <form class="space-y-2 border border-ink p-3" onsubmit={keep} aria-label="A person">
      <Field label="Name of the person" bind:value={form.name} problem={problem?.fields.name} autofocus />
      <fieldset>
        <legend class="font-semibold">May do</legend>
        <div class="grid gap-x-4 sm:grid-cols-2">
          {#each skills as s (s)}<Tickbox
              checked={form.skills.includes(s)}
              label={capital(s)}
              onpick={(on) => swap(s, on)}
            />{/each}
        </div>
      </fieldset>
      {#if theirs}<p role="alert" class="border-2 border-sun p-2">
          Another device has changed this person meanwhile: {theirs.name}{theirs.skills?.length
            ? `, ${theirs.skills.join(', ')}`
            : ''}.
          <button
            type="button"
            class="min-h-11 text-moss underline"
            onclick={() => ((form!.version = theirs.version), (problem = undefined))}>Keep mine: press Keep again</button
          >
        </p>{/if}
      <div class="flex gap-2">
        <Button type="submit">Keep</Button><Button color="light" onclick={() => (form = undefined)}>Back</Button>
      </div>
    </form>
  {/if}
  {#if list?.length}
    <ul class="border-t border-rule">
      {#each list as p (p.id)}
        <li class="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
          <span class="min-w-40 flex-1"
            ><b>{p.name}</b><span class="block text-sm text-soft">{p.skills?.join(', ') || 'no skill or licence entered'}</span
            ></span
          >
          <button class="min-h-11 text-sm text-moss underline" onclick={() => open(p)}
            >Change<span class="sr-only">: {p.name}</span></button
          >
          <button class="min-h-11 text-sm text-moss underline" onclick={() => remove(p)}
            >Remove<span class="sr-only">: {p.name}</span></button
          >
        </li>
      {/each}
    </ul>
  {:else if list && !form}<p class="text-soft">
      Nobody yet. Enter who works with you, and who holds a licence for restricted products: those go to nobody else.
    </p>{/if}
</section>
