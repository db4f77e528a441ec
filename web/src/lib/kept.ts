import type { Problem } from '../api/client';

/** The record as another has kept it meanwhile, where a write was refused for that. */
export const keptOf = <T>(p: Problem | undefined): T | undefined => (p?.status === 409 ? (p.kept as T | undefined) : undefined);
