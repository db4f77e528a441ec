<script lang="ts">
  /** Both versions of a record that another changed while it was being changed here: what differs, and which stands. */
  import { Button } from 'flowbite-svelte';

  interface Props {
    theirs: object; // as it is kept now
    mine: object; // as it was sent
    names?: Record<string, string>; // of fields, where their key does not say it
    onmine: () => void;
    ontheirs: () => void;
  }
  let { theirs, mine, names = {}, onmine, ontheirs }: Props = $props();

  const written = (v: unknown): string => {
    if (v === undefined || v === null || v === '') return 'nothing';
    if (typeof v === 'boolean') return v ? 'yes' : 'no';
    if (typeof v === 'object') return 'changed';
    return String(v);
  };
  const plain = (v: unknown) => JSON.stringify(v === '' || v === 0 || v === false || v === null ? undefined : v);
  const rows = $derived.by(() => {
    const kept = theirs as Record<string, unknown>;
    return Object.entries(mine)
      .filter(([k, v]) => k !== 'version' && k in kept && plain(v) !== plain(kept[k]))
      .map(([k, v]) => ({
        name: names[k] ?? k.replace(/_(m|l|mm|c)$/, '').replaceAll('_', ' '),
        kept: written(kept[k]),
        yours: typeof v === 'object' && v !== null ? 'changed otherwise' : written(v),
      }));
  });
</script>

<section class="mt-3 border-2 border-sun bg-white p-3" role="alert" aria-label="Changed meanwhile">
  <p class="font-semibold">Somebody else changed this while you did. Nothing of yours is lost.</p>
  {#if rows.length}
    <table class="mt-1 text-[0.9375rem]">
      <thead
        ><tr class="text-left text-soft"
          ><th></th><th class="pr-4 font-normal">as kept now</th><th class="font-normal">yours</th></tr
        ></thead
      >
      <tbody>
        {#each rows as r (r.name)}<tr
            ><th class="pr-4 text-left font-normal">{r.name}</th><td class="pr-4">{r.kept}</td><td class="font-semibold"
              >{r.yours}</td
            ></tr
          >{/each}
      </tbody>
    </table>
  {:else}<p class="text-sm">What you entered is the same as what is kept now.</p>{/if}
  <div class="mt-2 flex flex-wrap gap-2">
    <Button size="sm" onclick={onmine}>Overwrite it with mine</Button>
    <Button size="sm" color="light" onclick={ontheirs}>Leave the saved version</Button>
  </div>
</section>
