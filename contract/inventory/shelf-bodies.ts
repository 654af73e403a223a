import { array, type TestContext } from 'yup';
import {
  APPLICATIONS,
  COAT_HANDLINGS,
  COMPOUND_FORMS,
  CRITERIA,
  CRITERION_INFO,
  GAUGE_METALS,
  gaugeToMm,
  SUBSTRATE_FAMILIES,
  SURFACE_LAYERS,
  SWITCH_STATES,
  WAVELENGTH_CLASSES,
  type Criterion,
  type GaugeMetal,
} from '@unto/core';
import {
  day,
  note,
  notNegative,
  oneOf,
  optionalNumber,
  optionalOneOf,
  optionalScore,
  positive,
  share,
  shape,
  someOf,
  storedFile,
  text,
  uuid,
  whole,
  within,
  yes,
} from '../fields/index.js';
import { ofKind } from './of-kind.js';

/** Whether a compound's mark is darker or lighter than what it stands on. */
export const MARK_TONES = ['dark', 'light'] as const;
/** How light a substrate's ground is: a pale blank hides a pale mark. */
export const GROUNDS = ['light', 'dark', 'clear'] as const;
export const FORCE_DRYING = ['never', 'as its maker says'] as const;

/** How far a typed thickness may stand from its gauge: half a hundredth of a millimetre of rounding, and 2 %. */
const gaugeSlack = (mm: number) => 0.005 + 0.02 * mm;

interface Gauged {
  readonly gaugeNumber: number | null;
  readonly gaugeMetal: GaugeMetal | null;
}

function gaugeNeedsMetal(metal: string | null | undefined, context: TestContext) {
  const { gaugeNumber } = context.parent as Gauged;
  if (gaugeNumber === null || gaugeNumber === undefined) return true;
  try {
    gaugeToMm(gaugeNumber, metal as GaugeMetal | null);
    return true;
  } catch (error) {
    return context.createError({ message: (error as Error).message });
  }
}

function thicknessOfGauge(thickness: number | undefined, context: TestContext) {
  const { gaugeNumber, gaugeMetal } = context.parent as Gauged;
  if (typeof thickness !== 'number' || gaugeNumber == null || gaugeMetal == null) return true;
  let mm: number;
  try {
    mm = gaugeToMm(gaugeNumber, gaugeMetal);
  } catch {
    return true; // said at the gauge itself
  }
  return (
    Math.abs(thickness - mm) <= gaugeSlack(mm) ||
    context.createError({
      message: `Gauge ${gaugeNumber} of ${gaugeMetal} is ${mm.toFixed(3)} mm; the thickness says ${thickness} mm.`,
    })
  );
}

