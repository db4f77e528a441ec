<script lang="ts">
  /** The walk of a property is put on a day, as a job. */
  import { Button, Modal } from 'flowbite-svelte';
  import { api, ask, dropOrder, onceKey, type Problem, type Schemas } from '../api/client';
  import { hours, inWords, plusDays } from '../lib/dates';
  import Field from '../lib/Field.svelte';
  import { attempt, house } from '../lib/house.svelte';

  let { line, onclose }: { line: Schemas['PlaceLine']; onclose: () => void } = $props();
  let on = $state('');
  let problem = $state<Problem>();
  const key = onceKey(); // the same again while the form stays open: what was sent twice is one job
  async function putWalk(e: SubmitEvent) {
    e.preventDefault();
    const l = line;
    const d = on || house.today;
    problem = await attempt(async () => {
      const body: Schemas['HandOrder'] = {
        property_id: l.property_id,
        kind: 'walk',
        title: `Walk of ${l.property}`,
        minutes: Math.max(10, l.minutes),
        note: l.why,
        day: d,
        spans: [{ from: d, to: plusDays(d, 28), cost: 0 }],
      };
      const o = await ask(api.POST('/api/v1/orders', { params: { header: key }, body }));
      onclose();
      house.say(`The walk of ${l.property} is on ${inWords(d)}.`, async () => {
        await attempt(async () => {
          await dropOrder(o.id);
        });
      });
    });
  }
</script>

<Modal open title="The walk of {line.property} on a day" size="xs" {onclose}>
  <form class="space-y-3 text-ink" onsubmit={putWalk}>
    <p class="text-sm">{line.looks} to look at, about {hours(line.minutes)}: {line.why}.</p>
    <Field label="Day" type="date" bind:value={() => on || house.today, (v) => (on = v)} problem={problem?.fields.day} />
    <div class="flex gap-2">
      <Button type="submit">Put it on this day</Button><Button color="light" onclick={onclose}>Back</Button>
    </div>
  </form>
</Modal>
