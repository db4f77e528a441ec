<script lang="ts">
  /** The first steps of a new record, up to its first verdict: what is done is ticked, what comes next has the button. */
  import type { Schemas } from '../api/client';

  let { begun }: { begun: Schemas['FirstSteps'] } = $props();
  const steps = $derived([
    {
      done: !!begun.property,
      name: 'Add a property',
      says: 'A name, a place on the map and its climate are enough. All dates follow from it.',
      href: '#/grounds',
    },
    {
      done: !!begun.plant,
      name: 'Add its plants',
      says: 'The kind, the height and where it stands. Begin with the three that worry you.',
      href: `#/grounds/${begun.property}`,
    },
    {
      done: begun.checked,
      name: 'Walk to a plant',
      says: 'Make the check that is proposed: rub a bud, scratch the bark, and press what you find.',
      href: `#/walk/${begun.property}/${begun.plant}`,
    },
    {
      done: begun.decided,
      name: 'Accept your first verdict',
      says: 'It says what to do, to which height and by when. Overrule it if you know better.',
      href: `#/walk/${begun.property}/${begun.plant}`,
    },
  ]);
  const next = $derived(steps.findIndex((s) => !s.done));
</script>

<section aria-label="First steps" class="mb-5 max-w-2xl border border-rule bg-white">
  <h2 class="border-b border-rule px-4 py-3">First steps</h2>
  <ol>
    {#each steps as s, i (s.name)}
      <li
        class="grid grid-cols-[2rem_minmax(0,1fr)_auto] items-center gap-x-3 border-b border-rule px-4 py-2 last:border-b-0"
        aria-current={i === next ? 'step' : undefined}
      >
        <span
          class="grid size-7 place-content-center rounded-full border text-sm font-bold {s.done
            ? 'border-moss bg-moss text-white'
            : 'border-gray-400'}"
          aria-hidden="true">{s.done ? '✓' : i + 1}</span
        >
        <span
          ><span class={s.done ? 'text-soft' : 'font-semibold'}
            >{s.name}{#if s.done}<span class="sr-only">: done</span>{/if}</span
          >{#if i === next}<span class="block text-sm text-soft">{s.says}</span>{/if}</span
        >
        {#if i === next}<a
            class="inline-flex min-h-11 items-center rounded-sm bg-moss max-sm:col-start-2 max-sm:mt-2 max-sm:justify-self-start px-4 font-semibold text-white no-underline hover:bg-moss-deep"
            href={s.href}>{s.name}</a
          >{/if}
      </li>
    {/each}
  </ol>
  <p class="border-t border-rule px-4 py-2 text-sm">
    Rather try first? <a class="underline" href="#/practice">Practise on a made-up garden</a>: nothing of it gets into your
    record.
  </p>
</section>
