<script lang="ts">
  /** What the firm asks for its work: by the hour, the visit, the measure of waste and of what is used up. */
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { keptOf } from '../lib/kept';
  import Pick from '../lib/Pick.svelte';
  import { toFault } from '../lib/fault';
  import Tickbox from '../lib/Tickbox.svelte';
  import { capital } from '../lib/words';
  import Waiting from '../lib/Waiting.svelte';
  import { imperial } from '../lib/units';
  import MoneyField from './MoneyField.svelte';
  import { percent, shareOf } from './money';

  type Rates = Schemas['Rates'];
  let r = $state<Rates>();
  let skills = $state.raw<string[]>([]);
  let tax = $state('');
  let markup = $state('');
  let days = $state('');
  let problem = $state<Problem>();
  let form = $state<HTMLFormElement>();
  const said = $derived(problem?.fields ?? {});
  const theirs = $derived(keptOf<Rates>(problem));
  function take(x: Rates) {
    r = { ...x, skills: { ...x.skills }, machines: { ...x.machines }, stuff: x.stuff.map((s) => ({ ...s })) };
    [tax, markup, days] = [percent(x.tax), percent(x.markup), String(x.valid_days)];
  }
  onMount(
    () =>
      void attempt(async () => {
        const [x, s] = await Promise.all([ask(api.GET('/api/v1/rates')), ask(api.GET('/api/v1/skills'))]);
        skills = s.items;
        take(x);
      }),
  );
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    if (!r) return;
    const body = { ...$state.snapshot(r), tax: shareOf(tax), markup: shareOf(markup), valid_days: Math.round(Number(days)) || 0 };
    body.currency = body.currency.trim().toUpperCase();
    body.stuff = body.stuff.filter((s) => s.name.trim());
    problem = await attempt(async () => {
      take(await ask(api.PUT('/api/v1/rates', { params: { header: onceKey() }, body })));
      house.say('Rates saved. Estimates that were made stay as they are.');
    });
    toFault(problem, form);
  }
  /** What is asked for by the hour beside the plain rate. */
  const hourly = $derived([
    {
      of: 'skills' as const,
      title: 'An hour of whoever has a skill',
      text: 'One of a job’s people is charged at this rate, the others at the plain one.',
      names: skills,
    },
    {
      of: 'machines' as const,
      title: 'An hour of a machine',
      text: 'Charged on top for as long as the work takes, where its load list has the machine.',
      names: ['hedge trimmer', 'chainsaw'],
    },
  ]);
  const yard = $derived(imperial() ? 0.764555 : 1); // m³ of the measure that waste is told in
  /** Units that a price may be for; those that are in use stay. */
  const units = $derived([
    ...new Set([
      ...(imperial() ? ['piece', 'gal', 'sq ft', 'cu yd', 'lb'] : ['piece', 'L', 'm2', 'm3', 'kg']),
      ...(r?.stuff ?? []).map((s) => s.unit),
    ]),
  ] as Rates['stuff'][number]['unit'][]);
  const called = (u: string) => u.replace('m2', 'm²').replace('m3', 'm³');
  const money = $derived({ currency: r?.currency ?? '', digits: r?.digits ?? 2 });
</script>

<svelte:head><title>Rates · Mezzadro</title></svelte:head>

