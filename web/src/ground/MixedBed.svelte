<script lang="ts">
  /** Kinds that share a bed: how many of each, what they cost, and the planting as jobs. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, type Problem, type Schemas } from '../api/client';
  import { reading } from '../lib/reading';
  import { bare, entered, figure, metres, read, unit } from '../lib/units';
  import Pick from '../lib/Pick.svelte';

  interface Props {
    property: number;
    kinds: { species: string; common: string; price: number }[];
    area: number; // m²
    busy: boolean;
    onplant: (kinds: Schemas['PlantedKind'][]) => void;
    ondrop: (species: string) => void;
  }
  let { property, kinds, area, busy, onplant, ondrop }: Props = $props();
  let shares = $state<Record<string, string>>({});
  let spaces = $state<Record<string, string>>({});
  let rows = $state('gaps');
  let bed = $state.raw<Schemas['ReplacementBed']>();
  let problem = $state.raw<Problem>();
  const reads = reading();
  const n = (text: string | undefined) => bare(text ?? '') || 0;
  const share = (id: string) => (shares[id] === undefined ? Math.floor(100 / kinds.length) : n(shares[id]));
  $effect(() => {
    const body: Schemas['ReplacementIn'] = {
      property,
      only: kinds.map((k) => k.species),
      limit: 1,
      area_m2: area,
      rows: rows === 'rows',
      bed: kinds.map((k) => ({
        species: k.species,
        share: share(k.species) / 100,
        price: k.price,
        spacing_m: spaces[k.species] ? entered('length', read(spaces[k.species]!, 'length')) || 0 : 0,
      })),
    };
    void reads(async (signal) => {
      problem = undefined;
      bed = (await ask(api.POST('/api/v1/reckon/replacement', { body, signal }))).bed;
    }).then((p) => (problem = p ?? problem));
  });
  const line = (id: string) => bed?.lines?.find((l) => l.species === id);
</script>

<section aria-label="A mixed bed" class="mt-3 border border-ink bg-white px-3 py-2">
  <div class="flex flex-wrap items-end gap-4">
    <p class="flex-1 font-bold">A bed of {figure(area, 'm²')}</p>
    <Pick
      label="Set"
      bind:value={rows}
      options={[
        ['gaps', 'in gaps'],
        ['rows', 'in rows'],
      ]}
    />
  </div>
  {#if problem}<p role="alert" class="border-l-4 border-bad pl-2">{problem.message}</p>{/if}
  <table class="mt-1 w-full text-sm">
    <thead
      ><tr class="text-left"
        ><th>Kind</th><th>Share %</th><th>Apart ({unit('length')})</th><th>Plants</th><th>Cost</th><th></th></tr
      ></thead
    >
    <tbody>
      {#each kinds as k (k.species)}
        {@const l = line(k.species)}
        <tr class="border-t border-rule">
          <td class="py-1">{k.common}</td>
          <td
            ><input
              class="min-h-11 w-16 rounded-sm border border-gray-400 px-2"
              inputmode="numeric"
              aria-label="Share of {k.common}"
              value={share(k.species)}
              onchange={(e) => (shares[k.species] = e.currentTarget.value)}
            /></td
          >
          <td
            ><input
              class="min-h-11 w-20 rounded-sm border border-gray-400 px-2"
              inputmode="decimal"
              aria-label="Apart: {k.common}"
              placeholder={l ? metres(l.spacing_m) : ''}
              value={spaces[k.species] ?? ''}
              onchange={(e) => (spaces[k.species] = e.currentTarget.value)}
            /></td
          >
          <td class="font-bold">{l?.count ?? ''}</td>
          <td>{l?.cost ? l.cost.toFixed(2) : '–'}</td>
          <td><button class="min-h-11 text-moss underline" onclick={() => ondrop(k.species)}>Out</button></td>
        </tr>
      {/each}
    </tbody>
  </table>
  {#if bed}
    <p class="mt-1">
      <b>{bed.count} plants</b>{bed.cost ? `, ${bed.cost.toFixed(2)} in all` : ''}{bed.bare_m2 > 0.05
        ? `; ${figure(bed.bare_m2, 'm²')} stay bare`
        : ''}.
    </p>
    {#each bed.notes as t}<p class="border-l-4 border-sun pl-2 text-sm">{t}</p>{/each}
    <Button
      class="mt-2 min-h-11"
      disabled={busy || !!problem}
      onclick={() => onplant((bed?.lines ?? []).map((l) => ({ species: l.species, count: l.count, spacing_m: l.spacing_m })))}
      >Plant this bed</Button
    >
  {/if}
</section>
