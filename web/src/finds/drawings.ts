/** Signs drawn from two words each: a part of the plant, and the mark on it. All in a square of 64. */
import { elseOnPart, marksElse } from './marks';
import {
  area,
  brown,
  crown,
  disc,
  discs,
  green,
  hue,
  ink,
  leaf,
  leafLine,
  leaves,
  line,
  pairs,
  pale,
  soil,
  strewn,
  trunk,
  veins,
  wood,
  type Mark,
  type Shape,
} from './shapes';

const parts: Record<string, Shape[]> = {
  leaf: leaf(green),
  underside: leaf('#cfdcc3'),
  needles: [
    line('M32 4V62', brown, 2),
    line('M32 12L10 24M32 12L54 24M32 24L8 36M32 24L56 36M32 36L10 48M32 36L54 48M32 48L14 58M32 48L50 58', '#5f8f3f', 2.4),
  ],
  shoot: [line('M32 62V8', '#5f8f3f', 2.4), leaves(green, pairs)],
  twig: [line('M4 54C24 46 40 30 60 10', brown, 6), area('M58 12q6 -8 2 -12q-8 2 -6 10z', green, ink)],
  bud: [
    line('M32 62V44', brown, 5),
    area('M32 46C14 38 20 14 32 4C44 14 50 38 32 46Z', green, ink),
    line('M32 6C26 18 26 34 30 45M32 6C38 18 38 34 34 45', ink, 0.9),
  ],
  fruit: [area(disc(32, 36, 22), '#c9d59a', ink), line('M32 14C32 8 36 4 40 4', brown, 3)],
  trunk,
  base: [area('M25 2V36C25 44 16 48 8 50H56C48 48 39 44 39 36V2Z', wood, ink), soil],
  palm: [
    area('M27 62V30H37V62Z', wood, ink),
    line('M32 30C20 8 10 14 4 26M32 30C44 8 54 14 60 26M32 30C16 26 10 36 8 44M32 30C48 26 54 36 56 44', '#5f8f3f', 3),
  ],
  roots: [
    line('M2 14H62', ink, 2),
    area('M28 0V14H36V0Z', wood, ink),
    line('M32 14C32 34 30 44 26 60M32 16C22 26 14 34 8 52M32 16C44 24 50 34 56 50M30 34L20 46M34 30L44 46', '#b89b6a', 2.6),
  ],
  section: [area(disc(32, 32, 26), wood, ink), line(disc(32, 32, 17) + disc(32, 32, 8), '#a98c5f', 0.9)],
  plant: [area('M29 40H35V60H29Z', wood, ink), crown(green), line('M6 60H58', ink, 2)],
  flower: [
    line('M32 40V62', '#5f8f3f', 2.4),
    area('M32 26C24 6 40 6 32 26C46 10 56 22 32 26C54 30 46 46 32 26C30 50 14 42 32 26C8 34 8 14 32 26Z', '#e9c3cf', ink),
    discs([[32, 26, 4]], 4, '#e9d27a', ink),
  ],
  fork: [area('M26 62V38L8 4H18L32 30L46 4H56L38 38V62Z', wood, ink)],
  weed: [soil],
  ground: [soil, area('M29 30H35V50H29Z', wood, ink), area(disc(32, 20, 15), green, ink)],
};

const drooping = 'M16 26q-5 10 0 16M25 30q-3 10 0 16M39 30q3 10 0 16M48 26q5 10 0 16';

