<script lang="ts" module>
  import { afterPaint } from './paint';

  // One part after the other, each in a turn of its own, so that a press between them is heard at once; the first when what
  // stands before it is drawn. (Messages and not timers: timers of a page behind others wait for a second.)
  const waits: (() => void)[] = [];
  const turns = new MessageChannel();
  const go = () => turns.port2.postMessage(0);
  turns.port1.onmessage = () => {
    const then = waits.shift();
    if (waits.length) go();
    then?.();
  };
  const next = (then: () => void) => {
    if (waits.push(then) === 1) afterPaint(go);
  };
</script>

<script lang="ts">
  /**
   * What stands further down or beside: it is drawn when what is read first stands on the screen. With `when`, not before
   * that was once so; from then on it stays.
   */
  import { onDestroy, type Snippet } from 'svelte';

  let { children, when = true }: { children: Snippet; when?: boolean } = $props();
  let ready = $state(false);
  let gone = false;
  onDestroy(() => (gone = true));
  $effect(() => {
    if (when && !ready) next(() => (ready ||= !gone));
  });
</script>

{#if ready}{@render children()}{/if}
