<script lang="ts">
  /** A kind that may stand on a spot: a row to compare by, with how it grows, what counts and what it costs behind it. */
  import { Button } from 'flowbite-svelte';
  import type { Schemas } from '../api/client';
  import { brief as day, inWords, metres, span } from '../lib/dates';
  import { house } from '../lib/house.svelte';
  import { silhouette, type Form } from '../lib/portrait';
  import { bare, figure } from '../lib/units';
  import { capital } from '../lib/words';
  import Growth from './Growth.svelte';
  import { months } from './plan';

  interface Props {
    r: Schemas['Replacing'];
    roomM: number;
    picked: boolean; // it is compared, or in the bed
    pick: string; // what picking it is called
    busy: boolean;
    onplant: () => void;
    onpick: () => void;
    onsay: (price: number, banned: boolean) => void;
  }
  let { r, roomM, picked, pick, busy, onplant, onpick, onsay }: Props = $props();

  /** What speaks for it most, and what against it, in one line. */
  const why = $derived.by(() => {
    const most = (of: Schemas['Replacing']['parts']) => of.slice(0, 2).map((x) => x.text);
    const [good, bad] = [r.parts.filter((x) => x.points >= 2), r.parts.filter((x) => x.points <= -4)];
    const leads = most(good).join('; ') || 'nothing speaks against it';
    return capital(leads) + (bad.length ? `. But ${most(bad).join('; ')}.` : '.');
  });
  /** A span of days: one that is open begins today, and days of another year carry it. */
  const planting = (w: { from: string; to: string }) =>
    w.from <= house.today ? `now until ${inWords(w.to)}` : span(w.from, w.to);
  const windows = $derived((r.planting?.windows ?? []).map(planting));
  const first = $derived(r.planting?.windows?.[0]);
  const short = $derived(first && (first.from <= house.today ? `now until ${day(first.to)}` : span(first.from, first.to)));
  /** Some of a list of days, and how many there are. */
  const brief = (days: string[]) =>
    days.length > 6
      ? `${days
          .slice(0, 4)
          .map((d) => inWords(d))
          .join(', ')} … ${inWords(days.at(-1)!)}, ${days.length} times`
      : days.map((d) => inWords(d)).join(', ');

  /** What its cautions warn of; what to do about each is told behind. */
  const hazards = $derived(r.cautions.map((c) => c.split(/[:;.]/)[0]).join('. '));

  const box = 44;
  const shape = $derived.by(() => {
    const tall = Math.max(0.01, r.mature.height_m);
    const wide = Math.max(r.mature.spread_m, 0.35 * tall);
    const k = (box - 2) / Math.max(tall, wide);
    return silhouette(r.form as Form, box / 2, box - 1, (wide * k) / 2, tall * k);
  });
</script>

<li class="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-3 border-b border-rule py-2">
  <details class="group min-w-0">
    <summary
      class="grid min-h-11 cursor-pointer list-none grid-cols-[2.75rem_minmax(0,1fr)_3rem] items-center gap-x-3 md:grid-cols-[2.75rem_minmax(0,1fr)_8.5rem_9.5rem_3rem] [&::-webkit-details-marker]:hidden"
    >
      <svg viewBox="0 0 {box} {box}" class="size-11" aria-hidden="true"
        ><path d={shape} fill="var(--color-moss-pale)" stroke="var(--color-moss)" /></svg
      >
      <span class="min-w-0">
        <span class="block leading-snug font-bold" data-testid="kind">{r.common}</span>
        <span class="latin block text-sm text-soft">{r.botanical}</span>
      </span>
      <span class="text-right text-sm max-md:hidden">{metres(r.mature.height_m)} × {metres(r.mature.spread_m)}</span>
      <span class="text-sm max-md:hidden">{short ?? 'no good day'}</span>
      <b class="text-right text-lg">{Math.round(r.score)}</b>
      <span class="col-span-full pl-14 text-sm text-soft"
        >{why}{#if hazards}<b class="text-sun">&nbsp;{hazards}.</b>{/if}
        <span class="text-moss underline group-open:hidden">More</span></span
      >
    </summary>
    <div class="grid gap-3 pt-2 pl-14 text-sm max-md:pl-0 sm:grid-cols-[minmax(0,1fr)_16rem]">
      <div>
        <p>
          <b>{windows.length ? `Plant ${windows.join('; ')}` : 'No good day to plant it within a year'}</b>{r.count
            ? ` · ${r.count} plants, ${metres(r.spacing_m)} apart${r.cost ? `: ${r.cost.toFixed(2)}` : ''}`
            : ''}
        </p>
        {#if r.too_big_in_years}<p class="text-sun">
            In {Math.round(r.too_big_in_years)} years it meets the room there is.
          </p>{/if}
        {#each r.cautions as c}<p class="mt-1 border-l-4 border-sun pl-2">{c}</p>{/each}
        <ul class="mt-1">
          {#each r.parts as x}<li>
              <b>{x.points > 0 ? '+' : '−'}{Math.abs(Math.round(x.points * 10) / 10)}</b>
              {x.text}
            </li>{/each}
          {#if r.bloom_months?.length}<li>In bloom: {r.bloom_months.map((m) => months[m - 1]).join(', ')}</li>{/if}
          {#if r.flower?.colours?.length}<li>
              Flowers {r.flower.colours.join(', ')}{r.flower.scent ? ', scented' : ''}{r.flower.bees === 'rich'
                ? ', rich for bees'
                : ''}
            </li>{/if}
          {#if r.planting?.bare_root}<li>With bare roots: {planting(r.planting.bare_root)}</li>{/if}
          {#if r.planting?.water?.some((w) => w.on?.length)}<li>
              Water, {figure(r.planting.water[0]!.litres, 'L')} each time, as a usual year asks: {brief(
                r.planting.water.flatMap((w) => w.on).sort(),
              )}
            </li>{/if}
        </ul>
      </div>
      <Growth form={r.form as Form} name={r.common} grown={r.grown} {roomM} />
      <div class="col-span-full flex flex-wrap gap-3">
        <Button size="sm" class="min-h-11" color="light" aria-pressed={picked} onclick={onpick}
          >{pick}<span class="sr-only">: {r.common}</span></Button
        >
        <label class="flex items-center gap-1"
          >Price each<input
            class="min-h-11 w-20 rounded-sm border border-gray-400 bg-white px-2 text-right"
            inputmode="decimal"
            aria-label="Price of {r.common}"
            value={r.price || ''}
            onchange={(e) => onsay(bare(e.currentTarget.value) || 0, false)}
          /></label
        >
        <button class="min-h-11 text-moss underline" onclick={() => onsay(r.price ?? 0, true)}
          >Not allowed here<span class="sr-only">: {r.common}</span></button
        >
      </div>
    </div>
  </details>
  <Button size="sm" class="min-h-11" color="light" disabled={busy} onclick={onplant}
    >Plant it<span class="sr-only">: {r.common}</span></Button
  >
</li>
