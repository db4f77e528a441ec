<script lang="ts">
  /** Who works for the firm, with skills and licences: entered, changed and removed here. */
  import { api, ask, onceKey, type Problem } from '../api/client';
  import Field from '../lib/Field.svelte';
  import Roster from '../lib/Roster.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import { capital } from '../lib/words';
  import { people, sprays, type Person } from './people';

  let { onchange }: { onchange?: () => void } = $props();
  type Form = { id: number; name: string; skills: string[]; licence: string; version: number };
  type Once = ReturnType<typeof onceKey>;
  let list = $state.raw<Person[]>();
  let skills = $state.raw<string[]>([]);

  async function read(signal: AbortSignal) {
    const [p, s] = await Promise.all([people(signal), ask(api.GET('/api/v1/skills', { signal }))]);
    [list, skills] = [p, s.items];
    onchange?.();
  }
  const began = (p?: Person): Form => ({
    id: p?.id ?? 0,
    name: p?.name ?? '',
    skills: [...(p?.skills ?? [])],
    licence: p?.licence ?? '',
    version: p?.version ?? 0,
  });
  const keep = ({ id, ...body }: Form, header: Once) =>
    ask(
      id
        ? api.PUT('/api/v1/people/{id}', { params: { path: { id }, header }, body })
        : api.POST('/api/v1/people', { params: { header }, body }),
    );
  const drop = (id: number, header: Once) => ask(api.DELETE('/api/v1/people/{id}', { params: { path: { id }, header } }));
  const restore = (id: number, header: Once) =>
    ask(api.POST('/api/v1/people/{id}/restore', { params: { path: { id }, header } }));
</script>

{#snippet fields(form: Form, problem: Problem | undefined)}
  <Field label="Name of the person" bind:value={form.name} problem={problem?.fields.name} autofocus />
  <fieldset>
    <legend class="font-semibold">May do</legend>
    <div class="grid gap-x-4 sm:grid-cols-2">
      {#each skills as s}<Tickbox
          checked={form.skills.includes(s)}
          label={capital(s)}
          onpick={(on) => (form.skills = on ? [...form.skills, s] : form.skills.filter((x) => x !== s))}
        />{/each}
    </div>
  </fieldset>
  {#if form.licence || form.skills.some(sprays)}<Field
      label="Number of the licence to spray"
      bind:value={form.licence}
      problem={problem?.fields.licence}
    />{/if}
{/snippet}
{#snippet line(p: Person)}
  <b>{p.name}</b><span class="block text-sm text-soft"
    >{p.skills?.join(', ') || 'no skill or licence entered'}{p.licence ? ` (${p.licence})` : ''}</span
  >
{/snippet}
{#snippet empty()}
  Nobody yet. Enter who works with you, and who holds a licence for restricted products: those go to nobody else.
{/snippet}
<Roster
  title="People"
  one="person"
  {list}
  {read}
  {began}
  {keep}
  {drop}
  {restore}
  told={(p) => [p.name, ...(p.skills ?? [])].join(', ')}
  {fields}
  {line}
  {empty}
/>
