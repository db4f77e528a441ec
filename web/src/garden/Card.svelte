<script lang="ts">
  /** The crew's cut card of a plant: on the phone, and as a page to print. */
  import { Button } from 'flowbite-svelte';
  import { router } from 'svelte-spa-router';
  import { api, ask, type Plant, type Schemas } from '../api/client';
  import CutDrawing from '../cuts/CutDrawing.svelte';
  import { drawings } from '../cuts/drawings';
  import { purposeWords, type Purpose } from '../cuts/purposes';
  import { brief, daysBetween, hours, inWords, metres, span } from '../lib/dates';
  import { house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Portrait from '../lib/Portrait.svelte';
  import type { Form } from '../lib/portrait';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { plant?: string } } = $props();
  const id = $derived(Number(params?.plant ?? 0));
  const asked = $derived(new URLSearchParams(router.querystring ?? ''));
  let plant = $state<Plant>();
  let place = $state<Schemas['PropertyOut']>();
  let plan = $state.raw<Schemas['PruningOut']>();
  let fault = $state('');
  const reads = reading();
  $effect(() => {
    const [of, q] = [id, asked];
    fault = '';
    void reads(async (signal) => {
      const body: Schemas['PruningIn'] = { plant: of };
      if (q.get('purpose')) body.purpose = q.get('purpose') as Purpose;
      if (Number(q.get('cut'))) body.cut_m = Number(q.get('cut'));
      if (Number(q.get('part'))) body.part = Number(q.get('part'));
      const p = await ask(api.GET('/api/v1/plants/{id}', { params: { path: { id: of } }, signal }));
      const [at, c] = await Promise.all([
        ask(api.GET('/api/v1/properties/{id}', { params: { path: { id: p.property_id } }, signal })),
        ask(api.POST('/api/v1/reckon/pruning', { body, signal })),
      ]);
      [plant, place, plan] = [p, at, c];
    }).then((p) => (fault = p?.message ?? fault));
  });
  const windows = $derived((plan?.windows ?? []).filter((w) => w.to >= house.today));
</script>

<svelte:head><title>Cut card{plant ? ` · ${plant.common}` : ''} · Mezzadro</title></svelte:head>

<div class="mx-auto w-full max-w-4xl px-5 py-4 max-md:px-3 print:max-w-none print:p-0">
  {#if !plant || !plan || !place}
    {#if fault}<p role="alert">{fault}</p>{:else}<Waiting rows={8} />{/if}
  {:else}
    <div class="flex flex-wrap items-center gap-3 print:hidden">
      <p class="flex-1 text-sm"><a href="#/cut/{plant.id}">Cut bench</a></p>
      <Button color="light" onclick={() => window.print()}>Print, or keep as PDF</Button>
    </div>
    <article aria-label="Cut card" class="border-ink bg-white p-4 max-md:p-3 md:border print:border-0 print:p-0">
      <header class="border-b-2 border-ink pb-2">
        <p class="text-sm">{place.name}{place.address ? `, ${place.address}` : ''}</p>
        <h1>{plant.common}{plant.label ? `, ${plant.label}` : ''}{plant.count > 1 ? ` × ${plant.count}` : ''}</h1>
        <p><i class="font-botanical">{plant.botanical}</i> · to {purposeWords(plan.purpose)}</p>
      </header>
      <p class="mt-2 text-lg font-bold">{plan.text}</p>
      {#if windows.length}<p class="text-sm">
          {#if daysBetween(windows[0]!.from, windows[0]!.to) > 300}Any day{:else}{windows
              .map((w) => span(w.from, w.to))
              .join(', ')}; best {inWords(plan.best)}{/if}. {plan.bloom_text}
        </p>{/if}
      <div class="mt-3 grid gap-4 sm:grid-cols-2">
        <figure>
          <CutDrawing of={plan.draw} class="w-full max-w-sm border border-rule" />
          <figcaption class="mt-1 text-sm">
            {drawings[plan.draw]?.says} <span class="text-soft">Broken lines go.</span>
          </figcaption>
        </figure>
        <figure>
          <div class="h-60 border border-rule">
            <Portrait
              form={plant.form as Form}
              heightM={plant.height_m}
              spreadM={plant.spread_m}
              name={plant.common}
              graftM={plant.graft_m}
              active={plan.cut_m || undefined}
              grownM={plan.cut_m || undefined}
              box={[360, 230]}
            />
          </div>
          <figcaption class="mt-1 text-sm">
            {#if plan.cut_m}From {metres(plant.height_m)} to <b>{metres(plan.cut_m)}</b>; next year about {metres(
                plan.heights?.[1]?.m ?? plan.cut_m,
              )} (an estimate).{:else}{metres(plant.height_m)} tall; nothing is shortened to a height.{/if} At most {Math.round(
              100 * plan.most,
            )} % of its crown goes at once.
          </figcaption>
        </figure>
      </div>
      <div class="mt-3 grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <section aria-label="Steps">
          <h2>In this order</h2>
          <ol class="list-decimal pl-5">
            {#each plan.steps as s}<li>{s}</li>{/each}
          </ol>
          <p class="mt-1"><b>Where:</b> {plan.where}</p>
          {#each plan.together as f}<p class="mt-1"><b>In the same visit:</b> {f.title}. {f.why}</p>{/each}
        </section>
        <section aria-label="With care">
          <h2>With care</h2>
          {#each plan.cautions as c}<p class="mb-1 border-l-4 border-sun pl-3 text-sm">{c}</p>{/each}
          <p class="text-sm">
            {#if plan.skills?.length}<b>Only for: {plan.skills.join(', ')}.</b>{/if} About {hours(plan.minutes)}; {plan.waste_text}
            Estimates.
          </p>
          {#each plan.rules as r}<p class="text-sm text-soft">House rule: {r}.</p>{/each}
          <p class="mt-1 text-sm">Local rules on nests, hedges and protected trees come first.</p>
        </section>
      </div>
    </article>
  {/if}
</div>
