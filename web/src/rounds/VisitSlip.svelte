<script lang="ts">
  /** What becomes of a visit: all its jobs move, come off or are cancelled in one press, and stand as they did in another. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import { visitBack } from './visits';

  interface Props {
    visit: Schemas['SheetVisit'];
    day: string;
    onkept: () => void;
  }
  let { visit, day, onkept }: Props = $props();
  let open = $state(false);
  let to = $state('');
  let crew = $state(0);
  let reason = $state('');
  let crews = $state.raw<Schemas['Crew'][]>([]);
  let fault = $state<Record<string, string>>({});

  async function begin() {
    open = true;
    [to, crew, reason, fault] = [day, visit.crew ?? 0, '', {}];
    await attempt(async () => void (crews = (await ask(api.GET('/api/v1/crews'))).items));
  }
  async function change(what: Schemas['VisitIn']['do']) {
    const name = visit.property;
    const p = await attempt(async () => {
      const body: Schemas['VisitIn'] = { property_id: visit.property_id, day, do: what };
      if (visit.crew) body.crew = visit.crew;
      if (what === 'move' && to !== day) body.to = to;
      if (what === 'move' && crew !== (visit.crew ?? 0)) body.to_crew = crew;
      if (what === 'cancelled') body.reason = reason.trim();
      const done = await ask(api.POST('/api/v1/rounds/visits', { params: { header: onceKey() }, body }));
      open = false;
      const said = { move: `on ${inWords(to)}`, off: 'off its day', cancelled: 'cancelled' }[what];
      const left = done.changed.length ? ` Left as they are: ${done.changed.join(', ')}.` : '';
      onkept();
      house.say(`${name}: ${done.moved === 1 ? 'one job' : `${done.moved} jobs`} ${said}.${left}`, () => visitBack(done, onkept));
    });
    fault = p?.fields ?? {};
  }
</script>

{#if !open}
  <button class="min-h-11 text-sm text-moss underline print:hidden" onclick={begin}
    >Change the visit<span class="sr-only">: {visit.property}</span></button
  >
{:else}
  <form
    class="my-2 space-y-2 border border-ink bg-white p-3 print:hidden"
    aria-label="The visit at {visit.property}"
    onsubmit={(e) => {
      e.preventDefault();
      void change('move');
    }}
  >
    <div class="flex flex-wrap items-end gap-3">
      <Field class="w-44" label="To the day" type="date" bind:value={to} problem={fault.to} />
      {#if crews.length}<Pick
          label="With"
          bind:value={crew}
          options={[
            ...(visit.crew ? [] : [[0, 'nobody yet'] as [number, string]]),
            ...crews.map((c): [number, string] => [c.id, c.name]),
          ]}
        />{/if}
      <Button type="submit" disabled={!to || (to === day && crew === (visit.crew ?? 0))}>Move it</Button>
    </div>
    <div class="flex flex-wrap items-end gap-3">
      <Field class="min-w-48 flex-1" label="Why it is cancelled" bind:value={reason} problem={fault.reason} />
      <Button color="light" disabled={!reason.trim()} onclick={() => change('cancelled')}>Cancelled by the client</Button>
    </div>
    <div class="flex flex-wrap gap-3">
      <Button color="light" onclick={() => change('off')}>Take it off its day</Button>
      <Button color="light" onclick={() => (open = false)}>Back</Button>
    </div>
  </form>
{/if}
