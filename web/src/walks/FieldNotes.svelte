<script lang="ts">
  import type { Photo, WaitingPhoto } from '../field/device';
  import { field } from '../field/field.svelte';
  import { place } from '../field/shrink';
  import { api, ask } from '../api/client';
  import { attempt, house } from '../lib/house.svelte';
  import { counts } from '../field/counts.svelte';
  import CrownCount from '../finds/CrownCount.svelte';
  import { whileOpen } from '../lib/opened';

  let { plant, common, note, onnote }: { plant: number; common: string; note: string; onnote: (text: string) => void } = $props();
  let counting = $state(false);

  let writing = $state(false);
  let keepPlace = $state(localStorage.getItem('photo-place') === 'on');
  let taking = $state(false);
  const kept = $derived((field.walk?.photos ?? []).filter((p) => p.plant_id === plant));
  const waiting = $derived(field.photos.filter((p) => p.plant === plant && p.walk === field.walk?.walk));

  // Pictures that wait are shown from the device; their addresses are given back when they are gone.
  const shown: Record<string, string> = {};
  function address(p: WaitingPhoto): string {
    return (shown[p.key] ??= URL.createObjectURL(p.blob));
  }
  $effect(() => {
    const here = new Set(waiting.map((p) => p.key));
    for (const k of Object.keys(shown))
      if (!here.has(k)) {
        URL.revokeObjectURL(shown[k]!);
        delete shown[k];
      }
  });

  async function take(e: Event) {
    const input = e.currentTarget as HTMLInputElement;
    const files = [...(input.files ?? [])];
    taking = true;
    await attempt(async () => {
      const where = keepPlace ? await place() : undefined;
      for (const f of files) await field.addPhoto(plant, f, where, keepPlace ? new Date(f.lastModified).toISOString() : '');
    });
    taking = false;
    input.value = '';
  }
  async function remove(p: Photo) {
    await attempt(async () => {
      await ask(api.DELETE('/api/v1/photos/{id}', { params: { path: { id: p.id } } }));
      field.setPhotos((l) => l.filter((x) => x.id !== p.id));
      house.say('Photo taken out.', async () => {
        await attempt(async () => {
          await ask(api.POST('/api/v1/photos/{id}/restore', { params: { path: { id: p.id } } }));
          field.setPhotos((l) => [...l, p]);
        });
      });
    });
  }
  let timer: ReturnType<typeof setTimeout> | undefined;
  function type(e: Event) {
    const text = (e.currentTarget as HTMLTextAreaElement).value;
    clearTimeout(timer);
    timer = setTimeout(() => onnote(text), 500);
  }
</script>

<div class="flex flex-wrap items-center gap-2 text-[0.9375rem]">
  <label
    class="inline-flex min-h-11 cursor-pointer items-center border border-rule bg-white px-3 focus-within:outline-3 focus-within:outline-cold"
    >{taking ? 'Taking…' : 'Photo'}<input
      type="file"
      accept="image/*"
      multiple
      class="sr-only"
      aria-label="Photo"
      onchange={take}
    /></label
  >
  <button class="min-h-11 border border-rule bg-white px-3" aria-expanded={writing} onclick={() => (writing = !writing)}
    >{note ? 'Note ✓' : 'Note'}</button
  >
  <button class="min-h-11 border border-rule bg-white px-3" onclick={() => (counting = true)}
    >{counts.of(plant).length ? 'Crown counted ✓' : 'Count the crown'}</button
  >
  {#each kept as p, i (p.id)}
    <span class="inline-flex flex-col"
      ><a href="/api/v1/pictures/{p.hash}" target="_blank" rel="noreferrer" class="block size-11"
        ><img
          src="/api/v1/pictures/{p.hash}"
          alt="Taken on this walk, {i + 1}"
          class="size-11 border border-rule object-cover"
        /></a
      >{#if writing}<button class="min-h-11 text-sm text-bad underline" onclick={() => remove(p)}
          >take<br />out<span class="sr-only"> photo {i + 1}</span></button
        >{/if}</span
    >
  {/each}
  {#each waiting as p (p.key)}
    <span class="relative block size-11"
      ><img src={address(p)} alt="Waiting to be sent" class="size-11 border-2 border-dashed border-sun object-cover" /></span
    >
    {#if p.refused}<button
        class="min-h-11 px-1 text-sm text-bad underline"
        title={p.refused}
        onclick={() => field.dropPhoto(p.key)}>refused: drop it</button
      >{/if}
  {/each}
</div>
{#if counting}<CrownCount
    bind:open={counting}
    plant={{ id: plant, common }}
    onpicture={async (f) => field.addPhoto(plant, f, keepPlace ? await place() : undefined, '')}
  />{/if}
{#if writing}
  <textarea
    {@attach (at) => {
      const shut = whileOpen(() => (writing = false));
      at.focus();
      at.setSelectionRange(at.value.length, at.value.length);
      return shut;
    }}
    class="mt-1 w-full border border-gray-400 bg-white p-2 text-base"
    rows="2"
    aria-label="Note on this plant"
    value={note}
    oninput={type}
    onblur={(e) => (clearTimeout(timer), onnote(e.currentTarget.value))}></textarea>
  <button class="min-h-11 px-2 text-moss underline" onclick={() => (writing = false)}>Close the note</button>
  <label class="flex min-h-11 items-center gap-2 text-sm"
    ><input
      type="checkbox"
      class="size-5 accent-moss"
      bind:checked={keepPlace}
      onchange={() => localStorage.setItem('photo-place', keepPlace ? 'on' : 'off')}
    /> Keep time and place with photos</label
  >
{/if}
