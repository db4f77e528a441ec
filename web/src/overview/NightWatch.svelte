<script lang="ts">
  /** Before a cold night that is told: what to carry in, cover and mulch, what saves most in a minute first. */
  import { api, ask, dropOrder, onceKey, type Schemas } from '../api/client';
  import { degrees, hours, inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';

  type Night = Schemas['NightWatch']['nights'][number];
  let watch = $state.raw<Schemas['NightWatch']>();
  let made = $state<number[]>([]); // properties whose job was made here
  const reads = reading();
  $effect(() => {
    void house.today;
    void reads(async (signal) => {
      watch = await ask(api.GET('/api/v1/night-watch', { signal }));
    });
  });
  const first = 4;
  const verbs: Record<string, string> = { 'carry in': 'Carry in', cover: 'Cover', mulch: 'Mulch' };
  const hurt = (v: number) => (v >= 0.6 ? 'likely lost' : v >= 0.3 ? 'badly hurt' : 'hurt');
  async function job(n: Night) {
    const today = house.today;
    await attempt(async () => {
      const o = await ask(
        api.POST('/api/v1/orders', {
          params: { header: onceKey() },
          body: {
            property_id: n.property_id,
            plants: n.acts.map((a) => a.plant_id),
            title: `Before the frost: ${[...new Set(n.acts.map((a) => a.do))].join(', ')}`,
            minutes: n.minutes,
            note: n.acts.map((a) => `${verbs[a.do]} ${a.plant}`).join('; '),
            spans: [{ from: today, to: today }],
            day: today,
          },
        }),
      );
      made = [...made, n.property_id];
      house.say(`${n.property}: a job for today.`, async () => {
        await dropOrder(o.id);
        made = made.filter((id) => id !== n.property_id);
      });
    });
  }
</script>

{#snippet act(a: Night['acts'][number])}
  <li class="flex flex-wrap items-baseline gap-x-3 border-t border-rule py-1">
    <span class="min-w-52 flex-1"
      >{verbs[a.do]} <a class="underline" href="#/plant/{a.plant_id}">{a.plant}</a><span class="text-sm text-soft"
        >&nbsp;· {a.worst} {hurt(a.without)} if not</span
      ></span
    >
    <span class="text-sm tabular-nums">{hours(a.minutes)}</span>
  </li>
{/snippet}

{#if watch?.nights.length}
  <section aria-label="Night watch" class="mb-5 border-2 border-cold bg-white p-3">
    <h2>Before a cold night</h2>
    <p class="text-sm text-soft">
      By the weather as the station tells it. What saves most for a minute of work comes first. Estimates. Lift heavy pots with
      two people.
    </p>
    {#each watch.nights as n (n.property_id)}
      <div class="mt-2 border-t border-ink pt-1">
        <div class="flex flex-wrap items-baseline gap-x-3">
          <p class="flex-1">
            <b>{n.property}</b>: {degrees(n.min_c)} told for the morning of {inWords(n.day)}
          </p>
          <span class="text-sm">{hours(n.minutes)} for all of it</span>
          {#if house.may('planner') && !made.includes(n.property_id)}<button
              class="min-h-11 text-moss underline"
              onclick={() => job(n)}>Make it a job for today<span class="sr-only">: {n.property}</span></button
            >{/if}
        </div>
        <ul>
          {#each n.acts.slice(0, first) as a (a.plant_id)}{@render act(a)}{/each}
        </ul>
        {#if n.acts.length > first}<details>
            <summary class="min-h-11 py-2 text-moss underline">{n.acts.length - first} more</summary>
            <ul>
              {#each n.acts.slice(first) as a (a.plant_id)}{@render act(a)}{/each}
            </ul>
          </details>{/if}
      </div>
    {/each}
  </section>
{/if}
