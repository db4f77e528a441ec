<script lang="ts">
  /** A labelled input. With a kind of quantity its value is SI, and the field shows and takes the firm's unit. */
  import { Input } from 'flowbite-svelte';
  import { untrack } from 'svelte';
  import { entered, inField, read, unit, type Kind } from './units';

  interface Props {
    label: string;
    value: string;
    kind?: Kind;
    problem?: string;
    placeholder?: string;
    mode?: 'text' | 'decimal' | 'numeric';
    type?: string;
    class?: string;
    autofocus?: boolean;
    list?: string;
  }
  let { label, value = $bindable(), kind, problem, placeholder, mode, type, class: wide = '', autofocus, list }: Props = $props();

  const fromSI = (v: string) => (kind && v !== '' && !Number.isNaN(Number(v)) ? inField(kind, Number(v)) : v);
  let text = $state(untrack(() => fromSI(value)));
  let last = untrack(() => value); // what was given or made last: another value comes from outside
  $effect(() => {
    const v = value;
    // A figure that is being typed ("1." on the way to "1.5") stays as it stands while it means the same.
    if (v === last || ((kind || mode) && last !== '' && v !== '' && Object.is(read(v), read(last)))) return;
    last = v;
    text = untrack(() => fromSI(v));
  });
  function oninput() {
    const n = kind ? read(text) : NaN;
    last = kind && !Number.isNaN(n) ? String(entered(kind, n)) : text;
    value = last;
  }
</script>

<label class="block font-semibold {wide}"
  >{label}{kind ? ` (${unit(kind)})` : ''}
  <!-- svelte-ignore a11y_autofocus -- only where the form was asked for -->
  <Input
    class="mt-1 font-normal"
    inputmode={mode ?? (kind ? 'decimal' : 'text')}
    {type}
    {placeholder}
    {autofocus}
    {list}
    aria-invalid={problem ? 'true' : undefined}
    autocomplete="off"
    bind:value={text}
    {oninput}
  />
  {#if problem}<span class="text-sm font-normal text-bad">{problem}</span>{/if}</label
>
