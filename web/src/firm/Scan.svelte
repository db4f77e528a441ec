<script lang="ts">
  /** A link as a code to scan with a telephone, and to copy. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, type Schemas } from '../api/client';
  import { reading } from '../lib/reading';
  import { house } from '../lib/house.svelte';

  let { link, what }: { link: string; what: string } = $props();
  let code = $state.raw<Schemas['Scan']>();
  const reads = reading();
  $effect(() => {
    const text = link;
    void reads(async (signal) => {
      code = await ask(api.POST('/api/v1/reckon/scan', { body: { text }, signal }));
    });
  });
  let shown = $state<HTMLElement>();
  /** Where the browser keeps its clipboard from pages without a certificate, the link is picked out to be copied by hand. */
  async function copy() {
    try {
      await navigator.clipboard.writeText(link);
      house.say('The link is copied.');
    } catch {
      getSelection()?.selectAllChildren(shown!);
      house.say('This browser does not let the page copy: the link is picked out, copy it by hand.');
    }
  }
</script>

<div class="flex flex-wrap items-start gap-4">
  {#if code}<svg
      role="img"
      aria-label="{what}: a code to scan"
      viewBox="-4 -4 {code.size + 8} {code.size + 8}"
      class="size-40 border border-rule bg-white"
      shape-rendering="crispEdges"><path d={code.path} fill="#000" /></svg
    >{/if}
  <div class="min-w-48 flex-1">
    <p class="font-mono text-sm break-all" data-testid="link" bind:this={shown}>{link}</p>
    <Button size="sm" color="light" class="mt-2 min-h-11" onclick={copy}>Copy the link</Button>
  </div>
</div>
