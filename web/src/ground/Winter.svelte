<script lang="ts">
  /** The winter to come at a property: what comes in, when and where, against the room there is; and bulbs worked back from their bloom. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { degrees, inWords, span } from '../lib/dates';
  import { bare, figure } from '../lib/units';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Field from '../lib/Field.svelte';
  import Pick from '../lib/Pick.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import Waiting from '../lib/Waiting.svelte';

  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id ?? 0));
  let name = $state('');
  let winter = $state.raw<Schemas['Winter']>();
  let ticked = $state<Record<number, boolean>>({});
  let room = $state(localStorage.getItem('winter room') ?? '');
  let bulb = $state('');
  let bloom = $state('');
  let forced = $state.raw<Schemas['OverwinterWintering']>();
  let slip = $state('');
  let taken = $state('');
  let rooted = $state.raw<Schemas['OverwinterWintering']>();
  let busy = $state(false);
  const reads = reading();

  $effect(() => {
    if (id) void read(id);
  });
  async function read(of: number) {
    await reads(async (signal) => {
      const params = { path: { id: of } };
      const [p, w] = await Promise.all([
        ask(api.GET('/api/v1/properties/{id}', { params, signal })),
        ask(api.GET('/api/v1/properties/{id}/winter', { params, signal })),
      ]);
      name = p.name;
      winter = w;
      for (const x of w.plants) ticked[x.id] ??= !x.asked && !!x.steps?.length;
    });
  }
  const there = $derived(bare(room) || 0);
  const chosen = $derived((winter?.plants ?? []).filter((p) => ticked[p.id] && !p.asked));
  async function keep() {
    busy = true;
    await attempt(async () => {
      const plants = chosen.map((p) => p.id);
      const got = await ask(
        api.POST('/api/v1/properties/{id}/winter', { params: { path: { id }, header: onceKey() }, body: { plants } }),
      );
      const n = got.items?.length ?? 0;
      house.say(`${n === 1 ? 'One job stands' : `${n} jobs stand`} for the winter, each with its days.`);
      await read(id);
    });
    busy = false;
  }
  async function force() {
    await attempt(async () => {
      forced = await ask(api.POST('/api/v1/reckon/wintering', { body: { species: bulb, property: id, bloom } }));
    });
  }
  async function root() {
    await attempt(async () => {
      rooted = await ask(api.POST('/api/v1/reckon/wintering', { body: { species: slip, property: id, cuttings_taken: taken } }));
    });
  }
  /** What is carried, in the order of the days on which it is due: in by the last of them. */
  const carried = $derived(
    (winter?.plants ?? []).filter((p) => p.keep && p.steps?.length).sort((a, b) => (a.steps![0]!.to < b.steps![0]!.to ? -1 : 1)),
  );
  $effect(() => localStorage.setItem('winter room', room));
  const share = (m2: number) => (there ? Math.min(100, (100 * m2) / there) : 0);
</script>

<svelte:head><title>{name ? `${name} · ` : ''}Winter · Mezzadro</title></svelte:head>

