<script lang="ts">
  /** When ways take longer: rush hours, by which rounds are proposed. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import { atHour } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { clock, minutesOf } from './clock';

  type Stretch = Schemas['RoundsTraffic'];
  let kept = $state.raw<Stretch[]>();
  let form = $state<Stretch[]>();
  let problem = $state<Problem>();
  const reads = reading();
  $effect(() => {
    void reads(async (signal) => {
      kept = (await ask(api.GET('/api/v1/traffic', { signal }))).items;
    });
  });
  const slower: [number, string][] = [
    [1.25, 'a quarter longer'],
    [1.5, 'half as long again'],
    [2, 'twice as long'],
    [3, 'three times as long'],
  ];
  const all = [0, 1, 2, 3, 4, 5, 6];
  const text = (t: Stretch) =>
    `${atHour(t.from)} – ${atHour(t.to)}${t.days?.length === 7 ? '' : ', weekdays'}: ${slower.find(([v]) => v === t.times)?.[1] ?? `${t.times} times as long`}`;
  const put = async (traffic: Stretch[]) => {
    kept = (await ask(api.PUT('/api/v1/traffic', { params: { header: onceKey() }, body: { traffic } }))).items;
  };
  async function save() {
    const before = kept ?? [];
    problem = await attempt(async () => {
      await put($state.snapshot(form!));
      form = undefined;
      house.say('Rush hours saved. Rounds that are proposed from now on go by them.', () => put(before));
    });
  }
  const add = () => (form = [...(form ?? []), { from: 420, to: 540, times: 1.5 }]);
  const look = 'min-h-11 rounded-sm border border-gray-400 bg-white px-2';
</script>

{#if kept}
  <div class="text-sm">
    {#if !form}
      <p class="flex flex-wrap items-center gap-x-4">
        <span>Rush hours: {kept.length ? kept.map(text).join('; ') : 'none, the road is free at all hours'}.</span>
        <button
          class="min-h-11 text-moss underline"
          onclick={() => ((form = kept!.map((t) => ({ ...t }))), !kept!.length && add())}>Change rush hours</button
        >
      </p>
    {:else}
      <form
        class="mt-2 grid gap-2 border border-rule bg-white p-3"
        aria-label="Rush hours"
        onsubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        {#each form as t, i (i)}
          <div class="flex flex-wrap items-center gap-2" role="group" aria-label="Stretch {i + 1}">
            <input
              type="time"
              class={look}
              aria-label="From"
              value={clock(t.from)}
              onchange={(e) => (t.from = minutesOf(e.currentTarget.value))}
            />
            to
            <input
              type="time"
              class={look}
              aria-label="To"
              value={clock(t.to)}
              onchange={(e) => (t.to = minutesOf(e.currentTarget.value))}
            />
            <select
              class={look}
              aria-label="Days"
              value={t.days?.length === 7 ? 'all' : 'week'}
              onchange={(e) => (t.days = e.currentTarget.value === 'all' ? all : [])}
              ><option value="week">Monday to Friday</option><option value="all">every day</option></select
            >
            <select
              class={look}
              aria-label="Ways take"
              value={t.times}
              onchange={(e) => (t.times = Number(e.currentTarget.value))}
              >{#each slower as [v, word] (v)}<option value={v}>{word}</option>{/each}</select
            >
            <button type="button" class="min-h-11 text-moss underline" onclick={() => (form = form!.filter((_, k) => k !== i))}
              >Remove<span class="sr-only"> stretch {i + 1}</span></button
            >
          </div>
          {#each ['from', 'to', 'times'] as field}{#if problem?.fields[`traffic[${i}].${field}`]}<p class="text-bad">
                {problem.fields[`traffic[${i}].${field}`]}
              </p>{/if}{/each}
        {/each}
        <div class="flex flex-wrap gap-2">
          <Button type="submit">Save</Button>
          <Button color="light" onclick={add}>Add a stretch</Button>
          <Button color="light" onclick={() => ((form = undefined), (problem = undefined))}>Back</Button>
        </div>
      </form>
    {/if}
  </div>
{/if}
