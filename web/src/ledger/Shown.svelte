<script lang="ts">
  /** How much milder or colder gardens are than their stations tell, and how much more or less kinds bear than the book says:
   *  drawn from where life was found to end after freezes; used until that is switched off. */
  import { api, ask, onceKey, type Schemas } from '../api/client';
  import { attempt, house } from '../lib/house.svelte';
  import { reading } from '../lib/reading';
  import { apart } from '../lib/units';
  import Doubt from '../lib/Doubt.svelte';

  type Told = Schemas['ShownTold'];
  type Row = {
    what: string;
    name: string;
    href: string;
    says: string;
    warmer: number;
    sd: number;
    plants: number;
    beyond: boolean;
    on: boolean;
  };
  let told = $state.raw<Told>();
  const reads = reading();
  $effect(() => {
    void reads(async (signal) => {
      told = await ask(api.GET('/api/v1/shown', { signal }));
    });
  });
  const put = async (what: string, on: boolean) => {
    told = await ask(api.PUT('/api/v1/shown', { params: { header: onceKey() }, body: { what, on } }));
  };
  async function use(what: string, on: boolean, name: string) {
    await attempt(async () => {
      await put(what, on);
      house.say(on ? `Used from now on: ${name}.` : `Not used any more: ${name}.`, () => put(what, !on));
    });
  }
  const far = (v: number) => apart(Math.abs(v));
  const groups = $derived<[string, Row[]][]>(
    told
      ? [
          [
            'Property, against its station',
            told.gardens.map((g) => ({
              what: `garden:${g.name}`,
              name: g.property,
              href: `#/grounds/${g.property_id}`,
              says: g.beyond
                ? `runs ${far(g.warmer_c)} ${g.warmer_c < 0 ? 'colder' : 'warmer'}`
                : 'as the station, as far as is known',
              warmer: g.warmer_c,
              sd: g.sd,
              plants: g.plants,
              beyond: g.beyond,
              on: g.on,
            })),
          ],
          [
            'Kind of plant, against the book',
            told.kinds.map((k) => ({
              what: `kind:${k.name}`,
              name: k.common,
              href: '',
              says: k.beyond
                ? `bears ${far(k.warmer_c)} ${k.warmer_c < 0 ? 'less' : 'more'}`
                : 'as the book says, as far as is known',
              warmer: k.warmer_c,
              sd: k.sd,
              plants: k.plants,
              beyond: k.beyond,
              on: k.on,
            })),
          ],
        ]
      : [],
  );
  // On a scale from 5 °C colder to 5 °C warmer.
  const x = (c: number) => (c + 5) / 10;
</script>

{#if told}
  <section class="mt-8 max-w-4xl" aria-label="This garden, this plant">
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h2 class="flex-1">What freezes have shown of gardens and kinds</h2>
      {#if told.gardens.length || told.kinds.length}<button
          class="min-h-11 text-moss underline"
          onclick={() => use('gardens', !told!.on, 'what freezes have shown')}
          >{told.on ? 'Go by stations and book alone' : 'Use what was shown'}</button
        >{/if}
    </div>
    {#if !told.gardens.length && !told.kinds.length}
      <p class="text-soft">
        Nothing yet. After a freeze, check stems from the ground up: from three plants on you read here whether a garden is warmer
        or colder than its station, and which kinds bear more or less than the book says.
      </p>
    {:else}
      <p class="text-sm text-soft">
        Drawn from how far up plants were found alive after freezes. {told.on
          ? 'Forecasts and what to look at go by it where it is beyond doubt.'
          : 'Not used: forecasts go by stations and book alone.'}
      </p>
      <div class="overflow-x-auto">
        <table class="mt-2 w-full text-sm sm:min-w-[44rem]">
          {#each groups as [title, rows]}
            {#if rows.length}
              <thead
                ><tr class="border-b border-ink text-left"
                  ><th class="pt-3">{title}</th><th class="pt-3 text-right">Plants</th><th
                    class="w-64 pt-3 pl-6 max-sm:w-36 max-sm:pl-3"
                    ><span class="flex max-w-[220px] justify-between font-normal"
                      ><span>{apart(-5, 0)}</span><span>0</span><span>+{apart(5, 0)}</span></span
                    ></th
                  ><th class="pt-3 pl-4">Shown</th><th class="pt-3"><span class="sr-only">Use</span></th></tr
                ></thead
              >
              <tbody>
                {#each rows as r (r.what)}
                  <tr class="border-b border-rule {r.on && told.on ? '' : 'text-soft'}">
                    <td class="py-1.5"
                      >{#if r.href}<a class="underline" href={r.href}>{r.name}</a>{:else}{r.name}{/if}</td
                    >
                    <td class="text-right tabular-nums">{r.plants}</td>
                    <td class="pl-6 max-sm:pl-3"
                      ><Doubt at={x(r.warmer)} low={x(r.warmer - 1.96 * r.sd)} high={x(r.warmer + 1.96 * r.sd)} mark={x(0)} /></td
                    >
                    <td class="pl-4 {r.beyond ? 'font-semibold' : ''}"
                      >{r.says} <span class="font-normal text-soft">± {far(1.96 * r.sd)}</span></td
                    >
                    <td class="text-right"
                      >{#if r.beyond}<button
                          class="min-h-11 text-moss underline"
                          onclick={() => use(r.what, !r.on, `${r.name} ${r.says}`)}
                          >{r.on ? 'Do not use' : 'Use'}<span class="sr-only">: {r.name}</span></button
                        >{/if}</td
                    >
                  </tr>
                {/each}
              </tbody>
            {/if}
          {/each}
        </table>
      </div>
      <p class="mt-1 text-sm text-soft">The bar is where the truth lies in 19 of 20 cases: an estimate.</p>
    {/if}
  </section>
{/if}
