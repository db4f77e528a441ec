/** Where the blade goes, drawn: what stays as full lines, what goes broken, each cut a thick line with its number. In a box of 240 × 170. */
export interface CutDrawing {
  says: string; // the same in words
  stays: string[]; // paths of wood that stays
  thin?: string[]; // paths of green shoots and leaves that stay
  goes: string[]; // paths of what goes
  cuts: [number, number, number, number][]; // from x, y to x, y
  buds?: [number, number][];
  ground?: number; // how far down the soil lies
  words?: [number, number, string][];
}

const dome = 'M30 140C30 70 80 40 120 40S210 70 210 140';

export const drawings: Record<string, CutDrawing> = {
  pair: {
    says: 'The stem is cut right above the first pair of fat buds below the faded head; the pair below stays untouched.',
    stays: ['M120 160V70'],
    thin: ['M120 112c-16 -2 -26 -12 -30 -24', 'M120 112c16 -2 26 -12 30 -24'],
    goes: ['M120 62V44', 'M92 36c0 -16 56 -16 56 0c0 14 -56 14 -56 0z', 'M104 30l10 10M120 26v16M136 30l-10 10'],
    cuts: [[104, 62, 136, 62]],
    buds: [
      [112, 74],
      [128, 74],
      [112, 110],
      [128, 110],
    ],
    words: [
      [144, 66, 'here'],
      [144, 80, 'first live pair'],
    ],
  },
  bud: {
    says: 'A slanting cut 6 mm above a bud that looks outward, sloping away from it.',
    stays: ['M70 165C84 130 104 104 122 84'],
    thin: ['M122 92c14 -2 24 2 34 10'],
    goes: ['M130 72C142 56 152 40 158 20'],
    cuts: [[106, 72, 140, 82]],
    buds: [[124, 94]],
    words: [
      [146, 78, '6 mm above it'],
      [134, 118, 'bud looking outward'],
    ],
  },
  collar: {
    says: 'Three cuts: first from below, then from above further out so that nothing tears, last at the collar, neither flush nor a stub.',
    stays: ['M60 165V15', 'M88 165V108', 'M88 76V15', 'M88 108c4 -8 8 -12 14 -14', 'M88 76c4 2 8 4 14 6'],
    goes: ['M104 94C140 82 180 70 224 62', 'M104 82C140 70 180 58 224 48'],
    cuts: [
      [150, 92, 150, 78],
      [166, 54, 166, 72],
      [100, 76, 106, 100],
    ],
    words: [
      [146, 108, '1'],
      [164, 48, '2'],
      [108, 116, '3 at the collar'],
    ],
  },
  sideshoot: {
    says: 'A long shoot is cut inside the crown, right above a side shoot that takes its place.',
    stays: ['M120 165V110', 'M120 110C112 92 104 82 96 74'],
    thin: ['M96 74c-14 -4 -24 -2 -34 4', 'M112 96c16 -8 26 -8 38 -4', dome],
    goes: ['M94 70C84 46 78 28 76 8'],
    cuts: [[82, 68, 108, 64]],
    words: [
      [112, 62, 'here'],
      [32, 98, 'side shoot'],
    ],
  },
  stems: {
    says: 'The oldest third of the stems goes at the ground; the young ones stay as they are.',
    stays: [
      'M96 150C90 110 84 80 70 46',
      'M112 150C112 110 112 80 108 40',
      'M128 150C130 110 134 80 142 42',
      'M144 150C150 116 160 90 176 56',
    ],
    thin: ['M120 150C120 120 122 100 124 84'],
    goes: ['M84 146C72 110 56 84 34 66', 'M104 146C100 104 96 64 92 24', 'M152 146C166 112 184 88 208 70'],
    cuts: [
      [74, 142, 94, 148],
      [94, 142, 114, 146],
      [142, 148, 164, 140],
    ],
    ground: 152,
    words: [[10, 60, 'oldest']],
  },
  canes: {
    says: 'Canes that have bloomed or borne go at the ground; the new ones are tied in as flat as they go.',
    stays: ['M30 40H214', 'M30 84H214', 'M112 150C106 120 90 90 44 84', 'M124 150C132 116 150 92 200 84'],
    thin: ['M118 150C116 124 96 70 60 42'],
    goes: ['M100 146C88 112 80 70 76 20', 'M140 146C152 112 160 70 164 22'],
    cuts: [
      [90, 142, 110, 148],
      [130, 148, 152, 142],
    ],
    ground: 152,
    words: [
      [62, 16, 'old'],
      [168, 16, 'old'],
      [182, 100, 'new'],
    ],
  },
  ground: {
    says: 'All stems go a hand above the ground, each to two buds.',
    stays: ['M84 150L80 122', 'M104 150L102 122', 'M124 150L126 122', 'M146 150L150 122'],
    goes: ['M79 116L60 30', 'M101 116L94 22', 'M127 116L136 22', 'M151 116L178 32'],
    cuts: [
      [70, 122, 90, 116],
      [92, 120, 112, 116],
      [116, 116, 136, 120],
      [140, 116, 160, 122],
    ],
    buds: [
      [81, 134],
      [104, 134],
      [125, 134],
      [148, 134],
    ],
    ground: 152,
  },
  spur: {
    says: 'Last year’s canes are cut to two buds on the frame.',
    stays: ['M40 165V96', 'M40 96H216', 'M84 96V74', 'M128 96V74', 'M172 96V74'],
    goes: ['M84 66V14', 'M128 66V10', 'M172 66V16'],
    cuts: [
      [74, 68, 94, 64],
      [118, 68, 138, 64],
      [162, 68, 182, 64],
    ],
    buds: [
      [88, 88],
      [80, 78],
      [132, 88],
      [124, 78],
      [176, 88],
      [168, 78],
    ],
    words: [
      [188, 74, 'two buds'],
      [52, 118, 'the frame'],
    ],
  },
  whips: {
    says: 'In summer the long whips are cut to five or six leaves; in winter the same shoots to two or three buds.',
    stays: ['M20 140H80', 'M80 140C96 130 104 124 112 116'],
    thin: ['M118 110C136 92 150 80 164 66', 'M128 100l-12 -8M140 90l-12 -8M152 78l-12 -8', 'M158 72l12 4'],
    goes: ['M170 60C190 40 204 26 222 10'],
    cuts: [
      [158, 56, 174, 72],
      [106, 104, 124, 120],
    ],
    buds: [
      [92, 132],
      [103, 124],
    ],
    words: [
      [178, 78, 'summer'],
      [120, 134, 'winter'],
    ],
  },
  shear: {
    says: 'It is sheared to half its height; the shape stays round.',
    stays: ['M60 150C60 110 84 92 120 92S180 110 180 150'],
    goes: [dome],
    cuts: [[52, 90, 188, 90]],
    ground: 152,
  },
  taper: {
    says: 'The hedge is narrower at the top than at the foot, so that light reaches all of it.',
    stays: ['M84 150L100 40H140L156 150Z'],
    goes: ['M78 150L88 28H152L162 150'],
    cuts: [
      [92, 40, 148, 40],
      [80, 146, 96, 44],
      [160, 146, 144, 44],
    ],
    ground: 152,
    words: [
      [156, 44, 'narrower'],
      [170, 144, 'wider'],
    ],
  },
  frond: {
    says: 'Only brown fronds below the level line go, close to the stem; no green frond is cut.',
    stays: [
      'M112 165V70',
      'M128 165V70',
      'M120 66C100 40 80 34 52 40',
      'M120 66C140 40 160 34 188 40',
      'M120 66C116 40 110 24 98 10',
      'M120 66C124 40 130 24 142 10',
      'M120 68C96 58 72 60 46 72',
      'M120 68C144 58 168 60 194 72',
    ],
    goes: ['M110 84C88 90 74 106 66 130', 'M130 84C152 90 166 106 174 130'],
    cuts: [
      [104, 78, 108, 94],
      [136, 78, 132, 94],
    ],
    words: [
      [10, 84, 'level line'],
      [180, 126, 'brown'],
    ],
  },
  green: {
    says: 'The cut stays within green wood; bare wood inside has no buds and does not come again.',
    stays: ['M20 130C60 120 90 108 120 96'],
    thin: [
      'M120 96C140 88 152 82 164 76',
      'M104 102l-8 -20M120 96l-8 -22M136 90l-8 -22M108 102l6 20M126 94l8 20M142 88l10 18M154 82l-4 -20',
    ],
    goes: ['M172 72C190 62 206 54 224 44', 'M184 66l-4 -20M200 58l-4 -20M190 64l12 14'],
    cuts: [[162, 60, 174, 88]],
    words: [
      [150, 112, 'in the green'],
      [14, 152, 'bare: no buds'],
    ],
  },
  mound: {
    says: 'It is cut right above the lowest live shoots, never into bare wood.',
    stays: ['M118 150C104 136 92 128 80 118', 'M120 150V114', 'M122 150C136 136 148 128 160 118'],
    thin: ['M80 118l-6 -14M84 120l8 -14M120 114l-7 -14M120 114l7 -14M160 118l6 -14M156 120l-8 -14'],
    goes: ['M40 110C46 56 84 34 120 34S194 56 200 110'],
    cuts: [[58, 96, 182, 96]],
    ground: 152,
    words: [[186, 94, 'live shoots']],
  },
  crown: {
    says: 'Old stems and leaves go a hand above the crown; new shoots stay.',
    stays: ['M92 150V132', 'M108 150V132', 'M124 150V132', 'M140 150V132'],
    thin: ['M100 150c-2 -8 -2 -12 -6 -16', 'M116 150c0 -8 2 -12 4 -16', 'M132 150c2 -8 4 -10 8 -14'],
    goes: [
      'M92 126C86 90 72 60 56 40',
      'M108 126C106 84 102 54 96 24',
      'M124 126C126 84 132 54 142 24',
      'M140 126C148 90 164 62 182 42',
    ],
    cuts: [[80, 129, 152, 129]],
    ground: 152,
    words: [[156, 132, 'a hand high']],
  },
  faded: {
    says: 'The faded head goes, right above the first full leaf or side shoot below it.',
    stays: ['M120 165V92'],
    thin: ['M120 100c18 -2 32 -12 40 -26c-18 0 -32 8 -40 22', 'M120 130c-18 -2 -32 -12 -40 -26c18 0 32 8 40 22'],
    goes: ['M120 82V52', 'M98 44c0 -20 44 -20 44 0c0 16 -44 16 -44 0z'],
    cuts: [[106, 86, 134, 82]],
    words: [[166, 92, 'first full leaf']],
  },
};
