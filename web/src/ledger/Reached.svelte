<script lang="ts">
  /** Who has to do with a property, to be called or written to, and the way there. */
  import { api, ask, type Schemas } from '../api/client';
  import { reading } from '../lib/reading';

  interface Props {
    property: number;
    at: { latitude: number; longitude: number };
  }
  let { property, at }: Props = $props();
  let list = $state.raw<Schemas['Client'][]>([]);
  const reads = reading();
  $effect(() => {
    const query = { property };
    void reads(async (signal) => {
      list = (await ask(api.GET('/api/v1/clients', { params: { query }, signal }))).items;
    });
  });
  const role = (c: Schemas['Client']) => c.of.find((o) => o.property_id === property)?.role ?? '';
  const link = 'inline-flex min-h-11 items-center underline';
</script>

<ul class="flex flex-wrap gap-x-6 text-sm" aria-label="Contacts">
  {#each list as c (c.id)}<li class="flex flex-wrap items-center gap-x-3">
      <span><b>{c.name}</b>, {role(c)}</span>
      {#if c.phone}<a class={link} href="tel:{c.phone.replace(/[^+\d]/g, '')}">{c.phone}</a>{/if}
      {#if c.email}<a class={link} href="mailto:{c.email}">{c.email}</a>{/if}
    </li>{/each}
  <li><a class={link} href="geo:{at.latitude},{at.longitude}">The way there</a></li>
</ul>
