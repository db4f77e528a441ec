<script lang="ts">
  import { bare } from '../lib/units';
  /** A figure to be measured: a field with its unit, and a button that notes it. */
  interface Props {
    name: string;
    unit: string;
    does?: string; // on the button
    onnote: (value: number) => void;
  }
  let { name, unit, does = 'Note it', onnote }: Props = $props();
  let text = $state('');
  const value = $derived(bare(text));
  function note() {
    onnote(value);
    text = '';
  }
</script>

<label class="flex items-center gap-1 text-sm"
  ><input
    class="min-h-11 w-20 border border-gray-400 bg-white px-2"
    inputmode="decimal"
    aria-label="{name} ({unit})"
    bind:value={text}
    onkeydown={(e) => e.key === 'Enter' && value > 0 && note()}
  />
  {unit}</label
>
<button class="min-h-11 border border-rule bg-white px-3 text-[0.9375rem]" disabled={!(value > 0)} onclick={note}>{does}</button>