const under = 'leaf underside';
const marks: Record<string, Mark> = {
  specks: (c) => [discs(strewn(46), 1.1, hue[c] ?? pale)],
  patch: (c) => [area('M36 14C48 20 50 34 42 44C34 40 32 24 36 14Z', hue[c] ?? pale, brown)],
  'between-veins': (c) => {
    const old = c === 'old';
    return [
      area('M22 18L30 24V30L19 26ZM34 24L42 18L46 25L34 30ZM20 31L30 36V41L21 37ZM34 36L44 31L43 37L34 41Z', '#e9d95c'),
      line(old ? 'M50 52l6 6m0 -6l-6 6' : 'M50 12l5 -6l5 6', ink, 1.6),
    ];
  },
  wash: (c) => [area(leafLine, hue[c] ?? pale, ink), line(veins, ink, 0.8)],
  powder: () => [discs(strewn(16), 4.2, '#ffffffcc')],
  film: () => [area('M32 8C49 18 50 34 40 46C34 40 26 44 18 34C14 24 22 14 32 8Z', '#2a2622cc')],
  fringed: () => [
    discs(
      [
        [24, 24, 8],
        [40, 36, 9],
      ],
      8,
      '#e5d65a',
    ),
    discs(
      [
        [24, 24, 5],
        [40, 36, 6],
      ],
      5,
      '#2a2622',
    ),
    line('M18 20l-4 -2M30 28l4 3M24 17v-4M46 32l4 -3M40 44v4M33 40l-4 3', '#2a2622', 1.4),
  ],
  rings: () => [
    discs(
      [
        [24, 22],
        [41, 28],
        [29, 42],
      ],
      5,
      '#b98a4e',
      brown,
    ),
  ],
  angular: () => [area('M34 22L44 17L46 24L34 30ZM20 32L30 36V41L22 37ZM34 37L42 33L43 38L34 42Z', brown, ink)],
  holes: () => [
    discs(
      [
        [22, 22],
        [40, 20],
        [25, 36],
        [42, 34],
        [34, 48],
        [30, 28],
      ],
      3,
      'white',
      brown,
    ),
  ],
  line: () => [line('M18 20C26 14 30 24 24 28C18 34 30 34 38 28C46 24 46 34 38 38C30 42 34 48 40 46', '#fbf7df', 3.4)],
  bumps: (c) => [
    discs(
      [
        [22, 22],
        [38, 18],
        [27, 34],
        [44, 32],
        [34, 46],
        [20, 34],
      ],
      3.6,
      hue[c] ?? '#a8403a',
      ink,
    ),
  ],
  pucker: () => [
    area('M32 6C56 12 46 22 54 30C50 44 42 40 32 58C24 46 10 46 14 32C6 22 22 18 32 6Z', '#c9625a', ink),
    line('M20 24q6 -6 10 0M36 22q6 -6 10 2M22 38q6 -6 10 0M36 40q5 -5 8 0', ink, 1.2),
  ],
  mosaic: () => [
    area('M22 16L32 12V22L24 24ZM36 24L46 22L48 32L38 32ZM16 30L26 28L28 38L19 38ZM33 38L43 36L40 46L33 48Z', '#e4dd8a'),
  ],
  edge: (c) => [
    line('M32 5C51 15 55 38 32 59C9 38 13 15 32 5Z', brown, 5),
    ...(c === 'seam' ? [line('M32 11C46 19 49 37 32 53C15 37 18 19 32 11Z', '#e5d65a', 2)] : []),
  ],
  spots: (c) => [
    discs(
      [
        [24, 20],
        [40, 24],
        [28, 34],
        [42, 38],
        [32, 48],
        [20, 30],
      ],
      3.4,
      hue[c] ?? brown,
      ink,
    ),
  ],
  target: () => [
    discs(
      [
        [26, 24, 9],
        [40, 40, 8],
      ],
      9,
      '#b98a4e',
      brown,
    ),
    line(disc(26, 24, 5.5) + disc(26, 24, 2.4) + disc(40, 40, 5) + disc(40, 40, 2.2), brown, 1.2),
  ],
  notches: () => [
    discs(
      [
        [47, 17],
        [51, 28],
        [46, 41],
        [14, 24],
        [17, 40],
      ],
      4.4,
      'white',
    ),
    line('M45 13a4 4 0 0 0 5 7M52 23a5 5 0 0 0 -1 10M48 37a4 4 0 0 0 -5 7M11 20a5 5 0 0 1 3 9M13 36a5 5 0 0 1 7 7', ink, 1.3),
  ],
  halfmoons: () => [
    discs(
      [
        [51, 24, 9],
        [16, 40, 9],
      ],
      9,
      'white',
    ),
    line('M48 15a9 9 0 0 0 2 18M12 34a9 9 0 0 1 10 15', ink, 1.3),
  ],
  ragged: () => [area('M38 14l8 6l-4 8l6 6l-10 6l-4 -8l-4 -6l6 -4zM18 34l8 -2l4 8l-6 8l-8 -6z', 'white', ink)],
  skeleton: () => [
    area(leafLine, 'white', ink),
    line(veins + 'M32 14L38 11M32 25L40 22M32 37L42 31M32 25L22 20M32 37L22 30', ink, 1),
  ],
  curl: () => [
    area(leafLine, 'white'),
    area('M32 6C40 14 42 40 32 58C28 50 22 44 24 30C25 20 28 12 32 6Z', green, ink),
    line('M24 30C14 34 14 22 22 20M40 34C50 38 52 26 42 22', ink, 2),
  ],
  tatter: () => [area('M44 12L58 10L54 22L62 26L50 32L60 42L44 42L42 54L36 44L34 26Z', 'white', ink)],
  bands: () => [line('M14 22l6 -3M44 18l6 3M12 34l7 -4M46 31l7 4M15 45l6 -3M43 42l6 3', '#c9a227', 4)],
  lacebug: () => [
    ...[
      [26, 26],
      [40, 40],
    ].map(([x, y]) => area(`M${x! - 7} ${y}l4 -6h6l4 6l-4 7h-6z`, '#fff', ink)),
    line('M22 24l8 6M30 22l-8 8M36 38l8 6M44 36l-8 8', ink, 0.7),
  ],
  web: () => [
    line('M14 20L50 40M16 32L46 18M20 42L44 26M24 14L30 50M38 12L36 50', '#fff', 1.6),
    line('M18 26q8 -2 14 4t14 2M22 38q8 -4 16 0', '#fff', 1.2),
  ],
  dots: () => [discs(strewn(14, 12), 1.3, '#8a2f2a'), line('M20 52h4M28 54h4M38 52h4', ink, 1)],
  moths: () => [
    ...[
      [22, 24],
      [38, 18],
      [36, 38],
      [54, 10],
      [8, 12],
    ].map(([x, y]) => area(`M${x} ${y}l-5 -3v6zl5 -3v6z`, '#fff', ink)),
  ],
  tubes: () => [
    line('M22 18l4 8M36 20l-3 9M44 30l-6 6M24 36l2 9M36 42l-4 7', '#fff', 5),
    line('M22 18l4 8M36 20l-3 9M44 30l-6 6M24 36l2 9M36 42l-4 7', ink, 0.6),
  ],
  down: () => [
    discs(
      [
        [26, 26, 9],
        [38, 36, 9],
      ],
      9,
      '#b5a9c2',
    ),
    line('M20 22l-2 -4M26 17v-4M32 22l3 -3M33 30l-2 -4M40 27v-4M46 34l3 -3', '#8d7fa0', 1.2),
  ],
  stalks: () => [
    line('M22 34C22 26 20 22 22 16M28 36C28 26 28 22 30 14M34 36C35 26 36 22 38 16M40 36C42 28 44 24 46 20', ink, 1),
    discs(
      [
        [22, 14],
        [30, 12],
        [38, 14],
        [46, 18],
      ],
      2.6,
      '#fff',
      ink,
    ),
  ],
  eggs: () => [
    discs(
      [
        [22, 26],
        [28, 26],
        [34, 26],
        [40, 26],
        [25, 32],
        [31, 32],
        [37, 32],
        [28, 38],
        [34, 38],
      ],
      2.8,
      '#e9d27a',
      ink,
    ),
  ],
  cluster: () => [
    discs(
      [
        [30, 8],
        [34, 10],
        [31, 14],
        [35, 17],
        [29, 19],
        [34, 23],
        [30, 26],
        [35, 29],
      ],
      3,
      '#7fae4a',
      ink,
    ),
  ],
  twist: () => [
    area('M2 2h60v60h-60z', 'white'),
    line('M32 62C24 50 42 44 30 34C20 24 44 20 32 6', '#5f8f3f', 3),
    line('M31 34C42 30 52 36 58 28M30 44C20 46 14 38 6 42M34 18C44 14 46 22 54 16', '#5f8f3f', 2.4),
  ],
  crook: () => [
    area('M2 2h60v60h-60z', 'white'),
    line('M24 62V26C24 6 46 6 46 26', brown, 3.4),
    area('M46 24q8 6 4 16q-8 -4 -4 -16zM24 40q10 -6 16 2q-8 6 -16 -2zM24 50q-10 -6 -16 2q8 6 16 -2z', '#3b322a', ink),
  ],
  froth: () => [
    discs(
      [
        [28, 30, 6],
        [36, 28, 6],
        [32, 36, 6],
        [40, 34, 5],
        [26, 37, 4],
      ],
      6,
      '#fffffff0',
      '#8fa3a8',
    ),
  ],
  broom: () => [
    area('M2 2h60v60h-60z', 'white'),
    line('M32 62V40M32 40L12 8M32 40L20 6M32 40L28 4M32 40L36 4M32 40L44 6M32 40L52 8M32 40L8 18M32 40L56 18', brown, 2),
  ],
  hang: () => [
    area('M2 2h60v60h-60z', 'white'),
    line('M22 62V20C22 10 36 8 42 16', '#5f8f3f', 3),
    area('M42 14q6 14 0 26q-8 -12 0 -26zM22 30q12 4 12 18q-12 -4 -12 -18zM22 36q-12 2 -14 16q12 -2 14 -16z', green, ink),
  ],
  dead: () => [line('M32 30V6', brown, 3.4), leaves('#b28a5a', pairs.slice(2))],
  threads: () => [line('M20 6C50 14 14 24 44 32C60 38 12 44 42 56M44 6C14 18 54 24 22 36C12 42 46 48 24 60', '#d8a31a', 2.2)],
  slant: () => [area('M24 0H40V12L24 20Z', 'white'), line('M28 20L38 13', ink, 2.4)],
  torn: () => [area('M20 0H44V18H20Z', 'white'), line('M27 20l2 -8l2 6l2 -10l2 9l2 -6', brown, 1.8)],
  wool: () => [
    discs(
      [
        [22, 46, 6],
        [28, 42, 5],
        [40, 30, 6],
        [46, 26, 5],
        [34, 38, 4],
      ],
      6,
      '#fff',
      '#8fa3a8',
    ),
  ],
  shields: () => [
    discs(
      [
        [18, 48],
        [26, 43],
        [33, 37],
        [40, 31],
        [48, 23],
      ],
      4,
      '#7a6a55',
      ink,
    ),
    discs(
      [
        [18, 48],
        [26, 43],
        [33, 37],
        [40, 31],
        [48, 23],
      ],
      1.2,
      pale,
    ),
  ],
  tent: () => [
    area('M14 50C18 22 40 8 58 8C54 28 36 52 14 50Z', '#ffffffd0', ink),
    line('M18 46L54 12M24 48L56 20M16 40L44 10', '#8fa3a8', 1),
  ],
  galls: () => [
    discs(
      [
        [22, 46, 8],
        [42, 28, 9],
      ],
      8,
      '#a98247',
      ink,
    ),
    discs(
      [
        [24, 44],
        [44, 26],
      ],
      1.6,
      ink,
    ),
  ],
  cut: () => [area('M32 40C22 36 24 20 32 12C40 20 42 36 32 40Z', brown, ink)],
  round: () => [
    area('M2 2h60v42h-60z', 'white'),
    area(disc(32, 28, 17), green, ink),
    line('M20 18q12 8 24 0M17 30q15 8 30 0', ink, 1),
  ],
  bristles: () => [
    area('M32 46C14 38 20 14 32 4C44 14 50 38 32 46Z', brown, ink),
    line('M24 16l-5 -4M22 26l-6 -2M24 36l-6 2M40 16l5 -4M42 26l6 -2M40 36l6 2M32 12v-8', ink, 1.6),
  ],
  end: () => [area('M16 46C22 58 42 58 48 46C40 42 24 42 16 46Z', '#2a2622', ink)],
  side: (c) => (c === 'left' ? [] : [area('M42 20C54 26 54 44 44 52C38 44 38 28 42 20Z', pale, brown)]),
  scabs: () => [
    discs(
      [
        [24, 30, 5],
        [40, 42, 6],
        [36, 26, 3.6],
      ],
      5,
      '#8a6a3c',
      ink,
    ),
    line('M22 28l4 4M38 40l5 4', ink, 1),
  ],
  fruitrings: () => [
    discs([[36, 38, 12]], 12, '#a5713a'),
    line(disc(36, 38, 10) + disc(36, 38, 6.5) + disc(36, 38, 3), '#f3eec6', 2),
  ],
  branch: () => [area('M32 24L50 12A19 19 0 0 1 46 37Z', '#d9b24a', ink)],
  half: () => [area('M32 5A19 19 0 0 1 32 43Z', '#b28a5a', ink)],
  inside: () => [discs([[32, 26, 10]], 10, '#b28a5a')],
  outside: () => [area(disc(32, 24, 19), '#b28a5a', ink), discs([[32, 26, 11]], 11, green)],
  wet: () => [area('M6 60q6 -6 13 0t13 0t13 0t13 0v4h-52z', '#1f7a80'), line(drooping, ink, 2)],
  dry: () => [line('M14 60l4 -6l4 6M34 60l4 -6l4 6M46 60l4 -6', brown, 1.6), line(drooping, ink, 2)],
  many: () => [
    area(disc(10, 46, 8), '#b28a5a', ink),
    area('M54 32L62 56H46Z', '#b28a5a', ink),
    discs([[32, 24, 8]], 8, '#b28a5a'),
  ],
  kind: () => [area(disc(10, 48, 8), '#b28a5a', ink), discs([[32, 24, 8]], 8, '#b28a5a'), area('M54 34L62 56H46Z', green, ink)],
  woodrings: () => [
    line(disc(32, 32, 20), brown, 4),
    discs(
      [
        [14, 28],
        [24, 15],
        [40, 15],
        [50, 30],
        [42, 47],
        [24, 48],
      ],
      2,
      '#4a3015',
    ),
  ],
  split: (c) =>
    c === 'side'
      ? [area('M34 8L40 20L36 34L42 48L36 58L32 40L34 24Z', '#7a5a35', ink)]
      : [line('M32 2C30 20 35 34 31 62', '#3b2a18', 3)],
  gnawed: () => [
    area('M22 26H42V50H22Z', '#efe3c6', ink),
    line('M24 30h4M30 30h4M36 30h4M25 36h4M32 36h4M24 42h4M30 42h4M36 42h4', brown, 1.4),
  ],
  bruised: () => [area('M20 44H44V60H20Z', '#7a5a35', ink), line('M8 62l4 -12l3 12M48 62l4 -12l4 12', '#5f8f3f', 1.8)],
  sunken: () => [
    area('M32 14C42 20 42 44 32 50C22 44 22 20 32 14Z', '#7a4f32', ink),
    line('M32 20C38 26 38 40 32 44C26 40 26 26 32 20Z', ink, 1),
  ],
  holesdust: () => [
    discs(
      [
        [28, 18],
        [37, 32],
        [27, 42],
      ],
      2.6,
      '#2a2622',
    ),
    discs(
      [
        [27, 24],
        [30, 27],
        [36, 38],
        [39, 41],
        [26, 48],
        [30, 52],
        [28, 58],
      ],
      1.5,
      '#d9b98a',
      brown,
    ),
  ],
  holesd: () => [area('M26 18v7a4 4 0 0 0 0 -7zM36 32v7a4 4 0 0 0 0 -7zM27 46v7a4 4 0 0 0 0 -7z', '#2a2622')],
  holesrows: () => [
    discs(
      [
        [23, 20],
        [27, 20],
        [31, 20],
        [35, 20],
        [39, 20],
        [23, 30],
        [27, 30],
        [31, 30],
        [35, 30],
        [39, 30],
        [23, 40],
        [27, 40],
        [31, 40],
        [35, 40],
        [39, 40],
      ],
      1.4,
      '#2a2622',
    ),
  ],
  brackets: () => [area('M44 20C58 20 60 28 58 30H44ZM44 38C54 38 57 45 55 47H44Z', '#c79a5b', ink)],
  weep: () => [area('M30 10C36 14 34 26 36 40C37 52 33 60 31 60C28 50 30 40 28 28C27 18 28 12 30 10Z', '#3b2a18')],
  drops: () => [
    discs(
      [
        [30, 20, 4],
        [38, 30, 5],
        [28, 40, 4],
      ],
      4,
      '#d38a1c',
      ink,
    ),
  ],
  fan: () => [
    area('M30 46L20 24C26 16 38 16 44 24L34 46Z', '#fff', ink),
    line('M32 44L26 22M32 44L32 19M32 44L38 22', '#b9b9b9', 1),
  ],
  post: () => [area('M4 30h56v34h-56z', 'white'), area('M25 2V50H39V2Z', wood, ink), soil],
  across: () => [line('M6 46C22 38 42 40 58 48', '#7a5a35', 6)],
  toadstools: () => [
    ...[
      [14, 46],
      [48, 46],
      [54, 48],
      [20, 48],
    ].map(([x, y]) => area(`M${x! - 6} ${y}q6 -9 12 0zM${x! - 1.4} ${y}v5h2.8v-5z`, '#c98a2b', ink)),
  ],
  mulch: () => [
    ...[
      [56, 46],
      [10, 46],
    ].map(([x, y]) => area(`M${x! - 6} ${y}q6 -9 12 0zM${x! - 1.4} ${y}v5h2.8v-5z`, '#e8d9c2', ink)),
    line('M4 56h8M18 58h8M32 56h8M46 58h8', brown, 2),
  ],
  soft: () => [area('M25 34C25 44 16 48 10 50H54C48 48 39 44 39 34C34 38 30 38 25 34Z', '#4a3015', ink)],
  heart: () => [line('M32 22L44 2', '#c9a227', 3.4), line('M29 26l6 2', ink, 3), line('M48 2l4 4', ink, 1.4)],
  rotten: () => [
    line('M32 14C32 34 30 44 26 60M32 16C22 26 14 34 8 52M32 16C44 24 50 34 56 50M30 34L20 46M34 30L44 46', '#5a3a1e', 3.4),
    line('M20 50l-3 5M47 40l5 4', '#e8d9c2', 2),
  ],
  circle: () => [area('M8 16h48v46h-48z', 'white', ink), line('M14 22h36v34h-34v-28h28v22h-22v-16h16v10h-10', '#b89b6a', 2.6)],
  grubs: () => [
    line('M12 44a6 6 0 1 1 10 6M42 50a6 6 0 1 1 10 6', ink, 7),
    line('M12 44a6 6 0 1 1 10 6M42 50a6 6 0 1 1 10 6', '#f3eec6', 5),
  ],
  water: () => [area('M2 50q7 -6 15 0t15 0t15 0t15 0v12h-60z', '#1f7a80')],
};
/** Marks that are drawn otherwise on another part. */
const onPart: Record<string, string> = {
  ...elseOnPart,
  'fruit rings': 'fruitrings',
  'section rings': 'woodrings',
  'plant side': 'half',
  'trunk holes dust': 'holesdust',
  'trunk holes d': 'holesd',
  'trunk holes rows': 'holesrows',
  'roots brown': 'rotten',
};

