<script lang="ts">
  /** One's own way in: who one is, the password, and out again. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Problem } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';

  let old = $state('');
  let password = $state('');
  let problem = $state.raw<Problem>();
  async function change(e: SubmitEvent) {
    e.preventDefault();
    problem = await attempt(async () => {
      await ask(api.PUT('/api/v1/me/password', { params: { header: onceKey() }, body: { old, password } }));
      old = password = '';
      house.say('Your password is changed; other devices are signed out.');
    });
  }
  /** What was read for one who leaves is not kept for the next. */
  const out = (everywhere: boolean) =>
    attempt(async () => {
      const params = { params: { header: onceKey() } };
      if (everywhere) await ask(api.DELETE('/api/v1/me/sessions', params));
      else await ask(api.DELETE('/api/v1/me/session', params));
      for (const name of await caches.keys()) if (name === 'reads' || name === 'pictures') await caches.delete(name);
      await house.readMe();
    });
</script>

{#if house.me?.account}
  <section class="mt-4 border border-rule bg-white p-4" aria-label="You">
    <h2>You</h2>
    <p>
      <b>{house.me.account.name}</b>, {house.me.account.role}, signed in as {house.me.account.login}.
    </p>
    <div class="mt-2 flex flex-wrap gap-3">
      <Button color="light" onclick={() => out(false)}>Sign out</Button>
      <Button color="light" onclick={() => out(true)}>Sign out everywhere</Button>
    </div>
    <form class="mt-3 grid items-end gap-3 sm:grid-cols-[1fr_1fr_auto]" aria-label="Your password" onsubmit={change}>
      <Field label="Password as it is" type="password" bind:value={old} problem={problem?.fields['old']} />
      <Field label="New password" type="password" bind:value={password} problem={problem?.fields['password']} />
      <Button type="submit" color="light" disabled={!old || !password}>Change it</Button>
    </form>
  </section>
{:else if house.me?.needs === 'owner'}
  <section class="mt-4 border border-rule bg-white p-4" aria-label="Sign-in">
    <h2>Sign-in</h2>
    <p>Nobody signs in yet: whoever uses this machine reads and changes the record, and no other machine reaches it.</p>
    <Button class="mt-2" color="light" href="#/owner">Enter the owner</Button>
  </section>
{/if}