<div class="max-w-3xl px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/ledger">Ledger</a></p>
  <h1>Rates</h1>
  {#if !r}<Waiting rows={8} />
  {:else}
    <form class="mt-3 space-y-6" onsubmit={keep} bind:this={form} aria-label="Rates">
      <section class="grid items-end gap-3 sm:grid-cols-3" aria-label="Work">
        <Field label="Currency, by its three letters" bind:value={r.currency} placeholder="EUR" problem={said.currency} />
        <MoneyField label="An hour of one person" bind:value={r.hour} {...money} problem={said.hour} />
        <MoneyField label="A visit: way and setting up" bind:value={r.visit} {...money} problem={said.visit} />
        <MoneyField
          label={imperial() ? 'A cubic yard of waste' : 'A cubic metre of waste'}
          value={Math.round(r.waste_m3 * yard)}
          {...money}
          problem={said.waste_m3}
          onset={(v) => (r!.waste_m3 = Math.round(v / yard))}
        />
        <Field label="On plants and materials (%)" mode="decimal" bind:value={markup} problem={said.markup} />
        <Field label="An estimate holds (days)" mode="numeric" bind:value={days} problem={said.valid_days} />
      </section>
      {#each hourly as h (h.of)}
        <section aria-label={capital(h.of)}>
          <h2>{h.title}</h2>
          <p class="text-sm text-soft">{h.text}</p>
          <div class="mt-1 grid items-end gap-3 sm:grid-cols-3">
            {#each h.names as s}
              <MoneyField
                label={capital(s)}
                value={r[h.of]?.[s] ?? 0}
                {...money}
                problem={said[`${h.of}.${s}`]}
                onset={(v) => {
                  const next: Record<string, number> = { ...r![h.of] };
                  if (v) next[s] = v;
                  else delete next[s];
                  r![h.of] = next;
                }}
              />
            {/each}
          </div>
        </section>
      {/each}
      <section aria-label="Tax">
        <h2>Tax</h2>
        <div class="grid items-end gap-3 sm:grid-cols-3">
          <Field label="Tax (%)" mode="decimal" bind:value={tax} problem={said.tax} />
          <Field label="Called" bind:value={() => r!.tax_name ?? '', (v) => (r!.tax_name = v)} placeholder="VAT" />
          <Tickbox label="It is in the rates already" bind:checked={() => !!r!.tax_included, (v) => (r!.tax_included = v)} />
        </div>
      </section>
      <section aria-label="How it is told">
        <h2>Estimates</h2>
        <div class="grid items-end gap-3 sm:grid-cols-2">
          <Pick
            label="A client reads"
            value={r.fixed ? 'one' : 'range'}
            options={[
              ['range', 'from–to, as work may take longer'],
              ['one', 'one price, which holds'],
            ]}
            onpick={(v) => (r!.fixed = v === 'one')}
          />
          <Pick
            label="Rounds plan"
            bind:value={r.plans}
            options={[
              ['all', 'all work'],
              ['answered', 'no work that waits for an answer'],
              ['agreed', 'agreed work only'],
            ]}
          />
        </div>
        <p class="mt-1 text-sm text-soft">What may hurt somebody is planned in any case.</p>
        <Tickbox
          label="Planners read the money and make estimates too"
          bind:checked={() => !!r!.planners, (v) => (r!.planners = v)}
        />
      </section>
      <section aria-label="Materials">
        <h2>Materials without a card</h2>
        <p class="text-sm text-soft">
          By the names of the load list: mulch, stakes, fleece, guards. Products have their prices on their cards, plants in the
          Almanac.
        </p>
        {#each r.stuff as s, i (i)}
          <div class="mt-2 grid grid-cols-[minmax(0,1fr)_6rem_8rem_auto] items-end gap-2 max-sm:grid-cols-2">
            <Field label="What" bind:value={s.name} problem={said[`stuff[${i}].name`]} />
            <Pick label="By" bind:value={s.unit} options={units.map((u): [typeof u, string] => [u, called(u)])} />
            <MoneyField label="Price" bind:value={s.price} {...money} problem={said[`stuff[${i}].price`]} />
            <button type="button" class="min-h-11 text-moss underline" onclick={() => r!.stuff.splice(i, 1)}
              >Remove<span class="sr-only">: {s.name}</span></button
            >
          </div>
        {/each}
        <button
          type="button"
          class="mt-2 min-h-11 text-moss underline"
          onclick={() => r!.stuff.push({ name: '', unit: 'piece', price: 0 })}>Add a material</button
        >
      </section>
      {#if problem}<p role="alert" class="border-l-4 border-bad pl-2">
          {problem.message}
          {#if theirs}<button type="button" class="min-h-11 underline" onclick={() => take(theirs)}>Use the saved version</button
            >{/if}
        </p>{/if}
      <Button type="submit" class="min-h-11">Save the rates</Button>
    </form>
  {/if}
</div>
