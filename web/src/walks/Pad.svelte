<script lang="ts">
  import type { Answer, Check, Plant } from '../api/client';
  import type { Waiting } from '../field/device';
  import { field } from '../field/field.svelte';
  import { found, words, type Kind } from './checks';
  import { metres } from '../lib/dates';
  import { named } from '../lib/units';
  import FieldNotes from './FieldNotes.svelte';
  import HowTo from './HowTo.svelte';
  import type { Pad } from './presses.svelte';

  interface Props {
    pad: Pad;
    plant: Plant;
    walkId: number;
    checks: Check[];
    note: string;
    answer?: Answer;
    waiting?: Waiting;
    wide: boolean;
    onmore: () => void;
    onsee: () => void;
    oncut: () => void;
    onnew: () => void;
  }
  let { pad, plant, checks, note, answer, waiting, wide, onmore, onsee, oncut, onnew }: Props = $props();

  let how = $state(false);
  $effect(() => {
    void plant.id;
    how = false;
  });
  const next = $derived(answer?.next_check);
  const problem = $derived(waiting?.refused ?? '');
  const loose = $derived(checks.findLast((c) => c.kind === 'danger' && c.result !== 'none'));
  const others = $derived(checks.filter((c) => !c.height_m && c.kind !== 'crown'));

  // The answers of the check that is asked for are the big buttons; buds and bark where none other is.
  const stem: Kind[] = ['bud_rub', 'scratch'];
  const asked = $derived.by((): Kind | undefined => {
    const k = next?.kind as Kind | undefined;
    if (k) return stem.includes(k) ? undefined : k;
    return pad.palm && !checks.some((c) => c.kind === 'spear') ? 'spear' : undefined;
  });
  const asks: Partial<Record<Kind, string>> = {
    crown: 'feel the crown under the soil',
    danger: 'stand back and look up',
    spear: 'pull the spear',
    head: 'look into the head',
    shoot: 'look at the leaf',
    leaf: 'look at the leaves',
    base: 'feel the foot of the stem',
    scratch: 'scratch',
  };
  const whose: Partial<Record<Kind, string>> = { crown: 'Crown', spear: 'Spear', head: 'Head', leaf: 'Leaves', base: 'Foot' };
  const at = $derived(next?.height_m ? { height_m: Math.round(named(next.height_m) * 1000) / 1000 } : {});
  interface Press {
    text: string;
    run: () => void;
    dead: boolean;
    on: boolean;
  }
  const presses = $derived.by((): Press[] => {
    const k = asked;
    if (!k) return [];
    if (k === 'shoot')
      return pad.grafted
        ? (['true', 'rootstock', 'unknown'] as const).map((leaf) => ({
            text: { true: 'Leaf is true', rootstock: 'Leaf of the rootstock', unknown: 'Cannot tell' }[leaf],
            run: () => pad.enter({ kind: 'shoot', ...at, leaf }),
            dead: leaf === 'rootstock',
            on: false,
          }))
        : [{ text: 'Living shoot', run: () => pad.enter({ kind: 'shoot', ...at }), dead: false, on: false }];
    return (words[k].results ?? []).map((r, i) => ({
      text: whose[k] ? `${whose[k]} ${r.word}` : r.word.charAt(0).toUpperCase() + r.word.slice(1),
      run: () => pad.enter({ kind: k, result: r.key, ...(words[k].height ? at : {}) }),
      dead: k === 'danger' ? i > 0 : ['soft', 'pulled', 'collapsed', 'clinging', 'soft_bark'].includes(r.key),
      on: checks.some((c) => c.kind === k && c.result === r.key && c.height_m === at.height_m),
    }));
  });
  const size = (main: boolean) =>
    main
      ? 'min-h-14 border-2 px-2 text-lg font-bold max-[260px]:px-0.5 max-[260px]:text-sm'
      : 'min-h-11 border px-2 text-[0.9375rem]';
  const button = (dead: boolean, main = true) =>
    `${size(main)} rounded-sm leading-tight ${dead ? 'border-hand' : 'border-moss'} bg-white`;
</script>

