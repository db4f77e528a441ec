<script lang="ts" generics="T extends string | number">
  /** A labelled list to pick from. */
  interface Props {
    label: string;
    value: T;
    options: [T, string, string?][]; // the third: a group to stand in
    off?: string; // said first while nothing is picked
    problem?: string;
    class?: string;
    onpick?: (v: T) => void;
  }
  let { label, value = $bindable(), options, off, problem, class: wide = '', onpick }: Props = $props();
  const groups = $derived([...new Set(options.map(([, , group]) => group ?? ''))]);
</script>

<label class="block font-semibold {wide}"
  >{label}
  <select
    class="mt-1 min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2 font-normal"
    value={String(value)}
    aria-invalid={problem ? 'true' : undefined}
    onchange={(e) => {
      const v = options.find(([o]) => String(o) === e.currentTarget.value)?.[0];
      if (v === undefined) return;
      value = v;
      onpick?.(v);
    }}
  >
    {#if off}<option value="" disabled>{off}</option>{/if}
    {#each groups as group}
      {#if group}
        <optgroup label={group}>
          {#each options.filter(([, , g]) => g === group) as [v, text] (v)}<option value={String(v)}>{text}</option>{/each}
        </optgroup>
      {:else}
        {#each options.filter(([, , g]) => !g) as [v, text] (v)}<option value={String(v)}>{text}</option>{/each}
      {/if}
    {/each}
  </select>
  {#if problem}<span class="text-sm font-normal text-bad">{problem}</span>{/if}</label
>
