<script lang="ts">
  /** Counts a crown on a picture: outlined by a finger, read at points that lie evenly in it, corrected by taps. */
  import { Button, Modal } from 'flowbite-svelte';
  import { Problem, type Schemas } from '../api/client';
  import { counts, countsOf, type Counted } from '../field/counts.svelte';
  import { coloursAt, lay, read, type Class, type Count, type Point } from '../field/crown';
  import { canvasOf } from '../field/shrink';
  import { today } from '../field/verdicts';
  import { inWords } from '../lib/dates';
  import { attempt, house } from '../lib/house.svelte';
  import Pick from '../lib/Pick.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import { small } from '../lib/words';
  import CrownPicture from './CrownPicture.svelte';
  import LivePicture from './LivePicture.svelte';
  import { crownShows, removeCount, sides } from './crown';

  interface Props {
    open: boolean;
    plant: { id: number; common: string };
    onpicture?: (file: File) => Promise<unknown>; // keeps the picture with the plant
    onkept?: (share: number) => void;
  }
  let { open = $bindable(), plant, onpicture, onkept }: Props = $props();

  let file = $state.raw<File>();
  let picture = $state.raw<HTMLCanvasElement>();
  let outline = $state.raw<Point[]>([]);
  let points = $state.raw<Point[]>([]);
  let colours: number[][] = [];
  let told = $state<Record<string, Class>>({});
  let lean = $state(0);
  let looked = $state(false);
  let count = $state.raw<Count>();
  let current = $state(-1);
  let side = $state<NonNullable<Schemas['CrownIn']['side']>>('');
  let picturesToo = $state(true);
  let trouble = $state('');
  let before = $state.raw<Counted[]>([]);
  let loupe = $state<HTMLCanvasElement>();
  let live = $state(false);

  $effect(() => {
    if (!open) {
      live = false; // opened again, it asks before it uses the camera
      return;
    }
    countsOf(plant.id).then(
      (list) => {
        before = list;
        side = list[0]?.side ?? '';
      },
      () => (before = []), // without signal it is counted all the same
    );
  });
  const last = $derived(before.find((c) => c.side === side));
  const doubtful = $derived((count?.unsure ?? []).filter((i) => !told[i]));

  const hasCamera = !!navigator.mediaDevices?.getUserMedia; // a page without a certificate has none
  const take = (e: Event) => use((e.currentTarget as HTMLInputElement).files?.[0]);
  async function use(chosen: File | undefined) {
    if (!chosen) return;
    live = false;
    trouble = '';
    try {
      picture = await canvasOf(chosen, true);
      file = chosen;
      again();
    } catch (err) {
      trouble = (err as Error).message;
    }
  }
  function again() {
    outline = [];
    points = [];
    count = undefined;
    told = {};
    looked = false;
    current = -1;
  }
  async function drawn(o: Point[]) {
    trouble = '';
    try {
      const laid = await lay(o, 120);
      colours = coloursAt(picture!, laid);
      outline = o;
      points = laid;
      await tell();
      current = count?.unsure[0] ?? 0;
    } catch (err) {
      trouble = err instanceof Problem ? Object.values(err.fields).join('. ') : (err as Error).message;
    }
  }
  const whole = () =>
    drawn([
      { x: 0, y: 0 },
      { x: picture!.width, y: 0 },
      { x: picture!.width, y: picture!.height },
      { x: 0, y: picture!.height },
    ]);
  async function tell() {
    count = await read(colours, lean, $state.snapshot(told), looked);
  }
  async function say(is: Class) {
    told[current] = is;
    await tell();
    current = doubtful.find((i) => i > current) ?? doubtful[0] ?? current;
  }
  // What lies round the point that is asked about, larger.
  $effect(() => {
    const p = points[current];
    const pen = loupe?.getContext('2d');
    if (!p || !pen || !picture) return;
    const r = Math.max(picture.width, picture.height) / 28;
    pen.fillStyle = 'white';
    pen.fillRect(0, 0, 160, 160);
    pen.drawImage(picture, p.x - r, p.y - r, 2 * r, 2 * r, 0, 0, 160, 160);
    for (const [style, wide] of [
      ['black', 4],
      ['#ffd23f', 2],
    ] as const) {
      pen.strokeStyle = style;
      pen.lineWidth = wide;
      pen.strokeRect(72, 72, 16, 16);
    }
  });
  async function keep() {
    const kept = await attempt(async () => {
      const body: Schemas['CrownIn'] = { day: today(), side, colours, lean, told: $state.snapshot(told), looked };
      const c = await counts.keep({ plant: plant.id, count: body }, `Crown of the ${small(plant.common)}`);
      if (onpicture && picturesToo && file) await onpicture(file);
      const said = `${Math.round(100 * count!.share)} % brown or bare`;
      if (c) house.say(`${said}: saved.`, () => removeCount(c.id).then(() => {}));
      else house.say(`${said}: kept on this device, and sent when the house can be reached.`);
      onkept?.(count!.share);
      open = false;
      picture = undefined;
      again();
    });
    trouble = kept ? kept.message : '';
  }
