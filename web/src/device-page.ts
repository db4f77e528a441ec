/** A page for tests: the modules that work on the device alone, at hand by name. It is built apart and ships with nothing. */
import { Problem } from './api/client';
import { beyond, joined, joinedNote } from './field/join';
import { Queue, type Waits } from './field/queue.svelte';
import { house } from './lib/house.svelte';
import { usual } from './firm/region';
import { coordinates } from './garden/coordinates';
import { placed, widthOf } from './ground/labels';
import * as plan from './ground/plan';
import * as dates from './lib/dates';
import * as scale from './lib/scale';
import * as units from './lib/units';

type Thing = { say: string };

/** A queue over a shelf in this page, to a house that answers as it is told: a status, "down", or "broken" before sending. */
async function queued(things: string[], answers: Record<string, string[]>) {
  const shelf = new Map<string, Waits<Thing>>();
  const sent: string[] = [];
  const queue = new Queue<Thing, string>(
    {
      all: async () => [...shelf.values()],
      keep: async (w) => void shelf.set(w.key, w),
      drop: async (key) => void shelf.delete(key),
    },
    `test-${crypto.randomUUID()}`,
    async ({ say }) => {
      const answer = answers[say]?.shift() ?? '200';
      if (answer === 'down') throw new Problem(0, undefined);
      if (answer === 'broken') atob('%');
      if (answer !== '200') throw new Problem(Number(answer), { detail: `answered ${answer}` });
      sent.push(say);
      return `kept ${say}`;
    },
  );
  const out: Record<string, string> = {};
  for (const say of things) {
    try {
      out[say] = (await queue.keep({ say }, say)) ?? 'waits';
    } catch (e) {
      out[say] = `refused: ${(e as Error).message}`;
    }
  }
  await queue.send();
  return { out, sent, left: queue.left, shelf: [...shelf.values()].map((w) => w.name) };
}

function inUnits(system: 'metric' | 'imperial') {
  house.frame = { firm: { units: system } } as typeof house.frame;
}

function on(today: string) {
  house.frame = { today } as typeof house.frame;
}

Object.assign(window, {
  device: { beyond, joined, joinedNote, queued, units, dates, coordinates, usual, inUnits, on, plan, placed, scale, widthOf },
});
