<script lang="ts">
  import { ThemeProvider } from 'flowbite-svelte';
  import Router, { push, router } from 'svelte-spa-router';
  import { wrap } from 'svelte-spa-router/wrap';
  import { setByRegion } from './firm/region';
  import { attempt, house, keys } from './lib/house.svelte';
  import Notes from './lib/Notes.svelte';
  import { opened } from './lib/opened';
  import Waiting from './lib/Waiting.svelte';
  import Lookout from './overview/Lookout.svelte';
  import { inWords } from './lib/dates';
  import { theme } from './theme';

  // A place is loaded when it is first opened; the rest follow while nothing else is to do, so that all work without signal.
  const later = {
    Ails: () => import('./finds/Ails.svelte'),
    CallSheet: () => import('./finds/CallSheet.svelte'),
    CausePages: () => import('./finds/CausePages.svelte'),
    Almanac: () => import('./garden/Almanac.svelte'),
    Card: () => import('./garden/Card.svelte'),
    Cut: () => import('./cuts/Cut.svelte'),
    Cuts: () => import('./cuts/Cuts.svelte'),
    Climate: () => import('./garden/Climate.svelte'),
    Grounds: () => import('./garden/Grounds.svelte'),
    SitePlan: () => import('./ground/SitePlan.svelte'),
    Winter: () => import('./ground/Winter.svelte'),
    SetPassword: () => import('./firm/SetPassword.svelte'),
    ClientPage: () => import('./firm/ClientPage.svelte'),
    Replace: () => import('./ground/Replace.svelte'),
    PlantPage: () => import('./garden/PlantPage.svelte'),
    Rounds: () => import('./rounds/Rounds.svelte'),
    Mix: () => import('./treat/Mix.svelte'),
    Stores: () => import('./treat/Stores.svelte'),
    Treat: () => import('./treat/Treat.svelte'),
    Tell: () => import('./firm/Tell.svelte'),
    Propose: () => import('./rounds/Propose.svelte'),
    DaySheet: () => import('./rounds/DaySheet.svelte'),
    Settings: () => import('./firm/Settings.svelte'),
    Ledger: () => import('./ledger/Ledger.svelte'),
    LedgerClients: () => import('./ledger/Clients.svelte'),
    LedgerRates: () => import('./ledger/Rates.svelte'),
    WorkDone: () => import('./ledger/WorkDone.svelte'),
    ReportPage: () => import('./ledger/ReportPage.svelte'),
    EstimatePage: () => import('./ledger/EstimatePage.svelte'),
    Walk: () => import('./walks/Walk.svelte'),
    Practice: () => import('./walks/Practice.svelte'),
    Year: () => import('./work/Year.svelte'),
  };
  const at = (name: keyof typeof later) => wrap({ asyncComponent: later[name] as never });
  let coming = $state(false); // a screen is being read; told here, since a router that shows it itself can stay at it
  const routes = {
    '/': Lookout,
    '/lookout': Lookout,
    '/grounds/:id/climate': at('Climate'),
    '/grounds/:id/plan': at('SitePlan'),
    '/grounds/:id/winter': at('Winter'),
    '/replace/:property/:plant?': at('Replace'),
    '/grounds/:id?': at('Grounds'),
    '/walk/:property?/:plant?': at('Walk'),
    '/practice': at('Practice'),
    '/plant/:id': at('PlantPage'),
    '/card/:plant': at('Card'),
    '/cut/:plant': at('Cut'),
    '/cuts/:property': at('Cuts'),
    '/year/:property?': at('Year'),
    '/rounds/:job?': at('Rounds'),
    '/ails/:plant?': at('Ails'),
    '/almanac/cause/:id?': at('CausePages'),
    '/almanac/:id?': at('Almanac'),
    '/call/:property': at('CallSheet'),
    '/stores': at('Stores'),
    '/mix/:day?': at('Mix'),
    '/treat/:find': at('Treat'),
    '/propose': at('Propose'),
    '/tell': at('Tell'),
    '/day/:day?/:crew?': at('DaySheet'),
    '/settings': at('Settings'),
    '/ledger': at('Ledger'),
    '/ledger/clients': at('LedgerClients'),
    '/ledger/rates': at('LedgerRates'),
    '/ledger/work/:property?': at('WorkDone'),
    '/estimate/:id': at('EstimatePage'),
    '/report/:id': at('ReportPage'),
    '/owner': at('SetPassword'),
    '/invite/:token': at('SetPassword'),
    '/client/:token?': at('ClientPage'),
    '*': Lookout,
  };
  const places = $derived([
    {
      name: 'Lookout',
      path: '/lookout',
      asks: 'What weather and season ask now',
      count: house.frame?.counts.lookout,
      of: 'plants to look at and jobs overdue',
    },
    {
      name: 'Grounds',
      path: '/grounds',
      asks: 'Properties and their plants',
      count: house.frame?.counts.grounds,
      of: 'properties',
    },
    { name: 'Walk', path: '/walk', asks: 'One plant after the other', count: undefined, of: '' },
    { name: 'Year', path: '/year', asks: 'Windows and what a day costs', count: house.frame?.counts.year, of: 'windows closing' },
    {
      name: 'Rounds',
      path: '/rounds',
      asks: 'Who goes where on which day',
      count: house.frame?.counts.rounds,
      of: 'jobs without a day or overdue',
    },
    ...(house.may('planner')
      ? [{ name: 'Stores', path: '/stores', asks: 'What to buy, what is there, what was used', count: undefined, of: '' }]
      : []),
    { name: 'Almanac', path: '/almanac', asks: 'What the book says, in this climate’s dates', count: undefined, of: '' },
    ...(house.may('planner')
      ? [{ name: 'Ledger', path: '/ledger', asks: 'Estimates and answers, work done, the month', count: undefined, of: '' }]
      : []),
  ]);
  const section = (name: string) =>
    name === 'plant' || name === 'call' || name === 'cut' || name === 'card' || name === 'treat' || name === 'cuts'
      ? 'grounds'
      : name === 'propose' || name === 'day' || name === 'tell'
        ? 'rounds'
        : name === 'ails'
          ? 'almanac'
          : name === 'estimate' || name === 'report'
            ? 'ledger'
            : name;
  /** A screen of one thing is as new for another: what was entered for a plant is not the next one's. */
  const ofOne = /^\/(ails|cut|cuts|card|plant|treat|replace|call|estimate|report)\/|^\/grounds\/\d+\/\w/;
  const thing = $derived(ofOne.test(router.location) ? router.location : '');
  const here = $derived('/' + section(router.location.split('/')[1] || 'lookout'));
  const onWalk = $derived(here === '/walk');
  const client = $derived(here === '/client'); // somebody from outside reads one page
  const open = $derived(client || here === '/invite' || here === '/owner');
  // Somebody else who signs in reads all anew; the same one again goes on where they were. Whoever is signed in from the start
  // has read already.
  let who = $state(0);
  let before: number | undefined;
  $effect(() => {
    if (!house.me) return;
    const now = house.me.account?.id;
    if (now !== undefined && before !== undefined && now !== before) who = now;
    before = now ?? before ?? 0;
  });
  let asked = $state(localStorage.getItem('no owner yet') === 'yes'); // the first start's question was put off

  // A firm that has set nothing yet begins with what its region has.
  let regional = false;
  $effect(() => {
    if (regional || house.frame?.firm.version !== 0 || house.me?.needs === 'sign-in' || open || !house.may('owner')) return;
    regional = true;
    void attempt(setByRegion);
  });

  let finding = $state(false);
  let helping = $state(false);
  let page = $state(''); // of help that was asked for; empty: that of the screen
  function help(id = '') {
    page = id;
    helping = true;
  }
  // What stands beside the screens is read when it is first wanted.
  const asides = {
    Help: () => import('./overview/Help.svelte'),
    Find: () => import('./overview/Find.svelte'),
    MoveTime: () => import('./firm/MoveTime.svelte'),
    SignIn: () => import('./firm/SignIn.svelte'),
    MorePlaces: () => import('./overview/MorePlaces.svelte'),
  };
  let aside = $state.raw<{ [name in keyof typeof asides]?: Awaited<ReturnType<(typeof asides)[name]>>['default'] }>({});
  $effect(() => {
    const wanted = { Help: helping, Find: finding, MoveTime: moving, SignIn: house.me?.needs === 'sign-in', MorePlaces: more };
    for (const name of Object.keys(asides) as (keyof typeof asides)[])
      if (wanted[name] && !aside[name])
        void attempt(async () => {
          const { default: part } = await asides[name]();
          aside = { ...aside, [name]: part };
        }).then((fault) => {
          if (fault) finding = helping = moving = more = false; // it is said; the keys are free again
        });
  });
  let more = $state(false);
  let moving = $state(false);

  // The counts follow what was done in the place one leaves.
  $effect(() => {
    void router.location;
    void house.refresh();
  });

  // The day becoming known at the start is no move.
  let moved = $state(0);
  let stoodAt = '';
  $effect(() => {
    if (stoodAt && house.today && stoodAt !== house.today) moved++;
    stoodAt = house.today || stoodAt;
  });

  function typing(e: KeyboardEvent) {
    const t = e.target as HTMLElement;
    return t.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(t.tagName) || t.closest('form') !== null;
  }
  function onkeydown(e: KeyboardEvent) {
    if (e.ctrlKey || e.metaKey || e.altKey || document.querySelector('dialog[open]')) return;
    if (e.key === 'Escape') {
      if (opened.close()) e.preventDefault();
      return;
    }
    if (typing(e) || opened.any || finding || helping || moving) return;
    const place = places[Number(e.key) - 1];
    if (place) {
      void push(place.path);
    } else if (e.key === '/') {
      finding = true;
    } else if (e.key === '?') {
      help();
    } else if (e.key.toLowerCase() === 't' && house.frame?.movable) {
      moving = true;
    } else {
      const k = [...keys.screen, ...keys.ribbon].find((k) => k.key.toLowerCase() === e.key.toLowerCase());
      if (!k || ((e.key === 'Enter' || e.key === ' ') && /^(BUTTON|A|SUMMARY)$/.test((e.target as HTMLElement).tagName))) return;
      k.run();
    }
    e.preventDefault();
  }
