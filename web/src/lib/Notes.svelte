<script lang="ts">
  /** What was done last, with its way back, and what went wrong. */
  import { house } from './house.svelte';

  let { narrow = false }: { narrow?: boolean } = $props();

  async function undo(n: (typeof house.notes)[number]) {
    house.drop(n.id);
    await n.undo!();
    if (!house.notes.some((x) => x.bad)) house.say(`Taken back: ${n.text.charAt(0).toLowerCase()}${n.text.slice(1)}`);
  }
</script>

{#each house.notes as n (n.id)}
  <div
    class="flex items-center gap-2 rounded-sm px-3 py-1 {narrow ? 'flex-wrap justify-end text-sm' : ''} {n.bad
      ? 'border-2 border-bad bg-white text-ink'
      : 'bg-ink text-paper'}"
  >
    <span class="min-w-0 leading-snug break-words {narrow ? 'basis-full pt-1' : 'flex-1'}">{n.text}</span>
    {#if n.undo}<button class="min-h-11 px-2 font-bold underline" onclick={() => undo(n)}>Undo</button>{/if}
    <button class="min-h-11 min-w-11" aria-label="Close message" onclick={() => house.drop(n.id)}>✕</button>
  </div>
{/each}
