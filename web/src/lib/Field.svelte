<script lang="ts">
  /** A labelled input. With a kind of quantity its value is SI, and the field shows and takes the firm's unit. */
  import { Input } from 'flowbite-svelte';
  import { onMount, untrack } from 'svelte';
  import { entered, examples, inField, read, unit, type Kind } from './units';

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
    if (v === last || ((kind || mode) && last !== '' && v !== '' && Object.is(read(v, kind), read(last, kind)))) return;
    last = v;
    text = untrack(() => fromSI(v));
  });
  const figures = $derived(kind !== undefined || mode === 'decimal' || mode === 'numeric');
  const wrong = $derived(figures && text.trim() !== '' && Number.isNaN(read(text, kind)));
  const refused = $derived(wrong ? `${label}: “${text.trim()}” is not understood; write ${examples(kind)}` : '');
  // A form does not go off with a figure that was not understood.
  let box = $state<HTMLElement>();
  // The button that opened the form has the focus: the field that is asked for first takes it.
  onMount(() => {
    if (autofocus) box?.querySelector('input')?.focus();
  });
  $effect(() => box?.querySelector('input')?.setCustomValidity(refused));
  let left = $state(false); // while it is being typed nothing is called wrong
  // What was understood, where more than a plain figure stands there: 5'6" is 5.5 ft, 1,050 is 1050.
  const means = $derived.by(() => {
    const n = figures && !/^[-−]?\d*\.?\d*$/.test(text.trim()) ? read(text, kind) : NaN;
    return Number.isNaN(n) ? '' : `= ${Number(n.toPrecision(4))}${kind ? ` ${unit(kind)}` : ''}`;
  });
  function oninput() {
    left = false;
    const n = figures ? read(text, kind) : NaN;
    if (!figures || text.trim() === '') last = text;
    else if (Number.isNaN(n)) last = text;
    else last = kind ? String(entered(kind, n)) : String(n);
    value = last;
  }
</script>

<label bind:this={box} class="block font-semibold {wide}"
  >{label}{kind ? ` (${unit(kind)})` : ''}
  <Input
    class="mt-1 font-normal"
    inputmode={mode ?? (kind ? 'decimal' : 'text')}
    {type}
    {placeholder}
    {list}
    aria-invalid={problem || (wrong && left) ? 'true' : undefined}
    autocomplete="off"
    bind:value={text}
    {oninput}
    onblur={() => (left = true)}
  />
  {#if refused && left}<span class="text-sm font-normal text-bad" role="status">{refused}</span>
  {:else if means}<span class="text-sm font-normal text-soft">{means}</span>{/if}
  {#if problem}<span class="text-sm font-normal text-bad">{problem}</span>{/if}</label
>
