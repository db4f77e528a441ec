<script lang="ts">
  /** Names of a plant file that are no kind's: each is asked about once, with what it may mean. */
  import { Button } from 'flowbite-svelte';
  import type { Schemas, Species } from '../api/client';
  import Pick from '../lib/Pick.svelte';
  import SpeciesPick from '../lib/SpeciesPick.svelte';
  import NewKind from './NewKind.svelte';

  interface Props {
    file: string;
    lines: number;
    names: Schemas['NoKind'][];
    species: Species[];
    used: string[];
    onnew: (kind: Species) => void; // a kind was added to the book
    ontold: (called: Record<string, string>) => void;
    onclose: () => void;
  }
  let { file, lines, names, species, used, onnew, ontold, onclose }: Props = $props();
  const other = '?';
  const leave = '-';
  // svelte-ignore state_referenced_locally -- asked of one file: another one is another slip
  let told = $state(names.map(() => ({ pick: '', typed: '' })));
  const kindOf = (i: number): string | undefined => {
    const t = told[i]!;
    if (t.pick === leave) return '';
    if (t.pick !== other) return t.pick || undefined;
    return species.find((s) => `${s.common} (${s.botanical})` === t.typed)?.id;
  };
  const open = $derived(names.filter((_, i) => kindOf(i) === undefined).length);
  let adding = $state(false);
  let named = $state(0); // the name that a new kind is added for
  const where = (n: Schemas['NoKind']) =>
    n.lines.length === 1
      ? `line ${n.lines[0]}`
      : `${n.lines.length} lines: ${n.lines.slice(0, 6).join(', ')}${n.lines.length > 6 ? ' …' : ''}`;
</script>

<form
  class="mt-3 border border-ink bg-white p-3"
  aria-label="Names of the file"
  onsubmit={(e) => {
    e.preventDefault();
    if (!open) ontold(Object.fromEntries(names.map((n, i) => [n.name, kindOf(i)!])));
  }}
>
  <p role="status">
    <b
      >{names.length === 1 ? 'One name' : `${names.length} names`} in {file}
      {names.length === 1 ? 'is' : 'are'} not in the book.</b
    >
    Nothing is taken yet. Say once what each one is: it is known from then on, in files and in forms.
  </p>
  <ul class="mt-2">
    {#each names as n, i (n.name)}
      <li class="grid gap-x-4 gap-y-1 border-t border-rule py-2 sm:grid-cols-[minmax(12rem,1fr)_2fr]">
        <p><b>{n.name}</b><span class="block text-sm text-soft">{where(n)}</span></p>
        <div>
          <Pick
            label="{n.name} is"
            off="Choose"
            bind:value={told[i]!.pick}
            options={[
              ...n.near.map((k): [string, string] => [k.id, `${k.common} (${k.botanical})`]),
              [other, 'another kind: look it up'],
              [leave, n.lines.length === 1 ? 'nothing to keep: leave its line out' : 'nothing to keep: leave its lines out'],
            ]}
          />
          {#if told[i]!.pick === other}<SpeciesPick {species} {used} bind:value={told[i]!.typed} autofocus />
            <button type="button" class="min-h-11 text-sm text-moss underline" onclick={() => ((named = i), (adding = true))}
              >It is not in the book: add it, in five fields</button
            >{/if}
        </div>
      </li>
    {/each}
  </ul>
  <div class="mt-2 flex flex-wrap items-center gap-2">
    <Button type="submit" disabled={open > 0}>{lines === 1 ? 'Take the plant' : `Take the ${lines} plants`}</Button>
    <Button color="light" onclick={onclose}>Import nothing</Button>
    {#if open}<span class="text-sm text-soft">{open === 1 ? 'one name is' : `${open} names are`} still to be told</span>{/if}
  </div>
</form>
<NewKind
  bind:open={adding}
  {species}
  name={names[named]?.name}
  onkept={(kind) => {
    onnew(kind);
    told[named]!.typed = `${kind.common} (${kind.botanical})`;
  }}
/>
