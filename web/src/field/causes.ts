/** Names causes: by the house where it can be reached, and by the same rules on this device where it cannot. */
import { api, ask, Problem, type Entry, type Schemas } from '../api/client';
import { asked, fetchRules, load } from './rules';
import { kitOf, takeKit } from './verdicts';

export type CauseOut = Schemas['CauseOut'];
export interface Asked {
  plant?: number;
  property?: number;
  species?: string;
  seen: string[];
  absent: string[];
  skipped: string[];
  share: number;
}

/** Reads what is needed to name causes and to judge plants on a property without a connection: the service worker keeps it. */
export async function takeAlong(property: number): Promise<void> {
  const worker = navigator.serviceWorker;
  if (import.meta.env.PROD && worker && !worker.controller)
    await new Promise<void>((go) => worker.addEventListener('controllerchange', () => go(), { once: true }));
  await Promise.all([
    ask(api.GET('/api/v1/signs')),
    ask(api.GET('/api/v1/species')),
    ask(api.GET('/api/v1/properties/{id}/known', { params: { path: { id: property } } })),
    ask(api.GET('/api/v1/calls', { params: { query: { property } } })),
    kitOf(property),
    fetchRules(),
  ]);
  // The rules take the phone a second to start: not while one reads the first plant. Asked for before, they start at once.
  await quiet();
  await takeKit(property);
}

/** A moment in which nothing is pressed: some seconds after the page is there. */
const quiet = () =>
  new Promise<void>((go) =>
    setTimeout(() => ('requestIdleCallback' in window ? requestIdleCallback(() => go(), { timeout: 5000 }) : go()), 5000),
  );

async function onDevice(q: Asked): Promise<CauseOut> {
  await load();
  const species: Entry | undefined = q.species
    ? (await ask(api.GET('/api/v1/species'))).items?.find((s) => s.id === q.species)
    : undefined;
  const here = q.property
    ? await ask(api.GET('/api/v1/properties/{id}/known', { params: { path: { id: q.property } } }))
    : {
        month: new Date().getMonth() + 1,
        warmth: 0,
        site: undefined,
        known: {},
        ours: {},
        plants: {} as Schemas['KnownHere']['plants'],
      };
  const of = here.plants?.[String(q.plant ?? 0)];
  return asked<CauseOut>('mezzadroCauses', {
    species: species ?? null,
    month: here.month,
    warmth: here.warmth,
    site: here.site ?? {},
    cannot_tell: q.skipped,
    seen: q.seen,
    not_seen: q.absent,
    share: q.share,
    known: { ...here.known, ...of?.known },
    near: of?.near ?? {},
    ours: here.ours ?? {},
  });
}

/** What may be wrong, by what was seen; away says that the house was not asked. */
export async function nameCauses(q: Asked): Promise<{ answer: CauseOut; away: boolean }> {
  try {
    const body: Schemas['CauseIn'] = { seen: q.seen, not_seen: q.absent, cannot_tell: q.skipped, share: q.share };
    if (q.plant) body.plant = q.plant;
    if (q.property) body.property = q.property;
    if (q.species) body.species = q.species;
    return { answer: await ask(api.POST('/api/v1/reckon/cause', { body })), away: false };
  } catch (e) {
    if (!(e instanceof Problem) || e.status !== 0) throw e;
    return { answer: await onDevice(q), away: true };
  }
}
