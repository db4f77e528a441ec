/** The outline of a plant by its form: half its width at a height, as shares of spread and height. No rules of the job. */
export type Form = 'tree' | 'conifer' | 'shrub' | 'subshrub' | 'climber' | 'palm' | 'perennial';

const ellipse = (z: number, mid: number, half: number) => {
  const t = (z - mid) / half;
  return Math.abs(t) >= 1 ? 0 : Math.sqrt(1 - t * t);
};

const bodies: Record<Form, (z: number) => number> = {
  tree: (z) => Math.max(z < 0.34 ? 0.035 : 0, ellipse(z, 0.64, 0.36)),
  conifer: (z) => (z < 0.06 ? 0.05 : Math.min(1, 1.25 * (1 - z)) * (0.86 + 0.14 * Math.cos(z * 40))),
  // Rises from a stool of stems, widest at half height, rounded above.
  shrub: (z) => (z < 0.5 ? 0.2 + 0.8 * Math.sin((z / 0.5) * (Math.PI / 2)) : ellipse(z, 0.5, 0.5)),
  subshrub: (z) => ellipse(z, 0.25, 0.75),
  climber: (z) => (z < 0.12 ? 0.06 : 0.25 + 0.75 * Math.sin(Math.PI * Math.min(1, (z - 0.12) / 0.95)) ** 0.7),
  palm: (z) => (z < 0.72 ? 0.07 : 0.15 + 0.85 * ellipse(z, 0.84, 0.16)),
  perennial: (z) => 0.15 + 0.85 * z * (z > 0.85 ? (1 - z) / 0.15 : 1),
};

/** Half the width at height z (0 ground to 1 tip), with a hand's unevenness that is the same each time. */
export function halfWidth(form: Form, z: number): number {
  const uneven = 1 + 0.018 * Math.sin(z * 47) + 0.022 * Math.sin(z * 19 + 1) + 0.012 * Math.sin(z * 83);
  return Math.max(0, Math.min(1.05, bodies[form](z) * uneven));
}

/** The closed outline as points: right side up, left side down. */
export function outline(form: Form, upTo = 1, steps = 90): [number, number][] {
  const right: [number, number][] = [];
  for (let i = 0; i <= steps; i++) {
    const z = (i / steps) * upTo;
    right.push([halfWidth(form, z), z]);
  }
  return [...right, ...right.map(([w, z]): [number, number] => [-w, z]).reverse()];
}

/** Stems as lines from the ground: each a start and an end (share of half spread, share of height). */
export function stems(form: Form): [number, number][] {
  switch (form) {
    case 'tree':
      return [
        [0, 0.95],
        [-0.55, 0.7],
        [0.5, 0.78],
        [0.25, 0.9],
        [-0.25, 0.88],
      ];
    case 'conifer':
    case 'palm':
      return [[0, 0.97]];
    case 'climber':
      return [
        [0.05, 0.95],
        [-0.6, 0.8],
        [0.65, 0.75],
      ];
    default:
      return [
        [0, 0.94],
        [-0.34, 0.9],
        [0.36, 0.88],
        [-0.66, 0.72],
        [0.68, 0.7],
        [0.16, 0.93],
      ];
  }
}
