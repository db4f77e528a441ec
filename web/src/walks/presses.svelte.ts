/** The presses at one plant: where the next check is made, what each press adds, and how it is taken back. */
import type { Check, Plant } from '../api/client';
import { field } from '../field/field.svelte';
import { imperial, named } from '../lib/units';
import { words } from './checks';

/** What the pad works on. */
export interface At {
  plant: Plant | undefined;
  walk: number;
  checks: Check[];
  note: string;
  suggested: number | undefined; // height of the check that is asked for, m
}

const rounded = (m: number) => Math.round(m * 1000) / 1000;

export class Pad {
  active = $state(0); // height checks are made at, m
  following = $state(true); // the height goes along with the suggestion until one is picked by hand
  #at: () => At;
  #last: { plant: number; before: Check[] }[] = [];

  constructor(at: () => At) {
    this.#at = at;
  }
  get plant() {
    return this.#at().plant;
  }
  get palm() {
    return this.plant?.form === 'palm';
  }
  get grafted() {
    return !!this.plant && (this.plant.graft.habit !== 'own roots' || this.plant.graft_m > 0);
  }
  get grain() {
    const tall = (this.plant?.height_m ?? 1) > 3;
    if (imperial()) return tall ? 0.1524 : 0.0762; // half a foot, three inches
    return tall ? 0.1 : 0.05;
  }
  /** What was rubbed at the height at hand. */
  get tally() {
    return this.#at().checks.find((c) => c.kind === 'bud_rub' && c.height_m === rounded(this.active));
  }

  /** Another plant has come to hand. */
  begin() {
    this.following = true;
    this.active = Math.round(((this.plant?.height_m ?? 1) * 0.6) / this.grain) * this.grain;
  }
  /** Goes along with the suggestion: a tally of buds is left in peace until three are rubbed. */
  follow() {
    const { checks, suggested } = this.#at();
    const last = checks.at(-1);
    const rested = last?.kind !== 'bud_rub' || (last.held ?? 0) + (last.broke ?? 0) >= 3;
    if (suggested && this.following && rested) this.active = named(suggested);
  }
  pick(m: number) {
    this.following = false;
    this.active = rounded(m);
  }
  nudge(by: number) {
    if (this.plant) this.pick(Math.max(this.grain, Math.min(this.plant.height_m, this.active + by * this.grain)));
  }
  takeSuggestion() {
    const { suggested } = this.#at();
    if (suggested) this.active = named(suggested);
    this.following = true;
  }

  #add(make: (list: Check[]) => Check[]) {
    const { plant, walk, checks, note } = this.#at();
    if (!plant || !walk) return;
    const before = [...checks];
    this.#last = [...this.#last.slice(-30), { plant: plant.id, before }];
    void field.keep(plant.id, make(before), note);
  }
  #height = () => rounded(Math.min(this.active, this.plant!.height_m));

  bud(held: boolean) {
    if (this.palm) return;
    const h = this.#height();
    this.#add((list) => {
      const i = list.findIndex((c) => c.kind === 'bud_rub' && c.height_m === h);
      const old = list[i] ?? { kind: 'bud_rub' as const, height_m: h };
      const next = { ...old, held: (old.held ?? 0) + (held ? 1 : 0), broke: (old.broke ?? 0) + (held ? 0 : 1) };
      return [...list.filter((_, j) => j !== i), next];
    });
  }
  scratch(result: string) {
    if (this.palm) return;
    this.following = true;
    this.#add((list) => [...list, { kind: 'scratch', height_m: this.#height(), result }]);
  }
  shoot(leaf?: 'true' | 'rootstock') {
    this.#add((list) => [...list, { kind: 'shoot', height_m: this.#height(), ...(leaf ? { leaf } : {}) }]);
  }
  /** Adds a find in the place of those it stands for; nothing loose takes the place of all dangers. */
  enter(c: Check) {
    const keeps = words[c.kind].keeps;
    const stays = (x: Check) => {
      if (x.kind !== c.kind) return true;
      if (c.kind === 'danger' && (c.result === 'none' || x.result === 'none')) return false;
      return keeps === 'height' ? x.height_m !== c.height_m : keeps === 'result' ? x.result !== c.result : !keeps;
    };
    this.#add((list) => [...list.filter(stays), c]);
  }
  remove(c: Check) {
    this.#add((list) => list.filter((x) => JSON.stringify(x) !== JSON.stringify(c)));
  }
  takeBack() {
    const { plant, note, checks } = this.#at();
    if (!plant) return;
    const i = this.#last.findLastIndex((l) => l.plant === plant.id);
    // What was found before this page was opened goes check by check, the last one first.
    const before = this.#last[i]?.before ?? checks.slice(0, -1);
    if (i >= 0) this.#last = this.#last.filter((_, k) => k !== i);
    else if (!checks.length) return;
    void field.keep(plant.id, before, note);
  }
}
