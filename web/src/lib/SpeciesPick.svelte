<script lang="ts">
  /** A species by any part of its common or botanical name: those in use here and of one's own come first. */
  import { onMount } from 'svelte';
  import type { Species } from '../api/client';
  import { misspelt } from './words';

  interface Props {
    species: Species[];
    value: string; // as written: "Common (Botanical)", or what was typed
    used?: string[]; // ids of kinds that stand here already
    problem?: string;
    class?: string;
    autofocus?: boolean;
    label?: string;
    onnew?: (name: string) => void; // what is not in the book can be added
  }
  let {
    species,
    value = $bindable(),
    used = [],
    problem,
    class: wide = '',
    autofocus,
    label = 'Species',
    onnew,
  }: Props = $props();

  const id = $props.id();
  let field = $state<HTMLInputElement>();
  onMount(() => {
    if (autofocus) field?.focus(); // the form was asked for
  });
  const written = (s: Species) => `${s.common} (${s.botanical})`;
  const plain = (t: string) =>
    t
      .toLowerCase()
      .normalize('NFD')
      .replace(/[\u0300-\u036f]/g, '');
  let looking = $state(false);
  let leaving = 0; // a list that is left closes a moment later, so that a press in it counts
  let at = $state(0);
  const shown = 8;

  const found = $derived.by(() => {
    const words = plain(value)
      .split(/[\s(),]+/)
      .filter(Boolean);
    if (!words.length || species.some((s) => written(s) === value)) return [];
    const rank = (s: Species) => {
      const text = plain(`${s.common} ${s.botanical} ${(s.also ?? []).join(' ')}`);
      const begins = words.every((w) => text.split(/[\s(),×-]+/).some((t) => t.startsWith(w)));
      return (used.includes(s.id) ? 0 : s.source !== 'built' ? 1 : 2) * 2 + (begins ? 0 : 1);
    };
    const called = (s: Species) => plain(`${s.common} ${s.botanical} ${s.family} ${(s.also ?? []).join(' ')}`);
    let fits = species.filter((s) => words.every((w) => called(s).includes(w)));
    // Nothing is called so: what is nearly spelt so.
    if (!fits.length && words.some((w) => w.length > 4))
      fits = species.filter((s) => {
        const parts = called(s).split(/[^a-z]+/);
        return words.every((w) => parts.some((p) => p.startsWith(w) || misspelt(w, p)));
      });
    return fits.sort((a, b) => rank(a) - rank(b) || a.common.localeCompare(b.common));
  });
  const otherName = (s: Species) =>
    (s.also ?? []).find((n) =>
      plain(value)
        .split(/[\s(),]+/)
        .filter(Boolean)
        .every((w) => plain(n).includes(w)),
    );
  const list = $derived(looking ? found.slice(0, shown) : []);

  function choose(s: Species) {
    value = written(s);
    looking = false;
  }
  function onkeydown(e: KeyboardEvent) {
    if (!list.length) return;
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      at = (at + (e.key === 'ArrowDown' ? 1 : list.length - 1)) % list.length;
    } else if (e.key === 'Enter') {
      choose(list[at]!);
    } else if (e.key === 'Escape') {
      looking = false;
      e.stopPropagation();
    } else return;
    e.preventDefault();
  }
</script>

<div class="relative {wide}">
  <label class="block font-semibold" for="{id}-in">{label}</label>
  <input
    id="{id}-in"
    class="mt-1 min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2.5"
    role="combobox"
    aria-expanded={list.length > 0}
    aria-controls="{id}-list"
    aria-activedescendant={list.length ? `${id}-${at}` : undefined}
    aria-autocomplete="list"
    aria-invalid={problem ? 'true' : undefined}
    autocomplete="off"
    placeholder="Part of a name, common or botanical"
    bind:this={field}
    bind:value
    onfocus={() => clearTimeout(leaving)}
    oninput={() => ((looking = true), (at = 0))}
    onblur={() => (leaving = window.setTimeout(() => (looking = false), 150))}
    {onkeydown}
  />
  <ul
    id="{id}-list"
    role="listbox"
    aria-label="Species found"
    class="absolute inset-x-0 z-20 border-ink bg-white shadow-lg {list.length ? 'border' : ''}"
  >
    {#each list as s, i (s.id)}
      <li id="{id}-{i}" role="option" aria-selected={i === at}>
        <button
          type="button"
          tabindex="-1"
          class="block min-h-11 w-full px-2.5 py-1 text-left leading-tight {i === at ? 'bg-moss-pale' : 'hover:bg-sheet'}"
          onmousedown={(e) => e.preventDefault()}
          onclick={() => choose(s)}
          >{s.common} <span class="latin text-soft">{s.botanical}</span>{#if otherName(s)}<span class="text-sm text-soft"
              >&nbsp;· {otherName(s)}</span
            >{/if}{#if used.includes(s.id)}<span class="text-sm text-soft">&nbsp;· stands here already</span
            >{:else if s.source !== 'built'}<span class="text-sm text-soft">&nbsp;· your own</span>{/if}</button
        >
      </li>
    {/each}
    {#if found.length > list.length && list.length}<li class="px-2.5 py-1 text-sm text-soft" role="presentation">
        {found.length - list.length} more: type on
      </li>{/if}
  </ul>
  {#if problem}<span class="text-sm text-bad">{problem}</span>{/if}
  {#if onnew && value.trim().length > 2 && !found.length && !species.some((s) => written(s) === value)}<p class="mt-1 text-sm">
      No kind in the book is called so.
      <button type="button" class="min-h-11 text-moss underline" onclick={() => onnew(value.trim())}
        >Add it, in five fields</button
      >
    </p>{/if}
</div>
