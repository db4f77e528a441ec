<script lang="ts">
  /** What to go on doing after a verdict, by its days. */
  import type { Schemas } from '../api/client';
  import { brief } from '../lib/dates';

  let { care }: { care: Schemas['DamageCare'][] } = $props();
</script>

<ul class="space-y-1">
  {#each care as c (c.kind)}
    <li class="grid grid-cols-[4.5rem_1fr] gap-2">
      <span class="text-sm text-soft"
        >{brief(c.from)}{#if c.to !== c.from}&nbsp;–<br />{brief(c.to)}{/if}</span
      >
      <span>{c.text}</span>
    </li>
  {/each}
</ul>
