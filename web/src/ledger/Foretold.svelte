<script lang="ts">
  /** What verdicts foretold against what came: of all plants, or of a kind, a verdict, a zone, a person. */
  import { api, ask, type Schemas } from '../api/client';
  import Pick from '../lib/Pick.svelte';
  import { reading } from '../lib/reading';
  import { capital } from '../lib/words';

  type Score = Schemas['Overview']['score'];
  type Group = Schemas['ScoreTold']['groups'][number];
  let { all }: { all: Score } = $props();
  let groups = $state.raw<Group[]>([]);
  let ends = $state.raw<Schemas['ScoreTold']['ends']>();
  let picked = $state('');
  const by: Record<string, string> = {
    kind: 'Kind of plant',
    verdict: 'Verdict',
    zone: 'Hardiness zone',
    person: 'Who decided',
    cause: 'What ailed it',
  };
  const key = (g: Group) => `${g.by} ${g.name}`;
  const reads = reading();
  $effect(() => {
    void reads(async (signal) => {
      ({ groups, ends } = await ask(api.GET('/api/v1/score', { signal })));
    });
  });
  const score = $derived<Score>(groups.find((g) => key(g) === picked) ?? all);
  const inTen = (v: number) => `about ${Math.round(10 * v)} in 10`;
  /** What came of plants that were told a chance. */
  const came = (b: Score['bins'][number]) =>
    b.of === 1
      ? `One plant was told ${inTen(b.told)}: it ${b.came ? 'came back' : 'did not come back'}`
      : `${b.of} plants were told ${inTen(b.told)}: ${b.came === b.of ? 'all' : b.came || 'none'} came back`;
</script>

<section class="mt-8 max-w-4xl" aria-label="Foretold and come">
  <div class="flex flex-wrap items-end gap-x-4 gap-y-2">
    <h2 class="flex-1">Foretold, and what came</h2>
    {#if groups.length}<Pick
        class="min-w-56"
        label="Of"
        bind:value={picked}
        options={[['', 'all plants'], ...groups.map((g): [string, string, string] => [key(g), capital(g.name), by[g.by]!])]}
      />{/if}
    <a class="inline-flex min-h-11 items-center underline" href="/api/v1/score.csv" download>As CSV</a>
  </div>
  {#if score.judged}
    <ul>
      {#each score.bins as b (b.from)}
        <li class="grid grid-cols-[minmax(0,17rem)_minmax(0,1fr)] items-center gap-x-4 py-1 max-sm:grid-cols-1">
          <span>{came(b)}</span>
          <svg
            viewBox="0 0 300 22"
            class="block h-6 w-full max-w-md"
            role="img"
            aria-label="By these {Math.round(100 * b.low)} to {Math.round(100 * b.high)} in 100 come back; told were {Math.round(
              100 * b.told,
            )}"
          >
            <line x1="0" x2="300" y1="11" y2="11" stroke="var(--color-rule)" />
            <rect
              x={300 * b.low}
              width={Math.max(2, 300 * (b.high - b.low))}
              y="6"
              height="10"
              fill={b.right ? 'var(--color-moss)' : 'var(--color-sun)'}
              opacity="0.35"
            />
            <circle
              cx={300 * Math.min(0.985, Math.max(0.015, b.came / b.of))}
              cy="11"
              r="4.5"
              fill={b.right ? 'var(--color-moss)' : 'var(--color-sun)'}
            />
            <line x1={300 * b.told} x2={300 * b.told} y1="1" y2="21" stroke="var(--color-ink)" stroke-width="2" />
          </svg>
        </li>
      {/each}
    </ul>
    <p class="text-sm text-soft">
      The upright line is what was told, the dot what came, the band where the true share lies, nineteen times in twenty: few
      plants tell little.
      {#if score.bins.some((b) => !b.right)}Where the line is outside the band, the forecast was off.{/if}
      {#if score.early + score.in_time + score.late}Of those that came back, {[
          score.in_time && `${score.in_time} took the seasons foretold`,
          score.early && `${score.early} took fewer than foretold`,
          score.late && `${score.late} took more than foretold`,
        ]
          .filter(Boolean)
          .join(', ')}.{/if}
    </p>
  {/if}
  {#if ends?.of && !picked}<p class="mt-1 text-sm">
      After freezes {ends.of === 1 ? 'one plant was' : `${ends.of} plants were`} checked up the stem: on {ends.in} life ended where
      it was foretold{ends.above ? `, on ${ends.above} farther up` : ''}{ends.below ? `, on ${ends.below} farther down` : ''}.
      {ends.right ? 'Four in five should, and that may well be so.' : 'Four in five should: the forecast was off.'}
    </p>{/if}
  {#if score.open}<p class="text-sm text-soft">
      {score.open === 1 ? 'One is' : `${score.open} are`} alive and still {score.open === 1 ? 'has' : 'have'} time.
    </p>{/if}
</section>
