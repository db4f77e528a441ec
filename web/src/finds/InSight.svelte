<script lang="ts">
  /** What it comes to and keeping it, in sight on a small screen wherever one is in the list of signs. */
  import { Button } from 'flowbite-svelte';
  import type { Case } from './case.svelte';

  let { kase, keeps, onkeep, class: look = '' }: { kase: Case; keeps: string; onkeep: () => void; class?: string } = $props();
</script>

{#if kase.answer && kase.seen.length}
  <div class="flex items-center gap-3 bg-white px-4 py-2 lg:hidden {look}" data-testid="in-sight">
    <p class="line-clamp-2 min-w-0 flex-1 text-[0.9375rem] leading-snug font-bold" aria-hidden="true">{kase.answer.text}</p>
    {#if keeps}<Button size="sm" class="max-w-40 shrink-0" onclick={onkeep}
        ><span class="line-clamp-2 leading-tight">Keep: {keeps}</span></Button
      >{/if}
  </div>
{/if}
