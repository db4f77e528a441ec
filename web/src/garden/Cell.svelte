<script lang="ts">
  /** A bare input for a table's cell: its value is SI, and it shows and takes the firm's unit. */
  import { entered, inField, read, type Kind } from '../lib/units';

  interface Props {
    value: number;
    kind?: Kind;
    label: string;
    class?: string;
  }
  let { value = $bindable(), kind, label, class: look = '' }: Props = $props();
</script>

<input
  class={look}
  inputmode="decimal"
  aria-label={label}
  value={kind ? inField(kind, value) : String(value)}
  onchange={(e) => {
    const n = read(e.currentTarget.value, kind);
    value = (Number.isNaN(n) ? e.currentTarget.value : kind ? entered(kind, n) : n) as number;
  }}
/>
