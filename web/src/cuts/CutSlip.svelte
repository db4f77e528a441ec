<script lang="ts">
  /** What the program says about cutting a plant, today. */
  import { onDestroy } from 'svelte';
  import { api, ask, Problem, type Schemas } from '../api/client';
  import { inWords, metres } from '../lib/dates';
  import { house } from '../lib/house.svelte';
  import { costOf, costWord } from '../work/orders';
  import { capital } from '../lib/words';
  import { cardOf } from './purposes';
  import HoldNote from '../work/HoldNote.svelte';

  let { plant, plan = $bindable() }: { plant: number; plan?: Schemas['PruningOut'] } = $props();
  let fault = $state('');
  let turn = 0;
  $effect(() => {
    const [of, mine] = [plant, ++turn];
    plan = undefined;
    fault = '';
    ask(api.POST('/api/v1/reckon/pruning', { body: { plant: of, usual: true } })).then(
      (p) => mine === turn && (plan = p),
      (e: Error) =>
        mine === turn &&
        (fault = e instanceof Problem && e.status ? e.message : 'The house cannot be reached: when to cut is told once it is.'),
    );
  });
  onDestroy(() => turn++);
  const cost = $derived(plan?.cost as number | undefined);
</script>

{#if plan}
  <section aria-label="When to cut" class="border border-rule bg-white px-3 py-2">
    <p class="text-xs font-semibold text-soft">{capital(plan.class)}</p>
    {#if plan.hold}<HoldNote hold={plan.hold} />{/if}
    <p class={plan.hold ? 'text-soft' : 'font-semibold'} data-testid="cut-slip">
      {plan.hold ? 'By its kind, were it sound: ' : ''}{plan.text}
    </p>
    <p class="text-sm">
      Today, {inWords(house.today)}:
      <b
        >{costWord(cost, house.today, {
          window_from: plan.windows?.[0]?.from ?? '',
          window_to: plan.windows?.at(-1)?.to ?? '',
          best_day: plan.best,
        })}</b
      >
      <span class="text-soft">{costOf(cost)}</span>. {plan.bloom_text}
    </p>
    {#if plan.cut_m}<p class="text-sm">Cut to {metres(plan.cut_m)}.</p>{/if}
    {#if plan.rule}<p class="text-sm text-soft">House rule: {plan.rule}.</p>{/if}
    <p class="flex flex-wrap gap-x-4">
      <a class="inline-flex min-h-11 items-center underline" href="#/cut/{plant}">Cut bench</a>
      <a class="inline-flex min-h-11 items-center underline" href={cardOf(plant, { purpose: plan.purpose })}>Cut card</a>
    </p>
  </section>
{:else if fault}<p class="text-sm text-soft">{fault}</p>{/if}
