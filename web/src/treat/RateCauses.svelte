<script lang="ts">
  /** What a label names a rate for: causes, one by one; for all where none is named. */
  import Pick from '../lib/Pick.svelte';

  interface Props {
    chosen: string[];
    causes: [string, string, string][];
  }
  let { chosen = $bindable(), causes }: Props = $props();
  let next = $state('');
  const name = (id: string) => causes.find(([c]) => c === id)?.[1] ?? id;
</script>

<div class="sm:col-span-6">
  <p class="text-sm">
    {#if chosen.length}Labelled for:
      {#each chosen as c}<button
          type="button"
          class="mr-2 inline-flex min-h-11 items-center gap-1 border border-rule px-2"
          onclick={() => (chosen = chosen.filter((x) => x !== c))}
          ><span>{name(c)}</span><span aria-hidden="true">✕</span><span class="sr-only">: take it off</span></button
        >{/each}{:else}This rate counts for everything the means is used for.{/if}
  </p>
  <Pick
    label={chosen.length ? 'And for' : 'The label names it only for'}
    off="Choose"
    bind:value={next}
    options={causes.filter(([c]) => !chosen.includes(c))}
    onpick={(c) => {
      chosen = [...chosen, c];
      next = '';
    }}
  />
</div>
