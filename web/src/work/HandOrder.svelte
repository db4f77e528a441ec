<script lang="ts">
  /** A job entered by hand, or one of those changed. */
  import { Button, Modal } from 'flowbite-svelte';
  import { untrack } from 'svelte';
  import {
    allProperties,
    api,
    ask,
    onceKey,
    ordersOf,
    plantsOn,
    type OrderDetail,
    type Plant,
    type Problem,
    type Property,
    type Schemas,
  } from '../api/client';
  import { plusDays } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { draftOf, dropDraft, keepDraft } from '../lib/draft';
  import { toFault } from '../lib/fault';
  import { keptOf } from '../lib/kept';
  import Tickbox from '../lib/Tickbox.svelte';
  import Pick from '../lib/Pick.svelte';

  interface Props {
    property?: number;
    order?: OrderDetail; // to be changed
    onkept: (o: OrderDetail) => void;
    onclose: () => void;
  }
  let { property = 0, order, onkept, onclose }: Props = $props();

  type Kind = Schemas['HandOrder']['kind'];
  const kinds: [string, string][] = [
    ['other', 'days entered here'],
    ['walk', 'a walk, on days entered here'],
    ['look', 'a look when leaf is due'],
    ['cut back', 'cutting back'],
    ['feed', 'feeding'],
    ['water', 'watering'],
    ['mulch', 'mulching'],
    ['protect', 'cover against frost at hand'],
    ['guard', 'guarding the stem'],
    ['replace', 'replacing'],
  ];
  let properties = $state<Property[]>([]);
  let plants = $state<Plant[]>([]);
  let others = $state<{ id: number; title: string }[]>([]); // standing jobs of the property, one of which may come first
  const named = (id: number) => {
    const p = plants.find((x) => x.id === id);
    return p ? `${p.common}${p.label ? `, ${p.label}` : ''}` : '…';
  };
  let key = onceKey();
  let problem = $state<Problem>();
  let version = $state(untrack(() => order?.version ?? 0));
  const theirs = $derived(keptOf<Schemas['Order']>(problem));
  const said = $derived(problem?.fields ?? {});
  let form = $state<HTMLFormElement>();
  const draft = untrack(() => (order ? `job ${order.id}` : `job on ${property}`));
  const began = untrack(() => ({
    property: order?.property_id ?? property,
    plants: [...(order?.plant_ids ?? [])],
    after: (order?.after ?? []).map((a) => ({
      id: a.id,
      title: a.title,
      min: String(a.min_days ?? 0),
      max: a.max_days ?? 0,
      why: a.why ?? '',
    })),
    title: order?.title ?? '',
    kind: (order?.kind ?? 'other') as string,
    minutes: String(order?.minutes ?? 30),
    crew: String(order?.crew_size ?? 1),
    every: order?.params.every_days ? String(order.params.every_days) : '',
    note: order?.why?.[0] ?? '',
    private: order?.params.private ?? false,
    spans: (order?.params.spans ?? []).map((s) => ({ from: s.from, to: s.to, cost: String(s.cost) })),
  }));
  // What was typed last time and not kept is here again.
  let f = $state({ ...structuredClone(began), ...draftOf<typeof began>(draft) });
  const dated = ['other', 'walk']; // kinds whose days are entered, not reckoned
  const byDays = $derived(dated.includes(f.kind));
  $effect(() => keepDraft(draft, { ...$state.snapshot(f), property: began.property, spans: began.spans }, began));
  if (untrack(() => !f.spans.length))
    f.spans.push({ from: house.today, to: plusDays(house.today || '2027-01-01', 14), cost: '0' });

  $effect(() => {
    void attempt(async () => {
      properties = await allProperties();
      if (!f.property) f.property = properties[0]?.id ?? 0;
    });
  });
  $effect(() => {
    const of = f.property;
    if (!of) return;
    void attempt(async () => {
      const there = await plantsOn(of);
      const standing = await ordersOf(of, 'standing');
      if (of !== f.property) return;
      plants = there;
      others = standing.filter((o) => o.id !== order?.id);
    });
  });
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    const body: Schemas['HandOrder'] = {
      property_id: f.property,
      plants: f.plants,
      title: f.title,
      kind: f.kind as Kind,
      minutes: Math.round(Number(f.minutes)) || 0,
      crew_size: Math.round(Number(f.crew)) || 1,
      every_days: Math.round(Number(f.every)) || 0,
      note: f.note,
      ...(f.private ? { private: true } : {}),
      kit: order?.kit,
      after: f.after.map((a) => ({ id: a.id, min_days: Math.round(Number(a.min)) || 0, max_days: a.max, why: a.why })),
      spans: byDays ? f.spans.map((s) => ({ from: s.from, to: s.to, cost: Math.round(Number(s.cost)) || 0 })) : [],
    };
    problem = await attempt(async () => {
      const o = order
        ? await ask(
            api.PUT('/api/v1/orders/{id}', { params: { path: { id: order.id }, header: key }, body: { ...body, version } }),
          )
        : await ask(api.POST('/api/v1/orders', { params: { header: key }, body }));
      dropDraft(draft);
      onkept(o);
    });
    key = onceKey();
    toFault(problem, form);
  }
</script>

