<script lang="ts">
  /** Facing, slope and soil, of a plant's spot or of a whole property. */
  import type { Schemas } from '../api/client';

  type Exposure = Pick<Schemas['PropertyIn'], 'facing' | 'slope' | 'soil'>;
  interface Props {
    facing: Exposure['facing'];
    slope: Exposure['slope'];
    soil: Exposure['soil'];
    unknown: string;
  }
  let { facing = $bindable(), slope = $bindable(), soil = $bindable(), unknown }: Props = $props();
  const facings: Exposure['facing'][] = [
    'north',
    'north-east',
    'east',
    'south-east',
    'south',
    'south-west',
    'west',
    'north-west',
  ];
  const pick = 'mt-1 min-h-11 w-full rounded-sm border border-gray-400 bg-white px-2 font-normal';
</script>

<label class="font-semibold sm:col-span-2"
  >Open to the<select class={pick} bind:value={facing}
    ><option value="">{unknown}</option>{#each facings as v (v)}<option value={v}>{v}</option>{/each}</select
  ></label
>
<label class="font-semibold sm:col-span-2"
  >Lie of the land<select class={pick} bind:value={slope}
    ><option value="">{unknown}</option><option value="level">level</option><option value="slope">on a slope</option><option
      value="foot">at the foot of a slope</option
    ></select
  ></label
>
<label class="font-semibold sm:col-span-2"
  >Soil<select class={pick} bind:value={soil}
    ><option value="">{unknown}</option>{#each ['sand', 'loam', 'clay'] as const as v (v)}<option value={v}>{v}</option
      >{/each}</select
  ></label
>
