<script lang="ts">
  /** A product card: what stands on the label, and nothing else. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { attempt } from '../lib/house.svelte';
  import { keptOf } from '../lib/kept';
  import Pick from '../lib/Pick.svelte';
  import { toFault } from '../lib/fault';
  import RateCauses from './RateCauses.svelte';
  import { pers, type Product } from './treat';
  import { bare, imperial, productKind } from '../lib/units';

  interface Props {
    card?: Product;
    actives: Schemas['TreatmentActive'][];
    onkept: (p: Product) => void;
    onclose: () => void;
  }
  let { card, actives, onkept, onclose }: Props = $props();
  type Entered = NonNullable<Schemas['TreatmentRate']['entered']>;
  type Rate = { amount: string; unit: Entered['unit']; per: Entered['per']; for: string[] };
  /** The units of labels, those of the firm's side first. */
  const unitsOf: Record<string, { si: Entered['unit'][]; other: Entered['unit'][] }> = {
    mL: { si: ['mL', 'L'], other: ['fl oz', 'pt', 'qt', 'gal', 'tsp', 'tbsp'] },
    g: { si: ['g', 'kg'], other: ['oz', 'lb'] },
    piece: { si: ['piece'], other: ['piece'] },
  };
  const sided = <T,>(x: { si: T[]; other: T[] }) => [...new Set(imperial() ? [...x.other, ...x.si] : [...x.si, ...x.other])];
  // svelte-ignore state_referenced_locally -- the form starts from the card and then is the user's
  let f = $state({
    name: card?.name ?? '',
    active: card?.active ?? '',
    unit: card?.unit ?? 'mL',
    supplier: card?.supplier ?? '',
    rates: (card?.rates ?? []).map((r) => ({
      ...(r.entered ?? { amount: r.amount ?? 0, unit: card!.unit, per: r.per ?? 'L' }),
      amount: String(r.entered?.amount ?? r.amount),
      for: r.for ?? [],
    })) as Rate[],
    packs: (card?.packs ?? []).map((p) => ({ size: String(p.size), price: p.price ? String(p.price) : '' })),
    harvest: card?.harvest_days ? String(card.harvest_days) : '',
    reentry: card?.reentry_h ? String(card.reentry_h) : '',
    licence: card?.licence ?? '',
    registration: card?.registration ?? '',
    most: card?.most_uses ? String(card.most_uses) : '',
    interval: card?.interval_days ? String(card.interval_days) : '',
    buffer: card?.buffer_m ? String(card.buffer_m) : '',
    hazard: card?.hazard ?? '',
  });
  const fresh = (): Rate => ({
    amount: '',
    unit: unitsOf[f.unit]![imperial() ? 'other' : 'si'][0]!,
    per: imperial() ? 'gal' : 'L',
    for: [],
  });
  if (!f.rates.length) f.rates.push(fresh());
  if (!f.packs.length) f.packs.push({ size: '', price: '' });
  // svelte-ignore state_referenced_locally
  let version = $state(card?.version);
  let form = $state<HTMLFormElement>();
  let problem = $state<Problem>();
  const said = $derived(problem?.fields ?? {});
  const theirs = $derived(keptOf<Product>(problem));
  const number = (s: string) => bare(s) || 0;
  let causes = $state<[string, string, string][]>([]);
  void attempt(async () => {
    causes = (await ask(api.GET('/api/v1/causes'))).items.map((c): [string, string, string] => [c.id, c.name, c.group]);
  });
  let key = onceKey();
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    problem = await attempt(async () => {
      const body: Schemas['ProductIn'] = {
        name: f.name,
        active: f.active,
        unit: f.unit,
        supplier: f.supplier,
        rates: f.rates
          .filter((r) => r.amount !== '')
          .map((r) => ({ entered: { amount: number(r.amount), unit: r.unit, per: r.per }, for: r.for })),
        packs: f.packs.filter((p) => p.size !== '').map((p) => ({ size: number(p.size), price: number(p.price) })),
        harvest_days: number(f.harvest),
        reentry_h: number(f.reentry),
        licence: f.licence,
        registration: f.registration,
        most_uses: number(f.most),
        interval_days: number(f.interval),
        buffer_m: number(f.buffer),
        hazard: f.hazard,
      };
      const p = card
        ? await ask(
            api.PUT('/api/v1/products/{id}', { params: { path: { id: card.id! }, header: key }, body: { ...body, version } }),
          )
        : await ask(api.POST('/api/v1/products', { params: { header: key }, body }));
      onkept(p);
    });
    key = onceKey();
    toFault(problem, form);
  }
