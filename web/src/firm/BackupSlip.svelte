<script lang="ts">
  /** When the record was last backed up, where to, and a backup now. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { moment } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';

  let state_ = $state.raw<Schemas['BackupState']>();
  let busy = $state(false);
  void attempt(async () => void (state_ = await ask(api.GET('/api/v1/backup'))));
  async function now() {
    busy = true;
    await attempt(async () => {
      state_ = await ask(api.POST('/api/v1/backup', { params: { header: onceKey() } }));
      house.say(`A backup is written: ${state_.file}.`);
    });
    busy = false;
  }
</script>

{#if state_}
  <section class="mt-4 border border-rule bg-white p-4" aria-label="Backups">
    <h2>Backups</h2>
    <p>
      {#if state_.last}Last written <b>{moment(state_.last)}</b>, with {state_.plants} plants: {state_.file}.
      {:else}<b>None was written yet.</b>{/if}
      {#if state_.due}<b class="text-sun">None for a week.</b>{/if}
    </p>
    <p class="text-sm text-soft">
      They go to {state_.folder} on the machine that serves the record, {state_.every
        ? `every ${state_.every.replace(/0s$|0m0s$/, '')}`
        : 'when somebody asks; start it with --every 24h for one a day'}{state_.keep ? `; the last ${state_.keep} stay` : ''}.
      {state_.sealed ? 'They are sealed with a passphrase: keep it apart from them.' : ''} Keep a copy on another machine: a disk fails
      as a whole.
    </p>
    <p class="mt-2 flex flex-wrap items-center gap-4">
      <Button color="light" disabled={busy} onclick={now}>{busy ? 'Writing it …' : 'Back up now'}</Button>
      {#if state_.last}<a class="inline-flex min-h-11 items-center underline" href="/api/v1/backup/last.tar.zst" download
          >Download the latest</a
        >{/if}
      <a class="inline-flex min-h-11 items-center underline" href="/api/v1/everything.zip" download
        >Everything in open formats (zip)</a
      >
    </p>
  </section>
{/if}
