<script lang="ts">
  /** The house rules: of the firm, or of one property that differs from it. */
  import type { Schemas } from '../api/client';
  import Field from '../lib/Field.svelte';
  import Pick from '../lib/Pick.svelte';

  type Rules = Schemas['RulesHouse'];
  interface Props {
    rules: Rules;
    firm?: Rules; // of a property: what holds where nothing is chosen
    problems?: Record<string, string>;
  }
  let { rules = $bindable(), firm, problems = {} }: Props = $props();

  type Question = Exclude<keyof Rules, 'seal_from_cm'>;
  const questions: { name: Question; label: string; choices: [string, string][] }[] = [
    {
      name: 'perennials',
      label: 'Frosted perennials',
      choices: [
        ['stand', 'stand till late winter'],
        ['at frost', 'are cut back at the first killing frost and mulched'],
      ],
    },
    {
      name: 'roses',
      label: 'Repeat-flowering roses',
      choices: [
        ['bud swell', 'are cut at bud swell'],
        ['winter', 'are cut in winter, shortened against wind rock'],
      ],
    },
    {
      name: 'in_the_way',
      label: 'Spring bloomers in the way before bloom',
      choices: [
        ['wait', 'wait till they have bloomed'],
        ['cut anyway', 'are cut anyway, and the lost bloom is shown'],
      ],
    },
    {
      name: 'natives',
      label: 'Native and naturalistic shrubs',
      choices: [
        ['natural form', 'keep their natural form, thinned only'],
        ['clip', 'are clipped to shape'],
      ],
    },
    {
      name: 'wounds',
      label: 'Large pruning wounds',
      choices: [
        ['bare', 'stay bare'],
        ['seal', 'are sealed from a width on'],
        ['compost', 'are rubbed with compost'],
      ],
    },
    {
      name: 'control',
      label: 'Against pests and diseases',
      choices: [
        ['soft first', 'soft means first, stronger only past a threshold'],
        ['soft only', 'soft means only'],
        ['conventional', 'conventional means are allowed from the start'],
      ],
    },
    {
      name: 'feeding',
      label: 'Feeding',
      choices: [
        ['organic', 'organic feed only'],
        ['any', 'any feed'],
      ],
    },
    {
      name: 'repellents',
      label: 'Repellents with weak evidence',
      choices: [
        ['hide', 'are hidden'],
        ['show', 'are shown, marked weak'],
      ],
    },
  ];
  const asFirm = (q: (typeof questions)[number]) => {
    const is = firm?.[q.name] || q.choices[0]![0];
    return `as the firm: ${q.choices.find(([v]) => v === is)?.[1] ?? is}`;
  };
  function choose(name: Question, v: string) {
    const { [name]: _, ...rest } = rules;
    rules = (v ? { ...rest, [name]: v } : rest) as Rules;
  }
</script>

<div class="grid gap-x-4 gap-y-2 sm:grid-cols-2">
  {#each questions as q (q.name)}
    <Pick
      label={q.label}
      value={rules[q.name] ?? (firm ? '' : q.choices[0]![0])}
      onpick={(v) => choose(q.name, v)}
      options={firm ? [['', asFirm(q)], ...q.choices] : q.choices}
      problem={problems[`rules.${q.name}`]}
    />
  {/each}
  {#if rules.wounds === 'seal'}
    <Field
      label="Sealed from a width of"
      kind="shoot"
      bind:value={() => String(rules.seal_from_cm ?? 5), (v) => (rules = { ...rules, seal_from_cm: Number(v) || 0 })}
      problem={problems['rules.seal_from_cm']}
    />
  {/if}
</div>
