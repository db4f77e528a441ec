/** What is done with finds that the house has kept. */
import { api, ask, onceKey, whole, type Schemas } from '../api/client';

export type Find = Schemas['Find'];
export type FindChange = Schemas['FindChange'];

export const findsOf = (query: { plant?: number; property?: number; open?: boolean }, signal?: AbortSignal) =>
  whole<Find, number>((cursor) =>
    ask(api.GET('/api/v1/finds', { params: { query: { ...query, cursor, limit: 1000 } }, signal })),
  );

/** All fields of a find as a change begins with them. */
export const asKept = (f: Find): FindChange => ({
  cause: f.cause,
  certainty: f.certainty,
  share: f.share,
  seen: f.seen,
  not_seen: f.not_seen,
  note: f.note,
  state: f.state,
  ending: f.ending,
  affected: f.affected,
  bed_m2: f.bed_m2,
  ...(f.harvest ? { harvest: f.harvest } : {}),
  version: f.version,
});

export const changeFind = (f: Find, change: Partial<FindChange>) =>
  ask(api.PUT('/api/v1/finds/{id}', { params: { path: { id: f.id }, header: onceKey() }, body: { ...asKept(f), ...change } }));

export const removeFind = (f: Find) =>
  ask(api.DELETE('/api/v1/finds/{id}', { params: { path: { id: f.id }, header: onceKey() } }));

export const restoreFind = (f: Find) =>
  ask(api.POST('/api/v1/finds/{id}/restore', { params: { path: { id: f.id }, header: onceKey() } }));
