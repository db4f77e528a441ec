<script lang="ts">
  import { Button, Input } from 'flowbite-svelte';
  import { api, ask, onceKey, type Plant, type Problem, type Species } from '../api/client';
  import { attempt } from '../lib/house.svelte';

  interface Props {
    species: Species[];
    property: number;
    plant?: Plant;
    onkept: (p: Plant) => void;
    onclose: () => void;
    onremove: (p: Plant) => void;
  }
  let { species, property, plant, onkept, onclose, onremove }: Props = $props();

  // svelte-ignore state_referenced_locally -- the form starts from the plant and then is the user's
  let name = $state(plant ? `${plant.common} (${plant.botanical})` : '');
  // svelte-ignore state_referenced_locally
  let f = $state({
    label: plant?.label ?? '',
    height: plant ? String(plant.height_m) : '',
    spread: plant ? String(plant.spread_m) : '',
    count: String(plant?.count ?? 1),
    note: plant?.note ?? '',
  });
  let form = $state<HTMLFormElement>();
  let problem = $state<Problem>();
  let key = onceKey();

  const written = (s: Species) => `${s.common} (${s.botanical})`;
  const chosen = $derived.by(() => {
    const n = name.trim().toLowerCase();
    return (
      species.find((s) => written(s).toLowerCase() === n) ??
      species.find((s) => [s.common, s.botanical, s.id].some((x) => x.toLowerCase() === n))
    );
  });
  const number = (s: string) => Number(String(s).replace(',', '.'));
  const said = $derived(problem?.fields ?? {});

  async function keep(e: SubmitEvent) {
    e.preventDefault();
    problem = await attempt(async () => {
      const body = {
        species: chosen?.id ?? (name.trim() || '?'),
        label: f.label,
        height_m: number(f.height) || 0,
        spread_m: number(f.spread) || 0,
        count: Math.round(number(f.count)) || 1,
        note: f.note,
      };
      const p = plant
        ? await ask(
            api.PUT('/api/v1/plants/{id}', { params: { path: { id: plant.id } }, body: { ...body, version: plant.version } }),
          )
        : await ask(api.POST('/api/v1/plants', { params: { header: key }, body: { ...body, property_id: property } }));
      onkept(p);
    });
    key = onceKey();
  }
</script>

<svelte:window onkeydown={(e) => e.key === 'Escape' && form?.contains(e.target as Node) && onclose()} />

<form
  class="mt-3 border border-ink bg-white p-4"
  onsubmit={keep}
  aria-label={plant ? 'Change a plant' : 'Add a plant'}
  bind:this={form}
>
  <div class="grid gap-3 sm:grid-cols-6">
    <label class="font-semibold sm:col-span-3">
      Species
      <!-- svelte-ignore a11y_autofocus -- the form was asked for -->
      <Input
        class="mt-1 font-normal"
        list="species"
        bind:value={name}
        autofocus
        autocomplete="off"
        placeholder="Common or botanical name"
      />
      <datalist id="species"
        >{#each species as s (s.id)}<option value={written(s)}></option>{/each}</datalist
      >
      {#if said.species}<span class="text-sm font-normal text-bad">{said.species}</span>{/if}
    </label>
    <label class="font-semibold sm:col-span-3"
      >Where it stands<Input class="mt-1 font-normal" bind:value={f.label} placeholder="By the gate" /></label
    >
    <label class="font-semibold sm:col-span-2"
      >Height (m)<Input class="mt-1 font-normal" inputmode="decimal" bind:value={f.height} />
      {#if said.height_m}<span class="text-sm font-normal text-bad">{said.height_m}</span>{/if}</label
    >
    <label class="font-semibold sm:col-span-2"
      >Spread (m)<Input
        class="mt-1 font-normal"
        inputmode="decimal"
        bind:value={f.spread}
        placeholder="two thirds of the height"
      />
      {#if said.spread_m}<span class="text-sm font-normal text-bad">{said.spread_m}</span>{/if}</label
    >
    <label class="font-semibold sm:col-span-2"
      >How many<Input class="mt-1 font-normal" inputmode="numeric" bind:value={f.count} />
      {#if said.count}<span class="text-sm font-normal text-bad">{said.count}</span>{/if}</label
    >
    <label class="font-semibold sm:col-span-6">Note<Input class="mt-1 font-normal" bind:value={f.note} /></label>
  </div>
  {#if chosen}
    <p class="mt-2 text-sm text-soft">{chosen.habit} Up to {chosen.mature.height_m} m.</p>
    {#each chosen.cautions ?? [] as c (c.text)}<p class="text-sm text-sun">{c.text}</p>{/each}
  {/if}
  <div class="mt-3 flex gap-2">
    <Button type="submit">Keep</Button>
    <Button color="light" onclick={onclose}>Back</Button>
    {#if plant}<Button color="light" class="ml-auto" onclick={() => onremove(plant)}>Remove this plant</Button>{/if}
  </div>
</form>
