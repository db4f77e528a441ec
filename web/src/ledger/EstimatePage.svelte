<script lang="ts">
  /** One estimate: its lines with what they were reckoned from, each to be changed; sent, what the client said to each. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, onceKey, type Problem } from '../api/client';
  import { inWords } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import Waiting from '../lib/Waiting.svelte';
  import Notice from './Notice.svelte';
  import EstimateLine from './EstimateLine.svelte';
  import { amount, range, stateOf, sumOf, type Estimate, type Line } from './money';

  let { params }: { params?: { id?: string } } = $props();
  const id = $derived(Number(params?.id ?? 0));
  let e = $state.raw<Estimate>();
  let lines = $state<Line[]>([]);
  let until = $state('');
  let words = $state('');
  let visits = $state('1');
  let changing = $state(false);
  let problem = $state<Problem>();
  const reads = reading();
  function take(x: Estimate) {
    e = x;
    lines = structuredClone(x.lines);
    [until, words, visits] = [x.until, x.words, String(x.visits)];
    changing = x.state === 'draft';
  }
  $effect(() => {
    void reads(async (signal) => take(await ask(api.GET('/api/v1/estimates/{id}', { params: { path: { id } }, signal }))));
  });
  const params_ = () => ({ path: { id }, header: onceKey() });
  const dirty = $derived(
    !!e &&
      (JSON.stringify(lines) !== JSON.stringify(e.lines) ||
        until !== e.until ||
        words !== e.words ||
        visits !== String(e.visits)),
  );
  async function keep(): Promise<boolean> {
    problem = await attempt(async () => {
      const body = {
        until,
        words,
        lines: $state.snapshot(lines) as Line[],
        visits: Math.round(Number(visits)) || 0,
        version: e!.version,
      };
      take(await ask(api.PUT('/api/v1/estimates/{id}', { params: params_(), body })));
      house.say('Saved.');
    });
    return !problem;
  }
  async function send() {
    if (dirty && !(await keep())) return;
    problem = await attempt(async () => {
      take(await ask(api.POST('/api/v1/estimates/{id}/send', { params: params_(), body: { version: e!.version } })));
      house.say(`The client’s link shows it now. It waits for an answer until ${inWords(e!.until)}.`);
    });
  }
  const withdraw = async () =>
    (problem = await attempt(async () => {
      take(await ask(api.POST('/api/v1/estimates/{id}/withdraw', { params: params_(), body: { version: e!.version } })));
      house.say('Withdrawn: it cannot be answered any more.');
    }));
  const answer = async (line: number, yes: boolean, name: string, remark: string) =>
    (problem = await attempt(async () => {
      const body = { line, edition: e!.edition, yes, name, remark };
      take(await ask(api.POST('/api/v1/estimates/{id}/answers', { params: params_(), body })));
    }));
  function addLine() {
    const next = Math.max(0, ...lines.map((l) => l.id)) + 1;
    const zero = { from: 0, amount: 0, to: 0 };
    lines.push({ id: next, title: '', parts: [{ what: 'free', text: 'In all', by_hand: true, ...zero }], ...zero });
  }
  const said = $derived(problem?.fields ?? {});
</script>

<svelte:head><title>{e ? `Estimate ${e.number} · ` : ''}Mezzadro</title></svelte:head>

<div class="max-w-4xl px-5 py-4 max-md:px-3">
  <p class="text-sm"><a href="#/ledger">Ledger</a></p>
  {#if !e}<Waiting rows={8} />
  {:else}
    <div class="flex flex-wrap items-end gap-x-4 gap-y-2">
      <div class="min-w-60 flex-1">
        <h1>Estimate {e.number}: {e.property}</h1>
        <p class="text-soft">
          {e.client || 'No client is entered who gets it'} · {stateOf(e)}{e.edition > 1 ? ` · edition ${e.edition}` : ''}
        </p>
      </div>
      <a class="inline-flex min-h-11 items-center underline" href="/api/v1/estimates/{id}/estimate.pdf" download>PDF</a>
      {#if e.state === 'draft'}<Button class="min-h-11" onclick={send}>Send</Button>
      {:else if e.state === 'sent'}
        <Button class="min-h-11" color="light" onclick={withdraw}>Withdraw</Button>
        {#if !changing}<Button class="min-h-11" color="light" onclick={() => (changing = true)}>Change</Button>{/if}
      {/if}
    </div>
    {#if problem}<p role="alert" class="mt-2 border-l-4 border-bad pl-2">
        {problem.message}
        {#if problem.status === 409}<button
            class="min-h-11 underline"
            onclick={() =>
              void reads(async (signal) =>
                take(await ask(api.GET('/api/v1/estimates/{id}', { params: { path: { id } }, signal }))),
              )}>Load the saved version</button
          >{/if}
      </p>{/if}
    {#if !e.currency}<p class="mt-2 border-l-4 border-sun pl-2">
        No currency is chosen. <a href="#/ledger/rates">Enter your rates</a>, then draft it again.
      </p>{:else if e.unpriced}<p class="mt-2 border-l-4 border-sun pl-2">
        {e.unpriced === 1 ? 'One part has' : `${e.unpriced} parts have`} no price yet. Type an amount, or take
        {e.unpriced === 1 ? 'it' : 'them'} out.
      </p>{/if}
    {#if changing}
      <div class="mt-3 grid gap-3 sm:grid-cols-[12rem_8rem_minmax(0,1fr)]">
        <Field label="Holds until" type="date" bind:value={until} problem={said.until} />
        <Field label="Visits" mode="numeric" bind:value={visits} problem={said.visits} />
        <label class="block font-semibold"
          >Words to the client
          <textarea
            class="mt-1 min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2 py-1 font-normal"
            rows="2"
            bind:value={words}></textarea></label
        >
      </div>
      {#if e.state === 'sent'}<p class="mt-1 text-sm text-soft">
          A line that changes in words or price is asked for again. What is agreed and stays as it is stays agreed.
        </p>{/if}
    {:else if words}<p class="mt-3 whitespace-pre-line">{words}</p>{/if}
    {#if e.state === 'sent' && !changing && !e.over && e.answers === 'open'}<Notice
        property={e.property_id}
        gets="estimates"
        subject="Estimate {e.number}: {e.property}"
        text="Here is our estimate {e.number} for {e.property}. It holds until {inWords(
          e.until,
        )}. Please say yes or no to each line:"
      />{/if}
    <ul class="mt-4 border-t border-ink" aria-label="Lines">
      {#each lines as l, i (l.id)}
        <li class="border-b border-rule py-2">
          <EstimateLine
            bind:line={lines[i]!}
            {changing}
            answers={e.state === 'sent' && !changing}
            currency={e.currency}
            digits={e.digits}
            problems={said}
            at="lines[{i}]."
            onout={() => lines.splice(i, 1)}
            onanswer={(yes, name, remark) => void answer(l.id, yes, name, remark)}
          />
        </li>
      {/each}
    </ul>
    {#if changing}<button class="min-h-11 text-moss underline" onclick={addLine}>Add a line</button>{/if}
    <dl class="mt-3 ml-auto grid w-80 max-w-full grid-cols-[1fr_auto] gap-x-6 gap-y-1">
      {#if e.visit.amount}<dt>{e.visit.text}, {e.visit.of}</dt>
        <dd class="text-right tabular-nums">{range(e.visit, e.currency, e.digits)}</dd>{/if}
      {#if dirty}<dt class="text-soft">Lines as they stand here</dt>
        <dd class="text-right text-soft tabular-nums">{range(sumOf(lines), e.currency, e.digits)}</dd>{/if}
      {#if e.tax}
        <dt>{e.tax_included ? 'Of it' : ''} {e.tax_name || 'Tax'} {e.tax / 100} %</dt>
        <dd class="text-right tabular-nums">{range(e.total.tax, e.currency, e.digits)}</dd>
      {/if}
      <dt class="font-bold">In all</dt>
      <dd class="text-right font-bold tabular-nums">{range(e.total.gross, e.currency, e.digits)}</dd>
      {#if e.agreed.gross.amount}<dt>Agreed so far</dt>
        <dd class="text-right tabular-nums">{amount(e.agreed.gross.amount, e.currency, e.digits)}</dd>{/if}
    </dl>
    {#if changing}<div class="mt-3 flex gap-3">
        <Button class="min-h-11" color="light" disabled={!dirty} onclick={keep}>Save</Button>
        {#if e.state === 'sent'}<Button class="min-h-11" color="light" onclick={() => take(e!)}>Leave it as it was sent</Button
          >{/if}
      </div>{/if}
  {/if}
</div>
