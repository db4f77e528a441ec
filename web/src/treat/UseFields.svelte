<script lang="ts">
  /** What was used for a treatment that is ticked off: filled in as reckoned, to be corrected. */
  import { api, ask, type Order, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { reading } from '../lib/reading';
  import { people, restricted, type Person } from '../firm/people';
  import { draftOf, keepDraft } from '../lib/draft';
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
  const blank = () => ({
    product: 0,
    amount: '',
    spray: '',
    who: '',
    begun: '',
    ended: '',
    area: '',
    temp: '',
    wind: '',
    from: '' as NonNullable<Schemas['UseIn']['wind_from']>,
    anyway: false,
  });
  type Form = ReturnType<typeof blank>;
  let f = $state(blank());
  let began = $state.raw<Form>(); // as reckoned, once it is there
  const draft = $derived(`use of ${order.id}`); // what was typed is there again when the window is closed and opened
  $effect(() => {
    if (began) keepDraft(draft, $state.snapshot(f), began);
  });
  const reads = reading();
  $effect(() => {
    const of = order;
    void reads(async (signal) => {
      const params = { path: { id: of.id } };
      const [o, all] = await Promise.all([ask(api.GET('/api/v1/orders/{id}', { params, signal })), people(signal)]);
      crew = all;
      if (!o.params.use) {
        began = { ...blank(), who: f.who };
        return;
      }
      const [list, amount] = await Promise.all([products(signal), reckoned(of, o.params.use, signal)]);
      active = o.params.use;
      cards = list.filter((p) => p.active === active || (of.kind === 'feed' && feeds.includes(p.active)));
      const reckonedFor = {
        ...blank(),
        product: amount?.card ?? cards[0]?.id ?? 0,
        amount: amount?.product ? plain(amount.product) : '',
        spray: amount?.litres ? plain(amount.litres) : '',
        who: f.who,
      };
      f = { ...reckonedFor, ...draftOf<Form>(draft) };
      began = reckonedFor;
    });
  });
  const winds: [Form['from'], string][] = [
    ['', 'not told'],
    ...(['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const).map(
      (w): [Form['from'], string] => [w, w],
    ),
  ];
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
    if (f.begun) out.begun = f.begun;
    if (f.ended) out.ended = f.ended;
    if (f.area) out.area_m2 = number(f.area);
    if (f.temp) out.temp_c = Number(f.temp);
    if (f.wind) out.wind_ms = Number(f.wind);
    if (f.from) out.wind_from = f.from;
    if (f.anyway) out.anyway = true;
    use = out;
  });
  const card = $derived(cards.find((c) => c.id === f.product));
  const unit = $derived(card?.unit ?? '');
  const short = $derived(card && f.amount && number(f.amount) > Math.max(0, card.on_hand ?? 0) + 1e-6);
  const kind = $derived(productKind(unit));
  const holders = $derived(crew.filter((p) => p.skills?.includes(restricted)).map((p) => p.name));
</script>

{#if active}
  {#if cards.length}
    <Pick
      label="What was used"
      bind:value={f.product}
      options={cards.map((c): [number, string] => [c.id!, `${c.name}, ${measured(Math.max(0, c.on_hand ?? 0), c.unit)} on hand`])}
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
    {#if short}<p class="text-sm text-sun">
        That is more than the record has on hand: it is kept as it was, and Stores asks for the shelf to be counted.
      </p>{/if}
  {:else}<p class="text-sm text-sun">
      No product card for it: <a class="underline" href="#/stores">enter it from the label</a> first, so that the record holds what
      was used.
    </p>{/if}
  <div class="grid grid-cols-2 gap-3">
    <Field label="Begun at" type="time" bind:value={f.begun} problem={problems['use.begun']} />
    <Field label="Ended at" type="time" bind:value={f.ended} problem={problems['use.ended']} />
    <Field label="Ground or bed" kind="area" bind:value={f.area} problem={problems['use.area_m2']} />
    <Field label="How warm" kind="temperature" bind:value={f.temp} problem={problems['use.temp_c']} />
    <Field label="Wind" kind="wind" bind:value={f.wind} problem={problems['use.wind_ms']} />
    <Pick label="Wind from" bind:value={f.from} options={winds} problem={problems['use.wind_from']} />
  </div>
  <p class="text-sm text-soft">Left empty, warmth and wind are taken from the property’s weather at those hours.</p>
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
  <Tickbox bind:checked={f.anyway} label="It was used anyway" />
{/if}
