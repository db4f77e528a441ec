<script lang="ts">
  /** Who are you? Over whatever stands open, so that nothing entered there is lost. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, Problem } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { house } from '../lib/house.svelte';

  let login = $state(localStorage.getItem('login') ?? '');
  let password = $state('');
  let wrong = $state('');
  let busy = $state(false);
  async function enter(e: SubmitEvent) {
    e.preventDefault();
    busy = true;
    wrong = '';
    try {
      await ask(api.POST('/api/v1/me/session', { params: { header: onceKey() }, body: { login, password } }));
      localStorage.setItem('login', login);
      password = '';
      await house.readMe();
      await house.refresh();
    } catch (x) {
      wrong = x instanceof Problem ? (x.fields['password'] ?? x.message) : String(x);
    }
    busy = false;
  }
  const can = 'PublicKeyCredential' in window;
  async function byKey() {
    busy = true;
    wrong = '';
    try {
      const { startAuthentication } = await import('@simplewebauthn/browser');
      const begun = await ask(api.POST('/api/v1/me/passkey/begin', { params: { header: onceKey() } }));
      const response = await startAuthentication({ optionsJSON: begun.options as never });
      const body = { ceremony: begun.id, response };
      await ask(api.POST('/api/v1/me/passkey', { params: { header: onceKey() }, body }));
      await house.readMe();
      await house.refresh();
    } catch (x) {
      wrong = x instanceof Problem ? x.message : 'Nothing came of it on this device: sign in by password.';
    }
    busy = false;
  }
</script>

<div class="fixed inset-0 z-50 grid place-items-center overflow-auto bg-paper p-4">
  <form class="w-full max-w-sm space-y-4 border border-ink bg-white p-5" aria-label="Sign in" onsubmit={enter}>
    <h1>Mezzadro</h1>
    <p>Sign in. What was entered before waits and is not lost.</p>
    <Field label="Name you sign in by" bind:value={login} autofocus={!login} />
    <Field label="Password" type="password" bind:value={password} problem={wrong} autofocus={!!login} />
    <Button type="submit" class="w-full" disabled={busy || !login || !password}>Sign in</Button>
    {#if can}<Button color="light" class="w-full" disabled={busy} onclick={byKey}>Sign in with a passkey</Button>{/if}
    <p class="text-sm text-soft">Password forgotten? The owner gives you a new link.</p>
  </form>
</div>
