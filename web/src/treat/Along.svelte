<script lang="ts">
  import { product as amount } from '../lib/units';
  /** Others on the property that can have the trouble too: which are treated along, and what that costs. */
  import { api, ask, dropOrder, onceKey } from '../api/client';
  import { attempt, house } from '../lib/house.svelte';
  import Tickbox from '../lib/Tickbox.svelte';
  import type { Treatment } from './treat';

  interface Props {
    t: Treatment;
    chosen: number[];
    onpick: (chosen: number[]) => void;
  }
  let { t, chosen, onpick }: Props = $props();
  const list = $derived(t.along);
  const looks = $derived(list.filter((o) => o.look && !o.find_id).map((o) => o.plant_id));
  let busy = $state(false);
  async function askLook() {
    busy = true;
    await attempt(async () => {
      const o = await ask(
        api.POST('/api/v1/finds/{id}/look', {
          params: { path: { id: t.find.id }, header: onceKey() },
          body: { property_id: t.find.property_id, plants: looks },
        }),
      );
      house.say(`${o.title}: a job without a day.`, async () => void (await attempt(() => dropOrder(o.id))));
    });
    busy = false;
  }
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
        {:else if o.look}<p class="py-1">{o.plant}<span class="block text-sm text-soft">{o.why}: look there</span></p>
        {:else}<Tickbox
            checked={chosen.includes(o.plant_id)}
            onpick={(on) => onpick(on ? [...chosen, o.plant_id] : chosen.filter((x) => x !== o.plant_id))}
            >{o.plant}<span class="block text-sm text-soft">{o.why}{o.takes.cost ? `; ${o.takes.cost.toFixed(2)}` : ''}</span
            ></Tickbox
          >{/if}
      </li>
    {/each}
  </ul>
  {#if looks.length}<button class="min-h-11 text-moss underline" disabled={busy} onclick={askLook}
      >Ask for a look at {looks.length === 1 ? 'it' : `these ${looks.length}`}</button
    >{/if}
  {#if t.takes.cost && list.some((o) => !o.look)}<p class="mt-1 text-sm" data-testid="along-cost">
      With those chosen {amount(product(counted), t.takes.unit!)} of {t.takes.name}, <b>{sum(counted).toFixed(2)}</b>; all of them
      would be {sum(list).toFixed(2)}. Of what is used up, over all times; an estimate.
    </p>{/if}
</section>