<Modal open title={order ? 'Change the job' : 'A job by hand'} size="md" {onclose}>
  <form class="grid gap-3 text-ink sm:grid-cols-6" onsubmit={keep} aria-label="Job by hand" bind:this={form}>
    <Field class="sm:col-span-6" label="What is to be done" bind:value={f.title} problem={said.title} autofocus />
    <Pick
      class="sm:col-span-3"
      label="Property"
      bind:value={f.property}
      options={properties.map((p): [number, string] => [p.id, p.name])}
      problem={said.property_id}
      onpick={() => ((f.plants = []), (f.after = []))}
    />
    <Pick
      class="sm:col-span-3"
      label="Plant"
      bind:value={() => 0, (v) => v && (f.plants = [...f.plants, v])}
      options={[
        [0, f.plants.length ? 'and another …' : 'the property itself'],
        ...plants.filter((p) => !f.plants.includes(p.id)).map((p): [number, string] => [p.id, named(p.id)]),
      ]}
      problem={said.plants}
    />
    {#if f.plants.length}
      <ul class="flex flex-wrap gap-2 sm:col-span-6" aria-label="On these plants">
        {#each f.plants as id}<li>
            <button
              type="button"
              class="min-h-11 border border-rule bg-sheet px-3"
              onclick={() => (f.plants = f.plants.filter((x) => x !== id))}
              >{named(id)} <span aria-hidden="true">×</span><span class="sr-only">: take off</span></button
            >
          </li>{/each}
      </ul>
    {/if}
    <Field class="sm:col-span-2" label="Minutes" mode="numeric" bind:value={f.minutes} problem={said.minutes} />
    <Field class="sm:col-span-2" label="People" mode="numeric" bind:value={f.crew} problem={said.crew} />
    <Field
      class="sm:col-span-2"
      label="Again every (days)"
      mode="numeric"
      bind:value={f.every}
      placeholder="once"
      problem={said.every_days}
    />
    <Pick
      class="sm:col-span-6"
      label="When"
      bind:value={f.kind}
      options={kinds.map(([v, t]): [string, string] => [v, dated.includes(v) ? t : `${t}: the days follow the season`])}
      problem={said.kind}
    />
    {#if byDays}
      {#each f.spans as s, i (i)}
        <Field
          class="sm:col-span-2"
          label={i ? 'Or from' : 'From'}
          type="date"
          bind:value={s.from}
          problem={said[`spans[${i}].from`]}
        />
        <Field class="sm:col-span-2" label="To" type="date" bind:value={s.to} problem={said[`spans[${i}].to`]} />
        <Pick
          class="sm:col-span-2"
          label="These days are"
          bind:value={s.cost}
          options={[
            ['0', 'as good as it gets'],
            ['20', 'good'],
            ['50', 'at a pinch'],
            ['90', 'only if it must be'],
            ...(['0', '20', '50', '90'].includes(s.cost) ? [] : ([[s.cost, `${s.cost} of 100`]] as [string, string][])),
          ]}
          problem={said[`spans[${i}].cost`]}
        />
      {/each}
      <div class="flex gap-4 sm:col-span-6">
        <button
          type="button"
          class="min-h-11 text-moss underline"
          onclick={() => {
            const last = f.spans.at(-1)!.to;
            f.spans.push({ from: plusDays(last, 1), to: plusDays(last, 14), cost: '50' });
          }}>More days</button
        >
        {#if f.spans.length > 1}<button type="button" class="min-h-11 text-moss underline" onclick={() => f.spans.pop()}
            >Fewer</button
          >{/if}
        {#if said.spans}<span class="text-bad">{said.spans}</span>{/if}
      </div>
    {/if}
    <Pick
      class="sm:col-span-6"
      label="Comes after"
      bind:value={
        () => 0,
        (v) => {
          const o = others.find((x) => x.id === v);
          if (o) f.after = [...f.after, { id: o.id, title: o.title, min: '0', max: 0, why: '' }];
        }
      }
      options={[
        [0, f.after.length ? 'and another …' : 'nothing'],
        ...others.filter((o) => !f.after.some((a) => a.id === o.id)).map((o): [number, string] => [o.id, o.title]),
      ]}
      problem={said.after}
    />
    {#each f.after as a, i (a.id)}
      <p class="self-end sm:col-span-3">{a.title}</p>
      <Field
        class="sm:col-span-2"
        label="Days between, at least"
        mode="numeric"
        bind:value={a.min}
        problem={said[`after[${i}].min_days`]}
      />
      <button
        type="button"
        class="min-h-11 self-end text-moss underline"
        onclick={() => (f.after = f.after.filter((x) => x.id !== a.id))}>Take off</button
      >
    {/each}
    <Field class="sm:col-span-6" label="Note" bind:value={f.note} />
    <Tickbox
      class="sm:col-span-6"
      label="Not for the client: it stands in no letter and on no page of theirs"
      bind:checked={f.private}
    />
    {#if theirs}<p role="alert" class="border-2 border-sun p-2 sm:col-span-6">
        Another device has changed this job meanwhile: “{theirs.title}”, {theirs.minutes} min, {theirs.state}. Yours stands above.
        <button
          type="button"
          class="min-h-11 text-moss underline"
          onclick={() => ((version = theirs.version), (problem = undefined))}>Keep mine: press Keep again</button
        >
      </p>{/if}
    <div class="flex gap-2 sm:col-span-6">
      <Button type="submit">Save</Button><Button color="light" onclick={onclose}>Back</Button>
    </div>
  </form>
</Modal>