</script>

<form class="max-w-3xl border border-ink bg-white p-4" onsubmit={keep} aria-label="Product card" bind:this={form}>
  <h2>{card ? 'Change the card' : 'A product, as its label says'}</h2>
  <p class="text-sm text-soft">Rates, waits and hazards are copied from the label of the pack in your hand; the label is law.</p>
  <div class="mt-2 grid gap-3 sm:grid-cols-6">
    <Field class="sm:col-span-3" label="Name on the label" bind:value={f.name} problem={said.name} autofocus />
    <Pick
      class="sm:col-span-3"
      label="What works in it"
      off="Choose"
      bind:value={f.active}
      options={actives.map((a): [string, string, string] => [a.id, a.name, a.class])}
      problem={said.active}
    />
    <Pick
      class="sm:col-span-2"
      label="Measured in"
      bind:value={f.unit}
      onpick={(u) => f.rates.forEach((r) => (r.unit = unitsOf[u]![imperial() ? 'other' : 'si'][0]!))}
      options={[
        ['mL', imperial() ? 'fluid ounces (mL)' : 'mL'],
        ['g', imperial() ? 'ounces (g)' : 'g'],
        ['piece', 'pieces'],
      ]}
      problem={said.unit}
    />
    <Field class="sm:col-span-4" label="Bought from" bind:value={f.supplier} problem={said.supplier} />
    {#each f.rates as r, i (i)}
      <Field
        class="sm:col-span-2"
        label="Rate on the label"
        mode="decimal"
        bind:value={r.amount}
        problem={said[`rates[${i}].amount`]}
      />
      <Pick
        class="sm:col-span-1"
        label="in"
        bind:value={r.unit}
        options={sided(unitsOf[f.unit]!).map((u): [Entered['unit'], string] => [u, u === 'piece' ? 'pieces' : u])}
        problem={said[`rates[${i}].entered.unit`]}
      />
      <Pick
        class="sm:col-span-3"
        label="for"
        bind:value={r.per}
        options={sided(pers).filter(([p], i, all) => all.findIndex(([q]) => q === p) === i)}
        problem={said[`rates[${i}].entered.per`]}
      />
      <RateCauses bind:chosen={r.for} {causes} />
    {/each}
    <button type="button" class="min-h-11 text-left text-moss underline sm:col-span-6" onclick={() => f.rates.push(fresh())}
      >Another rate</button
    >
    {#each f.packs as p, i (i)}
      <Field
        class="sm:col-span-3"
        label={f.unit === 'piece' ? 'Pack of (pieces)' : 'Pack of'}
        kind={productKind(f.unit)}
        mode="decimal"
        bind:value={p.size}
        problem={said[`packs[${i}].size`]}
      />
      <Field class="sm:col-span-3" label="Price" mode="decimal" bind:value={p.price} problem={said[`packs[${i}].price`]} />
    {/each}
    <button
      type="button"
      class="min-h-11 text-left text-moss underline sm:col-span-6"
      onclick={() => f.packs.push({ size: '', price: '' })}>Another pack size</button
    >
    <Field class="sm:col-span-2" label="Days to harvest" mode="numeric" bind:value={f.harvest} problem={said.harvest_days} />
    <Field class="sm:col-span-2" label="Hours to re-entry" mode="decimal" bind:value={f.reentry} problem={said.reentry_h} />
    <Field class="sm:col-span-2" label="Licence it needs" bind:value={f.licence} problem={said.licence} />
    <Field class="sm:col-span-2" label="Uses a year at most" mode="numeric" bind:value={f.most} problem={said.most_uses} />
    <Field class="sm:col-span-2" label="Days between uses" mode="numeric" bind:value={f.interval} problem={said.interval_days} />
    <Field class="sm:col-span-2" label="Kept free along water" kind="length" bind:value={f.buffer} problem={said.buffer_m} />
    <Field class="sm:col-span-6" label="Registration number" bind:value={f.registration} problem={said.registration} />
    <Field class="sm:col-span-6" label="Hazard words" bind:value={f.hazard} problem={said.hazard} />
  </div>
  {#if theirs}<p role="alert" class="mt-2 border-2 border-sun p-2">
      Another device has changed this card meanwhile: “{theirs.name}”. Yours stands above.
      <button
        type="button"
        class="min-h-11 text-moss underline"
        onclick={() => ((version = theirs.version), (problem = undefined))}>Keep mine: press Keep again</button
      >
    </p>{/if}
  <div class="mt-3 flex gap-2"><Button type="submit">Save</Button><Button color="light" onclick={onclose}>Back</Button></div>
</form>
