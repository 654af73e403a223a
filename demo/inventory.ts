import { CRITERIA, HANDBOOK, handbookSource, type Weights } from '@unto/core';
import {
  LATER_FIELDS,
  type BlankBody,
  type CompoundBody,
  type ContainerBody,
  type HeadBody,
  type LensBody,
  type MachineBody,
  type InventoryBodyOf,
  type InventoryKind,
  type SubstrateBody,
} from '@unto/contract';

/** A store item of the demo under a short key, from which its identifier is made. */
export interface DemoItem<K extends InventoryKind = InventoryKind> {
  readonly key: string;
  readonly kind: K;
  readonly body: InventoryBodyOf[K];
}

type Refer = (key: string) => string;

const gantry = (name: string, rest: Partial<MachineBody>): MachineBody => ({
  name,
  motion: 'gantry',
  bedWidthMm: 700,
  bedHeightMm: 500,
  topSpeedMmPerS: 600,
  accelerationMmPerS2: 5000,
  jumpDelayS: 0,
  panelPower: '%',
  panelSpeed: '%',
  dialTable: [],
  fullScaleS: 1000,
  laserMinorPerMinute: 25,
  ...rest,
});

const MACHINES: readonly DemoItem<'machine'>[] = [
  { key: 'long-bench', kind: 'machine', body: gantry('Long bench', {}) },
  {
    key: 'small-bench',
    kind: 'machine',
    body: gantry('Small bench', {
      bedWidthMm: 390,
      bedHeightMm: 380,
      topSpeedMmPerS: 250,
      accelerationMmPerS2: 2500,
      panelSpeed: 'mm/min',
      panelPower: '0-1000',
      laserMinorPerMinute: 12,
    }),
  },
  {
    key: 'post',
    kind: 'machine',
    body: gantry('Post', {
      motion: 'galvo',
      bedWidthMm: 110,
      bedHeightMm: 110,
      topSpeedMmPerS: 7000,
      accelerationMmPerS2: 100_000,
      jumpDelayS: 0.0004,
      panelSpeed: 'mm/s',
      laserMinorPerMinute: 30,
    }),
  },
];

const NO_PULSE = { pulseNsMin: null, pulseNsMax: null, beamDiameterMm: null };

function heads(refer: Refer): DemoItem<'head'>[] {
  const head = (
    key: string,
    body: Omit<HeadBody, 'machineId' | keyof typeof NO_PULSE> & Partial<HeadBody>,
    machine: string,
  ): DemoItem<'head'> => ({
    key,
    kind: 'head',
    body: { ...NO_PULSE, ...body, machineId: refer(machine) },
  });
  const pulsed = {
    wavelengthClass: 'near-infrared',
    wavelengthNm: 1064,
    emission: 'pulsed',
    firingThresholdPercent: 0,
  } as const;
  return [
    head(
      'co2',
      {
        name: 'Long bench CO2',
        wavelengthClass: 'co2',
        wavelengthNm: 10_600,
        emission: 'continuous',
        ratedW: 55,
        firingThresholdPercent: 7,
        m2: 1.2,
        beamDiameterMm: 5,
        frequencyKHzMin: null,
        frequencyKHzMax: null,
        eyewear: 'the clear polycarbonate pair marked 10 600 nm',
      },
      'long-bench',
    ),
    head(
      'blue',
      {
        name: 'Small bench blue',
        wavelengthClass: 'blue',
        wavelengthNm: 455,
        emission: 'continuous',
        ratedW: 12,
        firingThresholdPercent: 0,
        m2: 8,
        frequencyKHzMin: null,
        frequencyKHzMax: null,
        eyewear: 'the orange pair marked 455 nm',
      },
      'small-bench',
    ),
    head(
      'infrared',
      {
        name: 'Small bench infrared',
        ...pulsed,
        ratedW: 3,
        m2: 1.3,
        frequencyKHzMin: 15,
        frequencyKHzMax: 60,
        eyewear: 'the green pair marked 1064 nm',
      },
      'small-bench',
    ),
    head(
      'fibre',
      {
        name: 'Post fibre',
        ...pulsed,
        ratedW: 25,
        m2: 1.5,
        frequencyKHzMin: 20,
        frequencyKHzMax: 100,
        pulseNsMin: 100,
        pulseNsMax: 100,
        eyewear: 'the green pair marked 1064 nm',
      },
      'post',
    ),
  ];
}