{#snippet fromADistance()}
  <select
    class="min-h-11 max-w-28 rounded-sm border px-1 text-[0.9375rem] {loose
      ? 'border-bad bg-bad text-white'
      : 'border-rule bg-white'}"
    aria-label="From a distance: may it fall or break?"
    value={loose?.result ?? (checks.some((c) => c.kind === 'danger') ? 'none' : '')}
    onchange={(e) => {
      pad.enter({ kind: 'danger', result: e.currentTarget.value });
      e.currentTarget.blur();
    }}
  >
    <option value="" disabled>Danger?</option>
    {#each words.danger.results as { key: value, word } (value)}<option {value}>{word}</option>{/each}
  </select>
{/snippet}
{#snippet takeBack()}
  <button
    class="min-h-11 px-2 text-[0.9375rem] text-moss underline disabled:text-soft disabled:no-underline"
    disabled={!checks.length}
    onclick={() => pad.takeBack()}>Take back</button
  >
{/snippet}

<div class="flex min-h-11 flex-wrap items-center gap-2 text-sm">
  {#if next}
    {#if next.height_m}
      <button class="min-h-11 border border-cold bg-white px-3 text-left text-cold" onclick={() => pad.takeSuggestion()}>
        <b
          >Next: {next.kind === 'bud_rub' ? `rub ${next.buds} buds` : asks[next.kind as Kind]} at
          {metres(named(next.height_m))}</b
        >
      </button>
    {:else}
      <b class="text-cold">Next: {asks[next.kind as Kind]}</b>
    {/if}
    <button class="min-h-11 px-1 text-moss underline" aria-expanded={how} onclick={() => (how = !how)}>How</button>
    <span class="flex-1 text-soft max-lg:hidden">{next.why}</span>
  {:else if checks.length && answer && field.current(plant.id)}
    <span class="font-semibold"
      >{answer?.verdict.kind === 'make safe first'
        ? 'Check on when it is safe.'
        : `No ${plant.height_m > 3.2 ? 'check within reach' : 'further check'} can change the verdict.`}</span
    >
  {/if}
  {#if asked !== 'danger' && (!wide || pad.palm)}<span class="ml-auto">{@render fromADistance()}</span>{/if}
</div>
{#if how && next}
  <div class="grid grid-cols-[8rem_1fr] items-center gap-3 border border-rule bg-white p-2 text-[0.9375rem]">
    <div class="h-20"><HowTo kind={next.kind as Kind} /></div>
    <p>
      {words[next.kind as Kind].how}
      {#if !wide}{next.why}{/if}
    </p>
  </div>
{/if}
{#if presses.length}
  <div
    class="grid gap-2 {presses.length === 3 ? 'grid-cols-3' : 'grid-cols-2'}"
    role="group"
    aria-label="Answers of the check that is asked for"
  >
    {#each presses as p}<button class="{button(p.dead)} {p.on ? 'ring-2 ring-ink' : ''}" aria-pressed={p.on} onclick={p.run}
        >{p.text}</button
      >{/each}
  </div>
{/if}
{#if pad.palm}
  <div>{@render takeBack()}</div>
{:else}
  <div class="flex items-center gap-2">
    <button class="min-h-11 min-w-12 border border-rule bg-white text-lg" aria-label="Lower" onclick={() => pad.nudge(-1)}
      >−</button
    >
    <p class="flex-1 text-center">
      at <b class="text-cold" data-testid="height">{metres(pad.active)}</b>{#if pad.tally}<span class="text-sm text-soft"
          >&nbsp; {pad.tally.held ?? 0} held, {pad.tally.broke ?? 0} broke here</span
        >{/if}
    </p>
    <button class="min-h-11 min-w-12 border border-rule bg-white text-lg" aria-label="Higher" onclick={() => pad.nudge(1)}
      >+</button
    >
  </div>
  <div class="grid gap-2 {asked ? 'grid-cols-4' : 'grid-cols-2'}" role="group" aria-label="Checks at this height">
    <button class={button(false, !asked)} onclick={() => pad.bud(true)}>Bud held</button>
    <button class={button(true, !asked)} onclick={() => pad.bud(false)}>Bud broke</button>
    <button class={button(false, !asked)} onclick={() => pad.scratch('green')}>Bark green</button>
    <button class={button(true, !asked)} onclick={() => pad.scratch('brown')}>Bark brown</button>
  </div>
  <div class="flex flex-wrap gap-2 text-[0.9375rem]">
    <button class="min-h-11 border border-rule bg-white px-3" onclick={() => pad.scratch('unclear')}>Bark unclear</button>
    {#if pad.grafted}
      <button class="min-h-11 border border-rule bg-white px-3" onclick={() => pad.shoot('true')}>True shoot</button>
      <button
        class="min-h-11 border border-rule bg-white px-3"
        title={plant.graft.rootstock_leaf}
        onclick={() => pad.shoot('rootstock')}>Rootstock shoot</button
      >
    {:else}
      <button class="min-h-11 border border-rule bg-white px-3" onclick={() => pad.shoot()}>Living shoot</button>
    {/if}
    {#if wide}{@render fromADistance()}{/if}
    {#if asked !== 'crown' && (wide || checks.some((c) => c.kind === 'crown'))}
      <span class="flex min-h-11 items-center gap-1" role="group" aria-label="Crown under the soil">
        Crown:
        {#each [['firm_buds', 'budded'], ['firm', 'firm'], ['soft', 'soft']] as [value, word] (value)}
          {@const on = checks.some((c) => c.kind === 'crown' && c.result === value)}
          <button
            class="min-h-11 border px-2.5 {on ? 'border-ink bg-ink text-paper' : 'border-rule bg-white'}"
            aria-pressed={on}
            onclick={() => pad.enter({ kind: 'crown', result: value! })}>{word}</button
          >
        {/each}
      </span>
    {/if}
    {@render takeBack()}
  </div>
{/if}
<div class="flex flex-wrap items-start gap-2">
  <button class="min-h-11 border border-rule bg-white px-3 text-[0.9375rem]" onclick={() => onsee()}>What do you see?</button>
  <button class="min-h-11 border border-rule bg-white px-3 text-[0.9375rem]" onclick={() => onmore()}>More checks</button>
  <button class="min-h-11 border border-rule bg-white px-3 text-[0.9375rem]" onclick={() => oncut()}>When to cut?</button>
  <div class="min-w-44 flex-1 max-[260px]:min-w-0 max-[260px]:basis-full">
    {#key plant.id}<FieldNotes
        plant={plant.id}
        common={plant.common}
        {note}
        onnote={(text) => text !== note && field.keep(plant.id, checks, text)}
      />{/key}
  </div>
  {#if !wide}<button class="min-h-11 border border-rule bg-white px-3 text-[0.9375rem]" onclick={onnew}>Not on the list</button
    >{/if}
</div>
{#if others.length}
  <ul class="flex flex-wrap gap-x-3 text-sm text-soft" aria-label="Other checks made">
    {#each others as c, i (i)}<li>{found(c)}</li>{/each}
  </ul>
{/if}
{#if problem}
  <p role="alert" class="border-2 border-bad bg-white px-3 py-2 text-[0.9375rem]">
    {problem}
    <button class="min-h-11 font-bold underline" onclick={() => pad.takeBack()}>Take back</button>
  </p>
{/if}
