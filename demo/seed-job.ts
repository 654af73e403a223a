import {
  fitWindow,
  contrastRanges,
  proposeOutcome,
  quickestSetting,
  settingFromWindow,
  type FiringNotes,
  type SettingRest,
  type SettingChoice,
} from '@unto/core';
import {
  EVENNESS_STEPS,
  type Coupon,
  type CreateRecipe,
  type Recipe,
  type Ticket,
  type Workshop,
  changeableFields,
} from '@unto/contract';
import {
  couponRules,
  couponWindowCells,
  newestReads,
  pictureEntriesOf,
  settingIn,
  settingJob,
  sprayedMix,
  windowEquipment,
  windowFamilies,
} from '@unto/domain';
import { demoEquipment, demoCompound } from './demo-equipment.js';
import type { DemoJob } from './job.js';
import { findFault } from './found-faults.js';
import { noteDown } from './remarks.js';
import type { Seeder } from './seeder.js';
import { demoInventory, type DemoItem } from './inventory/index.js';
import { LOOKS } from './ground-truth.js';

const OPERATORS = ['tobin', 'ines', 'mirela', 'tobin'] as const;
const SHOP: Pick<Workshop, 'bound' | 'tolerancePower' | 'toleranceFocusMm'> = {
  bound: 0.8,
  tolerancePower: 0.05,
  toleranceFocusMm: 0.3,
};

/** A recipe as far as its runs need it. */
type Taken = Pick<Recipe, 'id' | 'powerPercent' | 'speedMmPerS' | 'intervalMm' | keyof SettingRest>;

/** Plays a job of the demo through the services, as far as its stage says. */
export async function seedJob(seeder: Seeder, job: DemoJob): Promise<void> {
  const ticket = await openTicket(seeder, job);
  if (job.stage === 'choosing') return;
  await choose(seeder, job, ticket);
  await tick(seeder, job, 'prepare', ['bare', 'measured', 'flat', 'clean'], job.opened - 0.2);
  if (!job.truth || !job.axes) return;
  const coupon = await proveOnCoupon(seeder, job, 0);
  for (let again = 1; again < (job.coupons ?? 1); again += 1) await proveOnCoupon(seeder, job, again);
  if (job.stage === 'coupon rinsed') return;
  const recipe = job.uses ? await useRecipe(seeder, job, job.uses) : await takeRecipe(seeder, job, coupon);
  if (job.stage === 'coating') await startCoating(seeder, job);
  else if (recipe) await runPieces(seeder, job, recipe);
}

async function openTicket(seeder: Seeder, job: DemoJob): Promise<Ticket> {
  const body = {
    id: seeder.id(job.key),
    title: job.title,
    pieces: job.pieces,
    markWidthMm: job.mark[0],
    markHeightMm: job.mark[1],
    coatMarginMm: 3,
    substrateId: seeder.id(job.substrate),
    headId: seeder.id(job.head),
    lensId: seeder.id(job.lens),
    aim: job.aim,
    foodUse: job.foodUse ?? false,
    wantedOn: job.wanted === null ? null : seeder.day(job.wanted),
    note: job.note ?? '',
  };
  return seeder.call('createTicket', body, { daysAgo: job.opened, by: 'ines' });
}

async function choose(seeder: Seeder, job: DemoJob, ticket: Ticket): Promise<void> {
  const { id } = ticket;
  const fields = changeableFields(ticket);
  const body = {
    ...fields,
    compoundId: job.compound ? seeder.id(job.compound) : null,
    choiceReason: job.reason,
    state: job.stage === 'done' ? 'done' : 'open',
  };
  await seeder.call('changeTicket', body, { daysAgo: job.opened - 0.1, by: 'ines', id });
}

async function tick(
  seeder: Seeder,
  job: DemoJob,
  station: string,
  codes: readonly string[],
  daysAgo: number,
): Promise<void> {
  for (const code of codes) {
    await seeder.call(
      'createCheck',
      { id: seeder.id(`${job.key}-${station}-${code}`), station, kind: 'check', code },
      { daysAgo, by: 'tobin', id: seeder.id(job.key) },
    );
  }
}

/** As everything here is fired: air off, extraction on, power held through the turns. */
const FIRED: FiringNotes = { air: 'off', extraction: 'on', powerMode: 'constant' };