function lenses(refer: Refer): DemoItem<'lens'>[] {
  const lens = (
    key: string,
    head: string,
    body: Omit<LensBody, 'headId' | 'spotSource'> & Partial<LensBody>,
  ): DemoItem<'lens'> => ({
    key,
    kind: 'lens',
    body: { spotSource: 'stated', ...body, headId: refer(head) },
  });
  return [
    lens('lens-38', 'co2', {
      name: '38 mm',
      focalLengthMm: 38.1,
      spotXMm: 0.123,
      spotYMm: 0.123,
      depthOfFocusMm: 0.3,
      depthGrowth: 0.05,
    }),
    lens('lens-50', 'co2', {
      name: '50.8 mm',
      focalLengthMm: 50.8,
      spotXMm: 0.165,
      spotYMm: 0.165,
      spotSource: 'worked out',
      depthOfFocusMm: 0.53,
      depthGrowth: 0.05,
    }),
    lens('lens-blue', 'blue', {
      name: 'Blue fixed lens',
      focalLengthMm: 30,
      spotXMm: 0.08,
      spotYMm: 0.1,
      depthOfFocusMm: 0.6,
      depthGrowth: 0.05,
    }),
    lens('lens-infrared', 'infrared', {
      name: 'Infrared fixed lens',
      focalLengthMm: 40,
      spotXMm: 0.03,
      spotYMm: 0.03,
      depthOfFocusMm: 0.8,
      depthGrowth: 0.1,
    }),
    lens('lens-163', 'fibre', {
      name: '163 mm',
      focalLengthMm: 163,
      spotXMm: 0.045,
      spotYMm: 0.045,
      depthOfFocusMm: 0.9,
      depthGrowth: 0.1,
    }),
  ];
}

const COMPOUND_DEFAULTS = {
  ...(LATER_FIELDS.compound as Pick<
    CompoundBody,
    | 'makerClaim'
    | 'marks'
    | 'forceDry'
    | 'thinner'
    | 'thinnerMinorPerL'
    | 'potLifeHours'
    | 'dataSheet'
    | 'leadTimeDays'
    | 'availability'
    | 'help'
    | 'trackRecord'
  >),
  colour: 'black',
  containsPtfe: false,
  solventBased: true,
  coats: 1,
  distanceMinMm: 150,
  distanceMaxMm: 250,
  shakeS: 75,
  dryS: 240,
  shelfLifeDays: 30,
  volumeSolids: 0.3,
  massSolids: 0.12,
  dryDensity: 3.6,
  thinnerRatio: 0,
  thinnerDensityRatio: 0.9,
  cleaning: 'Plain water and a sponge',
  hazards: 'Metal oxides; flammable propellant.',
} satisfies Partial<CompoundBody>;

type CompoundSketch = Pick<
  CompoundBody,
  'name' | 'form' | 'handling' | 'statedBeams' | 'statedFamilies' | 'dryFilmMinUm' | 'dryFilmMaxUm' | 'sizes'
> &
  Partial<CompoundBody>;
const compound = (key: string, body: CompoundSketch): DemoItem<'compound'> => ({
  key,
  kind: 'compound',
  body: { ...COMPOUND_DEFAULTS, ...body },
});

