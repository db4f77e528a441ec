<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Plant } from '../api/client';
  import { brief } from '../lib/dates';
  import type { State } from './state';

  interface Props {
    order: Plant[];
    asking: number; // how many of them, the first, are to be looked at
    propertyId: number;
    plantId: number;
    howFar: (p: Plant) => State;
    here: (p: Plant) => boolean; // decided on this walk
    due: Set<number>; // plants whose follow-up is due
    progress: Snippet;
    onnew: () => void;
    onpick?: () => void;
  }
  let { order, asking, propertyId, plantId, howFar, here, due, progress, onnew, onpick }: Props = $props();

  // Of a long list the stretch round the plant in sight is shown: all of it would be slow to draw.
  const listed = 300;
  const around = $derived(
    order.length <= listed ? 0 : Math.max(0, Math.min(order.length - listed, order.findIndex((p) => p.id === plantId) - 100)),
  );

  // The list opens at the plant in hand, and follows it.
  let nav = $state<HTMLElement>();
  $effect(() => {
    void [plantId, around];
    const row = nav?.querySelector<HTMLElement>('[aria-current=true]');
    if (!nav || !row) return;
    const at = row.getBoundingClientRect().top - nav.getBoundingClientRect().top;
    if (at < 0 || at > nav.clientHeight - row.offsetHeight) nav.scrollTop += at - nav.clientHeight / 3;
  });
</script>

<nav bind:this={nav} aria-label="Plants of the walk" class="overflow-y-auto border-r border-rule">
  <a class="flex min-h-11 items-center px-3 text-sm" href="#/grounds/{propertyId}">{order[0]?.property ?? 'Property'}</a>
  <div class="px-3 pb-2">{@render progress()}</div>
  <ol>
    {#if around > 0}<li class="px-3 py-1 text-sm text-soft">{around} before these</li>{/if}
    {#each order.slice(around, around + listed) as p, k (p.id)}
      {@const i = around + k}
      <li>
        {#if asking && (i === 0 || i === asking)}<p class="bg-sheet px-3 py-0.5 text-xs font-semibold text-soft">
            {i < asking ? `To look at, from the gate on: ${asking}` : 'The others'}
          </p>{/if}
        <a
          href="#/walk/{propertyId}/{p.id}"
          onclick={() => onpick?.()}
          aria-current={p.id === plantId ? 'true' : undefined}
          class="flex min-h-11 items-center gap-2 border-t border-rule px-3 py-1 text-[0.9375rem] leading-tight text-ink no-underline hover:bg-sheet {p.id ===
          plantId
            ? 'border-l-4 border-l-moss bg-moss-pale pl-2 font-bold'
            : ''}"
        >
          <span class="min-w-0 flex-1"
            >{p.common}{#if p.count > 1}<span class="font-normal text-soft">&nbsp;×&nbsp;{p.count}</span>{/if}<span
              class="block text-sm font-normal break-words text-soft">{p.label}</span
            ></span
          >
          {#if howFar(p) === 'decided'}<span class="text-sm font-semibold text-moss" title={p.verdict?.sentence}
              >✓{#if !here(p) && p.verdict}&nbsp;{brief(p.verdict.day)}{/if}<span class="sr-only"> decided</span></span
            >{:else if due.has(p.id) && howFar(p) === 'open'}<span class="text-sm font-semibold text-cold">due again</span
            >{:else if howFar(p) === 'to send'}<span class="text-sm font-semibold text-sun">to send</span
            >{:else if howFar(p) === 'checked'}<span class="text-sm text-soft">checked</span
            >{:else if howFar(p) === 'skipped'}<span class="text-sm text-soft">skipped</span>{/if}
        </a>
      </li>
    {/each}
    {#if order.length > around + listed}<li class="px-3 py-1 text-sm text-soft">
        {order.length - around - listed} after these
      </li>{/if}
  </ol>
  <a
    class="flex min-h-11 items-center border-t border-rule px-3 text-sm"
    href="#/walk/{propertyId}/end"
    onclick={() => onpick?.()}>End the walk: what came of it</a
  >
  <button class="min-h-11 px-3 text-left text-sm text-moss underline" onclick={onnew}>One is not on the list: add it</button>
</nav>
