/** Marks of flowers, fruit, bark and ground, and of what lives on them; those of leaves and shoots stand with the parts. */
import { area, brown, disc, discs, green, ink, line, pale, strewn, wood, type Mark } from './shapes';

const ants = [
  [30, 14],
  [34, 24],
  [30, 36],
  [33, 48],
];

export const marksElse: Record<string, Mark> = {
  // leaves
  blotch: () => [area('M34 12C44 16 48 24 44 32C38 34 32 28 34 12ZM20 34C28 32 30 40 34 48C26 50 18 44 20 34Z', '#e9d95c')],
  blisters: () => [discs(strewn(11, 12), 3.4, '#fffdf2', ink)],
  swollen: () => [
    area('M34 12C46 10 54 22 48 32C40 38 30 30 34 12Z', '#e8b9ae', ink),
    area('M20 36C26 30 36 40 30 50C22 52 16 44 20 36Z', '#e8d5cf', ink),
  ],
  mummies: () => [
    discs(
      [
        [24, 22],
        [38, 30],
        [27, 40],
      ],
      5,
      '#b98a4e',
      ink,
    ),
    discs(
      [
        [26, 20],
        [40, 28],
        [29, 38],
      ],
      1.6,
      '#2a2622',
    ),
  ],
  // flowers and buds
  chewed: () => [area('M40 8l8 4l-2 8l8 2l-4 8l-10 -6zM12 14l8 4l2 8l-8 2z', 'white', ink)],
  none: () => [
    area('M2 2h60v38h-60z', 'white'),
    line('M32 62V38', '#5f8f3f', 2.4),
    discs(
      Array.from({ length: 12 }, (_, i) => [32 + 14 * Math.cos(i / 1.91), 24 + 14 * Math.sin(i / 1.91)]),
      1.6,
      brown,
    ),
  ],
  petals: () => [discs([[32, 26, 13]], 13, brown), discs([[32, 26, 4]], 4, '#e9d27a', ink)],
  fur: () => [
    discs(
      [
        [26, 24, 9],
        [36, 20, 8],
        [34, 32, 9],
      ],
      9,
      '#a7a59e',
    ),
    line('M18 22l-5 -2M22 14l-3 -5M32 11v-6M42 14l4 -4M44 24l6 -1M42 36l5 3M24 36l-5 4', '#7d7a72', 1.3),
  ],
  pecked: () => [area('M28 12l8 2l-2 6l6 4l-8 8l-6 -6l-6 2z', 'white', ink), line('M52 8l-8 4l8 3', ink, 2)],
  fallen: () => [
    ...[
      [20, 56],
      [40, 58],
      [54, 54],
    ].map(([x, y]) => area(`M${x} ${y}q-5 -3 0 -10q5 7 0 10z`, green, ink)),
    line('M30 42v6M44 34v8', ink, 1),
  ],
  // fruit
  fruithurt: () => [area('M36 24L46 28L42 34L48 40L38 46L30 38L34 32Z', pale, ink), line('M60 20l-10 6l10 3', ink, 2)],
  worm: () => [discs([[40, 30, 3]], 3, '#2a2622'), line('M40 30C48 24 50 14 58 16', '#f3eec6', 5), line('M56 14l3 4', ink, 2.4)],
  fruitsplit: () => [area('M32 16C36 28 28 38 34 56C40 42 40 28 32 16Z', '#f3eec6', brown)],
  russet: () => [
    area('M14 30C24 24 40 26 50 30C54 38 50 44 46 48C34 42 24 44 14 44C10 40 11 34 14 30Z', '#b98a4e'),
    line('M18 34l5 4M28 31l5 4M38 33l5 4M24 40l5 3M36 40l5 3', brown, 1),
  ],
  pocket: () => [area('M2 14h60v50h-60z', 'white'), area('M30 14C20 20 14 44 22 58C34 62 40 30 36 14Z', '#b7c58a', ink)],
  pits: () => [discs(strewn(12, 13), 2, brown, ink)],
  dropped: () => [
    area('M2 12h60v50h-60z', 'white'),
    line('M4 58h56', ink, 2),
    discs(
      [
        [18, 52],
        [32, 53],
        [46, 52],
      ],
      5,
      '#c9d59a',
      ink,
    ),
    line('M18 20v20M32 16v24M46 20v20', ink, 1),
  ],
  // shoots and twigs
  ants: () => [
    ...ants.map(([x, y]) =>
      discs(
        [
          [x!, y!, 2.4],
          [x!, y! - 4, 1.8],
          [x!, y! + 4, 2.2],
        ],
        2,
        '#2a2622',
      ),
    ),
    line(ants.map(([x, y]) => `M${x! - 5} ${y! - 2}h10M${x! - 5} ${y! + 2}h10`).join(''), ink, 0.8),
  ],
  larvae: () => [
    line('M28 12l6 12M36 34l-6 12', '#3a4a52', 6),
    discs(
      [
        [30, 16],
        [32, 20],
        [34, 38],
        [32, 42],
      ],
      1.3,
      '#cf6f1c',
    ),
  ],
  foamcase: () => [
    area('M26 44C22 34 34 20 42 24C50 30 40 48 32 48Z', '#d9bf8f', ink),
    line('M30 44L42 26M34 46L46 32', brown, 1),
  ],
  striped: () => [line('M30 10C40 16 24 30 34 44', '#8fb04a', 8), line('M28 14l8 -1M30 22l7 2M28 29l7 3M30 37l8 1', ink, 2)],
  conegalls: () => [
    area('M22 50C14 40 24 32 32 36C38 42 32 52 22 50ZM42 30C36 20 46 14 52 18C58 24 52 32 42 30Z', '#7f9a55', ink),
    line('M20 44l8 -4M22 48l8 -5M42 24l8 -3M44 28l9 -4', brown, 1),
  ],
  bags: () => [
    line('M20 46v4M36 36v4', ink, 1.4),
    area('M20 50C14 52 16 62 20 63C24 62 26 52 20 50ZM36 40C30 44 32 56 36 58C40 56 42 44 36 40Z', '#8f7a55', ink),
    line('M17 54l6 3M33 46l6 3M33 51l6 2', ink, 0.9),
  ],
  ringed: () => [line('M30 42L24 32', '#f3eec6', 7), line('M28 44L21 34M33 40L26 30', ink, 1)],
  blasted: () => [area('M28 0H36V16H28Z', '#3b322a', ink), line('M32 16l-5 4M32 14l5 4', '#3b322a', 2)],
  airplants: () => [
    line('M24 44l-8 12M24 44l-2 16M24 44l6 14M44 26l-6 14M44 26l2 16M44 26l10 10', '#9fb3a8', 2),
    line('M24 44l-10 4M44 26l-10 6', '#9fb3a8', 2),
  ],
  // bark, trunk and base
  stub: () => [area('M44 26L60 20V32L44 38Z', wood, ink), area(disc(60, 26, 5), '#7a5a35', ink)],
  ivy: () => [
    line('M24 62C40 50 24 36 40 24C44 16 30 10 34 2', '#3f6b3a', 2),
    area(
      'M34 44l8 -4l2 8l-6 4zM24 34l-6 -2l0 8l7 2zM40 22l8 -2l0 8l-7 2zM28 14l-7 -2l1 8l6 1zM30 56l-7 -2l1 7l6 1z',
      '#4f8047',
      ink,
    ),
  ],
  lichen: () => [
    discs(
      [
        [28, 16, 6],
        [37, 30, 5],
        [27, 44, 7],
      ],
      6,
      '#bfcaa6',
      '#8a9a70',
    ),
    discs(
      [
        [28, 16],
        [37, 30],
        [27, 44],
      ],
      2,
      '#8a9a70',
    ),
  ],
  bleed: () => [
    discs(
      [
        [27, 14, 3.4],
        [38, 28, 3.4],
      ],
      3,
      '#3b2a18',
    ),
    line('M27 16C26 28 29 34 27 46M38 30C40 42 36 48 38 60', '#8a3b1c', 3),
  ],
  strips: () => [area('M26 2H32V40L29 46L26 40ZM36 14H41V54L38 60L36 54Z', '#efe3c6', ink)],
  plates: () => [
    area('M22 6L32 4V18L23 20ZM34 12L43 10V26L35 28ZM22 32L31 30V46L24 48ZM34 40L42 38V56L35 58Z', '#b89a70', ink),
    line('M32 18l4 4M31 46l4 4', ink, 1.4),
  ],
  bighole: () => [
    discs([[32, 46, 4]], 4, '#2a2622'),
    line('M28 54l-4 6M36 54l4 6', brown, 2),
    line('M20 26L8 60M44 26L56 60', '#c9a227', 3),
  ],
  gall: () => [
    discs(
      [
        [44, 42, 11],
        [50, 34, 6],
        [36, 46, 6],
      ],
      8,
      '#a98247',
      ink,
    ),
    line('M40 38l6 4M44 48l6 -4', ink, 1),
  ],
  suckers: () => [
    line('M18 50C16 36 10 30 12 12M48 50C50 36 56 30 52 12', '#5f8f3f', 2.4),
    area(
      'M12 22q8 -6 10 2q-6 4 -10 -2zM52 22q-8 -6 -10 2q6 4 10 -2zM13 34q-8 -4 -10 3q6 3 10 -3zM51 34q8 -4 10 3q-6 3 -10 -3z',
      green,
      ink,
    ),
  ],
  graft: () => [
    area('M4 30h56v34h-56z', 'white'),
    area('M25 2V36C22 44 42 46 39 56V62H25C22 52 26 48 25 36Z', wood, ink),
    line('M2 30H62', ink, 2),
    line('M22 44l20 8', brown, 2),
  ],
  piled: () => [
    area('M4 50C18 46 22 22 32 20C42 22 46 46 60 50Z', '#8a5a2b', ink),
    line('M20 42h6M30 32h6M38 44h6M28 46h6', '#4a3015', 1.6),
  ],
  dug: () => [
    area('M4 50q8 14 20 2z', '#8a5a2b', ink),
    discs(
      [
        [46, 46, 4],
        [54, 47, 3],
        [40, 48, 2.4],
      ],
      3,
      '#8a5a2b',
      ink,
    ),
  ],
  forkcrack: () => [line('M32 30L30 38L34 46L31 60', '#3b2a18', 3)],
  knots: () => [
    discs(
      [
        [20, 46, 4],
        [12, 42, 3],
        [46, 40, 4],
        [54, 52, 4],
        [29, 52, 4],
        [38, 34, 3],
      ],
      4,
      '#a98247',
      ink,
    ),
  ],
  // whole plants and the ground
  shaded: () => [area('M2 30C4 4 60 4 62 30C50 24 14 24 2 30Z', '#3f6b3a', ink), discs([[32, 34, 8]], 8, '#c6cf9a', ink)],
  low: () => [area('M13.5 28A19 19 0 0 0 50.5 28Z', 'white', ink), line('M32 44V28M32 40L22 30M32 40L42 30', brown, 1.8)],
  ball: () => [
    discs([[40, 20, 9]], 9, '#c6cf6a', ink),
    line('M40 28V14M40 24L34 16M40 24L46 16M40 20L36 13M40 20L44 13', '#5f8f3f', 1.4),
  ],
  collapsed: () => [
    area(disc(32, 24, 19), '#b28a5a', ink),
    line('M16 26q-5 10 0 16M25 30q-3 10 0 16M39 30q3 10 0 16M48 26q5 10 0 16', ink, 2),
  ],
  hardcut: () => [area('M2 2h60v40h-60z', 'white'), line('M32 44V26M32 40L20 24M32 40L44 24M32 36L26 20M32 36L38 20', brown, 4)],
  hard: () => [line('M6 50l8 6l-4 6M24 50l-4 6l6 6M44 50l6 6l-4 6M58 50l-4 8', brown, 1.6), line('M50 44L60 28', ink, 2)],
  casts: () => [
    discs(
      [
        [10, 47, 4],
        [14, 43, 3],
        [52, 47, 4],
        [48, 43, 3],
      ],
      3.4,
      '#8a5a2b',
      ink,
    ),
    line('M10 58c6 -4 8 4 14 0', '#c98a8a', 3),
  ],
  gnats: () => [
    discs(
      [
        [10, 40],
        [20, 30],
        [50, 38],
        [56, 26],
        [44, 44],
      ],
      1.8,
      '#2a2622',
    ),
    line('M7 37l3 3l3 -3M17 27l3 3l3 -3M47 35l3 3l3 -3M53 23l3 3l3 -3', ink, 0.9),
  ],
  sedge: () => [
    line('M32 50C30 30 20 16 12 10M32 50C34 28 44 16 54 12M32 50V8', '#5f8f3f', 3),
    area('M50 54h10l-5 -9z', '#c6cf9a', ink),
    discs(
      [
        [26, 58, 3],
        [36, 60, 3],
      ],
      3,
      brown,
    ),
  ],
  runners: () => [
    line('M2 58H62', '#f3eec6', 4),
    line('M2 58H62', ink, 0.8),
    line('M12 56V34M32 56V26M52 56V36', '#5f8f3f', 2),
    area('M12 34q-8 -2 -6 -10q8 2 6 10zM32 26q-8 -2 -6 -10q8 2 6 10zM52 36q8 -2 6 -10q-8 2 -6 10z', green, ink),
  ],
  burrs: () => [
    line('M32 50V62M32 50L12 40M32 50L52 38', '#5f8f3f', 2.6),
    discs(
      [
        [12, 38, 5],
        [52, 36, 5],
        [32, 40, 5],
      ],
      5,
      '#b98a4e',
      ink,
    ),
    line('M12 30v3M5 38h3M52 28v3M57 36h3M32 32v3M26 40h-3M38 40h3', ink, 1.4),
  ],
  ring: () => [
    line('M8 40C8 28 56 28 56 40C56 52 8 52 8 40Z', '#3f6b3a', 4),
    ...[
      [12, 34],
      [28, 30],
      [46, 32],
    ].map(([x, y]) => area(`M${x! - 5} ${y}q5 -8 10 0zM${x! - 1} ${y}v5h2v-5z`, '#e8d9c2', ink)),
  ],
  slime: () => [
    area('M8 48C14 38 22 46 30 40C40 34 50 38 58 48Z', '#e2c33a', ink),
    line('M18 46l6 -3M34 44l8 -2', '#b3901d', 1.4),
  ],
  twining: () => [
    line('M32 50V4', brown, 3),
    line('M22 50C20 40 44 42 42 32C40 22 22 28 24 18C26 10 40 14 40 6', '#5f8f3f', 2.2),
    area('M44 32l10 -2l-5 9zM22 18l-10 -2l6 9z', green, ink),
  ],
};

/** Which of them a word means on a part where another part's mark has the same word. */
export const elseOnPart: Record<string, string> = {
  'fruit pecked': 'fruithurt',
  'fruit split': 'fruitsplit',
  'fork crack': 'forkcrack',
  'flower brown': 'petals',
  'bud fallen': 'fallen',
};
