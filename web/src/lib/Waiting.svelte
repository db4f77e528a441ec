<script lang="ts">
  /** The shape of what comes, when it takes longer than a blink. */
  let { rows = 6 }: { rows?: number } = $props();
  let late = $state(false);
  $effect(() => {
    const t = setTimeout(() => (late = true), 150);
    return () => clearTimeout(t);
  });
</script>

{#if late}
  <div class="space-y-3 p-5" role="status" aria-busy="true">
    <span class="sr-only">Gathering the record</span>
    {#each { length: rows }, i (i)}
      <div class="h-9 bg-rule opacity-40" style:width="{92 - ((i * 17) % 40)}%"></div>
    {/each}
  </div>
{/if}
