<script lang="ts">
  /** When one may be at a property, what arriving takes, and how one gets in. */
  import { atHour } from '../lib/dates';
  import { Button } from 'flowbite-svelte';
  import { onDestroy } from 'svelte';
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import { inOrder, weekdays } from './clock';
  import Hours from './Hours.svelte';
  import { bare } from '../lib/units';

  let { property }: { property: number } = $props();
  let access = $state<Schemas['Access']>();
  let open = $state(false);
  let arrive = $state('');
  let problem = $state<Problem>();
  let turn = 0;
  onDestroy(() => turn++);
  $effect(() => {
    const [of, mine] = [property, ++turn];
    open = false;
    void attempt(async () => {
      const a = await ask(api.GET('/api/v1/properties/{id}/access', { params: { path: { id: of } } }));
      if (mine === turn) access = a;
    });
  });
  const limited = $derived(!!access?.hours?.some((s) => s.to > s.from));
  const text = $derived.by(() => {
    const a = access;
    if (!a) return '';
    const days = inOrder(house.frame?.firm.week_start ?? 1)
      .filter((d) => (a.hours?.[d]?.to ?? 0) > (a.hours?.[d]?.from ?? 0))
      .map((d) => `${weekdays[d]!.slice(0, 3)} ${atHour(a.hours![d]!.from)} – ${atHour(a.hours![d]!.to)}`);
    return [
      days.length ? days.join(', ') : 'any time',
      a.shut?.length ? `not on ${a.shut.map((d) => weekdays[d]).join(', ')}` : '',
      a.arrive ? `${a.arrive} min on arrival` : '',
      a.note,
    ]
      .filter(Boolean)
      .join(' · ');
  });
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    const a = access;
    if (!a) return;
    problem = await attempt(async () => {
      const body = { ...$state.snapshot(a), arrive: bare(arrive) || 0 } as Schemas['Access'];
      access = await ask(
        api.PUT('/api/v1/properties/{id}/access', { params: { path: { id: property }, header: onceKey() }, body }),
      );
      open = false;
      house.say('Access saved.');
    });
  }
</script>

{#if access}
  {#if open}
    <form class="my-2 space-y-2 border border-ink bg-white p-3" onsubmit={keep} aria-label="Access">
      <Hours
        legend="One may be there (nothing ticked: at any time)"
        bind:week={() => access!.hours, (w) => (access!.hours = w)}
        problems={problem?.fields}
      />
      <fieldset>
        <legend class="font-semibold">Never on</legend>
        <div class="flex flex-wrap gap-x-4">
          {#each inOrder(house.frame?.firm.week_start ?? 1) as d}<Tickbox
              checked={access.shut?.includes(d) ?? false}
              label={weekdays[d]}
              onpick={(on) => (access!.shut = on ? [...access!.shut, d] : access!.shut.filter((x) => x !== d))}
            />{/each}
        </div>
      </fieldset>
      <div class="grid gap-3 sm:grid-cols-[10rem_1fr]">
        <Field label="Minutes on arrival" mode="numeric" bind:value={arrive} problem={problem?.fields.arrive} />
        <Field label="Gate, key, parking" bind:value={access.note} problem={problem?.fields.note} />
      </div>
      <div class="flex gap-2">
        <Button type="submit">Save</Button><Button color="light" onclick={() => (open = false)}>Back</Button>
      </div>
    </form>
  {:else}
    <p class="flex flex-wrap items-center gap-x-3 border-b border-rule text-sm">
      <span>Access: {text}</span>
      <button class="min-h-11 text-moss underline" onclick={() => ((open = true), (arrive = String(access?.arrive || '')))}
        >{limited || access.note || access.arrive || access.shut?.length ? 'Change' : 'Limit it'}</button
      >
    </p>
  {/if}
{/if}
