<script lang="ts">
  /** What is out of sight: brought back, or erased for good after being asked. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';

  type Removed = Schemas['Removed'];
  let list = $state.raw<Removed[]>();
  let open = $state(false);
  let asked = $state<string>(); // which is to be erased, once that is said again
  let busy = $state(false);
  const keyOf = (r: Removed) => `${r.kind}/${r.id}`;
  const kinds: Record<Removed['kind'], string> = {
    property: 'Property',
    plant: 'Plant',
    photo: 'Picture of a plant',
    'order-photo': 'Picture of a job',
    person: 'Person',
    client: 'Client',
    account: 'Account',
  };
  const goes: Record<Removed['kind'], string> = {
    property:
      'Its plants, walks, jobs, letters, pictures and weather go, and what was sprayed there, which the law may want kept for years: take everything in open formats along first.',
    plant:
      'Its looks, finds, pictures and the jobs on it alone go, and what was sprayed on it, which the law may want kept for years: take everything in open formats along first.',
    photo: 'The picture goes.',
    'order-photo': 'The picture goes.',
    client: 'Name and addresses go; what was offered and charged stays, told of nobody.',
    person: 'The name goes; the work they did stays, told of nobody.',
    account: 'The name goes; what they entered stays, told of nobody.',
  };
  async function read() {
    list = await ask(api.GET('/api/v1/removed'));
  }
  $effect(() => {
    if (open) void attempt(read);
  });
  async function back(r: Removed) {
    const params = { path: { id: r.id }, header: onceKey() };
    busy = true;
    await attempt(async () => {
      if (r.kind === 'property') await ask(api.POST('/api/v1/properties/{id}/restore', { params }));
      else if (r.kind === 'plant') await ask(api.POST('/api/v1/plants/{id}/restore', { params }));
      else if (r.kind === 'photo') await ask(api.POST('/api/v1/photos/{id}/restore', { params }));
      else if (r.kind === 'order-photo') await ask(api.POST('/api/v1/order-photos/{id}/restore', { params }));
      else if (r.kind === 'client') await ask(api.POST('/api/v1/clients/{id}/restore', { params }));
      else if (r.kind === 'person') await ask(api.POST('/api/v1/people/{id}/restore', { params }));
      else await ask(api.POST('/api/v1/accounts/{id}/restore', { params }));
      house.say(`${r.name} is back.`);
      await Promise.all([read(), house.refresh()]);
    });
    busy = false;
  }
  async function erase(r: Removed) {
    busy = true;
    await attempt(async () => {
      const e = await ask(
        api.DELETE('/api/v1/removed/{kind}/{id}', { params: { path: { kind: r.kind, id: r.id }, header: onceKey() } }),
      );
      asked = undefined;
      house.say(`${r.name} is erased${e.pictures ? `, with ${e.pictures} pictures` : ''}. ${e.backups}`);
      await read();
    });
    busy = false;
  }
</script>

<details class="mt-4 border border-rule bg-white p-4" bind:open>
  <summary class="cursor-pointer font-bold">Removed</summary>
  {#if list?.length === 0}<p class="pt-2">Nothing is out of sight.</p>{/if}
  <ul class="pt-2" aria-label="Removed">
    {#each list ?? [] as r (keyOf(r))}
      <li class="border-t border-rule py-2">
        <p class="flex flex-wrap items-center gap-x-4">
          <span class="min-w-0 flex-1"
            ><b>{r.name}</b>{r.of ? `, ${r.of}` : ''}
            <span class="block text-sm text-soft">{kinds[r.kind]}, removed {inWords(r.at.slice(0, 10))}</span></span
          >
          <button class="min-h-11 underline" disabled={busy} onclick={() => back(r)}>Bring back</button>
          <button class="min-h-11 text-sun underline" disabled={busy} onclick={() => (asked = keyOf(r))}>Erase for good</button>
        </p>
        {#if asked === keyOf(r)}
          <div class="mt-1 border-l-4 border-sun pl-3" role="alert">
            <p><b>Erase {r.name} for good?</b> {goes[r.kind]} It cannot be taken back.</p>
            <p class="flex flex-wrap gap-3 pt-2">
              <Button disabled={busy} onclick={() => erase(r)}>{busy ? 'Erasing …' : `Erase ${r.name}`}</Button>
              <Button color="light" disabled={busy} onclick={() => (asked = undefined)}>Keep it</Button>
            </p>
          </div>
        {/if}
      </li>
    {/each}
  </ul>
</details>
