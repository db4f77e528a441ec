<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Waiting } from '../field/device';
  import { field } from '../field/field.svelte';
  import { beyond, joined } from '../field/join';
  import { found } from './checks';
  import { metres } from '../lib/dates';
  import { attempt } from '../lib/house.svelte';
  import type { Check } from '../api/client';

  let { waiting, name }: { waiting: Waiting; name: string } = $props();
  const theirs = $derived(waiting.theirs!.checks);
  const say = (c: Check) => found(c) + (c.height_m ? ` at ${metres(c.height_m)}` : '');
  const settle = (how: 'both' | 'mine' | 'theirs') => attempt(() => field.settle(waiting, how));
</script>

<div role="alert" class="border-2 border-sun bg-white p-3 text-[0.9375rem]">
  <p class="font-bold">Another device has looked at this {name.toLowerCase()} meanwhile. Nothing is lost; say what stands.</p>
  <div class="mt-1 grid grid-cols-2 gap-3">
    <div>
      <h3 class="text-sm font-semibold">Saved by the other device</h3>
      <ul class="list-disc pl-4 text-sm">
        {#each theirs as c, i (i)}<li>{say(c)}</li>{:else}<li>no checks</li>{/each}
        {#if waiting.theirs!.note}<li>“{waiting.theirs!.note}”</li>{/if}
      </ul>
    </div>
    <div>
      <h3 class="text-sm font-semibold">Added here</h3>
      <ul class="list-disc pl-4 text-sm">
        {#each beyond(waiting.checks, waiting.known) as c, i (i)}<li>{say(c)}</li>{:else}<li>no checks</li>{/each}
        {#if waiting.note}<li>“{waiting.note}”</li>{/if}
      </ul>
    </div>
  </div>
  <div class="mt-2 flex flex-wrap gap-2">
    <Button onclick={() => settle('both')}>Keep both ({joined(waiting.known, waiting.checks, theirs).length} checks)</Button>
    <Button color="light" onclick={() => settle('mine')}>Only mine</Button>
    <Button color="light" onclick={() => settle('theirs')}>Only theirs</Button>
  </div>
</div>
