<script lang="ts">
  /** A report to a client: gone over word by word while it is a draft, then read as the client reads it. */
  import { Button } from 'flowbite-svelte';
  import { push } from 'svelte-spa-router';
  import { api, ask, onceKey, type Problem, type Schemas } from '../api/client';
  import { inWords } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Waiting from '../lib/Waiting.svelte';
  import Notice from './Notice.svelte';
  import ReportRead from './ReportRead.svelte';

  type Report = Schemas['Report'];
  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id ?? 0));
  let kept = $state.raw<Report>();
  let r = $state<Report>();
  let changing = $state(false);
  let problem = $state<Problem>();
  const reads = reading();
  function take(x: Report) {
    kept = x;
    r = structuredClone(x);
    changing = false;
  }
  $effect(() => {
    void reads(async (signal) => take(await ask(api.GET('/api/v1/reports/{id}', { params: { path: { id } }, signal }))));
  });
  const at = () => ({ path: { id }, header: onceKey() });
  const dirty = $derived(!!r && JSON.stringify(r) !== JSON.stringify(kept));
  async function keep(): Promise<boolean> {
    problem = await attempt(async () => {
      const { title, summary, nights, sections } = $state.snapshot(r!) as Report;
      const body = { title, summary: summary.filter((t) => t.trim()), nights, sections, version: kept!.version };
      take(await ask(api.PUT('/api/v1/reports/{id}', { params: at(), body })));
      house.say('Saved.');
    });
    return !problem;
  }
  async function send() {
    if (dirty && !(await keep())) return;
    problem = await attempt(async () => {
      take(await ask(api.POST('/api/v1/reports/{id}/send', { params: at(), body: { version: kept!.version } })));
      house.say('The client’s link shows it now.');
    });
  }
  const back = async () =>
    (problem = await attempt(async () => {
      take(await ask(api.POST('/api/v1/reports/{id}/back', { params: at(), body: { version: kept!.version } })));
      house.say('Taken back: the link does not show it any more.');
    }));
  const drop = async () =>
    (problem = await attempt(async () => {
      await ask(api.DELETE('/api/v1/reports/{id}', { params: at() }));
      await push('/ledger');
    }));
  const parts = [
    ['found', 'What was found'],
    ['becomes', 'What it may become'],
    ['we', 'What we do'],
    ['you', 'What you can do'],
    ['dont', 'Please not'],
  ] as const;
  const area = 'min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2 py-1';
</script>

<svelte:head><title>{kept ? `${kept.title} · ` : ''}Mezzadro</title></svelte:head>

<div class="max-w-3xl px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/ledger">Ledger</a></p>
  {#if !r || !kept}<Waiting rows={8} />
  {:else}
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
      <p class="flex-1 text-soft">
        {kept.property} · written {inWords(kept.day)} · {kept.state === 'sent' ? 'the client’s link shows it' : 'draft'}
      </p>
      <a class="inline-flex min-h-11 items-center underline" href="/api/v1/reports/{id}/report.pdf" download>PDF</a>
      {#if kept.state === 'draft'}
        {#if !changing}<Button class="min-h-11" color="light" onclick={() => (changing = true)}>Change its words</Button>
          <Button class="min-h-11" color="light" onclick={drop}>Discard</Button>{/if}
        <Button class="min-h-11" onclick={send}>Send</Button>
      {:else}<Button class="min-h-11" color="light" onclick={back}>Take back</Button>{/if}
    </div>
    {#if problem}<p role="alert" class="mt-2 border-l-4 border-bad pl-2">{problem.message}</p>{/if}
    {#if changing}
      <div class="mt-3 space-y-3">
        <Field label="Title" bind:value={r.title} problem={problem?.fields.title} />
        <fieldset>
          <legend class="font-semibold">First page</legend>
          {#each r.summary as _, i (i)}<textarea
              class="{area} mt-1"
              rows="2"
              aria-label="Paragraph {i + 1}"
              bind:value={r.summary[i]}></textarea>{/each}
          <button class="min-h-11 text-moss underline" onclick={() => r!.summary.push('')}>Add a paragraph</button>
        </fieldset>
        {#each r.sections as s, i (i)}
          <fieldset class="border-t border-rule pt-2">
            <legend class="sr-only">{s.head}</legend>
            <p class="flex flex-wrap items-baseline gap-x-4">
              <b class="flex-1">{s.head}</b>
              <button class="min-h-11 text-moss underline" onclick={() => r!.sections.splice(i, 1)}
                >Leave it out<span class="sr-only">: {s.head}</span></button
              >
            </p>
            {#each parts as [key, label] (key)}
              <label class="block text-sm"
                ><span class="font-semibold">{label}</span><textarea class={area} rows="1" bind:value={s[key]}></textarea></label
              >
            {/each}
            {#if s.photos.length}<p class="flex flex-wrap gap-3 text-sm">
                {#each s.photos as f, k (k)}<button class="min-h-11 text-moss underline" onclick={() => s.photos.splice(k, 1)}
                    >Without the picture of {inWords(f.day)}</button
                  >{/each}
              </p>{/if}
          </fieldset>
        {/each}
        <div class="flex gap-3">
          <Button class="min-h-11" color="light" disabled={!dirty} onclick={keep}>Save</Button>
          <Button class="min-h-11" color="light" onclick={() => take(kept!)}>Leave it as it was</Button>
        </div>
      </div>
    {:else}
      {#if kept.state === 'sent'}<Notice
          property={kept.property_id}
          gets="reports"
          subject={kept.title}
          text="We have written down how your plants stand:"
        />{/if}
      <div class="mt-3"><ReportRead report={r} pictures="/api/v1/pictures" level={1} /></div>{/if}
  {/if}
</div>
