import { LATER_FIELDS, NO_KIND, type CompoundBody } from '@unto/contract';
import type { DemoItem } from './demo-item.js';

const COMPOUND_DEFAULTS = {
  ...(LATER_FIELDS.compound as Pick<
    CompoundBody,
    | keyof typeof NO_KIND
    | 'airAssist'
    | 'makerClaim'
    | 'marks'
    | 'forceDry'
    | 'application'
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

export const COMPOUNDS: readonly DemoItem<'compound'>[] = [
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
    application: 'gun',
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
    application: 'airbrush',
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
