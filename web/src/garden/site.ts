import type { Schemas } from '../api/client';

/** How a garden can differ from the open country, in words; how much each does is the core's. */
export const sites: [keyof Schemas['SeasonSite'], string, string][] = [
  ['frost_pocket', 'Frost pocket', 'cold air gathers and stays: colder nights'],
  ['warm_wall', 'Warm walls', 'most of it before sun-warmed walls: milder'],
  ['urban', 'Among buildings', 'milder nights, less wind'],
  ['windy', 'Windy', 'open to the wind'],
];

/** "frost pocket, windy" */
export const siteWords = (s: Schemas['SeasonSite']) =>
  sites
    .filter(([key]) => s[key])
    .map(([, name]) => name.toLowerCase())
    .join(', ');
