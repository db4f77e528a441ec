<script lang="ts">
  /** What is done about a find: the ladder with the least that works, its steps on their days, and what they take. */
  import { Button } from 'flowbite-svelte';
  import { api, ask, dropOrder, onceKey } from '../api/client';
  import { brief, inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { when } from '../work/orders';
  import Tick from '../work/Tick.svelte';
  import Waiting from '../lib/Waiting.svelte';
  import { figure, product } from '../lib/units';
  import { capital } from '../lib/words';
  import Along from './Along.svelte';
  import HowBad from './HowBad.svelte';
  import { litres, rungs, treatmentOf, type Treatment } from './treat';

  let { params }: { params?: { find?: string } } = $props();
  const id = $derived(Number(params?.find ?? 0));
  let t = $state.raw<Treatment>();
  let fault = $state('');
  let busy = $state(false);
  const reads = reading();
  async function read(of: number) {
    fault = '';
    const p = await reads(async (signal) => {
      t = await treatmentOf(of, signal);
    });
    fault = p?.message ?? fault;
  }
  $effect(() => {
    t = undefined;
    others = undefined;
    void read(id);
  });
  let others = $state<number[]>(); // that are treated along: none, until somebody says so
  const chosen = $derived(others ?? []);
  const a = $derived(t?.answer);
  const standing = $derived(new Set((t?.jobs ?? []).map((j) => j.id)));
  /** What the head says already is not said again at its step. */
  const told = (head: string, step: string) => head.toLowerCase().includes(step.toLowerCase().replace(/\.$/, ''));
  /** A step that takes as much of the same means, within the same limits, as the one before it. */
  const same = (s: Treatment['answer']['steps'][number], before: typeof s | undefined) =>
    !!before &&
    !!s.use_name &&
    [s, before]
      .map((x) =>
        JSON.stringify([x.use_name, x.limits, x.amount?.formula, x.amount?.spray_l, x.amount?.product, x.amount?.buy?.packs]),
      )
      .every((x, _, all) => x === all[0]);
  const price = $derived((a?.steps ?? []).reduce((n, s) => n + (s.amount?.buy?.price ?? 0), 0));
  async function keep() {
    if (busy) return;
    busy = true;
    const of = id;
    const before = new Set(standing);
    await attempt(async () => {
      const kept = await ask(
        api.POST('/api/v1/finds/{id}/treatment', {
          params: { path: { id: of }, header: onceKey() },
          body: { plants: chosen },
        }),
      );
      const along = chosen.length;
      t = kept;
      others = undefined;
      const made = kept.jobs.filter((j) => !before.has(j.id));
      const more = along ? ` The same on ${along === 1 ? 'one other' : `${along} others`}.` : '';
      house.say(
        `${made.length === 1 ? 'One job is' : `${made.length} jobs are`} saved.${more}`,
        along
          ? undefined
          : async () => {
              for (const j of made) await dropOrder(j.id);
              await read(of);
            },
      );
    });
    busy = false;
  }
</script>

<svelte:head><title>What to do{t ? ` · ${t.find.name}` : ''} · Mezzadro</title></svelte:head>

<div class="px-5 py-4 max-md:px-3">
  {#if !t || !a}
    {#if fault}<p role="alert">{fault}</p>{:else}<Waiting rows={6} />{/if}
  {:else}
    <p class="text-sm"><a href="#/plant/{t.find.plant_id}">{t.plant}</a> · {t.find.property}</p>
    <h1>{t.find.name}</h1>
    <p class="text-sm text-soft">
      {t.find.prevent
        ? 'Not there: to be kept off'
        : `${t.find.along_of ? 'Treated along with another since' : 'Found'} ${inWords(t.find.day)}`}{t.find.share
        ? `, ${Math.round(100 * t.find.share)} % shows it`
        : ''}.
      <a class="underline" href="#/almanac/cause/{t.find.cause}">About it</a>
    </p>
    <div class="mt-3 grid items-start gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div class="space-y-5">
        <article aria-label="What to do" class="border border-ink bg-white">
          <header class="border-b border-rule px-4 py-3">
            <p class="text-xs font-semibold text-soft">
              {capital(rungs[a.rung] ?? a.rung)}{a.only_looks ? ' · it only looks bad: a matter of taste' : ''}{a.treated > 1
                ? ` · ${a.treated} plants are treated`
                : ''}
            </p>
            <p class="text-lg leading-snug font-bold" data-testid="treatment" aria-live="polite">{a.text}</p>
            {#each a.rules as r}<p class="text-sm text-soft">House rule: {r}.</p>{/each}
          </header>
          {#each a.waits as w}<p class="border-b border-rule px-4 py-2 font-semibold text-sun" data-testid="wait">
              {capital(w.text)}.
            </p>{/each}
          <div class="space-y-3 px-4 py-3 text-[0.9375rem]">
            {#each a.steps as s, i (s.n)}
              {@const again = same(s, a.steps[i - 1])}
              <section aria-label="Step {s.n}" class="border-l-4 border-moss pl-3">
                <p class="font-semibold">
                  {inWords(s.day)}{s.to ? `, until ${brief(s.to)} at the latest` : ''}{#if s.most > 1}<span
                      class="font-normal text-soft"
                      >&nbsp;· {s.done} of {s.most} done{s.every ? `, every ${s.every} days` : ''}</span
                    >{/if}
                </p>
                {#if a.steps.length > 1 || !told(a.text, s.do)}<p>{s.do}</p>{/if}
                {#if s.use_name && !(again && s.where === a.steps[i - 1]?.where)}<p class="text-sm">
                    <b>{capital(s.use_name)}</b>{s.where ? `: ${s.where}` : ''}{s.stage ? `; hits ${s.stage}` : ''}.
                  </p>{/if}
                {#each s.why as w}<p class="text-sm text-soft">{capital(w)}.</p>{/each}
                {#if s.harvest_from}<p class="text-sm font-semibold">
                    Nothing is eaten from it before {inWords(s.harvest_from)}, by the card’s label.
                  </p>{/if}
                {#if again}<p class="text-sm">Limits and amount as in the step before.</p>{/if}
                {#if s.limits?.length && !again}<p class="text-sm">{capital(s.limits.join('; '))}.</p>{/if}
                {#if s.amount && !again}
                  <p class="text-sm" data-testid="amount">
                    {#if s.amount.spray_l}About {litres(s.amount.spray_l)} of spray ({litres(s.amount.from_l ?? 0)} to {litres(
                        s.amount.to_l ?? 0,
                      )}){/if}{#if s.amount.product}, with {product(s.amount.product, s.amount.unit!)} of {s.amount.name}{/if}.
                    {#if s.amount.buy}{#each s.amount.buy.packs as p (p.size)}&nbsp;Buy {p.count} × {product(
                          p.size,
                          s.amount.unit!,
                        )}.{/each}{#if s.amount.buy.price}&nbsp;{s.amount.buy.price.toFixed(2)} for all times, {(
                          s.amount.buy.price / Math.max(1, a.treated)
                        ).toFixed(2)} a plant.{/if}{:else}<a class="underline" href="#/stores">Enter its product card</a>: no rate
                      is told that is not on your label.{/if}
                    <span class="block text-soft">{s.amount.formula}. An estimate.</span>
                  </p>
                {/if}
              </section>
            {/each}
            {#if a.look}<p class="text-sm">Look whether it helped: {inWords(a.look)}.</p>{/if}
            {#each a.says.slice(0, 3) as w}<p>{w}</p>{/each}
            {#if a.says.length > 3}<details>
                <summary class="min-h-9 cursor-pointer py-1 text-moss underline">{a.says.length - 3} more to know</summary>
                {#each a.says.slice(3) as w}<p class="py-1">{w}</p>{/each}
              </details>{/if}
            {#each a.never as w}<p class="font-semibold">{w}</p>{/each}
            {#each a.cautions as c}<p class="border-l-4 border-sun pl-3 text-sm">{c}</p>{/each}
            <div class="flex flex-wrap items-center gap-4">
              {#if (a.steps?.length || chosen.length) && t.find.state === 'open'}<Button disabled={busy} onclick={keep}
                  >{t.jobs?.length ? 'Add the missing jobs' : 'Make it jobs'}</Button
                >{/if}
              {#if price > 0}<p class="text-sm">{price.toFixed(2)} to buy for it alone.</p>{/if}
            </div>
          </div>
        </article>
        <section aria-label="The ladder">
          <h2>From the least up</h2>
          <ol class="border-t border-rule">
            {#each a.ladder as r, i (r.rung)}
              <li
                class="grid gap-x-4 border-b border-rule py-1.5 pl-3 sm:grid-cols-[9rem_minmax(0,1fr)] {r.chosen
                  ? 'border-l-4 border-l-moss bg-white'
                  : ''}"
              >
                <p class={r.chosen ? 'font-bold' : r.allowed ? 'font-semibold' : 'text-soft'}>
                  {capital(rungs[r.rung] ?? r.rung)}
                </p>
                <div class="text-sm">
                  {#if r.chosen}<p>Enough now: see above.</p>{:else}<p class={r.allowed ? '' : 'text-soft'}>{r.do}</p>{/if}
                  {#if r.why && !r.chosen && r.why !== a.ladder[i - 1]?.why}<p class="text-soft">{capital(r.why)}.</p>{/if}
                </div>
              </li>
            {/each}
          </ol>
        </section>
      </div>
      <div class="space-y-4">
        {#if !t.find.prevent && t.find.state === 'open'}{#key t.find.id}<HowBad {t} onkept={() => void read(id)} />{/key}{/if}
        {#if t.along?.length}<Along {t} {chosen} onpick={(list) => (others = list)} />{/if}
        {#if t.jobs?.length}
          <section aria-label="Jobs">
            <h2>Its jobs</h2>
            <ul class="border-t border-rule">
              {#each t.jobs as j (j.id)}<li class="border-b border-rule py-1.5">
                  <a href="#/rounds/{j.id}">{j.title}</a><span class="block text-sm text-soft">{when(j, house.today)}</span>
                  {#key j.id + j.state}<Tick order={j} small onkept={() => void read(id)} />{/key}
                </li>{/each}
            </ul>
          </section>
        {/if}
        {#if t.history?.length}
          <section aria-label="Used">
            <h2>Done on it this year</h2>
            <ul class="border-t border-rule text-sm">
              {#each t.history as u, i (i)}<li class="border-b border-rule py-1">
                  {inWords(u.day)}: {u.active ? t.actives[u.active] : 'by hand'}{#if u.rain_mm}<b class="text-water"
                      >&nbsp;· {figure(u.rain_mm, 'mm')} of rain after{u.rain_mm >= 3 ? ': washed off' : ''}</b
                    >{/if}
                </li>{/each}
            </ul>
          </section>
        {/if}
      </div>
    </div>
  {/if}
</div>