const COMPOUNDS: readonly DemoItem<'compound'>[] = [
  compound('corvid', {
    name: 'Corvid Film',
    makerClaim: 'Black marks on bare metals by CO2 and fibre.',
    leadTimeDays: 3,
    availability: 8,
    help: 6,
    trackRecord: 9,
    form: 'metal film-forming',
    handling: 'can be touched',
    statedBeams: ['co2', 'near-infrared'],
    statedFamilies: ['stainless', 'steel', 'brass', 'copper', 'aluminium'],
    dryFilmMinUm: 8,
    dryFilmMaxUm: 12,
    sizes: [
      { label: '420 g can', netG: 420, priceMinor: 6800 },
      { label: '90 g can', netG: 90, priceMinor: 2600 },
    ],
  }),
  compound('soothollow', {
    name: 'Soothollow',
    makerClaim: 'Fast dark marks on any bare metal.',
    leadTimeDays: 10,
    availability: 5,
    help: 7,
    trackRecord: 6,
    form: 'metal powder-drying',
    handling: 'loose powder',
    statedBeams: ['co2', 'near-infrared'],
    statedFamilies: ['stainless', 'steel', 'brass', 'copper', 'aluminium'],
    dryFilmMinUm: 10,
    dryFilmMaxUm: 18,
    dryS: 300,
    shelfLifeDays: 2,
    massSolids: 0.1,
    dryDensity: 2.9,
    sizes: [{ label: '340 g can', netG: 340, priceMinor: 7400 }],
    hazards: 'Dries to loose powder of metal oxides: do not breathe or touch.',
  }),
  compound('greyslip', {
    name: 'Greyslip Dry Film',
    makerClaim: 'A lubricant; its maker says nothing of marking.',
    leadTimeDays: 1,
    availability: 10,
    help: 1,
    trackRecord: 4,
    form: 'dry-film lubricant',
    handling: 'can be touched',
    statedBeams: [],
    statedFamilies: ['stainless'],
    colour: 'dark grey',
    dryFilmMinUm: 10,
    dryFilmMaxUm: 20,
    dryS: 600,
    shelfLifeDays: null,
    massSolids: 0.15,
    dryDensity: 2.6,
    cleaning: 'Alcohol and scrubbing',
    hazards: 'Molybdenum disulphide gives sulphur dioxide under the beam.',
    sizes: [{ label: '400 mL can', netG: 300, priceMinor: 1450 }],
  }),
  compound('lampglaze', {
    name: 'Lampglaze Jar',
    makerClaim: 'Glass, glaze and enamel by CO2 at low power.',
    thinner: 'a very little water',
    leadTimeDays: 5,
    availability: 7,
    help: 8,
    trackRecord: 8,
    form: 'glass and ceramic',
    handling: 'rubs off',
    statedBeams: ['co2', 'near-infrared'],
    statedFamilies: ['glass', 'glazed ceramic', 'vitreous enamel'],
    solventBased: false,
    dryFilmMinUm: 18,
    dryFilmMaxUm: 28,
    dryS: 420,
    shelfLifeDays: 7,
    volumeSolids: 0.3,
    massSolids: 0.42,
    dryDensity: 2.4,
    shakeS: 60,
    cleaning: 'Plain water',
    hazards: 'Metal oxides; keep out of drains.',
    sizes: [{ label: '500 mL jar', netG: 640, priceMinor: 9800 }],
  }),
  compound('ternwhite', {
    name: 'Ternwhite Concentrate',
    makerClaim: 'One concentrate for metal, glass and ceramic by CO2.',
    thinner: 'denatured alcohol',
    thinnerMinorPerL: 1200,
    potLifeHours: 4,
    leadTimeDays: 6,
    availability: 6,
    help: 9,
    trackRecord: 6,
    form: 'universal',
    handling: 'can be touched',
    statedBeams: ['co2'],
    statedFamilies: ['stainless', 'steel', 'brass', 'glass', 'glazed ceramic', 'vitreous enamel'],
    dryFilmMinUm: 9,
    dryFilmMaxUm: 16,
    dryS: 300,
    shelfLifeDays: 20,
    volumeSolids: 0.4,
    massSolids: 0.55,
    dryDensity: 3.1,
    thinnerRatio: 1,
    thinnerDensityRatio: 0.6,
    hazards: 'Cut with denatured alcohol: poisonous and flammable.',
    sizes: [{ label: '250 mL bottle', netG: 330, priceMinor: 8900 }],
  }),
  compound('russet', {
    name: 'Russet Trial',
    makerClaim: 'Copper tones on stainless and steel by CO2.',
    leadTimeDays: 14,
    availability: 3,
    help: 5,
    form: 'coloured metal',
    handling: 'can be touched',
    statedBeams: ['co2'],
    statedFamilies: ['stainless', 'steel'],
    colour: 'copper tone',
    dryFilmMinUm: 9,
    dryFilmMaxUm: 14,
    sizes: [{ label: '90 g can', netG: 90, priceMinor: 3900 }],
  }),
];

