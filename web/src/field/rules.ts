/** The rules of the job on this device, built from the same source as the house's. They run beside the page. */
import { Problem } from '../api/client';
import { house } from '../lib/house.svelte';
import type { Call, Said } from './rules-worker';
import rules from './rules.wasm?url';

declare global {
  /** The rules, once they have started: a rule's name, a question and how its reader wants figures, as JSON; so the answer. */
  var mezzadroRules: typeof call | undefined;
}

/** Has the rules lie on the device, without starting them. */
export const fetchRules = () => fetch(rules).then((r) => void r.arrayBuffer());

let worker: Worker | undefined;
let calls = 0;
let starts = 0;
/** Which start of the rules this is: what they were told before it they do not know. */
export const start = () => starts;
const waiting = new Map<number, { go: (answer: string) => void; stop: (e: Error) => void }>();

function hear({ data }: MessageEvent<Said>) {
  const of = waiting.get(data.n);
  waiting.delete(data.n);
  if (data.answer !== undefined) of?.go(data.answer);
  else of?.stop(new Error(data.fault));
}

/** Ends the rules and what waits for them: the next load starts them again. */
function end(e: Error) {
  starts++; // what they were told is gone with them
  worker?.terminate();
  worker = loading = globalThis.mezzadroRules = undefined;
  for (const of of waiting.values()) of.stop(e);
  waiting.clear();
}

function call(rule: string, question: string, reader: string): Promise<string> {
  if (!worker) {
    starts++;
    worker = new Worker(new URL('./rules-worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', hear);
    worker.addEventListener('error', (e) => end(new Error(e.message || 'the rules cannot be started on this device')));
  }
  const at = worker;
  return new Promise((go, stop) => {
    waiting.set(++calls, { go, stop });
    at.postMessage({ n: calls, rule, question, reader } satisfies Call);
  });
}

let loading: Promise<void> | undefined;
/** Brings the rules onto the device and starts them; once. */
export function load(): Promise<void> {
  loading ??= call('', '', '').then(
    () => void (globalThis.mezzadroRules = call),
    (e: Error) => {
      end(e);
      throw e;
    },
  );
  return loading;
}

/** Asks a rule; what it refuses is told as the house would tell it. */
export async function asked<A>(rule: `mezzadro${'Causes' | 'Take' | 'Judge' | 'Lay' | 'Count'}`, question: unknown): Promise<A> {
  const answer = await call(rule, JSON.stringify(question), JSON.stringify(house.frame?.style ?? {}));
  const told = JSON.parse(answer) as A & { refused?: { Path: string; Problem: string }[] };
  if (told.refused?.length)
    throw new Problem(422, { errors: told.refused.map((f) => ({ location: `body.${f.Path}`, message: f.Problem })) });
  return told;
}
