<script lang="ts">
  /** One's own way in: who one is, the password, and out again. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
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
  // Keys of devices.
  let keys = $state.raw<Schemas['Passkey'][]>([]);
  let device = $state('');
  let fault = $state.raw<Problem>();
  const can = 'PublicKeyCredential' in window;
  $effect(() => {
    if (house.me?.account) void attempt(async () => void (keys = (await ask(api.GET('/api/v1/me/passkeys'))).items));
  });
  async function addKey(e: SubmitEvent) {
    e.preventDefault();
    fault = await attempt(async () => {
      const { startRegistration } = await import('@simplewebauthn/browser');
      const begun = await ask(api.POST('/api/v1/me/passkeys/begin', { params: { header: onceKey() } }));
      const response = await startRegistration({ optionsJSON: begun.options as never });
      const body = { ceremony: begun.id, name: device, response };
      keys = (await ask(api.POST('/api/v1/me/passkeys', { params: { header: onceKey() }, body }))).items;
      house.say(`${device} signs in without a password from now on.`);
      device = '';
    });
  }
  const dropKey = (k: Schemas['Passkey']) =>
    attempt(async () => {
      await ask(api.DELETE('/api/v1/me/passkeys/{id}', { params: { path: { id: k.id }, header: onceKey() } }));
      keys = keys.filter((x) => x.id !== k.id);
      house.say(`${k.name} signs in by password again.`);
    });
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
    {#if can || keys.length}
      <h3 class="mt-4 font-semibold">Without a password</h3>
      <p class="text-sm text-soft">
        A passkey lets you in by your finger, face or code on that device. Lost it? Take its key out here; Sign out everywhere
        ends them all.
      </p>
      <ul>
        {#each keys as k (k.id)}<li class="flex flex-wrap items-baseline gap-x-3 border-t border-rule py-1">
            <span class="flex-1"
              ><b>{k.name}</b>
              <span class="text-sm text-soft"
                >since {inWords(k.made)}{k.used ? `, last used ${inWords(k.used)}` : ', not used yet'}</span
              ></span
            >
            <button class="min-h-11 text-moss underline" onclick={() => dropKey(k)}
              >Take out<span class="sr-only">: {k.name}</span></button
            >
          </li>{/each}
      </ul>
      {#if can}<form class="mt-2 grid items-end gap-3 sm:grid-cols-[1fr_auto]" aria-label="Passkey" onsubmit={addKey}>
          <Field label="Name of this device" bind:value={device} placeholder="My phone" problem={fault?.fields['name']} />
          <Button type="submit" color="light" disabled={!device.trim()}>Add a passkey</Button>
        </form>{/if}
    {/if}
  </section>
{:else if house.me?.needs === 'owner'}
  <section class="mt-4 border border-rule bg-white p-4" aria-label="Sign-in">
    <h2>Sign-in</h2>
    <p>Nobody signs in yet: whoever uses this machine reads and changes the record, and no other machine reaches it.</p>
    <Button class="mt-2" color="light" href="#/owner">Enter the owner</Button>
  </section>
{/if}
