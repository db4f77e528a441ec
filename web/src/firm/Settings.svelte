<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { keptOf } from '../lib/kept';
  import BackupSlip from './BackupSlip.svelte';
  import Accounts from './Accounts.svelte';
  import HouseRules from './HouseRules.svelte';
  import MailSlip from './MailSlip.svelte';
  import MyAccount from './MyAccount.svelte';
  import OnThePhone from './OnThePhone.svelte';
  import People from './People.svelte';
  import RemovedSlip from './RemovedSlip.svelte';
  import Crews from '../rounds/Crews.svelte';
  import Pick from '../lib/Pick.svelte';
  import Waiting from '../lib/Waiting.svelte';

  type Firm = Schemas['FirmOut'];
  let firm = $state<Firm>();
  let stamp = $state(0);
  let problem = $state<Problem>();
  const theirs = $derived(keptOf<Firm>(problem));

  /** The parts by their heads, as they stand on the page: which there are hangs on who reads it. */
  let parts = $state<string[]>([]);
  let page: HTMLElement;
  const heads = () => [...page.querySelectorAll<HTMLElement>('h2')];
  function listed(at: HTMLElement) {
    page = at;
    const read = () => {
      const now = heads().map((h) => h.textContent ?? '');
      if (now.join('\n') !== parts.join('\n')) parts = now;
    };
    const watch = new MutationObserver(read);
    watch.observe(at, { childList: true, subtree: true });
    read();
    return () => watch.disconnect();
  }
  function go(i: number) {
    const head = heads()[i];
    if (!head) return;
    head.tabIndex = -1;
    head.scrollIntoView({ block: 'start' });
    head.focus({ preventScroll: true });
  }

  onMount(() => void attempt(async () => void (firm = await ask(api.GET('/api/v1/firm')))));

  async function send(f: Firm) {
    return ask(
      api.PUT('/api/v1/firm', {
        params: { header: onceKey() },
        body: {
          name: f.name,
          units: f.units,
          week_start: f.week_start as 0 | 1 | 6,
          day_order: f.day_order,
          clock: f.clock,
          paper: f.paper,
          rules: f.rules,
          version: f.version,
        },
      }),
    );
  }
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    if (!firm) return;
    const before = await ask(api.GET('/api/v1/firm'));
    const wanted = $state.snapshot(firm) as Firm;
    problem = await attempt(async () => {
      firm = await send(wanted);
      await house.refresh();
      house.say('Settings saved.', async () => {
        await attempt(async () => {
          firm = await send({ ...before, version: firm!.version });
          await house.refresh();
        });
      });
    });
  }
</script>

<svelte:head><title>Settings · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3 lg:grid lg:max-w-5xl lg:grid-cols-[12rem_minmax(0,1fr)] lg:gap-x-8">
  <div>
    <h1>Settings</h1>
    {#if parts.length > 1}<nav aria-label="Parts of the settings" class="mt-2 lg:sticky lg:top-4">
        <ul class="border-t border-rule max-lg:columns-2 max-lg:gap-6">
          {#each parts as part, i (i)}<li class="break-inside-avoid border-b border-rule">
              <button class="min-h-11 w-full text-left text-moss hover:underline" onclick={() => go(i)}>{part}</button>
            </li>{/each}
        </ul>
      </nav>{/if}
  </div>
  <div class="max-w-3xl" {@attach listed}>
    {#if !firm}
      <Waiting />
    {:else}
      {#if !house.may('owner')}<p class="mt-2 text-soft">The firm’s settings are the owner’s to change.</p>
      {:else}<form class="space-y-4 max-lg:mt-3" onsubmit={keep} aria-label="Settings">
          <section class="space-y-3 border border-rule bg-white p-4">
            <h2>The firm</h2>
            <Field label="Name" bind:value={firm.name} problem={problem?.fields.name} />
            <div class="grid gap-3 sm:grid-cols-2">
              <Pick
                label="Units"
                bind:value={firm.units}
                options={[
                  ['metric', 'Metric: m, °C, mm, L'],
                  ['imperial', 'Imperial: ft, °F, in, gal'],
                ]}
              />
              <Pick
                label="The week begins on"
                bind:value={firm.week_start}
                options={[
                  [1, 'Monday'],
                  [0, 'Sunday'],
                  [6, 'Saturday'],
                ]}
              />
              <Pick
                label="Days are written"
                bind:value={() => firm?.day_order ?? '', (v) => firm && (firm.day_order = v || undefined)}
                options={[
                  ['', 'as each reader’s region does'],
                  ['day', '17 March'],
                  ['month', 'March 17'],
                ]}
              />
              <Pick
                label="Hours are written"
                bind:value={() => firm?.clock ?? '', (v) => firm && (firm.clock = v || undefined)}
                options={[
                  ['', 'as each reader’s region does'],
                  ['24', '14:30'],
                  ['12', '2:30 pm'],
                ]}
              />
              <Pick
                label="Printed on"
                bind:value={() => firm?.paper ?? '', (v) => firm && (firm.paper = v || undefined)}
                options={[
                  ['', 'what each reader’s region uses'],
                  ['A4', 'A4'],
                  ['letter', 'Letter'],
                ]}
              />
            </div>
            <p class="text-sm text-soft">
              Figures are kept as they were measured; units change how they are shown and entered, everywhere, on screens and on
              paper.
            </p>
          </section>
          <section class="space-y-2 border border-rule bg-white p-4">
            <h2>House rules</h2>
            <HouseRules bind:rules={firm.rules} problems={problem?.fields} />
            <p class="text-sm text-soft">
              A rule changes what is advised and what days cost; every window follows at once, and each result that hangs on a
              rule says so. A property may choose otherwise: <a class="underline" href="#/grounds">change the property</a>.
            </p>
          </section>
          {#if theirs}
            <p role="alert" class="border-2 border-sun bg-white p-3">
              Somebody else has changed the settings meanwhile: {theirs.name}, {theirs.units}.
              <button type="button" class="min-h-11 text-moss underline" onclick={() => ((firm = theirs), (problem = undefined))}
                >Use theirs</button
              >
              <button
                type="button"
                class="min-h-11 text-moss underline"
                onclick={() => ((firm = { ...firm!, version: theirs.version }), (problem = undefined))}
                >Keep mine, and save again</button
              >
            </p>
          {/if}
          <Button type="submit">Save</Button>
        </form>{/if}
      {#if house.may('planner')}
        <People onchange={() => stamp++} />
        <Crews {stamp} />
        <OnThePhone />
      {/if}
      {#if house.me?.account?.role === 'owner'}<Accounts />{/if}
      {#if house.may('owner')}<MailSlip />{/if}
      {#if house.may('owner') && !house.frame?.firm.sample}<BackupSlip />{/if}
      {#if house.may('owner')}<RemovedSlip />{/if}
      <MyAccount />
    {/if}
  </div>
</div>
