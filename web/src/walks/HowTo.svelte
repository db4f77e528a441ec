<script lang="ts">
  /** How a check is made, as a small drawing of our own. Green lives, hatched is dead; the hand shows where. */
  import type { Kind } from './checks';

  let { kind }: { kind: Kind } = $props();
  const id = $props.id();
  const hand = 'fill-none stroke-cold';
</script>

<svg viewBox="0 0 120 84" class="by-day block h-full w-full" aria-hidden="true" stroke-linecap="round" stroke-linejoin="round">
  <defs>
    <pattern id="{id}-dead" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"
      ><rect width="5" height="5" fill="#efe9dc" /><line
        x1="0"
        y1="0"
        x2="0"
        y2="5"
        stroke="#6b5640"
        stroke-width="1.5"
      /></pattern
    >
  </defs>
  {#snippet twig()}
    <path d="M8 64Q50 50 112 22" fill="none" stroke="var(--color-ink)" stroke-width="4" />
  {/snippet}
  {#snippet ground(y: number)}
    <path d="M4 {y}H116" stroke="var(--color-ink)" stroke-width="1.5" />
    {#each [14, 32, 52, 72, 92, 108] as x}<path
        d="M{x} {y + 4}l-5 6"
        stroke="var(--color-ink)"
        stroke-width="1"
        opacity="0.5"
      />{/each}
  {/snippet}
  {#snippet trunk(x: number, w: number)}
    <path d="M{x - w} 80V6M{x + w} 80V6" stroke="var(--color-ink)" stroke-width="2" fill="none" />
  {/snippet}

  {#if kind === 'bud_rub'}
    {@render twig()}
    <path
      d="M34 55q-2 -12 8 -14q3 9 -8 14zM62 45q0 -12 9 -13q2 9 -9 13zM90 33q0 -11 9 -12q1 9 -9 12z"
      fill="#a9c3a0"
      stroke="var(--color-ink)"
      stroke-width="1.4"
    />
    <path d="M52 8q10 6 12 20M84 4q-6 8 -10 24" class={hand} stroke-width="7" opacity="0.75" />
    <path d="M60 20q6 4 14 0" stroke="var(--color-ink)" stroke-width="1" fill="none" stroke-dasharray="2 3" />
    <path d="M40 66l-4 9M47 64l1 10" stroke="#6b5640" stroke-width="3" />
  {:else if kind === 'scratch'}
    {@render trunk(60, 13)}
    <path d="M52 30h14v22h-14z" fill="#a9c3a0" stroke="var(--color-ink)" stroke-width="1.3" />
    <path d="M52 56h14v14h-14z" fill="url(#{id}-dead)" stroke="var(--color-ink)" stroke-width="1.3" />
    <path d="M112 18L74 40" class={hand} stroke-width="8" opacity="0.75" /><path d="M76 35l-10 5l5 5z" fill="var(--color-ink)" />
  {:else if kind === 'shoot'}
    {@render trunk(44, 7)}
    <path d="M51 26q18 -2 24 -16q-19 -1 -24 16z" fill="#a9c3a0" stroke="var(--color-ink)" stroke-width="1.5" />
    <path d="M30 52h28M30 57h28" stroke="var(--color-ink)" stroke-width="1.8" />
    <path d="M51 70q8 -10 18 -10l-4 4l8 0l-6 4l8 2q-14 8 -24 0z" fill="none" stroke="var(--color-ink)" stroke-width="1.5" />
    <text x="86" y="22" font-size="15" fill="var(--color-ink)">=</text><text x="86" y="72" font-size="15" fill="var(--color-ink)"
      >≠</text
    >
  {:else if kind === 'crown'}
    {@render ground(44)}
    <path d="M54 44V12M60 44V6M66 44V16" stroke="var(--color-ink)" stroke-width="3" />
    <path d="M36 44Q60 76 84 44" fill="var(--color-paper)" stroke="var(--color-ink)" stroke-width="1.5" />
    <path d="M46 46q14 16 28 0" fill="#a9c3a0" stroke="var(--color-ink)" stroke-width="1.4" />
    <path d="M52 50l-3 -7M60 54v-8M68 50l3 -7" stroke="var(--color-moss)" stroke-width="3" />
    <path d="M112 20L82 46" class={hand} stroke-width="8" opacity="0.75" />
  {:else if kind === 'bark_ring'}
    {@render trunk(42, 14)}
    <path d="M28 34q14 7 28 0v20q-14 7 -28 0z" fill="var(--color-paper)" stroke="var(--color-ink)" stroke-width="1.3" />
    <path d="M46 36.5q3 -1 5 -1.4v20q-2 .6 -5 1.4z" fill="#a9c3a0" stroke="var(--color-ink)" stroke-width="1.2" />
    <circle cx="92" cy="44" r="17" fill="none" stroke="#d9d6c8" stroke-width="6" />
    <path d="M92 27a17 17 0 0 1 17 17" fill="none" stroke="#a9c3a0" stroke-width="6" />
    <path d="M92 20a24 24 0 1 0 24 24" fill="none" class={hand} stroke-width="1.6" stroke-dasharray="3 3" />
  {:else if kind === 'split_bark'}
    {@render trunk(60, 15)}
    <path d="M58 12q6 14 0 30q-4 16 2 30" fill="none" stroke="var(--color-ink)" stroke-width="2.6" />
    <path d="M62 30q12 2 14 16q-8 6 -15 2z" fill="url(#{id}-dead)" stroke="var(--color-ink)" stroke-width="1.2" />
    <path d="M114 30L82 40" class={hand} stroke-width="8" opacity="0.75" />
  {:else if kind === 'growth'}
    <path d="M8 70L58 44" stroke="#6b5640" stroke-width="5" /><path d="M58 44L112 16" stroke="#7fa079" stroke-width="4" />
    <path d="M54 38l7 13M57 36l7 13" stroke="var(--color-ink)" stroke-width="1.6" />
    <path d="M66 58L116 32" stroke="var(--color-ink)" stroke-width="1" /><path
      d="M63 53l6 9M113 28l6 9"
      stroke="var(--color-ink)"
      stroke-width="1.4"
    />
    <path d="M80 33q2 -12 12 -14q0 10 -12 14zM98 24q0 -12 10 -15q2 10 -10 15z" fill="#a9c3a0" stroke="var(--color-ink)" />
  {:else if kind === 'tip_dead'}
    <path d="M10 72Q48 60 70 42" fill="none" stroke="#7fa079" stroke-width="5" /><path
      d="M70 42L84 34M88 20L108 14"
      stroke="#6b5640"
      stroke-width="4"
    />
    <path d="M84 34l3 -6" stroke="var(--color-bad)" stroke-width="1.6" /><path
      d="M66 56L104 30"
      stroke="var(--color-ink)"
      stroke-width="1"
    /><path d="M63 52l6 8M101 26l6 8" stroke="var(--color-ink)" stroke-width="1.4" />
    <path d="M114 2L104 14" class={hand} stroke-width="7" opacity="0.75" />
  {:else if kind === 'leaf'}
    {#each [0, 40, 80] as x, i (x)}
      <path
        d="M{x + 20} 66q-16 -20 0 -44q16 24 0 44z"
        fill={i === 2 ? `url(#${id}-dead)` : '#a9c3a0'}
        stroke="var(--color-ink)"
        stroke-width="1.4"
      />
      {#if i === 1}<path d="M60 66q-16 -20 0 -44q16 24 0 44z" fill="none" stroke="#a85f0a" stroke-width="5" opacity="0.75" />{/if}
      <path d="M{x + 20} 66V30M{x + 20} 66v12" stroke="var(--color-ink)" stroke-width="1.2" />
    {/each}
  {:else if kind === 'base'}
    {@render ground(62)}
    <path d="M50 62V8M68 62V8" stroke="var(--color-ink)" stroke-width="2" /><path
      d="M50 62q-12 6 -22 14M68 62q12 6 22 14"
      fill="none"
      stroke="var(--color-ink)"
      stroke-width="1.6"
    />
    <path d="M112 50L74 58" class={hand} stroke-width="8" opacity="0.75" />
    <path d="M40 14q18 -9 38 0M74 8l5 6l-8 2M44 8l-5 6l8 2" fill="none" class={hand} stroke-width="1.8" />
  {:else if kind === 'spear' || kind === 'head'}
    <path d="M54 80V50M66 80V50" stroke="var(--color-ink)" stroke-width="2" />
    {#each [[-44, -4], [-34, -26], [34, -26], [44, -4]] as [dx, dy] (dx)}<path
        d="M60 50Q{60 + dx! / 2} {44 + dy!} {60 + dx!} {52 + dy!}"
        fill="none"
        stroke={kind === 'head' && dx! > 0 ? '#6b5640' : '#7fa079'}
        stroke-width="5"
      />{/each}
    <path d="M60 50V14" stroke="var(--color-ink)" stroke-width="4" />
    {#if kind === 'spear'}<path d="M72 30V6M68 11l4 -6l4 6" fill="none" class={hand} stroke-width="3" />{:else}<path
        d="M8 80q10 -8 20 0"
        fill="none"
        class={hand}
        stroke-width="2"
      /><circle cx="18" cy="79" r="2.4" fill="var(--color-cold)" /><path
        d="M22 74L48 46"
        class={hand}
        stroke-width="1.4"
        stroke-dasharray="3 3"
      />{/if}
  {:else if kind === 'danger'}
    {@render ground(70)}
    <path d="M70 70V34" stroke="var(--color-ink)" stroke-width="5" /><circle
      cx="70"
      cy="26"
      r="19"
      fill="#a9c3a0"
      stroke="var(--color-ink)"
      stroke-width="1.4"
    />
    <path d="M84 34q16 4 20 20" fill="none" stroke="var(--color-bad)" stroke-width="4" /><path
      d="M42 70A60 60 0 0 1 112 70"
      fill="none"
      stroke="var(--color-bad)"
      stroke-width="1.4"
      stroke-dasharray="4 4"
    />
    <circle cx="16" cy="48" r="4" fill="none" class={hand} stroke-width="2" /><path
      d="M16 52v12M16 64l-4 6M16 64l4 6"
      class={hand}
      stroke-width="2"
    /><path d="M22 46L48 30" class={hand} stroke-width="1.2" stroke-dasharray="3 3" />
  {:else if kind === 'sample'}
    {#each [14, 38, 62, 86, 108] as x, i (x)}
      <path d="M{x} 66V40" stroke="var(--color-ink)" stroke-width="2" /><ellipse
        cx={x}
        cy={i === 3 ? 46 : 34}
        rx="9"
        ry={i === 3 ? 8 : 15}
        fill={i < 3 ? '#a9c3a0' : i === 3 ? `url(#${id}-dead)` : 'none'}
        stroke="var(--color-ink)"
        stroke-width="1.3"
      />
    {/each}
    <path d="M6 74h88" class={hand} stroke-width="2.4" />
  {:else}
    <path d="M10 42q50 -46 100 0q-50 46 -100 0z" fill="none" stroke="var(--color-ink)" stroke-width="2" /><circle
      cx="60"
      cy="42"
      r="11"
      fill="none"
      stroke="var(--color-ink)"
      stroke-width="2"
    />
    <path d="M22 76L98 8" stroke="var(--color-bad)" stroke-width="3" />
  {/if}
</svg>
