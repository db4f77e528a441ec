/** Causes have a hue and a mark each, so that none is told by colour alone. Marks are drawn in a square of 22. */
export type Cause = 'cold' | 'drying' | 'sun' | 'water' | 'pest' | 'disease' | 'hand';

export const mark: Record<Cause, { whole: string; small: string; name: string }> = {
  // a notch in a square
  cold: { whole: 'M3 3h5v5h6v-5h5v16H3z', small: 'M-5 4h10v-8h-3v3h-4v-3h-3z', name: 'cold' },
  // a slant
  drying: { whole: 'M9 3h10L13 19H3z', small: 'M-1 -4h6l-4 8h-6z', name: 'drying wind' },
  // a dot
  sun: {
    whole: 'M11 3a8 8 0 1 0 0 16a8 8 0 1 0 0 -16z',
    small: 'M0 -4.5a4.5 4.5 0 1 0 0 9a4.5 4.5 0 1 0 0 -9z',
    name: 'sun and heat',
  },
  // a wave
  water: { whole: 'M3 8q4 -6 8 0t8 0v11H3z', small: 'M-5 -1q2.5 -4 5 0t5 0v5h-10z', name: 'water' },
  // a bite out of a leaf
  pest: { whole: 'M3 3h16v9a5 5 0 0 0 -6 7H3z', small: 'M-5 -4h10v4a3 3 0 0 0 -4 4h-6z', name: 'pest' },
  // a ring
  disease: {
    whole: 'M11 3a8 8 0 1 0 0 16a8 8 0 1 0 0 -16zM11 8a3 3 0 1 1 0 6a3 3 0 1 1 0 -6z',
    small: 'M0 -4.5a4.5 4.5 0 1 0 0 9a4.5 4.5 0 1 0 0 -9zM0 -2a2 2 0 1 1 0 4a2 2 0 1 1 0 -4z',
    name: 'disease',
  },
  // a bar
  hand: { whole: 'M8 3h6v16H8z', small: 'M-2 -5h4v10h-4z', name: 'hand or machine' },
};

const ofEvent: Record<string, Cause> = {
  freeze: 'cold',
  'late frost': 'cold',
  'drying wind': 'drying',
  gale: 'drying',
  heat: 'sun',
  'wet spell': 'water',
};
const ofHurt: Record<string, Cause> = {
  cold: 'cold',
  'drying wind': 'drying',
  gale: 'drying',
  heat: 'sun',
  'standing water': 'water',
};

export const causeOfEvent = (kind: string): Cause => ofEvent[kind] ?? 'cold';
export const causeOfHurt = (by: string): Cause => ofHurt[by] ?? 'cold';