function containers(refer: Refer, day: (ago: number) => string): DemoItem<'container'>[] {
  const container = (
    key: string,
    compoundKey: string,
    body: Omit<ContainerBody, 'compoundId'>,
  ): DemoItem<'container'> => ({ key, kind: 'container', body: { ...body, compoundId: refer(compoundKey) } });
  return [
    container('corvid-k7', 'corvid', {
      name: 'Corvid Film, lot K7',
      lot: 'K7',
      openedOn: day(60),
      expiresOn: day(-300),
      tareG: 96,
      netG: 420,
      priceMinor: 6800,
    }),
    container('corvid-k5', 'corvid', {
      name: 'Corvid Film, lot K5',
      lot: 'K5',
      openedOn: day(410),
      expiresOn: day(12),
      tareG: 96,
      netG: 420,
      priceMinor: 6800,
    }),
    container('soothollow-s2', 'soothollow', {
      name: 'Soothollow, lot S2',
      lot: 'S2',
      openedOn: day(120),
      expiresOn: day(-200),
      tareG: 88,
      netG: 340,
      priceMinor: 7400,
    }),
    container('greyslip-g1', 'greyslip', {
      name: 'Greyslip Dry Film, lot G1',
      lot: 'G1',
      openedOn: day(200),
      expiresOn: null,
      tareG: 84,
      netG: 300,
      priceMinor: 1450,
    }),
    container('lampglaze-l3', 'lampglaze', {
      name: 'Lampglaze Jar, lot L3',
      lot: 'L3',
      openedOn: day(90),
      expiresOn: day(-120),
      tareG: 210,
      netG: 640,
      priceMinor: 9800,
    }),
    container('lampglaze-l2', 'lampglaze', {
      name: 'Lampglaze Jar, lot L2',
      lot: 'L2',
      openedOn: day(345),
      expiresOn: day(-20),
      tareG: 210,
      netG: 640,
      priceMinor: 9600,
    }),
    container('ternwhite-r1', 'ternwhite', {
      name: 'Ternwhite Concentrate, lot R1',
      lot: 'R1',
      openedOn: day(392),
      expiresOn: day(-60),
      tareG: 62,
      netG: 330,
      priceMinor: 8700,
    }),
    container('ternwhite-r2', 'ternwhite', {
      name: 'Ternwhite Concentrate, lot R2',
      lot: 'R2',
      openedOn: null,
      expiresOn: day(-400),
      tareG: 62,
      netG: 330,
      priceMinor: 8900,
    }),
    container('russet-t1', 'russet', {
      name: 'Russet Trial, lot T1',
      lot: 'T1',
      openedOn: day(30),
      expiresOn: day(-150),
      tareG: 41,
      netG: 90,
      priceMinor: 3900,
    }),
  ];
}

/** A substrate with the handbook's thermal values of its material. */
function substrate(
  key: string,
  material: string,
  body: Pick<SubstrateBody, 'name' | 'layer' | 'finish' | 'thicknessMm'> & Partial<SubstrateBody>,
): DemoItem<'substrate'> {
  const known = HANDBOOK.find((entry) => entry.key === material)!;
  return {
    key,
    kind: 'substrate',
    body: {
      family: known.family,
      alloy: known.name,
      ground: 'light',
      gaugeNumber: null,
      gaugeMetal: null,
      conductivity: known.conductivity,
      diffusivity: known.diffusivity,
      density: known.density,
      thermalSource: handbookSource(known),
      curvature: '',
      diameterMm: null,
      ...body,
    },
  };
}

const SUBSTRATES: readonly DemoItem<'substrate'>[] = [
  substrate('stainless-12', '304', {
    name: '304 stainless 2B, 1.2 mm',
    layer: 'bare',
    finish: '2B',
    thicknessMm: 1.2,
  }),
  substrate('stainless-mirror', '304', {
    name: 'Mirror stainless strip, 0.6 mm',
    layer: 'bare',
    finish: 'mirror',
    thicknessMm: 0.635,
    gaugeNumber: 24,
    gaugeMetal: 'stainless',
  }),
  substrate('brass', 'cz108', { name: 'CZ108 brass, 1.6 mm', layer: 'bare', finish: 'brushed', thicknessMm: 1.6 }),
  substrate('copper', 'c101', { name: 'C101 copper, 1.0 mm', layer: 'bare', finish: 'mill', thicknessMm: 1 }),
  substrate('aluminium', '6082', {
    name: '6082 aluminium, 2 mm',
    layer: 'bare',
    finish: 'machined',
    thicknessMm: 2,
  }),
  substrate('anodised', '6082', {
    name: 'Black anodised aluminium, 1.5 mm',
    layer: 'anodised',
    finish: 'black',
    ground: 'dark',
    thicknessMm: 1.5,
  }),
  substrate('stakes', 'mild', {
    name: 'Painted steel plant stake',
    layer: 'painted',
    finish: 'green paint',
    ground: 'dark',
    thicknessMm: 2,
  }),
  substrate('beaker', 'borosilicate', {
    name: 'Borosilicate beaker, ø88',
    layer: 'bare',
    finish: 'clear',
    ground: 'clear',
    thicknessMm: 2.5,
    curvature: 'ø88 mm',
    diameterMm: 88,
  }),
  substrate('pane', 'soda-lime', {
    name: 'Soda-lime pane, 4 mm',
    layer: 'bare',
    finish: 'clear',
    ground: 'clear',
    thicknessMm: 4,
  }),
  substrate('enamel', 'enamel', {
    name: 'Vitreous enamel on steel, 90 mm',
    layer: 'bare',
    finish: 'white gloss',
    thicknessMm: 1.5,
  }),
  substrate('stoneware', 'stoneware', {
    name: 'Glazed stoneware pot, ø120',
    layer: 'bare',
    finish: 'celadon glaze',
    thicknessMm: 6,
    curvature: 'ø120 mm, tapered',
    diameterMm: 120,
  }),
];

