import { api, ask, type Schemas } from '../api/client';

export type Person = Schemas['Person'];

/** The licence that products may need. */
export const restricted = 'licence for restricted products';

export const people = async (signal?: AbortSignal) => (await ask(api.GET('/api/v1/people', { signal }))).items;
