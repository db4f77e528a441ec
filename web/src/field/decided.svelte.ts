/** What was decided about plants and waits to be sent: each after what was found there, and only as it was decided on. */
import { api, ask, onceKey, type Answer, type Check, type Plant, type Schemas } from '../api/client';
import { device, type WaitingDecision } from './device';
import { Shelf, stumbled, unreached } from './sending.svelte';
import type { Ruling } from './verdicts';

export type Kept = Schemas['Decided'];

/** The checks of a plant as one text: what was decided on other ones is decided anew. */
export const textOf = (checks: Check[]) => JSON.stringify(checks);

/** The verdict as it stands on this device until the house has it. */
export function standing(w: WaitingDecision): NonNullable<Plant['verdict']> {
  return {
    id: 0,
    walk_id: w.walk,
    plant_id: w.plant,
    day: w.day,
    decision: w.ruling.decision,
    kind: w.kind,
    sentence: w.sentence,
    note: w.ruling.note ?? '',
    until: w.until,
    by: '',
  };
}

export class Decisions {
  shelf = new Shelf<WaitingDecision>(device.decisions, (w) => w.id);
  #told = new Map<string, Kept | Error>(); // by key: what the house said of those that were sent

  get list(): WaitingDecision[] {
    return this.shelf.list.sort((a, b) => a.made - b.made);
  }
  of(walk: number, plant: number): WaitingDecision | undefined {
    return this.shelf.things[`${walk}:${plant}`];
  }
  /** Keeps a decision on the device. away: the house has not said what the verdict was formed of. */
  async keep(
    at: Omit<WaitingDecision, 'id' | 'key' | 'made' | 'kind' | 'sentence' | 'until' | 'read'>,
    answer: Answer,
    away: boolean,
  ) {
    const v = answer.verdict;
    const w: WaitingDecision = {
      ...at,
      id: `${at.walk}:${at.plant}`,
      key: onceKey()['Idempotency-Key'],
      made: Math.max(Date.now(), (this.list.at(-1)?.made ?? 0) + 1),
      kind: v.kind,
      sentence: v.sentence,
      until: v.until,
      read: away && at.ruling.decision === 'accepted' ? { kind: v.kind, cut_m: v.cut_m || undefined } : undefined,
    };
    await this.shelf.put(JSON.parse(JSON.stringify(w)) as WaitingDecision);
    return w.key;
  }
  drop(w: WaitingDecision): Promise<void> {
    return this.shelf.drop(w.id);
  }
  /** What the house said of a decision, once. */
  told(key: string): Kept | Error | undefined {
    const t = this.#told.get(key);
    this.#told.delete(key);
    return t;
  }
  /** Has the look a decision rests on be known to the house. */
  async based(id: string, rev: number): Promise<void> {
    const w = this.shelf.things[id];
    if (w) await this.shelf.put({ ...w, rev });
  }
  /** Sends one; where the house has it, its answer. */
  async send(w: WaitingDecision): Promise<Kept | undefined> {
    const body = { ...w.ruling, rev: w.rev, read: w.read };
    const path = { id: w.walk, plant: w.plant };
    try {
      const params = { path, header: { 'Idempotency-Key': w.key } };
      const kept = await ask(api.POST('/api/v1/walks/{id}/plants/{plant}/verdict', { params, body }));
      this.#told.set(w.key, kept);
      await this.drop(w);
      return kept;
    } catch (e) {
      if (unreached(e) || stumbled(e)) throw e;
      const problem = e instanceof Error ? e : new Error(String(e));
      this.#told.set(w.key, problem);
      await this.shelf.put({ ...w, refused: problem.message });
      return undefined;
    }
  }
}
