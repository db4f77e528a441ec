<script lang="ts">
  /** Who may sign in, and as what; one-time links that the owner passes on. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import { inWords, moment } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import Scan from './Scan.svelte';

  type Role = Schemas['Account']['role'];
  const roles: [Role, string][] = [
    ['crew', 'crew'],
    ['planner', 'planner'],
    ['owner', 'owner'],
  ];
  let list = $state.raw<Schemas['Account'][]>([]);
  let login = $state('');
  let name = $state('');
  let role = $state<Role>('crew');
  let link = $state.raw<{ name: string; url: string; until: string }>();
  let problem = $state.raw<Problem>();
  let guesses = $state.raw<Schemas['Guesses'][]>([]);
  const read = () =>
    attempt(async () => {
      const [a, g] = await Promise.all([ask(api.GET('/api/v1/accounts')), ask(api.GET('/api/v1/accounts/guesses'))]);
      [list, guesses] = [a.items, g.items];
    });
  void read();
  function show(i: Schemas['Invited']) {
    link = { name: i.account.name, url: `${location.origin}/#/invite/${i.token}`, until: i.until.slice(0, 10) };
  }
  async function add(e: SubmitEvent) {
    e.preventDefault();
    problem = await attempt(async () => {
      show(await ask(api.POST('/api/v1/accounts', { params: { header: onceKey() }, body: { login, name, role } })));
      login = name = '';
      await read();
    });
  }
  const path = (id: number) => ({ params: { path: { id }, header: onceKey() } });
  const invite = (a: Schemas['Account']) =>
    attempt(async () => show(await ask(api.POST('/api/v1/accounts/{id}/invitation', path(a.id)))));
  const end = (a: Schemas['Account']) =>
    attempt(async () => {
      await ask(api.DELETE('/api/v1/accounts/{id}/sessions', path(a.id)));
      house.say(`${a.name} is signed out everywhere.`);
    });
  const change = (a: Schemas['Account'], to: Role) =>
    attempt(async () => {
      try {
        await ask(api.PUT('/api/v1/accounts/{id}', { ...path(a.id), body: { name: a.name, role: to, version: a.version } }));
      } finally {
        await read();
      }
    });
  const remove = (a: Schemas['Account']) =>
    attempt(async () => {
      await ask(api.DELETE('/api/v1/accounts/{id}', path(a.id)));
      await read();
      house.say(`${a.name} does not get in any more.`, async () => {
        await ask(api.POST('/api/v1/accounts/{id}/restore', path(a.id)));
        await read();
      });
    });
</script>

<section class="mt-4 border border-rule bg-white p-4" aria-label="Who may sign in">
  <h2>Who may sign in</h2>
  <p class="text-sm text-soft">
    Crew: walks, day sheets and ticking off. Planner: all of the work. Owner: also who gets in, and the firm’s settings.
  </p>
  {#if guesses.length}
    <div class="my-2 border-l-4 border-bad pl-3" role="note" id="guesses">
      <b>Somebody may be guessing passwords.</b>
      <ul>
        {#each guesses as g (g.login)}<li>
            {g.count} wrong passwords for <b>{g.login}</b>, the last on {moment(g.last)}{list.some((a) => a.login === g.login)
              ? ''
              : ': nobody signs in by that name'}
          </li>{/each}
      </ul>
      <p class="text-sm text-soft">
        Each further try waits longer, and nobody is locked out. If it was none of your people, set a longer password and sign
        that person out everywhere.
      </p>
    </div>{/if}
  <ul>
    {#each list as a (a.id)}
      <li class="flex flex-wrap items-end gap-x-3 gap-y-1 border-t border-rule py-2">
        <p class="basis-full">
          <b>{a.name}</b> <span class="text-soft">{a.login}{a.waiting ? ', has not set a password yet' : ''}</span>
        </p>
        <Pick label="Role of {a.name}" value={a.role} options={roles} onpick={(to) => change(a, to)} class="w-36" />
        <Button size="sm" color="light" class="min-h-11" onclick={() => invite(a)}
          >New link<span class="sr-only"> for {a.name}</span></Button
        >
        <Button size="sm" color="light" class="min-h-11" onclick={() => end(a)}
          >Sign out everywhere<span class="sr-only">: {a.name}</span></Button
        >
        <Button size="sm" color="light" class="min-h-11" onclick={() => remove(a)}
          >Take out<span class="sr-only">: {a.name}</span></Button
        >
      </li>
    {/each}
  </ul>
  {#if link}
    <div class="mt-2 border border-ink bg-white p-3" role="status">
      <p><b>Pass this link on to {link.name}.</b> It works once, until {inWords(link.until)}, and is not shown again.</p>
      <div class="mt-2"><Scan link={link.url} what="The link of {link.name}" /></div>
    </div>
  {/if}
  <form class="mt-3 grid items-end gap-3 sm:grid-cols-[1fr_1fr_8rem_auto]" aria-label="Let somebody in" onsubmit={add}>
    <Field label="Who gets in" bind:value={name} problem={problem?.fields['name']} />
    <Field label="Signs in by" bind:value={login} problem={problem?.fields['login']} />
    <Pick label="As" bind:value={role} options={roles} />
    <Button type="submit" disabled={!name || !login}>Let in</Button>
  </form>
  {#if problem && !Object.keys(problem.fields).length}<p role="alert" class="mt-1 border-l-4 border-bad pl-2">
      {problem.message}
    </p>{/if}
</section>
