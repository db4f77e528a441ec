<script lang="ts">
  /** The plants of a property that are to be looked at, those hurt worst first. */
  import type { Schemas } from '../api/client';
  import { causeOfHurt } from '../lib/causes';
  import { figure } from '../lib/units';
  import { capital } from '../lib/words';
  import Expected from './Expected.svelte';
  import Mark from './Mark.svelte';

  let { group: g, onpoint }: { group: Schemas['LookGroup']; onpoint: (i: number) => void } = $props();
  const told_of = (p: Schemas['PlantOut']) => {
    const l = p.look!;
    if (l.expected === 'wood' && l.dieback >= 0.97) return 'to the ground';
    if (l.expected === 'wood' && l.dieback > 0.03) return `top ${Math.round(100 * l.dieback)}\u00a0%`;
    return l.expected === 'wood' ? 'tips' : l.expected;
  };
</script>

{#snippet hurt(p: Schemas['PlantOut'], size: number)}
  <Mark
    cause={causeOfHurt(p.look?.by ?? '')}
    share={p.look?.severity ?? 0}
    words="{p.look?.by}, severity {Math.round(100 * (p.look?.severity ?? 0))} %"
    {size}
  />
  <span>{told_of(p)}</span>
{/snippet}
{#if g.shared?.length === 1}<p class="border-y border-rule px-3 py-1 text-sm">{g.shared[0]}:</p>{/if}
<ol>
  {#each g.looks as p, i (p.id)}
    <li class={i ? 'border-t border-rule' : ''}>
      <a
        id="look-{i}"
        href="#/walk/{p.property_id}/{p.id}"
        class="flex min-h-14 items-center gap-3 px-3 py-1 text-ink no-underline hover:bg-sheet hover:no-underline focus:bg-sheet"
        onfocus={() => onpoint(i)}
      >
        <Expected plant={p} />
        <span class="min-w-0 flex-1 break-words">
          <span class="font-semibold">{p.common}</span>{#if p.count > 1}<span class="text-soft">&nbsp;× {p.count}</span>{/if}
          <span class="latin text-soft max-sm:hidden">{p.botanical}</span>
          <span class="text-sm"
            >· {p.label}{#if p.pot_l > 0}, {figure(p.pot_l, 'L')} {p.count > 1 ? 'pots' : 'pot'}{/if}</span
          >
          <span class="flex items-center gap-1.5 text-sm font-semibold sm:hidden">{@render hurt(p, 16)}</span>
          <span class="block text-sm text-soft">{(g.shared?.length ?? 0) > 1 ? p.look?.reason : capital(p.look?.own ?? '')}</span>
        </span>
        <span class="flex w-32 shrink-0 items-center gap-2 text-sm max-sm:hidden">{@render hurt(p, 22)}</span>
      </a>
    </li>
  {/each}
</ol>
{#if g.more}<p class="border-t border-rule px-3 py-2 text-sm text-soft">{g.more} more come up on the walk.</p>{/if}