/** The shapes of a sign's drawing; without a mark the part alone. Undefined where nobody has drawn it. */
export function drawing(words: readonly string[] | null | undefined): Shape[] | undefined {
  const [part = '', mark = '', how = ''] = words ?? [];
  const base = parts[part];
  if (!base) return undefined;
  if (!mark) return base;
  const name = onPart[`${part} ${mark} ${how}`.trim()] ?? onPart[`${part} ${mark}`] ?? mark;
  const f = marks[name] ?? marksElse[name];
  if (!f) return undefined;
  return [...base, ...f(how), ...(under.includes(part) && mark !== 'skeleton' ? [line('M32 8V60', ink, 0.7)] : [])];
}

/** What stands for a part of the plant or its place in the choice of parts. */
export const partWords: Record<string, string[]> = {
  'upper side of leaves': ['leaf'],
  'underside of leaves': ['underside'],
  'edges of leaves': ['leaf', 'notches'],
  'buds and flowers': ['bud'],
  fruit: ['fruit'],
  shoots: ['shoot'],
  'bark and trunk': ['trunk'],
  'base and crown': ['base'],
  roots: ['roots'],
  'whole plant': ['plant'],
  neighbours: ['plant', 'kind'],
  'ground and place': ['ground'],
  'weather and work of late': ['plant', 'wet'],
};
