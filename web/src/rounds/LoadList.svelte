<script lang="ts">
  /** What is taken along, by kind of thing, with amounts. */
  import type { Schemas } from '../api/client';
  import { figure, imperial, product, productKind, shown, unit } from '../lib/units';
  import { plain } from '../treat/treat';

  let { items }: { items: Schemas['LoadItem'][] } = $props();
  const names: [string, string][] = [
    ['plants', 'Plants'],
    ['stuff', 'Material'],
    ['tools', 'Tools'],
    ['ladders', 'Ladders'],
    ['fuel', 'Fuel'],
    ['waste', 'For what comes off'],
  ];
  const loose = ['compost', 'mulch']; // by the yard where one measures in feet
  const rounded = (v: number) => (v >= 20 ? Math.ceil(v / 5) * 5 : v);
  const text = (x: Schemas['LoadItem']) => {
    if (!x.unit || !x.amount || (x.group === 'ladders' && x.amount === 1)) return x.name;
    if (x.unit === 'piece') return `${x.amount} × ${x.name}`;
    if (x.unit === 'L' && loose.includes(x.name) && imperial()) return `${figure(x.amount / 1000, 'm³')} of ${x.name}`;
    if (x.unit === 'L') return `${plain(rounded(shown('volume', x.amount)))} ${unit('volume')} of ${x.name}`;
    if (x.unit === 'm2') return `${plain(rounded(shown('area', x.amount)))} ${unit('area')} of ${x.name}`;
    if (x.unit === 'm3') return `${figure(x.amount, 'm³')} of ${x.name}`;
    if (productKind(x.unit)) return `${product(x.amount, x.unit)} of ${x.name}`;
    return `${plain(x.amount)} ${x.unit} of ${x.name}`;
  };
  const rows = $derived(
    names.map(([group, name]) => ({ name, of: items.filter((x) => x.group === group) })).filter((r) => r.of.length),
  );
</script>

<dl class="text-[0.9375rem]">
  {#each rows as r (r.name)}
    <div class="flex gap-x-2 max-sm:block">
      <dt class="w-36 shrink-0 font-semibold">{r.name}</dt>
      <dd>{r.of.map(text).join(' · ')}</dd>
    </div>
  {/each}
</dl>
