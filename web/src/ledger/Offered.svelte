<script lang="ts">
  /** An estimate as a client reads it by their link: yes or no to each line, with a name and a remark. */
  import { api, ask, onceKey } from '../api/client';
  import { inWords } from '../lib/dates';
  import { amount, range, type Estimate, type Line } from './money';

  interface Props {
    estimate: Estimate;
    today: string;
    onchange: (e: Estimate) => void;
  }
  let { estimate: e, today, onchange }: Props = $props();
  let name = $state(localStorage.getItem('client name') ?? '');
  let remarks = $state<Record<number, string>>({});
  let busy = $state(0);
  let fault = $state('');
  const over = $derived(e.until < today);
  const open = $derived(e.lines.filter((l) => !l.answer).length);
  let again = $state<number>(); // a line whose answer is being changed
  async function say(l: Line, yes: boolean) {
    if (!name.trim()) {
      fault = 'Say first who answers: write your name above.';
      document.getElementById(`who-${e.id}`)?.focus();
      return;
    }
    busy = l.id;
    fault = '';
    try {
      localStorage.setItem('client name', name.trim());
      const body = { line: l.id, edition: e.edition, yes, name, remark: remarks[l.id] ?? '' };
      onchange(
        await ask(api.POST('/api/v1/client/estimates/{id}/answers', { params: { path: { id: e.id }, header: onceKey() }, body })),
      );
      again = undefined;
    } catch (x) {
      fault = (x as Error).message;
    }
    busy = 0;
  }
</script>

<section class="mt-6 border border-ink bg-white p-4 max-sm:-mx-3" aria-label="Estimate {e.number}">
  <h2>Estimate {e.number}</h2>
  <p class="text-sm text-soft">
    {over ? `It held until ${inWords(e.until)}.` : `It holds until ${inWords(e.until)}.`}
    {open ? 'Say yes or no to each line.' : 'All of it is answered.'}
  </p>
  {#if e.words}<p class="mt-2 whitespace-pre-line">{e.words}</p>{/if}
  {#if !over}<label class="mt-3 block max-w-sm font-semibold"
      >Your name
      <input
        id="who-{e.id}"
        class="mt-1 min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2 font-normal"
        autocomplete="name"
        maxlength="120"
        bind:value={name}
      /></label
    >{/if}
  {#if fault}<p role="alert" class="mt-2 border-l-4 border-bad pl-2">{fault}</p>{/if}
  <ul class="mt-3">
    {#each e.lines as l (l.id)}
      <li class="border-t border-rule py-3">
        <p class="flex flex-wrap items-baseline gap-x-4">
          <b class="min-w-40 flex-1">{l.title}</b><span class="font-semibold tabular-nums">{range(l, e.currency, e.digits)}</span>
        </p>
        {#if l.plant}<p>{l.plant}</p>{/if}
        <p class="text-sm text-soft">{l.parts.map((p) => p.text.toLowerCase() + (p.of ? `: ${p.of}` : '')).join('; ')}</p>
        {#if l.note}<p class="text-sm">{l.note}</p>{/if}
        {#if l.waits && !l.answer?.yes}<p class="text-sm">{l.waits}</p>{/if}
        {#if l.answer && again !== l.id}
          <p class="mt-1 flex flex-wrap items-center gap-x-4">
            <span class="font-semibold {l.answer.yes ? 'text-moss' : 'text-bad'}"
              >{l.answer.yes ? 'Yes' : 'No'}, {l.answer.name}, {inWords(l.answer.on)}{l.answer.remark
                ? `: ${l.answer.remark}`
                : ''}</span
            >
            {#if !over}<button class="min-h-11 text-moss underline" onclick={() => (again = l.id)}
                >Change it<span class="sr-only">: {l.title}</span></button
              >{/if}
          </p>
        {:else if !over}
          <label class="mt-1 block text-sm"
            ><span class="sr-only">Remark on {l.title}</span><input
              class="min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2"
              placeholder="a remark, if you like"
              maxlength="1000"
              bind:value={() => remarks[l.id] ?? '', (v) => (remarks[l.id] = v)}
            /></label
          >
          <p class="mt-2 flex gap-3">
            <button
              class="min-h-12 flex-1 border-2 border-moss bg-moss px-4 font-semibold text-white"
              disabled={busy !== 0}
              onclick={() => say(l, true)}>Yes, do it<span class="sr-only">: {l.title}</span></button
            >
            <button
              class="min-h-12 flex-1 border-2 border-ink bg-white px-4 font-semibold"
              disabled={busy !== 0}
              onclick={() => say(l, false)}>No<span class="sr-only">: {l.title}</span></button
            >
          </p>
        {/if}
      </li>
    {/each}
  </ul>
  <dl class="mt-2 grid grid-cols-[1fr_auto] gap-x-6 gap-y-1 border-t border-ink pt-2">
    {#if e.visit.amount}<dt>{e.visit.text}, {e.visit.of}</dt>
      <dd class="text-right tabular-nums">{range(e.visit, e.currency, e.digits)}</dd>{/if}
    {#if e.tax}<dt>{e.tax_included ? 'Of it ' : ''}{e.tax_name || 'Tax'} {e.tax / 100} %</dt>
      <dd class="text-right tabular-nums">{range(e.total.tax, e.currency, e.digits)}</dd>{/if}
    <dt class="font-bold">In all{open ? '' : ' agreed'}</dt>
    <dd class="text-right font-bold tabular-nums">{range(e.total.gross, e.currency, e.digits)}</dd>
    {#if open && e.agreed.gross.amount}<dt>Of it agreed</dt>
      <dd class="text-right tabular-nums">{amount(e.agreed.gross.amount, e.currency, e.digits)}</dd>{/if}
  </dl>
  {#if e.lines.some((l) => l.from !== l.to)}<p class="mt-1 text-sm text-soft">
      From–to: how long work takes shows only while it is done. You pay for the time it takes, and no more than the upper end.
    </p>{/if}
</section>
