/**
 * What the functions behind the figures on screen do, in words. Keys are the names of core functions, so that the evidence
 * sheet leads from a number to its code; a test holds keys and exports together.
 */
export const FORMULAS = {
  arealDose: 'dose = passes × power ÷ (speed × line interval)',
  heatIndex:
    'heat index = highest surface rise under a moving Gaussian spot on this metal, per unit of beam absorbed (orders settings; not a temperature)',
  deliveredPower: 'power at the part, read off the head’s calibration curve (or rated watts × percent without one)',
  depthOfFocus: 'half depth = Rayleigh range × √((1 + growth)² − 1)',
  spotOffFocus: 'spot × √(1 + (height off focus ÷ Rayleigh range)²)',
  dryFilm: 'dry film = wet film × share of solids left after thinning',
  wetFilmFor: 'wet film = dry film wanted ÷ share of solids',
  compoundForJob: 'mass = area × dry density × dry film ÷ (share reaching the part × solids by mass)',
  compoundPrice: 'price = mass laid down × container price ÷ net contents',
  filmFromWeighing: 'dry film = mass laid down × share reaching the part × solids ÷ (dry density × coated area)',
  filmFromPartMass: 'dry film = dry mass on the part ÷ (dry density × coated area)',
  filmFromComb: 'dry film = (wetted tooth to dry tooth of the comb) × share of solids after thinning',
  judgeInspection: 'films that the looks allow, as multiples of the band, taken together where they overlap',
  combineFilms: 'readings of one film, weighted by how sure each is',
  strokesFor: 'strokes = mass ÷ mass a stroke lays, whole strokes in every coat',
  transferEfficiency: 'share reaching the part = dry mass on the part ÷ (mass laid down × solids by mass)',
  remainingPieces: 'pieces left = (container − tare) ÷ mass laid down per piece',
  rasterTime: 'time = rows × (width ÷ speed + turnaround) × passes, with run-up speed²/2a each side',
  couponRunTime: 'run time = time of every cell and label stroke, one after another, with the moves between them',
  areaRate: 'area rate = area of the mark ÷ time at the quickest setting that holds, turnarounds included',
  estimateFromSamples:
    'mean of the readings, with the interval of the mean by Student’s t (rounding of an eye scale included)',
  handlingScore:
    'touch (6 can be touched, 2.5 rubs off, 0 loose powder) + up to 4 for the days the dry coat keeps, of 10',
  shopScore: 'scored by the shop itself, 0 to 10',
  costPerPiece:
    'price = (blank + compound + thinner + laser minutes × rate + hands-on minutes × rate) ÷ share that comes out good',
  rankOptions: 'score = sum of weight share × worth of each criterion, 1 being the best',
  densityFromWeighing: 'density = weight ÷ volume',
  remainingGrams: 'left = container at its newest weighing − empty container',
  sparesFor:
    'fewest spares with which enough good pieces come out, by the pieces that came out good before (beta-binomial)',
  fitWaist: 'dot width² = a + b·height + c·height²: best height −b/2c, spot and Rayleigh range from the same curve',
  planFlatness: 'surface of least bending through the heights read; share of the artwork within the depth of focus',
  alignTwoPoints: 'turn = direction found − direction drawn; the middle of both pairs falls together, never scaled',
  pointerOffset: 'offset = mean of (mark − pointer), interval by Student’s t',
  fitCircle: 'circle of least squared distances through the rim points',
  planRotary: 'surface a degree = π × diameter ÷ 360',
  usableChord: 'widest chord whose sag is twice the depth of focus',
  settingFromWindow: 'quickest, safest or cheapest setting whose worst case still holds in the fitted window',
} as const;

export type FormulaName = keyof typeof FORMULAS;

/** Formula in words, or the bare name for a record made by a later release. */
export function formulaInWords(name: string): string {
  return name in FORMULAS ? FORMULAS[name as FormulaName] : name;
}
