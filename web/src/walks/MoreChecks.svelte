<script lang="ts">
  import { Button, Modal } from 'flowbite-svelte';
  import type { Check, Plant } from '../api/client';
  import { beside, lengths, needsAmount, shares, skippable, words, type Kind } from './checks';
  import { metres } from '../lib/dates';
  import Figure from './Figure.svelte';
  import HowTo from './HowTo.svelte';
  import { bare, entered, unit } from '../lib/units';

  interface Props {
    open: boolean;
    plant: Plant;
    checks: Check[];
    at: number; // height checks are made at, m
    onat: (m: number) => void;
    onadd: (c: Check) => void;
    onremove: (c: Check) => void;
    onback: () => void;
  }
  let { open = $bindable(), plant, checks, at, onat, onadd, onremove, onback }: Props = $props();

  let share = $state<Record<string, number>>({}); // none is chosen before it is
  let alike = $state('');
  let unlike = $state('');
  const kinds = $derived(beside(plant));
  const grafted = $derived(plant.graft.habit !== 'own roots' || plant.graft_m > 0);
  const grain = $derived(plant.height_m > 3 ? 0.1 : Math.min(0.05, plant.height_m / 4));
  const height = (k: Kind) => (words[k].height ? { height_m: Math.round(Math.min(at, plant.height_m) * 1000) / 1000 } : {});
  const has = (k: Kind, result: string) => checks.findLast((c) => c.kind === k && c.result === result);

  function press(k: Kind, result: string) {
    const on = has(k, result);
    if (on && !words[k].height) return onremove(on);
    const amount = needsAmount(k, result) ? { amount: share[k] } : {};
    onadd({ kind: k, result, ...height(k), ...amount });
  }
  const number = (s: string) => bare(s);
  const looked = $derived((number(alike) || 0) + (number(unlike) || 0));
  const button = 'min-h-11 border px-3 text-[0.9375rem]';
  const look = (on: boolean) => `${button} ${on ? 'border-ink bg-ink text-paper' : 'border-rule bg-white'}`;
</script>

<Modal bind:open title="More checks" size="lg" class="text-ink!">
  <div class="sticky -top-4 z-10 -mx-1 flex items-center gap-2 bg-paper px-1 py-1">
    {#if plant.form !== 'palm'}
      <label class="flex flex-1 items-center gap-3"
        ><span class="whitespace-nowrap">at <b class="text-cold">{metres(at)}</b></span>
        <input
          type="range"
          class="min-h-11 min-w-0 flex-1 accent-cold"
          min={grain}
          max={plant.height_m}
          step={grain}
          value={at}
          aria-label="Height of the check"
          oninput={(e) => onat(Number(e.currentTarget.value))}
        /></label
      >
    {/if}
    <button
      class="min-h-11 px-2 text-moss underline disabled:text-soft disabled:no-underline"
      disabled={!checks.length}
      onclick={onback}>Take back</button
    >
    <Button class="ml-auto" onclick={() => (open = false)}>Done</Button>
  </div>
  <ul class="divide-y divide-rule">
    {#each kinds as k}
      <li class="grid grid-cols-[6rem_1fr] gap-x-3 py-3 sm:grid-cols-[8rem_1fr]" data-check={k}>
        <div class="h-20 sm:h-24"><HowTo kind={k} /></div>
        <div>
          <h3 class="font-semibold">
            {words[k].name}{#if words[k].height}<span class="text-sm font-normal text-soft">&nbsp;at the height above</span>{/if}
          </h3>
          <p class="text-sm text-soft">{words[k].how}</p>
          {#if words[k].amount?.what === 'girth'}
            <div class="mt-1 flex flex-wrap gap-1.5" role="group" aria-label="How far round">
              {#each shares as [v, word] (v)}<button
                  class={look(share[k] === v)}
                  aria-pressed={share[k] === v}
                  onclick={() => (share[k] = v)}>{word}</button
                >{/each}
            </div>
          {/if}
          <div class="mt-1.5 flex flex-wrap gap-1.5">
            {#if k === 'growth'}
              <Figure
                name="Growth of the last season"
                unit={unit('shoot')}
                does="Note the growth"
                onnote={(v) => onadd({ kind: k, amount: entered('shoot', v) / 100 })}
              />
            {:else if k === 'tip_dead'}
              {#each lengths.filter((l) => l < plant.height_m) as l}<button
                  class={look(checks.some((c) => c.kind === k && c.amount === l))}
                  onclick={() => onadd({ kind: k, amount: l })}>{metres(l)}</button
                >{/each}
              <Figure
                name="Length dead from the tips"
                unit={unit('shoot')}
                onnote={(v) => onadd({ kind: k, amount: entered('shoot', v) / 100 })}
              />
            {:else if k === 'bud_rub'}
              <button class={look(false)} onclick={() => onadd({ kind: k, ...height(k), held: 8 })}>all 8 held</button>
              <button class={look(false)} onclick={() => onadd({ kind: k, ...height(k), held: 4, broke: 4 })}>half of 8</button>
              <button class={look(false)} onclick={() => onadd({ kind: k, ...height(k), broke: 8 })}>all 8 broke</button>
            {:else if k === 'shoot'}
              {#if grafted}
                <button class={look(false)} onclick={() => onadd({ kind: k, ...height(k), leaf: 'true' })}>leaf true</button>
                <button class={look(false)} onclick={() => onadd({ kind: k, ...height(k), leaf: 'rootstock' })}
                  >leaf of the rootstock</button
                >
                <button class={look(false)} onclick={() => onadd({ kind: k, ...height(k), leaf: 'unknown' })}>cannot tell</button>
              {:else}<button class={look(false)} onclick={() => onadd({ kind: k, ...height(k) })}>living shoot</button>{/if}
            {:else if k === 'sample'}
              <button class={look(false)} onclick={() => onadd({ kind: k, held: plant.count })}
                >All {plant.count} are like it</button
              >
              <label class="flex items-center gap-1 text-sm"
                ><input
                  class="min-h-11 w-14 border border-gray-400 bg-white px-2"
                  inputmode="numeric"
                  aria-label="Looked at and alike"
                  bind:value={alike}
                /> alike</label
              >
              <label class="flex items-center gap-1 text-sm"
                ><input
                  class="min-h-11 w-14 border border-gray-400 bg-white px-2"
                  inputmode="numeric"
                  aria-label="Looked at and not alike"
                  bind:value={unlike}
                /> not</label
              >
              {#if looked > plant.count}<p class="basis-full text-sm text-bad" role="alert">
                  {looked} looked at, but only {plant.count} stand here.
                </p>{/if}
              <button
                class={look(false)}
                disabled={!(looked > 0) || looked > plant.count}
                onclick={() => (
                  onadd({ kind: k, held: Math.round(number(alike)) || 0, broke: Math.round(number(unlike)) || 0 }),
                  (alike = unlike = '')
                )}>Note it</button
              >
            {:else if k === 'not_looked'}
              {#each skippable(plant) as s}<button
                  class={look(!!has(k, s))}
                  aria-pressed={!!has(k, s)}
                  onclick={() => press(k, s)}>{words[s].looks_at}</button
                >{/each}
            {:else}
              {#each words[k].results as { key: value, word } (value)}<button
                  class={look(!!has(k, value))}
                  aria-pressed={!!has(k, value)}
                  disabled={(needsAmount(k, value) && words[k].amount?.what === 'girth' && !share[k]) ||
                    (value === 'bridge' && share[k] === 1)}
                  onclick={() => press(k, value)}>{word}</button
                >{/each}
            {/if}
          </div>
        </div>
      </li>
    {/each}
  </ul>
</Modal>
