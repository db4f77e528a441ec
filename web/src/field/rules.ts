/** The rules of the job on this device, built from the same source as the house's. */
import { Problem } from '../api/client';
import { house } from '../lib/house.svelte';
import rules from './rules.wasm?url';

interface Loader {
  importObject: WebAssembly.Imports;
  run: (of: WebAssembly.Instance) => Promise<void>;
}
type Rule = (question: string, reader: string) => string | Error;
declare global {
  var Go: (new () => Loader) | undefined;
  var mezzadroCauses: Rule | undefined;
  var mezzadroTake: Rule | undefined;
  var mezzadroJudge: Rule | undefined;
  var mezzadroLay: Rule | undefined;
  var mezzadroCount: Rule | undefined;
}

/** Has the rules lie on the device, without starting them. */
export const fetchRules = () => fetch(rules).then((r) => void r.arrayBuffer());

let loading: Promise<void> | undefined;
/** Brings the rules onto the device; once. */
export function load(): Promise<void> {
  loading ??= (async () => {
    await import('./wasm_exec.js');
    const go = new globalThis.Go!();
    const { instance } = await WebAssembly.instantiateStreaming(fetch(rules), go.importObject);
    void go.run(instance);
  })().catch((e: unknown) => {
    loading = undefined;
    throw e;
  });
  return loading;
}

/** Asks a rule; what it refuses is told as the house would tell it. */
export function asked<A>(rule: `mezzadro${'Causes' | 'Take' | 'Judge' | 'Lay' | 'Count'}`, question: unknown): A {
  const answer = globalThis[rule]!(JSON.stringify(question), JSON.stringify(house.frame?.style ?? {}));
  if (typeof answer !== 'string') throw answer;
  const told = JSON.parse(answer) as A & { refused?: { Path: string; Problem: string }[] };
  if (told.refused?.length)
    throw new Problem(422, { errors: told.refused.map((f) => ({ location: `body.${f.Path}`, message: f.Problem })) });
  return told;
}
