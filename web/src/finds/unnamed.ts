/** What is done with finds that nobody could name yet. */
import { api, ask, onceKey, whole, type Schemas } from '../api/client';

export type Unnamed = Schemas['Unnamed'];

/** Its words as a form holds them; days are empty where none is given. */
export interface Words {
  words: string;
  sent: string;
  sent_to: string;
  sent_on: string;
  answer_by: string;
  answer: string;
}
export const noWords = (): Words => ({ words: '', sent: '', sent_to: '', sent_on: '', answer_by: '', answer: '' });
export const wordsOf = (u: Unnamed): Words => ({
  words: u.words,
  sent: u.sent ?? '',
  sent_to: u.sent_to ?? '',
  sent_on: u.sent_on ?? '',
  answer_by: u.answer_by ?? '',
  answer: u.answer ?? '',
});
/** The same as they are sent: days that are not given are left out. */
export const wordsIn = ({ sent_on, answer_by, ...w }: Words) => ({
  ...w,
  ...(sent_on ? { sent_on } : {}),
  ...(answer_by ? { answer_by } : {}),
});

export const unnamedOf = (query: { plant?: number; property?: number }, signal?: AbortSignal) =>
  whole<Unnamed, number>((cursor) =>
    ask(api.GET('/api/v1/unnamed', { params: { query: { ...query, cursor, limit: 1000 } }, signal })),
  );

export const changeUnnamed = (u: Unnamed, words: Words, state: 'open' | 'closed' = 'open') =>
  ask(
    api.PUT('/api/v1/unnamed/{id}', {
      params: { path: { id: u.id }, header: onceKey() },
      body: { ...wordsIn(words), seen: u.seen, not_seen: u.not_seen, share: u.share, state, version: u.version },
    }),
  );
export const nameUnnamed = (u: Unnamed, cause: string, certainty: number, answer: string) =>
  ask(
    api.POST('/api/v1/unnamed/{id}/name', {
      params: { path: { id: u.id }, header: onceKey() },
      body: { cause, certainty, answer, version: u.version },
    }),
  );
export const removeUnnamed = (u: Unnamed) =>
  ask(api.DELETE('/api/v1/unnamed/{id}', { params: { path: { id: u.id }, header: onceKey() } }));
export const restoreUnnamed = (u: Unnamed) =>
  ask(api.POST('/api/v1/unnamed/{id}/restore', { params: { path: { id: u.id }, header: onceKey() } }));
