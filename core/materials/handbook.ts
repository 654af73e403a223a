import type { SubstrateFamily } from '../choose/vocabulary.js';

/** Conductivity of a material in one handbook, W/(m·K) near room temperature. */
export interface HandbookReading {
  readonly conductivity: number;
  readonly source: string;
}

/** Properties of a material near room temperature. `conductivity` W/(mm·K), `diffusivity` mm²/s, `density` g/cm³. */
export interface HandbookMaterial {
  readonly key: string;
  readonly name: string;
  readonly family: SubstrateFamily;
  readonly density: number;
  /** J/(kg·K) */
  readonly specificHeat: number;
  readonly conductivity: number;
  readonly diffusivity: number;
  /** Two handbooks; they differ by purity, temper and temperature, and the shipped value lies within what they span. */
  readonly readings: readonly [HandbookReading, HandbookReading];
}

const INCROPERA = 'Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, appendix A';
const ASM = 'ASM Metals Handbook, Desk Edition';
const KAYE = 'Kaye & Laby, Tables of Physical and Chemical Constants';
const CDA = 'Copper Development Association, data sheets';
const MIL = 'MIL-HDBK-5J, Metallic Materials and Elements';
const POLYMER = 'Brandrup & Immergut, Polymer Handbook';

type Row = readonly [
  key: string,
  name: string,
  family: SubstrateFamily,
  density: number,
  specificHeat: number,
  conductivityWPerMK: number,
  first: readonly [number, string],
  second: readonly [number, string],
];

/** Written from memory; sources and checks in docs/sources.md. */
const ROWS: readonly Row[] = [
  ['304', '304 stainless', 'stainless', 8.0, 500, 16.2, [16.2, ASM], [14.9, INCROPERA]],
  ['316', '316 stainless', 'stainless', 8.0, 500, 15, [16.3, ASM], [13.4, INCROPERA]],
  ['430', '430 stainless, ferritic', 'stainless', 7.75, 460, 25, [26.1, ASM], [23.9, KAYE]],
  ['mild', 'mild steel, 1018', 'steel', 7.87, 486, 52, [51.9, ASM], [60.5, INCROPERA]],
  ['galvanised', 'galvanised mild steel', 'galvanised', 7.87, 486, 52, [51.9, ASM], [60.5, INCROPERA]],
  ['cz108', 'brass CZ108 (63/37)', 'brass', 8.44, 380, 121, [121, CDA], [116, ASM]],
  ['c360', 'brass, free-machining', 'brass', 8.5, 380, 115, [115, ASM], [123, CDA]],
  ['c101', 'copper C101', 'copper', 8.94, 385, 391, [391, ASM], [401, INCROPERA]],
  ['c172', 'beryllium copper', 'beryllium copper', 8.25, 420, 110, [107, ASM], [118, CDA]],
  ['6061', 'aluminium 6061-T6', 'aluminium', 2.7, 896, 167, [167, ASM], [167, MIL]],
  ['6082', 'aluminium 6082-T6', 'aluminium', 2.7, 896, 172, [172, KAYE], [167, ASM]],
  ['5052', 'aluminium 5052', 'aluminium', 2.68, 880, 138, [138, ASM], [138, MIL]],
  ['1050', 'aluminium 1050, pure', 'aluminium', 2.705, 900, 231, [231, ASM], [237, INCROPERA]],
  ['zamak', 'zinc die casting', 'zinc', 6.6, 419, 113, [113, ASM], [116, INCROPERA]],
  ['soda-lime', 'soda-lime glass', 'glass', 2.5, 840, 1.05, [1.0, KAYE], [1.4, INCROPERA]],
  ['borosilicate', 'borosilicate glass', 'glass', 2.23, 830, 1.2, [1.1, KAYE], [1.4, INCROPERA]],
  ['stoneware', 'glazed stoneware', 'glazed ceramic', 2.3, 800, 1.3, [1.0, KAYE], [1.5, INCROPERA]],
  ['enamel', 'vitreous enamel', 'vitreous enamel', 2.5, 800, 1.0, [0.9, KAYE], [1.4, INCROPERA]],
  ['acrylic', 'cast acrylic', 'acrylic', 1.18, 1470, 0.193, [0.193, POLYMER], [0.2, KAYE]],
  ['pvc', 'rigid PVC', 'PVC', 1.38, 1000, 0.17, [0.168, POLYMER], [0.19, KAYE]],
  [
    'bone',
    'cortical bone',
    'bone',
    1.9,
    1313,
    0.4,
    [0.32, 'Duck, Physical Properties of Tissue'],
    [0.54, 'Davidson & James, Med. Eng. Phys. 22, 2000'],
  ],
];

/** Materials whose thermal values ship with the product; diffusivity is conductivity ÷ (density × specific heat). */
export const HANDBOOK: readonly HandbookMaterial[] = ROWS.map(
  ([key, name, family, density, specificHeat, k, first, second]) => ({
    key,
    name,
    family,
    density,
    specificHeat,
    conductivity: k / 1000,
    diffusivity: Number(((k / (density * 1000 * specificHeat)) * 1e6).toPrecision(3)),
    readings: [
      { conductivity: first[0], source: first[1] },
      { conductivity: second[0], source: second[1] },
    ],
  }),
);

/** The sources of a material's thermal values, for the record. */
export function handbookSource(material: HandbookMaterial): string {
  const [first, second] = material.readings;
  return `${material.name}: ${first.source}; ${second.source}`;
}
