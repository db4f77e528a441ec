/** Runs the rules apart from the page: nothing that is pressed waits for them. */
import './wasm_exec.js';
import rules from './rules.wasm?url';

interface Loader {
  importObject: WebAssembly.Imports;
  run: (of: WebAssembly.Instance) => Promise<void>;
}
type Rule = (question: string, reader: string) => string | Error;
const all = globalThis as unknown as { Go: new () => Loader } & Record<string, Rule>;

const started = (async () => {
  const go = new all.Go();
  const { instance } = await WebAssembly.instantiateStreaming(fetch(rules), go.importObject);
  void go.run(instance);
})();

/** What the page asks: a rule by name, or none to hear that they have started. */
export interface Call {
  n: number;
  rule: string;
  question: string;
  reader: string;
}
/** What it hears: a text of JSON, or why there is none. */
export interface Said {
  n: number;
  answer?: string;
  fault?: string;
}

async function say({ n, rule, question, reader }: Call): Promise<Said> {
  try {
    await started;
    const answer = rule ? all[rule]!(question, reader) : '';
    return typeof answer === 'string' ? { n, answer } : { n, fault: answer.message };
  } catch (e) {
    return { n, fault: e instanceof Error ? e.message : String(e) };
  }
}
addEventListener('message', (e: MessageEvent<Call>) => void say(e.data).then((said) => postMessage(said)));
