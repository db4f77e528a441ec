import { api, ask, type Schemas } from '../api/client';

export type Person = Schemas['Person'];

/** The licence that products may need. */
export const restricted = 'licence for restricted products';

/** Skills with which a number goes into the use record. */
export const sprays = (skill: string) => skill === restricted || skill === 'licence to spray for hire';

export const people = async (signal?: AbortSignal) => (await ask(api.GET('/api/v1/people', { signal }))).items;