/** Designs and burns a coupon, and reads what the simulated camera made of it after the rinse and after the scrub. */
async function proveOnCoupon(seeder: Seeder, job: DemoJob, again: number): Promise<Coupon> {
  const name = `${job.key}${again ? `-again-${again}` : ''}`;
  const id = seeder.id(`${name}-coupon`);
  // A coupon to look again is made some days into the job.
  const at = (daysAgo: number) => ({ daysAgo: daysAgo - 4 * again, by: 'tobin', id });
  const shot = seeder.pictures.of(job, again);
  const body = {
    id,
    ticketId: seeder.id(job.key),
    substrateId: seeder.id(job.substrate),
    compoundId: job.compound ? seeder.id(job.compound) : null,
    headId: seeder.id(job.head),
    lensId: seeder.id(job.lens),
    focusOffsetMm: 0,
    design: shot.design,
  };
  const made = await seeder.call('createCoupon', body, at(job.opened - 0.3));
  if (made.design.code !== shot.design.code)
    throw new Error(`${name} became ${made.design.code}, but was pictured as ${shot.design.code}.`);
  let coupon = await seeder.call('markBurnt', { version: 1, notes: FIRED }, at(job.opened - 0.4));
  const rules = couponRules(job.aim.tone, demoCompound(seeder, job.compound));
  for (const [stage, daysAgo] of [
    ['rinsed', job.opened - 0.5],
    ['scrubbed', job.opened - 0.6],
  ] as const) {
    if (stage === 'scrubbed' && job.stage === 'coupon rinsed') break;
    const { jpeg, reading, level } = await shot[stage]();
    const range = contrastRanges(reading.print);
    const { hash } = await seeder.keepFile(`${shot.design.code}, ${stage}.jpg`, jpeg, at(daysAgo));
    const straight = await seeder.keepFile(`${shot.design.code}, ${stage}, straight.jpg`, level.jpeg, at(daysAgo));
    const entries = {
      ...pictureEntriesOf(reading, hash, false),
      level: { fileHash: straight.hash, pxMm: level.pxMm },
    };
    const pictureId = seeder.id(`${name}-${stage}-picture`);
    await seeder.call('createCouponPicture', { id: pictureId, stage, entries }, at(daysAgo));
    const before = coupon.pictures.find((picture) => picture.stage === 'rinsed')?.entries;
    const outcomes = entries.cells.flatMap((measure) => {
      const earlier =
        stage === 'scrubbed' && before ? { measure: before.cells[measure.cell]!, noise: before.noise } : null;
      const proposed = proposeOutcome(measure, earlier, rules, job.aim.tone, range);
      return proposed ? [{ cell: measure.cell, outcome: proposed.outcome }] : [];
    });
    const read = { id: seeder.id(`${name}-${stage}`), stage, source: 'picture', pictureId, rules, entries: outcomes };
    coupon = await seeder.call('createReading', read, at(daysAgo));
  }
  return coupon;
}

/** The recipe of an earlier job of the same pairing, taken into use. */
async function useRecipe(seeder: Seeder, job: DemoJob, from: string): Promise<Taken> {
  const body = { id: seeder.id(`${job.key}-recipe-use`), recipeId: seeder.id(`${from}-recipe`) };
  return seeder.call('createRecipeUse', body, { daysAgo: job.opened - 0.7, by: 'ines', id: seeder.id(job.key) });
}

async function takeRecipe(seeder: Seeder, job: DemoJob, coupon: Coupon): Promise<Taken | null> {
  const equipment = demoEquipment(seeder, job);
  const reads = newestReads(coupon, 'scrubbed');
  const family = windowFamilies(couponWindowCells(coupon, coupon.compoundId, reads, equipment))[0]!;
  const fit = fitWindow({ cells: family.cells, equipment: windowEquipment(equipment), seed: 7 });
  const mark = { widthMm: job.mark[0], heightMm: job.mark[1] };
  const search = settingJob(equipment, mark, SHOP, 150);
  const quickest = quickestSetting(fit, search);
  const chosen: SettingChoice | null = quickest ?? settingFromWindow(fit, search).widest;
  if (!chosen) return null;
  const { powerW: _powerW, ...setting } = settingIn(family, chosen);
  const body: CreateRecipe = {
    id: seeder.id(`${job.key}-recipe`),
    ticketId: seeder.id(job.key),
    kind: quickest ? 'quickest' : 'widest',
    couponIds: [coupon.id],
    ...setting,
    seed: 7,
  };
  await seeder.call('createRecipe', body, { daysAgo: job.opened - 0.7, by: 'ines' });
  return body;
}

