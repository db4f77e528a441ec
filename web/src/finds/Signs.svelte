<script lang="ts">
  import { capital } from '../lib/words';
  /** Says what is seen: the next question on top, then a part of the plant, and its signs as pictures and words. */
  import Field from '../lib/Field.svelte';
  import type { Plant } from '../api/client';
  import type { Form } from '../lib/portrait';
  import Portrait from '../lib/Portrait.svelte';
  import Drawing from './Drawing.svelte';
  import { partWords } from './drawings';
  import type { Case, Sign } from './case.svelte';

  let { kase, signs, plant }: { kase: Case; signs: Sign[]; plant?: Plant } = $props();
  let words = $state('');
  let part = $state('');
  let small = $state(window.innerWidth < 1024); // the parts give way to the signs of the one that was chosen

  const named = $derived(Object.fromEntries(signs.map((s) => [s.id, s])));
  const parts = $derived([...new Set(signs.map((s) => s.part))]);
  const asked = $derived(kase.answer?.next && kase.seen.length && !kase.answer.settled ? kase.answer.next : undefined);
  // On a small screen the question would come up out of sight, above the list that was pressed.
  let box = $state<HTMLElement>();
  $effect(() => {
    void asked?.id;
    if (box && window.innerWidth < 1024) box.scrollIntoView({ block: 'center' });
  });
  const shown = $derived.by(() => {
    const w = words.toLowerCase().split(/\s+/).filter(Boolean);
    if (!part && !w.length) return [];
    return signs.filter(
      (s) =>
        (w.length > 0 || !part || s.part === part) &&
        w.every((x) => `${s.name} ${s.words ?? ''} ${s.ask} ${s.part}`.toLowerCase().includes(x)),
    );
  });
  // What is pointed at on the portrait: its tips, its leaves, its wood, its foot.
  function point(m: number) {
    if (!plant) return;
    const up = m / plant.height_m;
    const bare = ['tree', 'palm'].includes(plant.form) ? 0.4 : 0.2;
    part = up > 0.85 ? 'shoots' : up > bare ? 'upper side of leaves' : up > 0.06 ? 'bark and trunk' : 'base and crown';
    words = '';
  }
  const press = (on: boolean) => (on ? 'border-ink bg-ink text-paper' : 'border-rule bg-white');
</script>

<svelte:window onresize={() => (small = window.innerWidth < 1024)} />

