<script lang="ts">
  /** What was used for a treatment that is ticked off: filled in as reckoned, to be corrected. */
  import { onDestroy } from 'svelte';
  import { api, ask, type Order, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { attempt } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import { plain, products, treatmentOf, type Product } from './treat';

  interface Props {
    order: Order;
    use?: Schemas['UseIn'];
    problems?: Record<string, string>;
  }
  let { order, use = $bindable(), problems = {} }: Props = $props();
  let active = $state('');
  let cards = $state<Product[]>([]);
  let f = $state({ product: 0, amount: '', spray: '', who: '', wind: '' });
  let gone = false;
  onDestroy(() => (gone = true));
  $effect(() => {
    const of = order;
    void attempt(async () => {
      const o = await ask(api.GET('/api/v1/orders/{id}', { params: { path: { id: of.id } } }));
      if (!o.params.use || gone) return;
      const [list, t] = await Promise.all([products(), of.origin_id ? treatmentOf(of.origin_id) : undefined]);
      if (gone) return;
      active = o.params.use;
      cards = list.filter((p) => p.active === active);
      const amount = t?.answer.steps?.find((s) => s.use === active)?.amount;
      f = {
        product: amount?.card ?? cards[0]?.id ?? 0,
        amount: amount?.product ? plain(amount.product) : '',
        spray: amount?.spray_l ? plain(amount.spray_l) : '',
        who: f.who,
        wind: '',
      };
    });
  });
  const number = (s: string) => Number(s.replace(',', '.'));
  $effect(() => {
    const out: Schemas['UseIn'] = {};
    if (f.who) out.who = f.who;
    if (f.product) out.product_id = f.product;
    if (f.product && f.amount) out.amount = number(f.amount);
    if (f.spray) out.spray_l = number(f.spray);
    if (f.wind) out.wind_ms = Number(f.wind);
    use = out;
  });
  const unit = $derived(cards.find((c) => c.id === f.product)?.unit ?? '');
</script>

{#if active}
  {#if cards.length}
    <Pick
      label="What was used"
      bind:value={f.product}
      options={cards.map((c): [number, string] => [c.id!, `${c.name}, ${plain(c.on_hand ?? 0)} ${c.unit} on hand`])}
      problem={problems['use.product_id']}
    />
    <div class="grid grid-cols-2 gap-3">
      <Field label="How much ({unit})" mode="decimal" bind:value={f.amount} problem={problems['use.amount']} />
      <Field label="In how much spray" kind="volume" bind:value={f.spray} problem={problems['use.spray_l']} />
    </div>
  {:else}<p class="text-sm text-sun">
      No product card for it: <a class="underline" href="#/stores">enter it from the label</a> first, so that the record holds what
      was used.
    </p>{/if}
  <Field label="Wind" kind="wind" bind:value={f.wind} problem={problems['use.wind_ms']} />
{/if}
<Field label="Who did it" bind:value={f.who} problem={problems['use.who']} />
