<script lang="ts">
  /** A job entered by hand, or one of those changed. */
  import { Button, Modal } from 'flowbite-svelte';
  import { untrack } from 'svelte';
  import { api, ask, onceKey, type OrderDetail, type Plant, type Problem, type Property, type Schemas } from '../api/client';
  import { plusDays } from './dates';
  import Field from './Field.svelte';
  import { attempt, house } from './house.svelte';
  import { keptOf } from './kept';
  import Pick from './Pick.svelte';

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
    ['look', 'a look when leaf is due'],
    ['cut back', 'cutting back'],
    ['feed', 'feeding'],
    ['water', 'watering'],
    ['mulch', 'mulching'],
    ['protect', 'fleece at hand'],
    ['guard', 'guarding the stem'],
    ['replace', 'replacing'],
  ];
  let properties = $state<Property[]>([]);
  let plants = $state<Plant[]>([]);
  let key = onceKey();
  let problem = $state<Problem>();
  let version = $state(untrack(() => order?.version ?? 0));
  const theirs = $derived(keptOf<Schemas['Order']>(problem));
  const said = $derived(problem?.fields ?? {});
  let f = $state(
    untrack(() => ({
      property: order?.property_id ?? property,
      plant: order?.plant_ids?.[0] ?? 0,
      title: order?.title ?? '',
      kind: (order?.kind ?? 'other') as string,
      minutes: String(order?.minutes ?? 30),
      crew: String(order?.crew_size ?? 1),
      every: order?.params.every_days ? String(order.params.every_days) : '',
      note: order?.why?.[0] ?? '',
      spans: (order?.params.spans ?? []).map((s) => ({ from: s.from, to: s.to, cost: String(s.cost) })),
    })),
  );
  if (untrack(() => !f.spans.length))
    f.spans.push({ from: house.today, to: plusDays(house.today || '2027-01-01', 14), cost: '0' });

  $effect(() => {
    void attempt(async () => {
      properties = (await ask(api.GET('/api/v1/properties', { params: { query: { limit: 1000 } } }))).items ?? [];
      if (!f.property) f.property = properties[0]?.id ?? 0;
    });
  });
  $effect(() => {
    const of = f.property;
    if (!of) return;
    void attempt(async () => {
      const page = await ask(api.GET('/api/v1/plants', { params: { query: { property: of, limit: 1000 } } }));
      if (of === f.property) plants = page.items ?? [];
    });
  });
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    const several = (order?.plant_ids?.length ?? 0) > 1;
    const body: Schemas['HandOrder'] = {
      property_id: f.property,
      plants: several ? (order!.plant_ids ?? []) : f.plant ? [f.plant] : [],
      title: f.title,
      kind: f.kind as Kind,
      minutes: Math.round(Number(f.minutes)) || 0,
      crew_size: Math.round(Number(f.crew)) || 1,
      every_days: Math.round(Number(f.every)) || 0,
      note: f.note,
      kit: order?.kit ?? [],
      after: (order?.after ?? []).map((a) => ({ id: a.id, min_days: a.min_days, max_days: a.max_days, why: a.why })),
      spans: f.kind === 'other' ? f.spans.map((s) => ({ from: s.from, to: s.to, cost: Math.round(Number(s.cost)) || 0 })) : [],
    };
    problem = await attempt(async () => {
      const o = order
        ? await ask(
            api.PUT('/api/v1/orders/{id}', { params: { path: { id: order.id }, header: key }, body: { ...body, version } }),
          )
        : await ask(api.POST('/api/v1/orders', { params: { header: key }, body }));
      onkept(o);
      void house.refresh();
    });
    key = onceKey();
  }
</script>

<Modal open title={order ? 'Change the job' : 'A job by hand'} size="md" {onclose}>
  <form class="grid gap-3 text-ink sm:grid-cols-6" onsubmit={keep} aria-label="Job by hand">
    <Field class="sm:col-span-6" label="What is to be done" bind:value={f.title} problem={said.title} autofocus />
    <Pick
      class="sm:col-span-3"
      label="Property"
      bind:value={f.property}
      options={properties.map((p): [number, string] => [p.id, p.name])}
      problem={said.property_id}
      onpick={() => (f.plant = 0)}
    />
    <Pick
      class="sm:col-span-3"
      label="Plant"
      bind:value={f.plant}
      options={[
        [0, 'the property itself'],
        ...plants.map((p): [number, string] => [p.id, `${p.common}${p.label ? `, ${p.label}` : ''}`]),
      ]}
      problem={said.plants}
    />
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
      options={kinds.map(([v, t]): [string, string] => [v, v === 'other' ? t : `${t}: the days follow the season`])}
      problem={said.kind}
    />
    {#if f.kind === 'other'}
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
    <Field class="sm:col-span-6" label="Note" bind:value={f.note} />
    {#if theirs}<p role="alert" class="border-2 border-sun p-2 sm:col-span-6">
        Another device has changed this job meanwhile: “{theirs.title}”, {theirs.minutes} min, {theirs.state}. Yours stands above.
        <button
          type="button"
          class="min-h-11 text-moss underline"
          onclick={() => ((version = theirs.version), (problem = undefined))}>Keep mine: press Keep again</button
        >
      </p>{/if}
    <div class="flex gap-2 sm:col-span-6">
      <Button type="submit">Keep</Button><Button color="light" onclick={onclose}>Back</Button>
    </div>
  </form>
</Modal>