export const compoundBody = ofKind({
  name: text('Name'),
  form: oneOf('Form', COMPOUND_FORMS),
  colour: text('Colour', 60),
  statedBeams: someOf('Beams its maker names', WAVELENGTH_CLASSES),
  statedFamilies: someOf('Materials its maker names', SUBSTRATE_FAMILIES),
  makerClaim: note('What its maker says it is for', 500),
  marks: oneOf('Its mark is', MARK_TONES),
  containsPtfe: yes('Holds PTFE'),
  solventBased: yes('Solvent-based'),
  handling: oneOf('Dry coat', COAT_HANDLINGS),
  /** How the air is to stand over it as it is fired; null where the shop has no rule. */
  airAssist: optionalOneOf('Air assist over it', SWITCH_STATES),
  dryFilmMinUm: positive('Dry film from', 'µm'),
  dryFilmMaxUm: positive('Dry film to', 'µm').test(
    'rises',
    'The coat band must rise: its thick end lies below its thin end.',
    (value, { parent }) => !(value <= parent.dryFilmMinUm),
  ),
  application: oneOf('Laid on with', APPLICATIONS),
  coats: whole('Coats', 1, 10),
  distanceMinMm: positive('Distance from', 'mm'),
  distanceMaxMm: positive('Distance to', 'mm'),
  shakeS: notNegative('Shake', 's'),
  dryS: positive('Dry by itself', 's'),
  forceDry: oneOf('Forced drying', FORCE_DRYING),
  shelfLifeDays: optionalNumber('A dry coat keeps', 'days'),
  volumeSolids: share('Solids by volume, wet film', 0.001, 1),
  massSolids: share('Solids by mass, as it leaves the container', 0.001, 1),
  dryDensity: positive('Dry density', 'g/cm³'),
  thinner: note('Thinner', 60),
  thinnerRatio: notNegative('Thinner per part', 'parts'),
  thinnerDensityRatio: positive('Thinner ÷ compound density'),
  thinnerMinorPerL: notNegative('Thinner price a litre'),
  potLifeHours: optionalNumber('A mix keeps', 'h'),
  cleaning: text('Cleaning', 300),
  hazards: note('Hazards'),
  dataSheet: storedFile('Data sheet'),
  leadTimeDays: optionalNumber('Delivered within', 'days'),
  availability: optionalScore('To be had, your score'),
  help: optionalScore('Maker’s help, your score'),
  trackRecord: optionalScore('Track record, your score'),
  sizes: array()
    .of(
      shape({
        label: text('Size', 40),
        netG: positive('Net contents', 'g'),
        priceMinor: whole('Price', 0, 100_000_000),
      }),
    )
    .label('Container sizes')
    .required()
    .min(1, 'Name at least one container size with its price.')
    .max(50, 'A compound has at most 50 sizes.'),
});

export const containerBody = ofKind({
  name: text('Name'),
  compoundId: uuid().label('Compound'),
  lot: text('Lot', 60),
  openedOn: day('Opened on').nullable().defined().default(null),
  expiresOn: day('Use by').nullable().defined().default(null),
  tareG: positive('Empty container', 'g'),
  netG: positive('Net contents', 'g'),
  priceMinor: whole('Price', 0, 100_000_000),
});

export const substrateBody = ofKind({
  name: text('Name'),
  family: oneOf('Family', SUBSTRATE_FAMILIES),
  alloy: note('Alloy or body', 80),
  layer: oneOf('Surface layer', SURFACE_LAYERS),
  finish: text('Finish', 100),
  ground: oneOf('Its ground is', GROUNDS),
  gaugeNumber: optionalNumber('Gauge'),
  gaugeMetal: optionalOneOf('Metal of the gauge', GAUGE_METALS).test('gauge', gaugeNeedsMetal),
  thicknessMm: positive('Thickness', 'mm').test('gauge', thicknessOfGauge),
  conductivity: positive('Thermal conductivity', 'W/(mm·K)'),
  diffusivity: positive('Thermal diffusivity', 'mm²/s'),
  thermalSource: text('Source of the thermal values', 200),
  density: optionalNumber('Density', 'g/cm³'),
  curvature: note('Curvature', 100),
  diameterMm: optionalNumber('Diameter', 'mm'),
});

/** Blanks as bought and measured; the substrate stays open until somebody knows what they are. */
export const blankBody = ofKind({
  name: text('Name'),
  substrateId: uuid().label('Substrate').nullable().defined().default(null),
  supplier: text('Supplier', 120),
  grade: note('Grade', 80),
  lot: note('Lot', 60),
  priceMinor: whole('Price of one', 0, 100_000_000),
  widthMm: positive('Measured width', 'mm'),
  heightMm: positive('Measured height', 'mm'),
  thicknessMm: positive('Measured thickness', 'mm'),
  left: whole('Left on the shelf', 0, 1_000_000),
  note: note('Note', 500),
});

const weight = (criterion: Criterion) => {
  const { label } = CRITERION_INFO[criterion];
  return within(label.charAt(0).toUpperCase() + label.slice(1), 0, 10);
};

/** What counts in this shop, 0 to 10 each; only the proportions matter. */
export const weightFields = Object.fromEntries(CRITERIA.map((criterion) => [criterion, weight(criterion)])) as Record<
  Criterion,
  ReturnType<typeof weight>
>;
export const profileBody = shape({
  name: text('Name', 60),
  about: note('For', 200),
  ...weightFields,
});
