<script lang="ts">
  /** A field for an amount of money, in the firm's currency. */
  import { untrack } from 'svelte';
  import { inField, read } from './money';

  interface Props {
    label: string;
    value: number; // in the smallest unit
    currency: string;
    digits: number;
    problem?: string;
    quiet?: boolean; // its label is only read aloud
    class?: string;
    onset?: (v: number) => void;
  }
  let { label, value = $bindable(), currency, digits, problem, quiet = false, class: wide = '', onset }: Props = $props();
  let text = $state(untrack(() => (value ? inField(value, digits) : '')));
  let last = untrack(() => value);
  $effect(() => {
    if (value === last) return;
    last = value;
    text = untrack(() => inField(value, digits));
  });
  const wrong = $derived(Number.isNaN(read(text, digits)));
  function keep() {
    const v = read(text, digits);
    if (Number.isNaN(v)) return;
    if (v !== value) {
      value = last = v;
      onset?.(v);
    }
    text = v ? inField(v, digits) : '';
  }
</script>

<label class="block font-semibold {wide}"
  ><span class={quiet ? 'sr-only' : ''}>{label}{currency ? ` (${currency})` : ''}</span>
  <input
    class="min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2 text-right text-sm font-normal {quiet ? '' : 'mt-1'}"
    inputmode="decimal"
    autocomplete="off"
    aria-invalid={problem || wrong ? 'true' : undefined}
    bind:value={text}
    onchange={keep}
  />
  {#if wrong}<span class="text-sm font-normal text-bad">“{text}” is no amount; write 12.50</span>{/if}
  {#if problem}<span class="text-sm font-normal text-bad">{problem}</span>{/if}</label
>