async function startCoating(seeder: Seeder, job: DemoJob): Promise<void> {
  await weigh(seeder, job, 0, 4, 3 / 1440);
  await seeder.call(
    'createTimer',
    { id: seeder.id(`${job.key}-dry`), kind: 'dry', label: 'beakers 1-4', minimumS: 420 },
    { daysAgo: 2 / 1440, by: 'tobin', id: seeder.id(job.key) },
  );
}

/** Container and parts weighed; the film that results wanders round the job's mean. */
async function weigh(seeder: Seeder, job: DemoJob, index: number, pieces: number, daysAgo: number): Promise<void> {
  if (!job.film || !job.container) return;
  const items = demoInventory(
    (key) => seeder.id(key),
    (ago) => seeder.day(ago),
  );
  const container = items.find((item): item is DemoItem<'container'> => item.key === job.container)!.body;
  const compound = items.find((item): item is DemoItem<'compound'> => item.key === job.compound)!.body;
  const area = (job.mark[0] + 6) * (job.mark[1] + 6) * pieces;
  const share = seeder.near(job.film.transfer, 0.08, 4);
  const dry = Number((seeder.near(job.film.meanUm, 0.1, 2) * area * compound.dryDensity * 1e-6).toFixed(2));
  const laid = Number((dry / (share * sprayedMix(compound).massSolids)).toFixed(1));
  const used = (job.opened > 100 ? 60 : 20) + index * laid;
  const before = Number(Math.max(container.tareG + laid + 6, container.tareG + container.netG - used).toFixed(1));
  const partsWeighed = index % 2 === 0 && dry > 0.1;
  const bare = Number((pieces * 18.4).toFixed(2));
  const body = {
    id: seeder.id(`${job.key}-weighing-${index}`),
    containerId: seeder.id(job.container),
    pieces,
    before: { value: before, unit: 'g' },
    after: { value: Number((before - laid).toFixed(1)), unit: 'g' },
    partsBefore: partsWeighed ? { value: bare, unit: 'g' } : null,
    partsAfter: partsWeighed ? { value: Number((bare + dry).toFixed(2)), unit: 'g' } : null,
    correctsId: null,
  };
  await seeder.call('createWeighing', body, { daysAgo, by: OPERATORS[index % 4]!, id: seeder.id(job.key) });
}

/** The coat just weighed dries under its clock until its gloss is gone. */
async function dry(seeder: Seeder, job: DemoJob, index: number, daysAgo: number): Promise<void> {
  const id = seeder.id(`${job.key}-dried-${index}`);
  const minimumS = demoCompound(seeder, job.compound)!.dryS;
  const by = OPERATORS[index % 4]!;
  const timer = { id, kind: 'dry', label: `coat ${index + 1}`, minimumS };
  await seeder.call('createTimer', timer, { daysAgo, by, id: seeder.id(job.key) });
  const later = daysAgo - (minimumS + 60) / 86_400;
  await seeder.call('endTimer', { outcome: 'passed' }, { daysAgo: later, by, id });
}

async function runPieces(seeder: Seeder, job: DemoJob, recipe: Taken): Promise<void> {
  if (!job.runs || !job.piecesPerRun) return;
  await tick(seeder, job, 'place', ['focus', 'thickness', 'placed'], job.opened - 0.8);
  await readPlace(seeder, job);
  const span = Math.max(1, job.opened - 1 - Math.max(0, job.wanted ?? 0));
  for (let i = 0; i < job.runs; i += 1) {
    const daysAgo = job.opened - 1 - (span * i) / job.runs;
    if (i % 4 === 0 && job.film) {
      await weigh(seeder, job, i / 4, job.piecesPerRun * Math.min(4, job.runs - i), daysAgo + 0.1);
      await dry(seeder, job, i / 4, daysAgo + 0.09);
    }
    await runOnce(seeder, job, recipe, i, daysAgo);
  }
  if (job.coatedAhead) {
    await weigh(seeder, job, job.runs, job.coatedAhead, 0.2);
    await dry(seeder, job, job.runs, 0.19);
  }
  await noteDown(seeder, job);
}

/** Dots of the CO2 head's focus hunt, and the heights of a box whose blanks came bent up at one corner. */
const DOTS = [
  [5.5, 0.262],
  [6.5, 0.199],
  [7.5, 0.166],
  [8.5, 0.178],
  [9.5, 0.231],
] as const;
const BENT = [
  [0, 0, 0.05],
  [1, 0, 0.2],
  [1, 1, 1.35],
  [0, 1, 0.15],
  [0.5, 0.5, 0.3],
] as const;

