import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Check = Schemas['Check'];
export type Answer = Schemas['DamageAnswer'];
export type Season = Schemas['Season'];
export type Lane = Schemas['Lane'];
export type Order = Schemas['Order'];
export type OrderDetail = Schemas['OrderDetail'];
export type Plant = Schemas['PlantOut'];
export type Property = Schemas['PropertyOut'];
export type Species = Schemas['SpeciesOut'];
export type Entry = Schemas['CatalogueEntry'];
export type Climate = Schemas['SeasonClimate'];

declare global {
  interface Window {
    /** Reads that began before the program was there, by path: see begin.ts. */
    begun?: Map<string, Promise<Response>>;
  }
}
setTimeout(() => (window.begun = undefined), 10_000); // what nobody took up by then is old

/** The answer to a read that began already; each is taken up once. */
function begun(of: Parameters<typeof fetch>[0]): Promise<Response> | undefined {
  if (!window.begun?.size || !(of instanceof Request)) return undefined;
  const { pathname, search } = new URL(of.url);
  const answer = of.method === 'GET' ? window.begun.get(pathname + search) : undefined;
  if (of.method === 'GET') window.begun.delete(pathname + search);
  else window.begun.clear(); // what is written changes what was read
  return answer;
}

/** Answers that the page waits for: told on the page, so that whoever drives it knows when nothing is under way. */
let underwayNow = 0;
export async function counted(...call: Parameters<typeof fetch>): Promise<Response> {
  const tell = (by: number) => (document.documentElement.dataset.requests = String((underwayNow += by)));
  tell(1);
  try {
    return await (begun(call[0]) ?? fetch(...call));
  } finally {
    tell(-1);
  }
}

export const api = createClient<paths>({ baseUrl: '/', fetch: counted });

const quiet = /\/reckon\/|\/practice|\/checks$|\/photos$|\/walks$|\/proposals/; // writes that nothing on the frame hangs on

/**
 * What is told of answers: that one came from this device, because the house could not be reached; that one has to sign in;
 * that something was written.
 */
export const reach = { ondevice: (_is: boolean) => {}, signin: () => {}, wrote: () => {} };
api.use({
  onResponse({ request, response }) {
    if (request.method === 'GET') reach.ondevice(response.headers.has('X-From-Device'));
    else if (response.ok && !quiet.test(new URL(request.url).pathname)) reach.wrote();
  },
});

/**
 * The keys of writes whose answer did not come: pressed again with the same content, a write goes out under the key it had,
 * and is done once, whether it had arrived or not. Changed content, or an answer, ends that.
 */
export const unanswered = {
  keys: new Map<string, string>(JSON.parse(sessionStorage.getItem('unanswered') ?? '[]') as [string, string][]),
  set(print: string, key: string | undefined) {
    if (key) this.keys.set(print, key);
    else this.keys.delete(print);
    sessionStorage.setItem('unanswered', JSON.stringify([...this.keys].slice(-50)));
  },
};
const keyed = 'Idempotency-Key';
/** What a write is about: the same content has the same print (FNV-1a, in two halves; no secret hangs on it). */
function printOf(text: string): string {
  let [a, b] = [0x811c9dc5, 0x1000193];
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x01000193);
    b = Math.imul(b ^ text.charCodeAt(i), 0x5bd1e995);
  }
  return `${text.length} ${a >>> 0} ${b >>> 0}`;
}
const underway = new Map<string, { print: string; key: string }>(); // by the call's id
api.use({
  async onRequest({ request, id }) {
    if (request.method === 'GET' || !request.headers.has(keyed)) return;
    const print = printOf(`${request.method} ${request.url} ${await request.clone().text()}`);
    const key = unanswered.keys.get(print) ?? request.headers.get(keyed)!;
    request.headers.set(keyed, key);
    underway.set(id, { print, key });
    return request;
  },
  onResponse({ response, id }) {
    const w = underway.get(id);
    underway.delete(id);
    if (w) unanswered.set(w.print, response.status >= 500 || response.status === 401 ? w.key : undefined);
  },
  onError({ id }) {
    const w = underway.get(id);
    underway.delete(id);
    if (w) unanswered.set(w.print, w.key);
  },
});

