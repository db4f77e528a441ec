<script lang="ts">
  /** How mail goes out: the server that takes it, and who writes; with a letter to try it. */
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';

  let set = $state<Schemas['MailSet']>();
  let port = $state('');
  let password = $state('');
  let to = $state('');
  let busy = $state(false);
  let problem = $state<Problem>();
  const said = $derived(problem?.fields ?? {});
  function take(m: Schemas['MailSet']) {
    set = { ...m, security: m.security || 'starttls' };
    port = m.port ? String(m.port) : '';
    password = '';
  }
  onMount(() => void attempt(async () => take(await ask(api.GET('/api/v1/mail')))));
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    const { host, security, user, from } = set!;
    problem = await attempt(async () => {
      const body = { host, security, user, from, port: Math.round(Number(port)) || 0, password: password || undefined };
      take(await ask(api.PUT('/api/v1/mail', { params: { header: onceKey() }, body })));
      house.say(set!.host ? 'Mail goes out by this server now.' : 'No mail goes out any more.');
    });
  }
  async function tryIt() {
    busy = true;
    problem = await attempt(async () => {
      const r = await ask(api.POST('/api/v1/mail/test', { params: { header: onceKey() }, body: { to } }));
      house.say(`${r.receipt}.`);
    });
    busy = false;
  }
</script>

<section class="mt-4 space-y-3 border border-rule bg-white p-4" aria-label="Mail">
  <h2>Mail</h2>
  <p class="text-sm text-soft">
    Without a server nothing goes out: letters are copied and sent by hand. The password stays on this machine, in no file that is
    given out.
  </p>
  {#if set}
    <form class="grid items-end gap-3 sm:grid-cols-2" onsubmit={keep} aria-label="How mail goes out">
      <Field label="Server" bind:value={set.host} placeholder="mail.example.com" problem={said.host} />
      <div class="grid grid-cols-2 items-end gap-3">
        <Field label="Port" mode="numeric" bind:value={port} placeholder="587" problem={said.port} />
        <Pick
          label="Secured by"
          bind:value={set.security}
          options={[
            ['starttls', 'STARTTLS'],
            ['tls', 'TLS'],
            ['none', 'nothing'],
          ]}
        />
      </div>
      <Field label="Signs in as" bind:value={set.user} problem={said.user} />
      <Field
        label="Password"
        type="password"
        bind:value={password}
        placeholder={set.kept ? 'the one that is kept' : ''}
        problem={said.password}
      />
      <Field label="Writes from" bind:value={set.from} placeholder="garden@example.com" problem={said.from} />
      <Button type="submit" class="min-h-11">Save the mail server</Button>
    </form>
    {#if set.host}<form
        class="flex flex-wrap items-end gap-3"
        aria-label="A test letter"
        onsubmit={(e) => (e.preventDefault(), void tryIt())}
      >
        <Field class="min-w-60 flex-1" label="Send a test letter to" bind:value={to} problem={said.to} />
        <Button type="submit" color="light" class="min-h-11" disabled={busy || !to.trim()}
          >{busy ? 'On its way …' : 'Try it'}</Button
        >
      </form>{/if}
    {#if problem && !Object.keys(said).length}<p role="alert" class="border-l-4 border-bad pl-2">{problem.message}</p>{/if}
  {/if}
</section>
