/** Names of countries and of what rules of places are about. */
const names = new Intl.DisplayNames('en', { type: 'region' });
export const countryName = (code: string) => names.of(code.slice(0, 2)) ?? code;

export const topics: Record<string, string> = {
  cuts: 'Cuts',
  pests: 'Pests and diseases that are reported',
  wood: 'Wood that is not moved',
  trees: 'Protected trees',
  fire: 'Fire',
  water: 'Water',
  weeds: 'Not to be planted, or let seed',
  feeding: 'Feeding',
  wires: 'Power lines',
  licences: 'Licences',
  records: 'Records',
};

/** How sure a rule is, in words. */
export const basis: Record<string, string> = { law: 'Law', rule: 'Local rules', practice: 'Good practice' };