/** How forms call what the house names by its own words. */
const labels: Record<string, string> = {
  height_m: 'Height',
  spread_m: 'Spread',
  pot_l: 'Pot',
  base_mm: 'Stem at the base',
  graft_m: 'Graft at',
  label: 'Where it stands',
  count: 'How many',
  planted: 'Planted in',
  stop: 'Stop on the way round',
  cut_m: 'Cut at',
  note: 'Note',
  until: 'Wait until',
  climate_type: 'Climate to start from',
  elevation_m: 'Height above the sea',
  took_minutes: 'Minutes it took',
  crew_size: 'People',
  every_days: 'Again after',
  hardiness_c: 'Wood bears in midwinter',
  root_hardiness_c: 'Roots bear in the soil',
  drying_kpa_h: 'Drying wind it bears',
  on: 'On',
  anyway: 'Within a wait',
  who: 'Who did it',
  affected: 'How many show it',
};
function labelled(path: string): string {
  const last = path.split('.').at(-1) ?? path;
  if (labels[last]) return labels[last];
  const text = path.replaceAll('_', ' ').replaceAll('.', ', ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** What goes on from the name of its field: "Note is missing", but "Height: 70 m is more than …". */
const VERB = /^(is|are|has|have|must|cannot|comes)\b/;

/** What the house said was wrong: a sentence, and the fields it names. */
export class Problem extends Error {
  fields: Record<string, string> = {};
  status: number;
  kept: unknown; // where another has written meanwhile: the record as it is kept now

  constructor(
    status: number,
    body: { detail?: string; errors?: { location?: string; message?: string; value?: unknown }[] | null } | undefined,
  ) {
    super(
      body?.detail ??
        (status === 0 ? 'The house cannot be reached. Nothing you entered is lost; try again.' : `The house answered ${status}.`),
    );
    this.status = status;
    for (const e of body?.errors ?? []) {
      const field = (e.location ?? '').replace(/^body\.?/, '');
      if (field && e.message) this.fields[field] = e.message;
    }
    if (status === 409) this.kept = body?.errors?.[0]?.value;
    const named = Object.entries(this.fields);
    if (named.length && status !== 409)
      this.message = named.map(([f, m]) => `${labelled(f)}${VERB.test(m) ? '' : ':'} ${m}`).join('; ');
  }
}

/** What a refusal says. Who is not signed in any more is asked once, and what was entered waits as without signal. */
export function problemOf(status: number, body: unknown): Problem {
  if (status === 401) {
    reach.signin();
    return new Problem(0, { detail: 'Sign in again: nothing you entered is lost.' });
  }
  if (body === undefined || typeof body === 'string')
    return new Problem(status, {
      detail: `Something on the way answered ${status}, not the house. Nothing you entered is lost; try again.`,
    });
  return new Problem(status, body as ConstructorParameters<typeof Problem>[1]);
}

/** The answer of a plain request, or the Problem it is. */
export async function answerOf<T>(call: Promise<Response>): Promise<T> {
  let response: Response;
  try {
    response = await call;
  } catch {
    throw new Problem(0, undefined);
  }
  let body: unknown;
  try {
    body = JSON.parse(await response.text());
  } catch {
    body = undefined; // no answer of the house
  }
  if (!response.ok || body === undefined) throw problemOf(response.ok ? 502 : response.status, body);
  return body as T;
}

/** Waits for an answer and gives its data, or throws the Problem. */
export async function ask<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let r;
  try {
    r = await call;
  } catch (e) {
    if ((e as Error).name === 'AbortError') throw e; // called off: nobody waits for it any more
    throw new Problem(0, undefined);
  }
  if (!r.response.ok) throw problemOf(r.response.status, r.error);
  return r.data as T;
}

/** Sends a file, text as text, to an operation that takes one, and gives its answer or throws the Problem. */
export async function sendFile<T>(
  path: string,
  file: File,
  kind: string,
  headers: Record<string, string> = {},
  method: 'POST' | 'PUT' = 'POST',
): Promise<T> {
  const body = kind.startsWith('text/') ? await file.text() : file;
  const print = `${method} ${path} ${file.name} ${file.size} ${file.lastModified}`;
  const key = unanswered.keys.get(print) ?? headers[keyed];
  try {
    const answer = await answerOf<T>(
      counted(path, { method, headers: { 'Content-Type': kind, ...headers, ...(key ? { [keyed]: key } : {}) }, body }),
    );
    unanswered.set(print, undefined);
    reach.wrote();
    return answer;
  } catch (e) {
    unanswered.set(print, e instanceof Problem && (e.status === 0 || e.status >= 500) ? key : undefined);
    throw e;
  }
}

/** A key for one write, so that a repeat of it writes nothing. One whose answer did not come is kept for the same content. */
export const onceKey = () => ({ 'Idempotency-Key': newKey() });
/** Random; browsers have no UUID of their own where a page does not come over TLS or from the same machine. */
const newKey = () =>
  crypto.randomUUID?.() ?? [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, '0')).join('');

/** Everything of a list that comes in pages. */
export async function whole<T, C extends number | string>(
  page: (cursor: C | undefined) => Promise<{ items?: T[] | null; next: C }>,
): Promise<T[]> {
  const got: T[] = [];
  for (let cursor: C | undefined, more = true; more; more = !!cursor) {
    const p = await page(cursor);
    got.push(...(p.items ?? []));
    cursor = p.next;
  }
  return got;
}

/** All plants of a property. */
export const plantsOn = (property: number, signal?: AbortSignal) =>
  whole<Plant, number>((cursor) =>
    ask(api.GET('/api/v1/plants', { params: { query: { property, limit: 1000, cursor } }, signal })),
  );

/** All orders of a property that stand in a list. */
export const ordersOf = (property: number, list: 'due' | 'standing', signal?: AbortSignal) =>
  whole<Order, string>((cursor) =>
    ask(api.GET('/api/v1/orders', { params: { query: { list, property, cursor, limit: 200 } }, signal })),
  );

/** All properties of the house. */
export const allProperties = () =>
  whole<Property, number>((cursor) => ask(api.GET('/api/v1/properties', { params: { query: { limit: 1000, cursor } } })));

/** Takes an order away as it stands now, whatever was done to it meanwhile. */
export async function dropOrder(id: number): Promise<void> {
  const { version } = await ask(api.GET('/api/v1/orders/{id}', { params: { path: { id } } }));
  await ask(api.DELETE('/api/v1/orders/{id}', { params: { path: { id }, query: { version }, header: onceKey() } }));
}
