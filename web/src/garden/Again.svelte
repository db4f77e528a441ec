<script lang="ts">
  /** Says that a form holds what was typed last time and not kept, and lets it begin anew. */
  let { back = $bindable(), class: more = '', onanew }: { back: boolean; class?: string; onanew: () => void } = $props();
</script>

{#if back}<p class="text-sm {more}" role="status">
    What you typed last time is here again.
    <button
      type="button"
      class="min-h-11 text-moss underline"
      onclick={() => {
        back = false;
        onanew();
      }}>Start again</button
    >
  </p>{/if}
