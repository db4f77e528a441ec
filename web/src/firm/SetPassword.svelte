<script lang="ts">
  /** A password is set: by the firm's owner at the first start, or by a one-time link. */
  import { Button } from 'flowbite-svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, onceKey, type Problem } from '../api/client';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';

  let { params }: { params?: { token?: string } } = $props();
  const token = $derived(params?.token ?? '');
  let login = $state('');
  let name = $state('');
  let password = $state('');
  let again = $state('');
  let problem = $state.raw<Problem>();
  let busy = $state(false);
  const differ = $derived(again !== '' && again !== password ? 'The two are not the same' : '');
  async function keep(e: SubmitEvent) {
    e.preventDefault();
    if (again !== password) return;
    busy = true;
    problem = await attempt(async () => {
      if (token) await ask(api.POST('/api/v1/me/invitation', { params: { header: onceKey() }, body: { token, password } }));
      else await ask(api.POST('/api/v1/me/owner', { params: { header: onceKey() }, body: { login, name, password } }));
      if (login) localStorage.setItem('login', login);
      await house.readMe();
      await house.refresh();
      house.say('You are signed in.');
      await push('/');
    });
    busy = false;
  }
</script>

<svelte:head><title>{token ? 'Your password' : 'The owner'} · Mezzadro</title></svelte:head>

<div class="max-w-lg px-5 py-4 max-md:px-3">
  <h1>{token ? 'Set your password' : 'Who owns this record?'}</h1>
  {#if !token && house.me?.needs === 'sign-in'}<p>There is an owner already.</p>
  {:else}
    <p class="mt-1">
      {token
        ? 'This link works once. From then on you sign in by name and password.'
        : 'From then on nobody gets in without signing in, and it can be reached from phones and other machines. You let others in under Settings.'}
    </p>
    <form class="mt-4 space-y-4" aria-label="Password" onsubmit={keep}>
      {#if !token}
        <Field label="Your name" bind:value={name} problem={problem?.fields['name']} />
        <Field label="Name you sign in by" bind:value={login} problem={problem?.fields['login']} />
      {/if}
      <Field
        label="Password, ten characters at least"
        type="password"
        bind:value={password}
        problem={problem?.fields['password']}
      />
      <Field label="The same again" type="password" bind:value={again} problem={differ} />
      {#if problem && !Object.keys(problem.fields).length}<p role="alert" class="border-l-4 border-bad pl-2">
          {problem.message}
        </p>{/if}
      <Button type="submit" disabled={busy || !password || again !== password}>{token ? 'Set it' : 'I am the owner'}</Button>
    </form>
  {/if}
</div>
