/** What is decided on the verdict of a plant: accepted, overruled or put off, with what is told of it and how it is taken back. */
import { api, ask, onceKey, type Answer, type Check, type Plant, type Problem } from '../api/client';
import type { Waiting } from '../field/device';
import { field } from '../field/field.svelte';
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

  constructor(at: () => At) {
    this.#at = at;
  }

  /** A verdict can be decided on when the house can hear of all that was found: what is on its way there is waited for. */
  get ready(): boolean {
    const { answer, waiting, checks } = this.#at();
    if (!answer || waiting?.theirs || waiting?.refused || field.away) return false;
    return answer.verdict.kind !== 'check first' || checks.length > 0;
  }

  /** Decides; whether it was kept. */
  async decide(
    decision: 'accepted' | 'overruled' | 'not now',
    kind?: string,
    over?: { cut: string; note: string; until: string },
  ): Promise<boolean> {
    const { plant, walk } = this.#at();
    if (!plant) return false;
    const id = plant.id;
    await field.send();
    if (field.of(walk, id)) return false; // what was found is not with the house yet
    this.problem = undefined;
    const failed = await attempt(async () => {
      const body = {
        decision,
        kind,
        note: over?.note.trim(),
        cut_m: bare(String(over?.cut ?? '')) || undefined,
        until: (kind === 'wait until' && over?.until) || undefined,
        rev: field.walk?.walk === walk ? field.walk.revs[id] : undefined,
      };
      const path = { id: walk, plant: id };
      const d = await ask(api.POST('/api/v1/walks/{id}/plants/{plant}/verdict', { params: { path, header: onceKey() }, body }));
      field.setPlants((p) => (p.id === id ? { ...p, verdict: d.verdict, decided: decision !== 'not now' } : p));
      if (decision === 'not now') field.skip(id, true);
      if (this.#at().plant?.id === id) this.done = { plant: id, text: decision };
      const jobs = d.jobs?.length ?? 0;
      const said =
        decision === 'not now'
          ? `${plant.common} put off: it stays on the look-list`
          : `${plant.common}, ${decision === 'accepted' ? 'accepted' : 'your verdict'}: ${d.verdict.kind}`;
      house.say(jobs ? `${said}. ${jobs} ${jobs === 1 ? 'job' : 'jobs'} on the year.` : `${said}.`, () =>
        this.#takeBack(id, d.verdict.id),
      );
    });
    if (failed?.status === 409) await field.ask(id); // somebody found more meanwhile: it is judged anew
    if (decision === 'overruled') this.problem = failed;
    return !failed;
  }

  async #takeBack(plant: number, verdict: number) {
    await attempt(async () => {
      await ask(api.DELETE('/api/v1/verdicts/{id}', { params: { path: { id: verdict } } }));
      field.setPlants((p) => (p.id === plant ? { ...p, verdict: undefined, decided: false } : p));
      if (this.done?.plant === plant) this.done = undefined;
    });
  }
}
