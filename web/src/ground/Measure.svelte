<script lang="ts">
  /** A length on a plan, shown and entered in the firm's unit; kept in metres. It tells a change when the field is left. */
  import { entered, inField, read, unit } from '../lib/units';

  interface Props {
    label: string;
    value: number | undefined;
    onset: (metres: number) => void;
  }
  let { label, value, onset }: Props = $props();
</script>

<label class="text-sm font-semibold"
  >{label} ({unit('length')})<input
    class="min-h-11 w-full rounded-sm border border-gray-400 px-2 font-normal"
    inputmode="decimal"
    value={value === undefined ? '' : inField('length', value)}
    onchange={(e) => {
      const n = read(e.currentTarget.value, 'length');
      if (!Number.isNaN(n)) onset(entered('length', n));
    }}
  /></label
>