<div class="max-w-5xl px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/grounds/{id}">{name || 'Grounds'}</a></p>
  <h1>The winter to come</h1>
  {#if !winter}<Waiting rows={8} />
  {:else}
    {#if !winter.plants?.length}
      <p class="mt-3">Everything here comes through a usual winter where it stands.</p>
    {:else}
      <section aria-label="Room" class="mt-3 border border-ink bg-white px-3 py-2">
        <div class="flex flex-wrap items-end gap-5">
          <p class="flex-1">
            <b>{figure(winter.m2, 'm²')}</b> of floor for what comes in{#if there}, of {figure(there, 'm²')} there are{/if}.
            {#if there && winter.m2 > there}<b class="text-sun"
                >{figure(winter.m2 - there, 'm²')} too much: keep the dear ones, take cuttings of the rest, or give them to a grower.</b
              >{/if}
          </p>
          <div class="w-44"><Field label="Cold house has" kind="area" bind:value={room} /></div>
        </div>
        {#if there}<span class="mt-2 block h-3 bg-rule"
            ><span class="block h-3 {winter.m2 > there ? 'bg-sun' : 'bg-moss'}" style:width="{share(winter.m2)}%"></span></span
          >{/if}
        <ul class="mt-2 text-sm">
          {#each winter.rooms as r, i (i)}<li class="border-t border-rule py-1">
              <b>{degrees(r.least_c, 0)} to {degrees(r.most_c, 0)}, {r.light}</b>, {figure(r.m2, 'm²')}: {r.names.join('; ')}
            </li>{/each}
        </ul>
      </section>
      <ol class="mt-4">
        {#each winter.plants as p (p.id)}
          <li class="border-t border-rule py-2">
            <div class="flex flex-wrap items-start gap-x-4">
              <div class="min-w-60 flex-1">
                {#if p.steps?.length && !p.asked}<Tickbox
                    bind:checked={() => !!ticked[p.id], (v) => (ticked[p.id] = v)}
                    label={p.name}
                  />{:else}<p class="font-semibold">
                    {p.name}{#if p.asked}<span class="font-normal text-moss">&nbsp;· its jobs stand</span>{/if}
                  </p>{/if}
                <p class="text-sm text-soft">{p.why}</p>
              </div>
              <div class="w-60 text-sm">
                <p class="font-semibold">{p.way.charAt(0).toUpperCase() + p.way.slice(1)}</p>
                <p class="text-soft">
                  {Math.round(100 * p.chance)} of 100 come through so, {Math.round(100 * p.chance_outside)} outside (estimates)
                </p>
                {#if p.keep}<p class="text-soft">{p.keep.water}</p>{/if}
              </div>
            </div>
            <ul class="text-sm">
              {#each p.steps as s}<li>
                  <b>{inWords(s.from)}{s.to !== s.from ? ` – ${inWords(s.to)}` : ''}</b>
                  {s.do}: {s.why}.
                </li>{/each}
              {#each p.how as h}<li>{h}</li>{/each}
              {#if p.never.length}<li class="text-soft">{p.never.join(' ')}</li>{/if}
            </ul>
          </li>
        {/each}
      </ol>
      <Button class="mt-3" disabled={busy || !chosen.length} onclick={keep}
        >{chosen.length ? `Make jobs of it for ${chosen.length}` : 'Nothing is ticked'}</Button
      >
    {/if}
    {#if carried.length}
      <section aria-label="Load list" class="mt-8">
        <div class="flex flex-wrap items-end gap-4">
          <h2 class="flex-1">Load list: what is carried in</h2>
          <Button size="sm" color="light" class="min-h-11 print:hidden" onclick={() => print()}>Print</Button>
        </div>
        <table class="w-full text-sm">
          <thead
            ><tr class="text-left"><th>In by</th><th>What</th><th>How many</th><th>Each pot</th><th>Weighs</th><th>Floor</th></tr
            ></thead
          >
          <tbody>
            {#each carried as p (p.id)}<tr class="border-t border-rule">
                <td class="py-1 font-bold whitespace-nowrap">{inWords(p.steps![0]!.to)}</td>
                <td
                  >{p.name}<span class="block text-soft">{p.way}; {p.keep!.light}, {degrees(p.keep!.least_c, 0)} at least</span
                  ></td
                >
                <td>{p.count}</td>
                <td>{p.pot_l ? figure(p.pot_l, 'L') : '–'}</td>
                <td>{p.kg ? figure(p.kg, 'kg') : '–'}</td>
                <td>{figure(p.keep!.m2, 'm²')}</td>
              </tr>{/each}
          </tbody>
        </table>
        {#if winter.kg}<p class="mt-1 text-sm">
            About {figure(winter.kg, 'kg')} in all, moist as it stands (an estimate): some {winter.loads} trolley loads. Two people
            lift what weighs more than {figure(25, 'kg')}.
          </p>{/if}
      </section>
    {/if}
    <section aria-label="Bulbs in pots" class="mt-8">
      <h2>Bulbs in pots, in bloom on a day</h2>
      <form
        class="mt-1 flex flex-wrap items-end gap-3"
        onsubmit={(e) => {
          e.preventDefault();
          void force();
        }}
      >
        <Pick
          label="Kind"
          bind:value={bulb}
          off="Pick a kind"
          options={winter.bulbs.map((b): [string, string] => [b.species, b.common])}
        />
        <label class="font-semibold"
          >In bloom on<input
            class="mt-1 block min-h-11 rounded-sm border border-gray-400 bg-white px-2 font-normal"
            type="date"
            bind:value={bloom}
          /></label
        >
        <Button type="submit" color="light" disabled={!bulb || !bloom}>Work back</Button>
      </form>
      {#if forced}<ul class="mt-2" data-testid="forced">
          {#each forced.steps as s}<li class="border-t border-rule py-1">
              <b>{inWords(s.from)}</b>
              {s.do}: {s.why}.
            </li>{/each}
        </ul>
        <p class="text-sm text-soft">{forced.why}</p>{/if}
    </section>
    <section aria-label="Cuttings" class="mt-8">
      <h2>Cuttings: when, how, and out again</h2>
      <form
        class="mt-1 flex flex-wrap items-end gap-3"
        onsubmit={(e) => {
          e.preventDefault();
          void root();
        }}
      >
        <Pick
          label="Kind"
          bind:value={slip}
          off="Pick a kind"
          options={winter.cuttings.map((b): [string, string] => [b.species, b.common])}
        />
        <label class="font-semibold"
          >Cut on<input
            class="mt-1 block min-h-11 rounded-sm border border-gray-400 bg-white px-2 font-normal"
            type="date"
            bind:value={taken}
          /></label
        >
        <Button type="submit" color="light" disabled={!slip || !taken}>Work it out</Button>
      </form>
      {#if rooted}
        {#if rooted.why}<p class="mt-2">{rooted.why}</p>{/if}
        <ul class="mt-2" data-testid="rooted">
          {#each rooted.steps as s}<li class="border-t border-rule py-1">
              <b>{span(s.from, s.to)}</b>
              {s.do}: {s.why}.
            </li>{/each}
        </ul>
        {#each rooted.how as line}<p class="text-sm">{line}</p>{/each}
        {#each rooted.never as line}<p class="text-sm text-soft">{line}</p>{/each}
      {/if}
    </section>
  {/if}
</div>
