<script lang="ts">
  /** What was used for a treatment that is ticked off: filled in as reckoned, to be corrected. */
  import { api, ask, type Order, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { reading } from '../lib/reading';
  import { people, restricted, type Person } from '../firm/people';
  import Pick from '../lib/Pick.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import { plain, products, treatmentOf, type Product } from './treat';
  import { bare, product as measured, productKind } from '../lib/units';

  interface Props {
    order: Order;
    use?: Schemas['UseIn'];
    problems?: Record<string, string>;
  }
  let { order, use = $bindable(), problems = {} }: Props = $props();
  let active = $state('');
  let cards = $state<Product[]>([]);
  let crew = $state<Person[]>([]);
  let f = $state({ product: 0, amount: '', spray: '', who: '', wind: '', anyway: false });
  const reads = reading();
  $effect(() => {
    const of = order;
    void reads(async (signal) => {
      const params = { path: { id: of.id } };
      const [o, all] = await Promise.all([ask(api.GET('/api/v1/orders/{id}', { params, signal })), people(signal)]);
      crew = all;
      if (!o.params.use) return;
      const [list, amount] = await Promise.all([products(signal), reckoned(of, o.params.use, signal)]);
      active = o.params.use;
      cards = list.filter((p) => p.active === active || (of.kind === 'feed' && feeds.includes(p.active)));
      f = {
        product: amount?.card ?? cards[0]?.id ?? 0,
        amount: amount?.product ? plain(amount.product) : '',
        spray: amount?.litres ? plain(amount.litres) : '',
        who: f.who,
        wind: '',
        anyway: false,
      };
    });
  });
  const feeds = ['organic-feed', 'mineral-feed'];
  /** What the next time of it takes, by the firm's own cards. */
  async function reckoned(of: Order, use: string, signal: AbortSignal) {
    if (of.kind === 'feed') {
      if (!of.plant_id) return undefined;
      const fed = await ask(api.POST('/api/v1/reckon/feeding', { body: { plant: of.plant_id }, signal }));
      const a = fed.amounts?.find((x) => x.what === 'feed');
      return a && { card: a.card, product: a.product, litres: a.liquid_l };
    }
    if (!of.origin_id) return undefined;
    const a = (await treatmentOf(of.origin_id, signal)).answer.steps?.find((s) => s.use === use)?.amount;
    return a && { card: a.card, product: a.product, litres: a.spray_l };
  }
  const number = (s: string) => bare(s);
  $effect(() => {
    const out: Schemas['UseIn'] = {};
    if (f.who) out.who = f.who;
    if (f.product) out.product_id = f.product;
    if (f.product && f.amount) out.amount = number(f.amount);
    if (f.spray) out.spray_l = number(f.spray);
    if (f.wind) out.wind_ms = Number(f.wind);
    if (f.anyway) out.anyway = true;
    use = out;
  });
  const card = $derived(cards.find((c) => c.id === f.product));
  const unit = $derived(card?.unit ?? '');
  const kind = $derived(productKind(unit));
  const holders = $derived(crew.filter((p) => p.skills?.includes(restricted)).map((p) => p.name));
</script>

{#if active}
  {#if cards.length}
    <Pick
      label="What was used"
      bind:value={f.product}
      options={cards.map((c): [number, string] => [c.id!, `${c.name}, ${measured(c.on_hand ?? 0, c.unit)} on hand`])}
      problem={problems['use.product_id']}
    />
    <div class="grid grid-cols-2 gap-3">
      <Field
        label={kind ? 'How much' : `How much (${unit})`}
        {kind}
        mode="decimal"
        bind:value={f.amount}
        problem={problems['use.amount']}
      />
      <Field label="In how much spray" kind="volume" bind:value={f.spray} problem={problems['use.spray_l']} />
    </div>
  {:else}<p class="text-sm text-sun">
      No product card for it: <a class="underline" href="#/stores">enter it from the label</a> first, so that the record holds what
      was used.
    </p>{/if}
  <Field label="Wind" kind="wind" bind:value={f.wind} problem={problems['use.wind_ms']} />
{/if}
{#if crew.length}
  <Pick
    label="Who did it"
    bind:value={f.who}
    options={[['', 'nobody named'], ...crew.map((p): [string, string] => [p.name, p.name])]}
    problem={problems['use.who']}
  />
{:else}<Field label="Who did it" bind:value={f.who} problem={problems['use.who']} />{/if}
{#if card?.licence}<p class="text-sm">
    It needs a licence ({card.licence}):
    {holders.length ? `${holders.join(', ')} may use it.` : ''}
    {#if !holders.length}<a class="underline" href="#/settings">enter who holds one</a>.{/if}
  </p>{/if}
{#if problems['use.anyway'] || f.anyway}
  <p class="border-2 border-sun p-2 text-sm" role="alert">{problems['use.anyway'] ?? 'Say why in the note below.'}</p>
  <Tickbox bind:checked={f.anyway} label="It was used all the same" />
{/if}
