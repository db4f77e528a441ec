<script lang="ts">
  /** Others on the property that can have the trouble too: which are treated along, and what that costs. */
  import Tickbox from '../lib/Tickbox.svelte';
  import { plain, type Treatment } from './treat';

  interface Props {
    t: Treatment;
    chosen: number[];
    onpick: (chosen: number[]) => void;
  }
  let { t, chosen, onpick }: Props = $props();
  const list = $derived(t.along);
  const counted = $derived(list.filter((o) => o.find_id || chosen.includes(o.plant_id)));
  const sum = (of: typeof list) => t.takes.cost + of.reduce((n, o) => n + o.takes.cost, 0);
  const product = (of: typeof list) => t.takes.product + of.reduce((n, o) => n + o.takes.product, 0);
</script>

<section aria-label="Others of its kind">
  <h2>Others here that can have it</h2>
  <ul class="border-t border-rule">
    {#each list as o (o.plant_id)}
      <li class="border-b border-rule py-1">
        {#if o.find_id}<p class="py-1">
            <a href="#/treat/{o.find_id}">{o.plant}</a><span class="block text-sm text-soft">has a treatment of its own</span>
          </p>
        {:else}<Tickbox
            checked={chosen.includes(o.plant_id)}
            onpick={(on) => onpick(on ? [...chosen, o.plant_id] : chosen.filter((x) => x !== o.plant_id))}
            >{o.plant}<span class="block text-sm text-soft">{o.why}{o.takes.cost ? `; ${o.takes.cost.toFixed(2)}` : ''}</span
            ></Tickbox
          >{/if}
      </li>
    {/each}
  </ul>
  {#if t.takes.cost}<p class="mt-1 text-sm" data-testid="along-cost">
      With those chosen {plain(product(counted))}
      {t.takes.unit} of {t.takes.name}, <b>{sum(counted).toFixed(2)}</b>; all of them would be {sum(list).toFixed(2)}. Of what is
      used up, over all times; an estimate.
    </p>{/if}
</section>