</script>

<Modal bind:open title="Count the crown of the {small(plant.common)}" size="xl" class="text-ink!">
  {#if !picture && live}
    {#if open}
      <LivePicture
        onheld={use}
        onback={(why) => {
          live = false;
          trouble = why;
        }}
      />
    {/if}
  {:else if !picture}
    <p>
      Take the picture so that sky or a wall is behind the crown, with the sun at your back. You draw a line round the crown; 120
      points in it are read by their colour, and you put right those that are wrong. Leaves that are red or purple by nature read
      as brown: tap those, or do not count by colour.
    </p>
    <label
      class="mt-2 mr-2 inline-flex min-h-12 cursor-pointer items-center bg-moss px-4 font-semibold text-paper focus-within:outline-3 focus-within:outline-cold"
      >Take or choose a picture<input
        type="file"
        accept="image/*"
        class="sr-only"
        aria-label="Take or choose a picture"
        onchange={take}
      /></label
    >
    {#if hasCamera}<Button color="light" class="mt-2 min-h-12!" onclick={() => ((live = true), (trouble = ''))}
        >Use the live picture</Button
      >{/if}
  {:else}
    <div class="grid items-start gap-4 md:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
      <CrownPicture
        {picture}
        {outline}
        {points}
        classes={count?.classes ?? []}
        {current}
        ondrawn={drawn}
        onpick={(i) => (current = i)}
      />
      <div class="min-w-0 space-y-3">
        {#if !count}
          <p class="font-semibold">Draw a line round the crown with your finger.</p>
          <div class="flex flex-wrap gap-2">
            <Button color="light" onclick={whole}>Take the whole picture</Button>
            <Button color="light" onclick={() => (picture = undefined)}>Another picture</Button>
          </div>
        {:else}
          <p class="text-lg leading-snug font-bold" aria-live="polite" data-testid="crown-share">{count.text}</p>
          {#if last}<p class="text-sm">
              {side ? `From the ${side === 'above' ? 'top' : side}` : 'Counted'} on {inWords(last.day)}: {Math.round(
                100 * last.share,
              )} % ({Math.round(100 * last.low)} to {Math.round(100 * last.high)}).
            </p>{/if}
          {#if current >= 0}
            <div class="flex gap-3" role="group" aria-label="Point {current + 1} of {points.length}">
              <canvas bind:this={loupe} width="160" height="160" class="size-32 shrink-0 border border-rule" aria-hidden="true"
              ></canvas>
              <div class="min-w-0 flex-1">
                <p class="text-sm">
                  Point {current + 1}: {told[current] ? 'told' : 'reads'} as {crownShows[count.classes[current]!]}.
                  {doubtful.length
                    ? `${doubtful.length} more are near the border of two.`
                    : 'No other is near the border of two.'}
                </p>
                <div class="mt-1 grid grid-cols-2 gap-1.5">
                  {#each [['green', 'Living leaf'], ['brown', 'Dead leaf'], ['bare', 'Bare wood'], ['sky', 'Seen through']] as const as [is, word] (is)}
                    <button
                      class="min-h-11 border px-2 {count.classes[current] === is
                        ? 'border-ink bg-ink text-paper'
                        : 'border-rule bg-white'}"
                      aria-pressed={count.classes[current] === is}
                      onclick={() => say(is)}>{word}</button
                    >
                  {/each}
                </div>
                <div class="flex gap-4">
                  <button
                    class="min-h-11 text-moss underline"
                    onclick={() => (current = (current + points.length - 1) % points.length)}>Point before</button
                  >
                  <button class="min-h-11 text-moss underline" onclick={() => (current = (current + 1) % points.length)}
                    >Next point</button
                  >
                </div>
              </div>
            </div>
          {/if}
          <label class="block text-sm"
            ><span class="flex justify-between"><span>Count more as green</span><span>more as brown</span></span>
            <input
              type="range"
              class="min-h-11 w-full accent-moss"
              min="-1"
              max="1"
              step="0.1"
              bind:value={lean}
              aria-label="What counts as brown"
              oninput={() => void tell()}
            /></label
          >
          <Tickbox
            bind:checked={looked}
            label="I looked at every point: those that were wrong are put right"
            onpick={() => void tell()}
          />
          <div class="grid gap-3 sm:grid-cols-2">
            <Pick label="Looked at from" bind:value={side} options={sides} />
            {#if onpicture}<Tickbox class="self-end" bind:checked={picturesToo} label="Keep the picture too" />{/if}
          </div>
          <div class="flex flex-wrap gap-2">
            <Button onclick={keep}>Keep {Math.round(100 * count.share)} %</Button>
            <Button color="light" onclick={again}>Draw the line again</Button>
          </div>
          <p class="text-sm text-soft">
            An estimate of what this side shows: ● living leaf, ■ dead leaf, ▲ bare wood, ○ seen through and not counted.
          </p>
        {/if}
      </div>
    </div>
  {/if}
  {#if trouble}<p role="alert" class="font-semibold text-bad">{trouble}</p>{/if}
</Modal>
