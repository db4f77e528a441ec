<script lang="ts">
  /** What a client reads of their property by a link: what was found, what is planned, what was done. */
  import { onDestroy } from 'svelte';
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import Waiting from '../lib/Waiting.svelte';
  import ReportRead from '../ledger/ReportRead.svelte';
  import Offered from '../ledger/Offered.svelte';

  let { params }: { params?: { token?: string } } = $props();
  let page = $state.raw<Schemas['ClientPage']>();
  let over = $state('');
  let turn = 0;
  onDestroy(() => turn++);
  $effect(() => {
    const mine = ++turn;
    const token = params?.token ?? '';
    void (async () => {
      try {
        const p = token
          ? await ask(api.POST('/api/v1/client', { params: { header: onceKey() }, body: { token } }))
          : await ask(api.GET('/api/v1/client'));
        // The link is not left in the address, where others may read it.
        if (token) history.replaceState(null, '', '#/client');
        if (mine === turn) page = p;
      } catch (e) {
        if (mine === turn) over = (e as Error).message;
      }
    })();
  });
  const when = (w: Schemas['ClientWork']) =>
    w.day ? inWords(w.day) : w.from ? `${inWords(w.from)} – ${inWords(w.to)}` : 'no day yet';
</script>

<svelte:head><title>{page?.property ?? 'Your property'}</title></svelte:head>

<div class="mx-auto w-full max-w-2xl px-5 py-6">
  {#if over}
    <h1>This link does not work any more</h1>
    <p>It is over, was revoked, or was not copied in full. Ask your gardener for a new one.</p>
  {:else if !page}<Waiting rows={6} />
  {:else}
    <p class="text-soft">{page.firm}</p>
    <h1>{page.property}</h1>
    <p class="text-sm text-soft">As it stands on {inWords(page.today)}. This link holds until {inWords(page.until)}.</p>
    {#each page.reports as r (r.id)}
      <article class="mt-6" aria-label={r.title}>
        <ReportRead report={r} pictures="/api/v1/client/pictures" />
      </article>
    {/each}
    {#each page.estimates as e (e.id)}
      <Offered
        estimate={e}
        today={page.today}
        onchange={(x) => (page = { ...page!, estimates: page!.estimates.map((o) => (o.id === x.id ? x : o)) })}
      />
    {/each}
    {#each [['Planned', page.planned], ['Done lately', page.done]] as const as [title, list] (title)}
      {#if list?.length}
        <section class="mt-6" aria-label={title}>
          <h2>{title}</h2>
          <ul>
            {#each list as w, i (i)}<li class="border-t border-rule py-2">
                <b>{when(w)}</b>
                {w.title}<span class="block text-sm text-soft">{w.plant}</span>
              </li>{/each}
          </ul>
        </section>
      {/if}
    {/each}
    <section class="mt-6" aria-label="Found">
      <h2>Found</h2>
      {#if !page.found?.length}<p class="text-soft">Nothing to tell.</p>{/if}
      <ul>
        {#each page.found as f, i (i)}<li class="border-t border-rule py-2">
            <b>{f.plant || 'On the property'}</b>
            {f.what}<span class="block text-sm text-soft">{inWords(f.day)}</span>
          </li>{/each}
      </ul>
    </section>
  {/if}
</div>
