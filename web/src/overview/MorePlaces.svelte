<script lang="ts">
  /** What the bar at the foot of the phone has no room for. */
  import { Modal } from 'flowbite-svelte';
  import { inWords } from '../lib/dates';
  import { house } from '../lib/house.svelte';

  interface Props {
    open: boolean;
    places: { name: string; path: string; count?: number; of: string }[];
    onfind: () => void;
    onhelp: () => void;
    onmove?: () => void; // the sample's time; absent where it is the clock's
  }
  let { open = $bindable(), places, onfind, onhelp, onmove }: Props = $props();
  const row = 'min-h-12 border-b border-rule text-left';
  const then = (next: () => void) => () => {
    open = false;
    next();
  };
</script>

<Modal bind:open title="More" size="xs">
  <div class="grid gap-2 text-lg text-ink">
    {#each places as p (p.path)}
      <a class="flex items-center {row}" href="#{p.path}" onclick={() => (open = false)}
        >{p.name}{#if p.count}&nbsp;<span class="text-soft">{p.count} {p.of}</span>{/if}</a
      >
    {/each}
    <button class="{row} text-moss" onclick={then(onfind)}>Find</button>
    <button class="{row} text-moss" onclick={then(onhelp)}>Help on this screen</button>
    {#if onmove}<button class="{row} text-moss" onclick={then(onmove)}>Move the time: {inWords(house.today)}</button>{/if}
    <a class="flex items-center {row}" href="#/settings" onclick={() => (open = false)}
      >Settings of {house.frame?.firm.name ?? 'the firm'}</a
    >
    <button
      class="min-h-12 text-left text-moss"
      role="switch"
      aria-checked={house.glare}
      onclick={() => house.setGlare(!house.glare)}
      >Full-sun reading (black on white, larger): <b>{house.glare ? 'on' : 'off'}</b></button
    >
  </div>
</Modal>