function blanks(refer: Refer): DemoItem<'blank'>[] {
  const blank = (
    key: string,
    of: string | null,
    body: Pick<BlankBody, 'name' | 'supplier' | 'priceMinor' | 'left'> & Partial<BlankBody>,
    size: readonly [widthMm: number, heightMm: number, thicknessMm: number],
  ): DemoItem<'blank'> => ({
    key,
    kind: 'blank',
    body: {
      grade: '',
      lot: '',
      note: '',
      ...body,
      substrateId: of && refer(of),
      widthMm: size[0],
      heightMm: size[1],
      thicknessMm: size[2],
    },
  });
  const hollin = { supplier: 'Hollin Sheet and Section' };
  const potter = { supplier: 'Dunmore Enamels' };
  return [
    blank(
      'blank-tags',
      'stainless-12',
      { name: 'Bed tag blanks', ...hollin, grade: '304 2B', lot: 'H12', priceMinor: 62, left: 84 },
      [44.6, 27.8, 1.2],
    ),
    blank(
      'blank-circle',
      'brass',
      { name: 'Setting circle ring segments', ...hollin, grade: 'CZ108', priceMinor: 2150, left: 3 },
      [190, 24, 1.6],
    ),
    blank(
      'blank-markers',
      'enamel',
      { name: 'Trail marker discs', ...potter, lot: 'D-88', priceMinor: 410, left: 33 },
      [90, 90, 1.5],
    ),
    blank(
      'blank-plates',
      'anodised',
      { name: 'Drawer plates', ...hollin, grade: '6082', priceMinor: 48, left: 26 },
      [60, 20, 1.5],
    ),
    blank(
      'mystery',
      null,
      {
        name: 'Mystery blank box',
        supplier: 'found in the store room',
        priceMinor: 0,
        left: 40,
        note: 'Silvery strips, no label, one corner drilled.',
      },
      [80, 20, 1.3],
    ),
  ];
}

/** What counts, by occasion: 0 to 10 each. */
const PROFILES: readonly (readonly [key: string, name: string, about: string, weights: Partial<Weights>])[] = [
  [
    'profile-everyday',
    'everyday',
    'what usually matters here',
    { contrast: 7, rate: 5, evenness: 5, cleaning: 5, handling: 6, durability: 6, cost: 5 },
  ],
  [
    'profile-rush',
    'rush production',
    'many pieces, wanted soon',
    { contrast: 5, rate: 9, evenness: 4, cleaning: 6, handling: 6, durability: 4, cost: 6, availability: 2 },
  ],
  [
    'profile-hobby',
    'hobby evening',
    'few pieces, no hurry',
    { contrast: 6, rate: 1, evenness: 5, cleaning: 5, handling: 3, durability: 3, cost: 7, help: 2 },
  ],
  [
    'profile-heirloom',
    'heirloom',
    'one piece that must last',
    { contrast: 8, rate: 0, evenness: 8, cleaning: 1, handling: 2, durability: 10, cost: 0, trackRecord: 5 },
  ],
];

function profiles(): DemoItem<'profile'>[] {
  const none = Object.fromEntries(CRITERIA.map((criterion) => [criterion, 0])) as Weights;
  return PROFILES.map(([key, name, about, weights]) => ({
    key,
    kind: 'profile',
    body: { name, about, ...none, ...weights },
  }));
}

/** Metered points of the CO2 head, percent and watts; it fires from 7 %. */
const CO2_METERED = [
  [7, 1.2],
  [15, 6.1],
  [25, 12.4],
  [35, 18.7],
  [50, 27.6],
  [65, 35.9],
  [80, 43.6],
  [90, 47.9],
  [100, 50.6],
] as const;

/** All store items of the demo, in an order that satisfies their references. */
export function demoInventory(refer: Refer, day: (ago: number) => string): DemoItem[] {
  const calibration: DemoItem<'calibration'> = {
    key: 'co2-calibration',
    kind: 'calibration',
    body: {
      name: 'Long bench CO2, nine points',
      headId: refer('co2'),
      meteredOn: day(430),
      rows: CO2_METERED.map(([percent, watts]) => ({ percent, watts })),
    },
  };
  return [
    ...MACHINES,
    ...heads(refer),
    ...lenses(refer),
    calibration,
    ...COMPOUNDS,
    ...containers(refer, day),
    ...SUBSTRATES,
    ...blanks(refer),
    ...profiles(),
  ];
}
