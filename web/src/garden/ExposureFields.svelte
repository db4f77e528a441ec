<script lang="ts">
  /** How a plant's spot, or a whole property, stands: facing, lie, soil, warm walls, standing water. */
  import type { Schemas } from '../api/client';
  import Pick from '../lib/Pick.svelte';
  import Tickbox from '../lib/Tickbox.svelte';

  type Facing = NonNullable<Schemas['PropertyIn']['facing']>;
  type Slope = NonNullable<Schemas['PropertyIn']['slope']>;
  type Soil = NonNullable<Schemas['PropertyIn']['soil']>;
  interface Props {
    facing: Facing;
    slope: Slope;
    soil: Soil;
    wall?: boolean;
    wet: boolean;
    unknown: string;
    all?: boolean; // of all plants of a property, whose warm walls are part of its site
  }
  let {
    facing = $bindable(),
    slope = $bindable(),
    soil = $bindable(),
    wall = $bindable(false),
    wet = $bindable(),
    unknown,
    all = false,
  }: Props = $props();
  const facings: Facing[] = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'];
  const soils: Soil[] = ['sand', 'loam', 'clay'];
  const same = <T extends string>(list: T[]) => list.map((v) => [v, v] as [T, string]);
</script>

<Pick class="sm:col-span-2" label="Open to the" bind:value={facing} options={[['', unknown], ...same(facings)]} />
<Pick
  class="sm:col-span-2"
  label="Lie of the land"
  bind:value={slope}
  options={[
    ['', unknown],
    ['level', 'level'],
    ['slope', 'on a slope'],
    ['foot', 'at the foot of a slope'],
  ]}
/>
<Pick class="sm:col-span-2" label="Soil" bind:value={soil} options={[['', unknown], ...same(soils)]} />
<div class="flex flex-wrap gap-x-6 sm:col-span-6">
  {#if !all}<Tickbox label="Within a metre of a warm wall" bind:checked={wall} />{/if}
  <Tickbox label={all ? 'Water stands all over it after rain' : 'Water stands there after rain'} bind:checked={wet} />
</div>
