import type {
  CompoundBody,
  ContainerBody,
  HeadBody,
  LensBody,
  MachineBody,
  StoreBodyOf,
  StoreKind,
  SubstrateBody,
} from '@unto/contract';

/** A store item of the demo under a short key, from which its identifier is made. */
export interface DemoItem<K extends StoreKind = StoreKind> {
  readonly key: string;
  readonly kind: K;
  readonly body: StoreBodyOf[K];
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

function heads(refer: Refer): DemoItem<'head'>[] {
  const head = (key: string, body: Omit<HeadBody, 'machineId'>, machine: string): DemoItem<'head'> => ({
    key,
    kind: 'head',
    body: { ...body, machineId: refer(machine) },
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
        eyewear: 'the green pair marked 1064 nm',
      },
      'post',
    ),
  ];
}

function lenses(refer: Refer): DemoItem<'lens'>[] {
  const lens = (key: string, head: string, body: Omit<LensBody, 'headId'>): DemoItem<'lens'> => ({
    key,
    kind: 'lens',
    body: { ...body, headId: refer(head) },
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
  'name' | 'form' | 'handling' | 'statedBeams' | 'statedFamilies' | 'bandLowUm' | 'bandHighUm' | 'sizes'
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
    form: 'metal film-forming',
    handling: 'can be touched',
    statedBeams: ['co2', 'near-infrared'],
    statedFamilies: ['stainless', 'steel', 'brass', 'copper', 'aluminium'],
    bandLowUm: 8,
    bandHighUm: 12,
    sizes: [
      { label: '420 g can', netG: 420, priceMinor: 6800 },
      { label: '90 g can', netG: 90, priceMinor: 2600 },
    ],
  }),
  compound('soothollow', {
    name: 'Soothollow',
    form: 'metal powder-drying',
    handling: 'loose powder',
    statedBeams: ['co2', 'near-infrared'],
    statedFamilies: ['stainless', 'steel', 'brass', 'copper', 'aluminium'],
    bandLowUm: 10,
    bandHighUm: 18,
    dryS: 300,
    shelfLifeDays: 2,
    massSolids: 0.1,
    dryDensity: 2.9,
    sizes: [{ label: '340 g can', netG: 340, priceMinor: 7400 }],
    hazards: 'Dries to loose powder of metal oxides: do not breathe or touch.',
  }),
  compound('greyslip', {
    name: 'Greyslip Dry Film',
    form: 'dry-film lubricant',
    handling: 'can be touched',
    statedBeams: [],
    statedFamilies: ['stainless'],
    colour: 'dark grey',
    bandLowUm: 10,
    bandHighUm: 20,
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
    form: 'glass and ceramic',
    handling: 'rubs off',
    statedBeams: ['co2', 'near-infrared'],
    statedFamilies: ['glass', 'glazed ceramic', 'vitreous enamel'],
    solventBased: false,
    bandLowUm: 18,
    bandHighUm: 28,
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
    form: 'universal',
    handling: 'can be touched',
    statedBeams: ['co2'],
    statedFamilies: ['stainless', 'steel', 'brass', 'glass', 'glazed ceramic', 'vitreous enamel'],
    bandLowUm: 9,
    bandHighUm: 16,
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
    form: 'coloured metal',
    handling: 'can be touched',
    statedBeams: ['co2'],
    statedFamilies: ['stainless', 'steel'],
    colour: 'copper tone',
    bandLowUm: 9,
    bandHighUm: 14,
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

/** Conductivity W/(mm·K) and diffusivity mm²/s of the demo's materials: typical handbook values, see docs/sources.md. */
const METAL_304 = { conductivity: 0.0162, diffusivity: 4.05 };
const ALUMINIUM_6082 = { conductivity: 0.172, diffusivity: 71 };
const substrate = (
  key: string,
  body: Omit<SubstrateBody, 'thermalSource' | 'curvature'> & { curvature?: string },
): DemoItem<'substrate'> => ({
  key,
  kind: 'substrate',
  body: { thermalSource: 'typical handbook value', curvature: '', ...body },
});

const SUBSTRATES: readonly DemoItem<'substrate'>[] = [
  substrate('stainless-12', {
    name: '304 stainless 2B, 1.2 mm',
    family: 'stainless',
    layer: 'bare',
    finish: '2B',
    thicknessMm: 1.2,
    ...METAL_304,
  }),
  substrate('stainless-mirror', {
    name: 'Mirror stainless strip, 0.6 mm',
    family: 'stainless',
    layer: 'bare',
    finish: 'mirror',
    thicknessMm: 0.6,
    ...METAL_304,
  }),
  substrate('brass', {
    name: 'CZ108 brass, 1.6 mm',
    family: 'brass',
    layer: 'bare',
    finish: 'brushed',
    thicknessMm: 1.6,
    conductivity: 0.121,
    diffusivity: 37.6,
  }),
  substrate('copper', {
    name: 'C101 copper, 1.0 mm',
    family: 'copper',
    layer: 'bare',
    finish: 'mill',
    thicknessMm: 1,
    conductivity: 0.391,
    diffusivity: 113,
  }),
  substrate('aluminium', {
    name: '6082 aluminium, 2 mm',
    family: 'aluminium',
    layer: 'bare',
    finish: 'machined',
    thicknessMm: 2,
    ...ALUMINIUM_6082,
  }),
  substrate('anodised', {
    name: 'Black anodised aluminium, 1.5 mm',
    family: 'aluminium',
    layer: 'anodised',
    finish: 'black',
    thicknessMm: 1.5,
    ...ALUMINIUM_6082,
  }),
  substrate('stakes', {
    name: 'Painted steel plant stake',
    family: 'steel',
    layer: 'painted',
    finish: 'green paint',
    thicknessMm: 2,
    conductivity: 0.05,
    diffusivity: 13.5,
  }),
  substrate('beaker', {
    name: 'Borosilicate beaker, ø88',
    family: 'glass',
    layer: 'bare',
    finish: 'clear',
    thicknessMm: 2.5,
    conductivity: 0.0012,
    diffusivity: 0.65,
    curvature: 'ø88 mm',
  }),
  substrate('pane', {
    name: 'Soda-lime pane, 4 mm',
    family: 'glass',
    layer: 'bare',
    finish: 'clear',
    thicknessMm: 4,
    conductivity: 0.00105,
    diffusivity: 0.5,
  }),
  substrate('enamel', {
    name: 'Vitreous enamel on steel, 90 mm',
    family: 'vitreous enamel',
    layer: 'bare',
    finish: 'white gloss',
    thicknessMm: 1.5,
    conductivity: 0.001,
    diffusivity: 0.5,
  }),
  substrate('stoneware', {
    name: 'Glazed stoneware pot, ø120',
    family: 'glazed ceramic',
    layer: 'bare',
    finish: 'celadon glaze',
    thicknessMm: 6,
    conductivity: 0.0013,
    diffusivity: 0.7,
    curvature: 'ø120 mm, tapered',
  }),
];

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
export function demoStores(refer: Refer, day: (ago: number) => string): DemoItem[] {
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
  ];
}