</script>

<svelte:window {onkeydown} />

<ThemeProvider {theme}>
  {#if house.me?.needs === 'sign-in' && !open && aside.SignIn}<aside.SignIn />{/if}
  <div class="flex min-h-dvh flex-col md:flex-row print:block print:min-h-0">
    <nav
      hidden={client}
      aria-label="Places"
      class="order-2 flex shrink-0 border-rule bg-sheet print:hidden max-md:fixed max-md:inset-x-0 max-md:bottom-0 max-md:z-20 max-md:border-t md:sticky md:top-0 md:h-dvh md:w-44 md:flex-col md:border-r md:order-1"
    >
      <div class="px-4 pt-4 pb-3 max-md:hidden">
        <p class="text-lg font-bold">Mezzadro</p>
        <p class="text-sm">
          <a
            class="inline-flex min-h-9 items-center text-ink underline decoration-rule"
            href="#/settings"
            aria-current={here === '/settings' ? 'page' : undefined}
            title="Settings">{house.frame?.firm.name ?? ''}<span class="sr-only">: settings</span></a
          >{#if house.frame?.firm.sample}
            <span class="block text-soft">Made-up sample data</span>{/if}
        </p>
      </div>
      {#each places as p, i (p.path)}
        <a
          href="#{p.path}"
          aria-current={here === p.path ? 'page' : undefined}
          title={p.asks}
          class="flex min-h-12 items-center gap-2 px-4 text-ink no-underline hover:no-underline max-md:flex-1 {i > 3
            ? 'max-md:hidden'
            : ''} max-md:flex-col max-md:justify-center max-md:gap-0 max-md:px-0 max-md:text-sm
          {here === p.path ? 'border-moss bg-paper font-bold md:border-l-4 md:pl-3 max-md:border-t-4' : 'hover:bg-paper'}"
        >
          <span class="w-3 text-xs text-soft max-md:hidden" aria-hidden="true">{i + 1}</span>
          <span class="md:flex-1">{p.name}</span>
          {#if p.count}<span class="rounded-sm bg-ink px-1.5 text-xs leading-5 font-semibold text-paper max-md:hidden"
              >{p.count}<span class="sr-only"> {p.of}</span></span
            >{/if}
        </a>
      {/each}
      <button
        class="min-h-12 flex-1 text-sm md:hidden {places.slice(4).some((p) => p.path === here)
          ? 'border-t-4 border-moss bg-paper font-bold'
          : ''}"
        aria-haspopup="dialog"
        onclick={() => (more = true)}>More</button
      >
      <!-- Messages stand where no control does: here in the flow; on a phone in the bar at the foot, for which room is made. -->
      {#if !house.placed}<div class="space-y-2 px-2 max-md:hidden" role="status"><Notes narrow /></div>{/if}
      <div class="mt-auto space-y-1 px-4 py-4 text-sm max-md:hidden">
        {#if house.today}<p class="font-semibold">{inWords(house.today, true)}</p>{/if}
        {#if house.frame?.movable}<button class="block min-h-8 text-moss hover:underline" onclick={() => (moving = true)}
            >Move the time <kbd>T</kbd></button
          >{/if}
        <button class="block min-h-8 text-moss hover:underline" onclick={() => (finding = true)}>Find <kbd>/</kbd></button>
        <button class="block min-h-8 text-moss hover:underline" onclick={() => help()}>Help <kbd>?</kbd></button>
        <button
          class="block min-h-8 text-moss hover:underline"
          role="switch"
          aria-checked={house.glare}
          title="Black on white, larger: for reading in full sun"
          onclick={() => house.setGlare(!house.glare)}>Full-sun reading: <b>{house.glare ? 'on' : 'off'}</b></button
        >
      </div>
    </nav>
    <main
      class="order-1 flex min-h-dvh min-w-0 flex-1 flex-col print:min-h-0 print:pb-0 {house.notes.length
        ? 'max-md:pb-40'
        : 'max-md:pb-16'} md:order-2 {onWalk ? '' : 'max-md:overflow-x-clip'}"
    >
      {#if house.ondevice && !onWalk}
        <p class="border-b border-sun bg-white px-4 py-1.5 text-[0.9375rem]" role="status">
          <b>No connection.</b> What you see was read earlier and is kept on this device.
        </p>
      {/if}
      {#if house.frame?.trouble && !open}
        <p class="border-b-2 border-bad bg-white px-4 py-1.5" role="alert">
          <b>Nothing can be kept:</b>
          {house.frame.trouble}. Dates of jobs are as they were last worked out.
        </p>
      {/if}
      {#if house.me?.needs === 'owner' && house.frame && !house.frame.counts.grounds && !asked && !open}
        <p class="flex flex-wrap items-center gap-x-4 border-b border-ink bg-white px-4 py-2">
          <span class="min-w-60 flex-1"
            ><b>Whose record is this?</b> Until there is an owner, whoever uses this machine may do all, and no other machine gets in.</span
          >
          <a
            class="inline-flex min-h-11 items-center rounded-sm bg-moss px-3 text-sm font-semibold text-white no-underline hover:bg-moss-deep"
            href="#/owner">Enter the owner</a
          >
          <button
            class="min-h-11 text-moss underline"
            onclick={() => {
              asked = true;
              localStorage.setItem('no owner yet', 'yes');
            }}>Not now</button
          >
        </p>
      {/if}
      <!-- When the sample's time is moved, every screen is as new. -->
      {#key `${moved} ${who} ${thing}`}<Router
          {routes}
          onRouteLoading={() => (coming = true)}
          onRouteLoaded={() => (coming = false)}
        />{/key}
      {#if coming}<Waiting />{/if}
    </main>
  </div>

  {#if !house.placed}
    <div
      class="fixed inset-x-0 bottom-12 z-20 space-y-1 bg-paper md:hidden print:hidden {house.notes.length
        ? 'border-t border-rule p-2'
        : ''}"
      role="status"
    >
      <Notes />
    </div>
  {/if}

  {#if aside.Find}<aside.Find bind:open={finding} onhelp={(id: string) => help(id)} />{/if}
  {#if aside.MoveTime}<aside.MoveTime bind:open={moving} />{/if}

  {#if aside.MorePlaces}<aside.MorePlaces
      bind:open={more}
      places={places.slice(4)}
      onfind={() => (finding = true)}
      onhelp={() => help()}
      onmove={house.frame?.movable ? () => (moving = true) : undefined}
    />{/if}

  {#if aside.Help}<aside.Help
      bind:open={helping}
      path={router.location}
      asked={page}
      here={[...keys.screen, ...keys.ribbon]}
      everywhere={[
        [`1–${places.length}`, `the places, from Lookout to ${places.at(-1)!.name}`],
        ...(house.frame?.movable ? [['T', 'move the sample’s time'] as [string, string]] : []),
        ['/', 'find a plant, property, job or page of help'],
        ['Escape', 'close what is open; what was typed is there when it is opened again'],
      ]}
    />{/if}
</ThemeProvider>