async function readPlace(seeder: Seeder, job: DemoJob): Promise<void> {
  if (job.key !== 'orchid') return;
  const at = { daysAgo: job.opened - 0.9, by: 'tobin', id: seeder.id(job.key) };
  const dots = DOTS.map(([heightMm, widthMm]) => ({ heightMm, widthMm }));
  await seeder.call(
    'createPlaceReading',
    { id: seeder.id('orchid-focus'), kind: 'focus', entries: { dots, growth: 0.05 }, decision: 'taken', note: '' },
    at,
  );
  const readings = BENT.map(([x, y, heightMm]) => ({ xMm: x * job.mark[0], yMm: y * job.mark[1], heightMm }));
  await seeder.call(
    'createPlaceReading',
    {
      id: seeder.id('orchid-flatness'),
      kind: 'flatness',
      entries: { readings, focusMm: 0.1 },
      decision: 'rejected',
      note: 'box 3',
    },
    { ...at, daysAgo: 2 },
  );
}

/** The rest of a recipe's setting, as it was set for the run. */
function restOf(recipe: Taken) {
  const { passes, hatches, angleDeg, fill, focusOffsetMm, frequencyKHz, pulseNs, directions, powerMode, extraction } =
    recipe;
  return {
    ...{ passes, hatches, angleDeg, fill, focusOffsetMm, frequencyKHz, pulseNs, directions, powerMode, extraction },
  };
}

async function runOnce(seeder: Seeder, job: DemoJob, recipe: Taken, index: number, daysAgo: number): Promise<void> {
  const by = OPERATORS[index % 4]!;
  const id = seeder.id(`${job.key}-run-${index}`);
  const pieces = job.piecesPerRun!;
  const seconds =
    (job.mark[1] / recipe.intervalMm) * (job.mark[0] / recipe.speedMmPerS + (2 * recipe.speedMmPerS) / 5000);
  const run = {
    id,
    ticketId: seeder.id(job.key),
    recipeId: recipe.id,
    correctsId: null,
    pieces,
    power: { value: recipe.powerPercent, unit: '%' },
    speed: { value: recipe.speedMmPerS, unit: 'mm/s' },
    interval: { value: recipe.intervalMm, unit: 'mm' },
    ...restOf(recipe),
    air: job.air ?? 'off',
    minutes: Math.max(0.5, seeder.near((seconds * pieces) / 60, 0.04, 1)),
    note: '',
    reason: 'Tried on one piece first; it held.',
  };
  await seeder.call('createRun', run, { daysAgo, by });
  const lubricant = job.compound === 'greyslip';
  const look = LOOKS[job.truth!];
  const cleaning = {
    id: seeder.id(`${job.key}-clean-${index}`),
    method: lubricant ? 'alcohol and scrubbing' : job.compound ? 'water and sponge' : 'isopropyl alcohol',
    minutes: Math.max(0.1, seeder.near(look.cleanMinutes * pieces, 0.3)),
    residue: lubricant && index % 3 === 0 ? 'some' : index % 5 === 0 ? 'trace' : 'none',
  };
  await seeder.call('createCleaning', cleaning, { daysAgo: daysAgo - 0.02, by, id });
  const faulty = job.faults !== undefined && (index + 1) % job.faults.every === 0;
  const judgement = {
    id: seeder.id(`${job.key}-judge-${index}`),
    contrastStep: byEye(seeder, look.contrast - (job.paler ?? 0) - (faulty ? 1 : 0)),
    evenness: EVENNESS_STEPS[byEye(seeder, look.evenness - (faulty ? 1.5 : 0)) - 1]!,
    piecesGood: faulty ? Math.max(0, pieces - 1) : pieces,
    faults: faulty ? [job.faults!.fault] : [],
    tests: [
      { test: 'abrasive pad', result: faulty ? 'slightly paler' : 'no change' },
      ...(index % 4 === 0 ? [{ test: 'denatured alcohol', result: 'no change' }] : []),
    ],
    note: '',
  };
  await seeder.call('createJudgement', judgement, { daysAgo: daysAgo - 0.03, by, id });
  if (faulty)
    await findFault(seeder, job, { id, pieces, nth: (index + 1) / job.faults!.every - 1, daysAgo: daysAgo - 0.03 });
}

/** A step of a five-step scale as an eye reads it: off by a half now and then. */
function byEye(seeder: Seeder, mean: number): number {
  return Math.min(5, Math.max(1, Math.round(mean + 1.2 * (seeder.random() - 0.5))));
}
