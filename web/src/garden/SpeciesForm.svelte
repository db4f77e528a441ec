<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, ask, type Entry, type Problem, type Schemas, type Species } from '../api/client';
  import AnchorField from './AnchorField.svelte';
  import Apart from './Apart.svelte';
  import Field from '../lib/Field.svelte';
  import Pick from '../lib/Pick.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import { attempt } from '../lib/house.svelte';
  import Again from './Again.svelte';
  import { draftOf, dropDraft, keepDraft } from '../lib/draft';
  import { toFault } from '../lib/fault';
  import { keptOf } from '../lib/kept';
  import { whileOpen } from '../lib/opened';
  import { bare, type Kind } from '../lib/units';

  interface Props {
    from: Species; // the entry that is corrected, or that a new one starts from
    fresh: boolean; // a new entry
    troubles: string[]; // known trouble ids
    onkept: (id: string) => void;
    onclose: () => void;
  }
  let { from, fresh, troubles, onkept, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally -- the form starts from the entry and then is the user's
  const draft = fresh ? `species like ${from.id}` : `species ${from.id}`;
  // svelte-ignore state_referenced_locally
  const began = start();
  let back = $state(draftOf<Entry>(draft) !== undefined); // what was typed last time is here again
  let e = $state<Entry>(draftOf<Entry>(draft) ?? start());
  $effect(() => keepDraft(draft, $state.snapshot(e), began));
  onMount(() => whileOpen(() => onclose()));
  function start(): Entry {
    const { source: _s, version: _v, ...entry } = structuredClone($state.snapshot(from)) as Species;
    return fresh ? { ...entry, id: '', common: '', botanical: '' } : entry;
  }
  let form = $state<HTMLFormElement>();
  let problem = $state<Problem>();
  const said = $derived(problem?.fields ?? {});
  const number = (s: string) => bare(s);

  type Numbers = keyof { [K in keyof Entry as Entry[K] extends number ? K : never]: 1 };
  const texts = [
    ['common', 'Common name'],
    ['botanical', 'Botanical name'],
    ['family', 'Family'],
    ['edible', 'Eaten of it'],
  ] as const;
  const numbers: [Numbers, string, string, Kind?][] = [
    ['hardiness_c', 'Wood bears in midwinter', '°C', 'temperature'],
    ['root_hardiness_c', 'Roots bear in the soil', '°C', 'temperature'],
    ['drying_kpa_h', 'Drying wind it bears', 'kPa·h'],
    ['lateness_days', 'May come late after damage by', 'days'],
    ['growth_cm_year', 'Grows in a year', 'cm', 'shoot'],
    ['regrowth_cm', 'Regrows after a hard cut', 'cm', 'shoot'],
    ['root_reach', 'Roots reach', 'crown spreads'],
  ];
  // A list to choose from holds nothing but what the entry takes.
  const choice = <K extends keyof Entry>(key: K, name: string, list: Entry[K][]) => [key, name, list as string[]] as const;
  const choices = [
    choice('form', 'Form', ['tree', 'conifer', 'shrub', 'subshrub', 'climber', 'palm', 'perennial']),
    choice('leaf_season', 'Leaves', ['evergreen', 'semi-evergreen', 'deciduous', 'dies back in winter']),
    choice('light', 'Light', ['full sun', 'sun or part shade', 'part shade', 'shade']),
    choice('soil_water', 'Soil', ['dry', 'well drained', 'even', 'moist', 'wet']),
    choice('thirst', 'Takes water from its neighbours', ['low', 'medium', 'high']),
    choice('hard_pruning', 'Cut hard, it comes back', ['from the base', 'old wood', 'green wood only', 'never']),
    choice('sap_bleeding', 'Sap bleeds', ['none', 'some', 'heavy']),
    choice('poisonous', 'Poisonous', ['no', 'mild', 'strong']),
    choice('pet_danger', 'Danger to pets', ['none', 'mild', 'serious']),
  ];
  const flags: [keyof Entry, string][] = [
    ['weak_wood', 'Weak wood'],
    ['short_lived', 'Short-lived'],
    ['invasive', 'Spreads where it should not'],
    ['spiny', 'Spiny'],
  ];
  const habits: Entry['bloom']['habit'][] = [
    'old wood',
    'new wood',
    'both',
    'spur',
    'once-flowering rose',
    'repeat rose',
    'perennial',
    'palm',
    'conifer',
    'vine that bleeds',
    'tender subshrub',
    'citrus',
    'evergreen for leaf',
  ];
  const any = $derived(e as unknown as Record<string, unknown>);
  const slug = (s: string) =>
    s
      .toLowerCase()
      .normalize('NFD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '');

  const theirs = $derived(keptOf<Species>(problem));
  async function keep(ev?: SubmitEvent, version = fresh ? 0 : from.version) {
    ev?.preventDefault();
    problem = await attempt(async () => {
      const body = $state.snapshot(e) as Entry;
      delete body.like; // looked through: what it says is the firm's own
      if (fresh) body.id = slug(body.botanical) || 'new';
      if (body.leaf_season === 'evergreen') delete body.leaf_drop;
      else body.leaf_drop ??= { cooling: 300 };
      if (body.graft.habit === 'own roots') delete body.graft.rootstock_leaf;
      await ask(
        api.PUT('/api/v1/species/{id}', {
          params: { path: { id: body.id }, query: { version } },
          body,
        }),
      );
      dropDraft(draft);
      onkept(body.id);
    });
    toFault(problem, form);
  }
  const field = 'mt-1 min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2 font-normal';
  const rest = $derived(Object.entries(said).filter(([k]) => !shownAt(k)));
  const shownAt = (k: string) =>
    [...numbers, ...choices].some(([f]) => f === k) ||
    ['common', 'botanical', 'family', 'edible', 'habit'].includes(k) ||
    /^(leaf_out|leaf_drop|bloom\.(start|end|buds_set))/.test(k);
  const anchorSaid = (at: string) =>
    Object.entries(said)
      .filter(([k]) => k === at || k.startsWith(at + '.'))
      .map(([, m]) => m)
      .join('; ');
  type Caution = Schemas['CatalogueCaution'];
</script>

<form
  bind:this={form}
  class="border border-ink bg-white p-4"
  onsubmit={keep}
  aria-label={fresh ? 'A new species' : `Correct ${from.common}`}
>
  <h1>{fresh ? 'A new species' : `Correct ${from.common}`}</h1>
  <p class="text-sm text-soft">
    {fresh
      ? `Starts from ${from.common}: change what is different.`
      : 'The built entry stays beside yours; you can go back to it.'}
  </p>
  <Again bind:back onanew={() => (e = start())} />
  <div class="mt-3 grid gap-x-4 gap-y-3 sm:grid-cols-6">
    {#each texts as [key, name] (key)}
      <Field class="sm:col-span-3" label={name} bind:value={() => e[key] ?? '', (v) => (e[key] = v)} problem={said[key]} />
    {/each}
    <label class="font-semibold sm:col-span-6"
      >In plain words<textarea class="{field} min-h-20 py-1.5" bind:value={e.habit}></textarea>
      {#if said.habit}<span class="text-sm font-normal text-bad">{said.habit}</span>{/if}</label
    >
    {#each choices as [key, name, list] (key)}
      <Pick
        class="sm:col-span-2"
        label={name}
        bind:value={() => String(any[key]), (v) => (any[key] = v)}
        options={list.map((v) => [v, v])}
        problem={said[key]}
      />
    {/each}
    {#each numbers as [key, name, si, kind] (key)}
      <Field
        class="sm:col-span-2"
        label={kind ? name : `${name} (${si})`}
        mode="decimal"
        {kind}
        bind:value={() => String(e[key]), (v) => (any[key] = number(v))}
        problem={said[key]}
      />
    {/each}
    <Field
      class="sm:col-span-2"
      label="Grown up, height"
      kind="length"
      bind:value={() => String(e.mature.height_m), (v) => (e.mature.height_m = number(v))}
    />
    <Field
      class="sm:col-span-2"
      label="Grown up, spread"
      kind="length"
      bind:value={() => String(e.mature.spread_m), (v) => (e.mature.spread_m = number(v))}
    />
    <AnchorField
      label={e.leaf_season === 'evergreen' ? 'New flush' : 'Leaf-out'}
      bind:anchor={e.leaf_out}
      after={[]}
      problem={anchorSaid('leaf_out')}
    />
    {#if e.leaf_season !== 'evergreen'}
      <AnchorField
        label="Leaf drop"
        bind:anchor={() => e.leaf_drop ?? { cooling: 300 }, (v) => (e.leaf_drop = v)}
        after={['leaf_out']}
        problem={anchorSaid('leaf_drop')}
      />
    {/if}
    <AnchorField
      label="Start of bloom"
      bind:anchor={e.bloom.start}
      after={['leaf_out', 'leaf_drop']}
      problem={anchorSaid('bloom.start')}
    />
    <AnchorField
      label="End of bloom"
      bind:anchor={e.bloom.end}
      after={['bloom_start', 'leaf_out', 'leaf_drop']}
      problem={anchorSaid('bloom.end')}
    />
    <div class="sm:col-span-3">
      <Tickbox
        class="font-semibold"
        label="Forms its flower buds the year before"
        checked={!!e.bloom.buds_set}
        onpick={(on) => (e.bloom.buds_set = on ? { degree_days: 900 } : undefined)}
      />
      {#if anchorSaid('bloom.buds_set')}<span class="text-sm text-bad">{anchorSaid('bloom.buds_set')}</span>{/if}
    </div>
    {#if e.bloom.buds_set}
      <AnchorField
        label="Flower buds set"
        bind:anchor={() => e.bloom.buds_set!, (v) => (e.bloom.buds_set = v)}
        after={['leaf_out', 'bloom_start', 'bloom_end']}
      />
    {/if}
    <Pick class="sm:col-span-2" label="Blooms on" bind:value={e.bloom.habit} options={habits.map((h) => [h, h])} />
    <Field
      class="sm:col-span-2"
      label="Share on old wood (%)"
      mode="numeric"
      bind:value={
        () => String(Math.round(100 * e.bloom.old_wood)),
        (v) => {
          e.bloom.old_wood = number(v) / 100;
          e.bloom.new_wood = Math.round(100 * (1 - e.bloom.old_wood)) / 100;
        }
      }
    />
    <Pick
      class="sm:col-span-2"
      label="Grafted"
      bind:value={e.graft.habit}
      options={(['own roots', 'sometimes', 'usually'] as const).map((g) => [g, g])}
    />
    {#if e.graft.habit !== 'own roots'}
      <Field
        class="sm:col-span-6"
        label="Leaf of the rootstock"
        bind:value={() => e.graft.rootstock_leaf ?? '', (v) => (e.graft.rootstock_leaf = v)}
      />
    {/if}
    <fieldset class="sm:col-span-6">
      <legend class="sr-only">Traits</legend>
      <div class="flex flex-wrap gap-x-6">
        {#each flags as [key, name] (key)}
          <Tickbox label={name} checked={any[key] === true} onpick={(on) => (any[key] = on)} />
        {/each}
      </div>
    </fieldset>
    <label class="font-semibold sm:col-span-6"
      >Prone to <span class="font-normal text-soft">(ids, with commas)</span><input
        class={field}
        list="troubles"
        value={e.pests.join(', ')}
        onchange={(ev) =>
          (e.pests = ev.currentTarget.value
            .split(',')
            .map((s) => s.trim())
            .filter(Boolean))}
      />
      <datalist id="troubles"
        >{#each troubles as t}<option value={t}></option>{/each}</datalist
      ></label
    >
    <fieldset class="sm:col-span-6">
      <legend class="font-semibold">Cautions</legend>
      {#each e.cautions as c, i (i)}
        <div class="mt-1 flex flex-wrap gap-2">
          <select
            class="min-h-11 rounded-sm border border-gray-400 bg-white px-1.5"
            aria-label="Kind of caution {i + 1}"
            bind:value={c.kind}
            >{#each ['poisonous', 'skin', 'thorns', 'pets', 'allergy'] as k}<option>{k}</option>{/each}</select
          >
          <input
            class="min-h-11 min-w-40 flex-1 rounded-sm border border-gray-400 bg-white px-2"
            aria-label="Caution {i + 1}"
            bind:value={c.text}
          />
          <button
            type="button"
            class="min-h-11 px-2 text-moss underline"
            onclick={() => (e.cautions = e.cautions.filter((_: Caution, k: number) => k !== i))}>Take out</button
          >
        </div>
      {/each}
      <button
        type="button"
        class="min-h-11 text-moss underline"
        onclick={() => (e.cautions = [...e.cautions, { kind: 'poisonous', text: '' }])}>Add a caution</button
      >
    </fieldset>
  </div>
  {#each rest as [k, text] (k)}<p class="text-sm text-bad">{k.replaceAll('_', ' ')}: {text}</p>{/each}
  {#if theirs}
    <Apart {theirs} mine={$state.snapshot(e)} onmine={() => keep(undefined, theirs.version)} ontheirs={() => onkept(theirs.id)} />
  {/if}
  <div class="mt-3 flex gap-2">
    <Button type="submit">Save</Button><Button color="light" onclick={onclose}>Back</Button>
  </div>
</form>
