<script lang="ts">
  /** A kind that is not in the book, in five fields: the rest is as the kind it is most like. */
  import { Button, Modal } from 'flowbite-svelte';
  import { api, ask, onceKey, type Problem, type Schemas, type Species } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { toFault } from '../lib/fault';
  import Pick from '../lib/Pick.svelte';
  import SpeciesPick from '../lib/SpeciesPick.svelte';

  interface Props {
    open: boolean;
    species: Species[];
    name?: string; // as it was written
    onkept: (kind: Species) => void;
  }
  let { open = $bindable(), species, name = '', onkept }: Props = $props();

  type In = Schemas['CatalogueNewKind'];
  const blank = () => ({
    common: name,
    botanical: '',
    form: 'shrub' as In['form'],
    leaf: 'deciduous' as In['leaf_season'],
    zone: '',
    like: '',
  });
  let f = $state(blank());
  let was = false;
  $effect(() => {
    if (open && !was) f = blank();
    was = open;
  });
  let form = $state<HTMLFormElement>();
  let problem = $state<Problem>();
  let busy = $state(false);
  const said = $derived(problem?.fields ?? {});
  const like = $derived(species.find((s) => `${s.common} (${s.botanical})` === f.like));
  $effect(() => {
    if (!like) return;
    f.form = like.form as In['form'];
    f.leaf = like.leaf_season as In['leaf_season'];
  });
  async function keep() {
    busy = true;
    problem = await attempt(async () => {
      const body: In = {
        common: f.common.trim(),
        botanical: f.botanical.trim() || undefined,
        form: f.form,
        leaf_season: f.leaf,
        zone: f.zone.trim(),
        like: like?.id ?? f.like,
      };
      const kind = await ask(api.POST('/api/v1/species/like', { params: { header: onceKey() }, body }));
      open = false;
      house.say(`${kind.common} is in the book. What was taken from ${like?.common ?? 'its like'} is marked there as a guess.`);
      onkept(kind);
    });
    busy = false;
    toFault(problem, form);
  }
</script>

<Modal bind:open title="A kind that is not in the book" size="md" class="text-ink!">
  {#if open}
    <form
      bind:this={form}
      class="grid gap-3 sm:grid-cols-2"
      aria-label="A new kind"
      onsubmit={(e) => {
        e.preventDefault();
        e.stopPropagation();
        void keep();
      }}
    >
      <Field label="Common name" bind:value={f.common} problem={said.common} />
      <Field label="Botanical name, if known" bind:value={f.botanical} problem={said.botanical} />
      <SpeciesPick class="sm:col-span-2" label="Most like" {species} bind:value={f.like} problem={said.like} />
      <Pick
        label="Form"
        bind:value={f.form}
        options={(['tree', 'conifer', 'shrub', 'subshrub', 'climber', 'palm', 'perennial'] as const).map(
          (v): [In['form'], string] => [v, v],
        )}
      />
      <Pick
        label="Leaves"
        bind:value={f.leaf}
        options={(['evergreen', 'semi-evergreen', 'deciduous', 'dies back in winter'] as const).map(
          (v): [In['leaf_season'], string] => [v, v],
        )}
      />
      <Field class="sm:col-span-2" label="Hardy to zone" bind:value={f.zone} placeholder="7, or 7a" problem={said.zone} />
      <p class="text-sm text-soft sm:col-span-2">
        {like
          ? `Dates, growth, cuts, water and what it is prone to are taken from ${like.common}`
          : 'All else is taken from the kind it is most like'}
        and marked as guesses; correct them in the Almanac when you know better. Until then it is taken as poisonous.
      </p>
      <div class="flex gap-2 sm:col-span-2">
        <Button type="submit" disabled={busy}>Add it to the book</Button>
        <Button color="light" onclick={() => (open = false)}>Back</Button>
      </div>
    </form>
  {/if}
</Modal>
