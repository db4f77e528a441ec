<script lang="ts">
  /** Help where one stands: a screen in five lines with its picture, its keys, and all pages to look through. */
  import { Button, Input, Modal } from 'flowbite-svelte';
  import { tick } from 'svelte';
  import type { Key } from '../lib/house.svelte';
  import { helpAt, pages, search } from './help';

  interface Props {
    open: boolean;
    path: string; // where one stands
    asked?: string; // a page that was asked for, by its id
    here: Key[]; // keys of the screen
    everywhere: [string, string][];
  }
  let { open = $bindable(), path, asked = '', here, everywhere }: Props = $props();

  let id = $state('');
  let words = $state('');
  let top = $state<HTMLElement>();
  $effect(() => {
    if (!open) return;
    id = asked || helpAt(path).id;
    words = '';
  });
  const page = $derived(pages.find((p) => p.id === id) ?? helpAt(path));
  const found = $derived(search(words));
  async function show(next: string) {
    id = next;
    words = '';
    await tick();
    top?.scrollIntoView({ block: 'nearest' });
  }
</script>

<Modal bind:open title="Help: {page.name}" size="lg">
  <div bind:this={top} class="grid text-ink gap-5 md:grid-cols-[16rem_minmax(0,1fr)]">
    <svg viewBox="0 0 160 100" class="w-full max-w-xs border border-rule bg-white max-md:hidden" aria-hidden="true">
      {#if page.id === 'portrait'}
        <path d="M68 90V50C40 46 44 10 80 8C116 10 120 46 92 50V90Z" fill="none" stroke="var(--color-ink)" stroke-width="0.8" />
      {:else}<rect width="22" height="100" fill="var(--color-sheet)" />
        {#each [14, 24, 34, 44, 54, 64, 74] as y}<rect x="4" {y} width="12" height="2" fill="var(--color-rule)" />{/each}{/if}
      {#each page.lines as l, i (i)}
        <rect
          x={l.box[0] + 1}
          y={l.box[1] + 1}
          width={l.box[2] - 2}
          height={l.box[3] - 2}
          fill="var(--color-moss)"
          fill-opacity="0.08"
          stroke="var(--color-moss)"
          stroke-width="0.6"
        />
        <circle cx={l.box[0] + 6} cy={l.box[1] + 4.6 + (page.id === 'ribbon' ? 0 : 1)} r="4.4" fill="var(--color-moss)" />
        <text
          x={l.box[0] + 6}
          y={l.box[1] + 6.8 + (page.id === 'ribbon' ? 0 : 1)}
          text-anchor="middle"
          font-size="6.4"
          font-weight="700"
          fill="var(--color-white)">{i + 1}</text
        >
      {/each}
    </svg>
    <ol class="list-decimal space-y-1.5 pl-5" aria-label="This screen">
      {#each page.lines as l, i (i)}<li>{l.say}</li>{/each}
    </ol>
  </div>
  <details class="mt-2" open={window.innerWidth >= 768}>
    <summary class="flex min-h-11 cursor-pointer items-center text-moss underline">Keys</summary>
    <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5 pb-2">
      {#each here as k (k.key)}
        <dt><kbd>{k.key === ' ' ? 'Space' : k.key}</kbd></dt>
        <dd>{k.does}</dd>
      {/each}
      {#each everywhere as [key, does] (key)}
        <dt><kbd>{key}</kbd></dt>
        <dd>{does}</dd>
      {/each}
    </dl>
  </details>
  <label class="mt-2 block"
    ><span class="font-semibold">Search all help</span>
    <Input class="mt-1 min-h-11" bind:value={words} placeholder="frost, undo, estimate" />
  </label>
  <ul class="grid sm:grid-cols-2" aria-label="Pages of help">
    {#each found as f (f.page.id)}
      <li>
        <button class="min-h-11 w-full px-1 text-left hover:bg-sheet" onclick={() => void show(f.page.id)}>
          <span class="block font-semibold text-moss underline">{f.page.name}</span>
          {#if f.say}<span class="block text-sm text-soft">{f.say}</span>{/if}
        </button>
      </li>
    {:else}<li class="py-2 text-soft">No page of help has these words.</li>{/each}
  </ul>
  <Button class="mt-3" onclick={() => (open = false)}>Close</Button>
</Modal>
