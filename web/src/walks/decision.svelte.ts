/** What is decided on the verdict of a plant: accepted, overruled or put off, with what is told of it and how it is taken back. */
import { onDestroy } from 'svelte';
import { api, ask, type Answer, type Check, type Plant, type Problem } from '../api/client';
import type { Waiting } from '../field/device';
import { field } from '../field/field.svelte';
import { inWords } from '../lib/dates';
import { attempt, house } from '../lib/house.svelte';
import { bare } from '../lib/units';

export interface At {
  plant: Plant | undefined;
  walk: number;
  checks: Check[];
  answer: Answer | undefined;
  waiting: Waiting | undefined;
}

export class Decision {
  done = $state<{ plant: number; text: string }>();
  problem = $state<Problem>();
  #at: () => At;
  #left = false; // the walk was left meanwhile: what it showed is not asked for any more

  constructor(at: () => At) {
    this.#at = at;
    onDestroy(() => (this.#left = true));
  }

  /** A verdict can be decided on when it is on all that was found: what is on its way to the house is waited for. */
  get ready(): boolean {
    const { plant, answer, waiting, checks } = this.#at();
    if (!plant || !answer || waiting?.theirs || waiting?.refused) return false;
    if (field.away && !field.current(plant.id)) return false;
    return answer.verdict.kind !== 'check first' || checks.length > 0;
  }

  /** Decides; whether it was kept, with the house or on this device. */
  async decide(
    decision: 'accepted' | 'overruled' | 'not now',
    kind?: string,
    over?: { cut: string; note: string; until: string },
  ): Promise<boolean> {
    const { plant, walk } = this.#at();
    if (!plant) return false;
    const id = plant.id;
    await field.send();
    if (field.of(walk, id) && !(field.away && !this.#left && this.ready)) return false; // what was found is not judged yet
    this.problem = undefined;
    const failed = await attempt(async () => {
      const kept = await field.decide(plant, {
        decision,
        kind,
        note: over?.note.trim(),
        cut_m: bare(String(over?.cut ?? '')) || undefined,
        until: (kind === 'wait until' && over?.until) || undefined,
      });
      if (decision === 'not now') field.skip(id, true);
      if (!this.#left && this.#at().plant?.id === id) this.done = { plant: id, text: decision };
      this.#tell(plant, decision, kept?.verdict ?? field.decisions.of(field.walk?.walk ?? walk, id), kept?.jobs?.length ?? 0);
    });
    if (failed?.status === 409 || failed?.fields.read) await field.ask(id); // more is known meanwhile: it is judged anew
    if (decision === 'overruled') this.problem = failed;
    return !failed;
  }

  #tell(plant: Plant, decision: string, kept: { id: number | string; kind: string; until?: string } | undefined, jobs: number) {
    const what = kept?.kind === 'wait until' && kept.until ? `wait until ${inWords(kept.until)}` : (kept?.kind ?? '');
    const said =
      decision === 'not now'
        ? `${plant.common} put off: it stays on the look-list`
        : `${plant.common}, ${decision === 'accepted' ? 'accepted' : 'your verdict'}: ${what}`;
    const asks = jobs ? ` ${jobs} ${jobs === 1 ? 'job' : 'jobs'} on the year.` : '';
    const where = typeof kept?.id === 'string' ? ' Kept on this device, and sent when there is a connection.' : '';
    house.say(`${said}.${asks}${where}`, () => this.#takeBack(plant.id));
  }

  async #takeBack(plant: number) {
    await attempt(async () => {
      const walk = field.walk;
      const waits = walk && field.decisions.of(walk.walk, plant);
      if (waits) await field.takeBack(waits);
      else {
        const id = walk?.plants.find((p) => p.id === plant)?.verdict?.id ?? 0;
        await ask(api.DELETE('/api/v1/verdicts/{id}', { params: { path: { id } } }));
        field.setPlants((p) => (p.id === plant ? { ...p, verdict: undefined, decided: false } : p));
      }
      if (this.done?.plant === plant) this.done = undefined;
    });
  }
}