{#if asked}
  <div bind:this={box} class="mt-3 border-2 border-cold bg-white p-3" role="group" aria-label="The next question">
    <div class="flex items-start gap-3">
      <Drawing words={asked.draw} size={64} />
      <div class="min-w-0">
        <p class="text-lg leading-tight font-bold">{asked.ask}</p>
        <p class="text-sm text-soft">{capital(asked.part)}. {asked.how ?? ''} {asked.why}</p>
        {#if asked.confused?.length}<p class="text-sm text-soft">
            Not to be taken for: {asked.confused.map((id) => named[id]?.name.toLowerCase() ?? id).join(', ')}.
          </p>{/if}
      </div>
    </div>
    <div class="mt-2 grid grid-cols-3 gap-2">
      <button class="min-h-14 border-2 border-moss bg-white text-lg font-bold" onclick={() => kase.set(asked.id, 'seen')}
        >Yes</button
      >
      <button class="min-h-14 border-2 border-hand bg-white text-lg font-bold" onclick={() => kase.set(asked.id, 'absent')}
        >No, looked</button
      >
      <button class="min-h-14 border-2 border-rule bg-white text-lg" onclick={() => kase.skip(asked.id)}>Cannot tell</button>
    </div>
  </div>
{/if}
{#if kase.seen.length || kase.absent.length}
  <ul class="mt-3 space-y-1" aria-label="Said so far">
    {#each [...kase.seen, ...kase.absent] as id}
      <li class="flex items-center gap-2 border-b border-rule">
        <span class="min-w-0 flex-1 {kase.is(id) === 'absent' ? 'text-soft' : 'font-semibold'}"
          >{kase.is(id) === 'absent' ? 'Not there: ' : ''}{named[id]?.name}{#if kase.told.includes(id)}<span
              class="block text-sm font-normal text-water">as told</span
            >{/if}</span
        >
        {#if kase.told.includes(id)}<button
            class="min-h-11 border border-moss bg-white px-3 text-sm"
            aria-label="It is so: {named[id]?.name}"
            onclick={() => kase.set(id, kase.is(id))}>It is so</button
          >{/if}
        <button
          class="min-h-11 px-2 text-sm text-moss underline"
          aria-label="Take back: {named[id]?.name}"
          onclick={() => kase.set(id, 'open')}>Take back</button
        >
      </li>
    {/each}
  </ul>
{/if}
<Field class="mt-3" label="Search the signs of all parts" bind:value={words} placeholder="Speckled, wilting, holes …" />
{#if small && (part || words)}
  <p class="mt-2 flex items-center justify-between gap-2">
    <b>{words ? 'Signs of all parts' : capital(part)}</b>
    <button class="min-h-11 text-moss underline" onclick={() => ((part = ''), (words = ''))}>Other parts</button>
  </p>
{:else}
  <h2 class="mt-3">Where on the plant?</h2>
  {#if plant}
    <div class="mt-1 h-40 border border-rule bg-white max-lg:h-32">
      <Portrait
        form={plant.form as Form}
        heightM={plant.height_m}
        spreadM={plant.spread_m}
        name="{plant.common}: point at where it shows"
        box={[420, 150]}
        onpick={point}
      />
    </div>
    <p class="text-sm text-soft">Point at it, or choose:</p>
  {/if}
  <div class="mt-1 grid grid-cols-[repeat(auto-fill,minmax(5.5rem,1fr))] gap-1" role="group" aria-label="Parts">
    {#each parts as p}
      <button
        class="flex min-h-20 flex-col items-center justify-start border p-1 text-sm leading-tight {part === p
          ? 'border-2 border-ink bg-moss-pale font-bold'
          : 'border-rule bg-white'}"
        aria-pressed={part === p}
        onclick={() => ((part = part === p ? '' : p), (words = ''))}
      >
        <Drawing words={partWords[p]} size={40} />
        {capital(p)}
      </button>
    {/each}
  </div>
{/if}
<ul class="mt-2 border-t border-rule" aria-label="Signs">
  {#each shown as s (s.id)}
    <li class="flex items-center gap-2 border-b border-rule py-1">
      <span class="w-12 shrink-0"><Drawing words={s.draw} /></span>
      <span class="min-w-0 flex-1 leading-tight"
        >{s.name}<span class="block text-sm text-soft">{part && !words ? s.ask : capital(s.part)}</span></span
      >
      <span class="flex shrink-0 gap-1 max-[30rem]:flex-col">
        <button
          class="min-h-11 border px-3 {press(kase.is(s.id) === 'seen')}"
          aria-label="Seen: {s.name}"
          aria-pressed={kase.is(s.id) === 'seen'}
          onclick={() => kase.set(s.id, kase.is(s.id) === 'seen' ? 'open' : 'seen')}>Seen</button
        >
        <button
          class="min-h-11 border px-3 {press(kase.is(s.id) === 'absent')}"
          aria-label="Not there: {s.name}"
          aria-pressed={kase.is(s.id) === 'absent'}
          onclick={() => kase.set(s.id, kase.is(s.id) === 'absent' ? 'open' : 'absent')}>Not there</button
        >
      </span>
    </li>
  {:else}
    {#if words}<li class="py-3 text-soft">
        No sign has these words. <button class="min-h-9 text-moss underline" onclick={() => (words = '')}>Clear them</button>
      </li>{:else}<li class="py-3 text-sm text-soft">Choose a part of the plant, or search: then say what is seen there.</li>{/if}
  {/each}
</ul>
