/** A plant, or what a client says of one, with what was seen on it and what that comes to. */
import { Problem, type Schemas } from '../api/client';
import { nameCauses, type CauseOut } from '../field/causes';
import { attempt } from '../lib/house.svelte';

export type Sign = Schemas['CauseSign'];
export type Is = 'seen' | 'absent' | 'open';

export class Case {
  seen = $state<string[]>([]);
  absent = $state<string[]>([]);
  skipped = $state<string[]>([]); // asked, and nobody here can tell
  share = $state(0);
  told = $state<string[]>([]); // by a client, and not yet looked at: ticked, to be confirmed
  answer = $state.raw<CauseOut>();
  away = $state(false); // reckoned on this device
  problem = $state<Problem>();
  #turn = 0;

  /** Follows what it is asked of; to be made while a component is. */
  constructor(of: () => { plant?: number; property?: number; species?: string } | undefined) {
    $effect(() => {
      const at = of();
      const q = { ...at, seen: [...this.seen], absent: [...this.absent], skipped: [...this.skipped], share: this.share };
      if (at) void this.#ask(q);
    });
  }
  async #ask(q: Parameters<typeof nameCauses>[0]) {
    const mine = ++this.#turn;
    const fault = await attempt(async () => {
      const { answer, away } = await nameCauses(q);
      if (mine !== this.#turn) return;
      this.answer = answer;
      this.away = away;
    });
    if (mine === this.#turn) this.problem = fault;
  }
  set(id: string, to: Is) {
    this.told = this.told.filter((x) => x !== id);
    this.seen = this.seen.filter((x) => x !== id);
    this.absent = this.absent.filter((x) => x !== id);
    this.skipped = this.skipped.filter((x) => x !== id);
    if (to === 'seen') this.seen = [...this.seen, id];
    if (to === 'absent') this.absent = [...this.absent, id];
  }
  /** Cannot be told here: it is not asked again, and the next question comes. */
  skip(id: string) {
    this.skipped = [...this.skipped, id];
  }
  is(id: string): Is {
    return this.seen.includes(id) ? 'seen' : this.absent.includes(id) ? 'absent' : 'open';
  }
  /** What was looked at; what a client told stays out until it is confirmed. */
  looked() {
    const own = (list: string[]) => $state.snapshot(list).filter((x) => !this.told.includes(x));
    return { seen: own(this.seen), not_seen: own(this.absent) };
  }
  clear() {
    this.seen = [];
    this.absent = [];
    this.skipped = [];
    this.share = 0;
    this.told = [];
  }
}

/** How bad a cause is, in words. */
export const harms: Record<string, string> = {
  harmless: 'harmless',
  ugly: 'ugly, seldom more',
  weakening: 'weakens it',
  deadly: 'can kill it',
};
/** What to do, in a word or two. */
export const acts: Record<string, string> = {
  none: 'nothing to do',
  watch: 'watch it',
  habitat: 'change its place',
  hands: 'by hand',
  water: 'with water',
  cut: 'cut',
  soft: 'soft product',
  strong: 'licensed person or office',
  replace: 'replace it',
};
