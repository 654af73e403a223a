import { fitWindow, proposeOutcome, quickestSetting, settingFromWindow, type SettingChoice } from '@unto/core';
import { EVENNESS_STEPS, type Coupon, type CreateRecipe, type Ticket, type Workshop } from '@unto/contract';
import { couponRules, couponWindowCells, pictureEntriesOf, settingJob, windowBench } from '@unto/domain';
import { demoBench, demoCompound } from './demo-bench.js';
import type { DemoJob } from './job.js';
import type { Scribe } from './scribe.js';
import { demoStores, type DemoItem } from './stores.js';
import { LOOKS } from './truths.js';

const OPERATORS = ['tobin', 'ines', 'mirela', 'tobin'] as const;
const SHOP: Pick<Workshop, 'bound' | 'tolerancePower' | 'toleranceFocusMm'> = {
  bound: 0.8,
  tolerancePower: 0.05,
  toleranceFocusMm: 0.3,
};

/** Plays a job of the demo through the services, as far as its stage says. */
export async function playJob(scribe: Scribe, job: DemoJob): Promise<void> {
  const ticket = await openTicket(scribe, job);
  if (job.stage === 'choosing') return;
  await choose(scribe, job, ticket);
  await tick(scribe, job, 'prepare', ['bare', 'measured', 'flat', 'clean'], job.opened - 0.2);
  if (!job.truth || !job.axes) return;
  const coupon = await proveOnCoupon(scribe, job, 0);
  for (let again = 1; again < (job.coupons ?? 1); again += 1) await proveOnCoupon(scribe, job, again);
  if (job.stage === 'coupon rinsed') return;
  const recipe = await takeRecipe(scribe, job, coupon);
  if (job.stage === 'coating') await startCoating(scribe, job);
  else if (recipe) await runPieces(scribe, job, recipe);
}

async function openTicket(scribe: Scribe, job: DemoJob): Promise<Ticket> {
  const body = {
    id: scribe.id(job.key),
    title: job.title,
    pieces: job.pieces,
    markWidthMm: job.mark[0],
    markHeightMm: job.mark[1],
    coatMarginMm: 3,
    substrateId: scribe.id(job.substrate),
    headId: scribe.id(job.head),
    lensId: scribe.id(job.lens),
    aim: job.aim,
    foodUse: job.foodUse ?? false,
    wantedOn: job.wanted === null ? null : scribe.day(job.wanted),
    note: job.note ?? '',
  };
  return scribe.call('createTicket', body, { daysAgo: job.opened, by: 'ines' });
}

async function choose(scribe: Scribe, job: DemoJob, ticket: Ticket): Promise<void> {
  const { id, number: _number, createdAt: _created, changedAt: _changed, ...fields } = ticket;
  const body = {
    ...fields,
    compoundId: job.compound ? scribe.id(job.compound) : null,
    choiceReason: job.reason,
    state: job.stage === 'done' ? 'done' : 'open',
  };
  await scribe.call('changeTicket', body, { daysAgo: job.opened - 0.1, by: 'ines', id });
}

async function tick(
  scribe: Scribe,
  job: DemoJob,
  station: string,
  codes: readonly string[],
  daysAgo: number,
): Promise<void> {
  for (const code of codes) {
    await scribe.call(
      'createCheck',
      { id: scribe.id(`${job.key}-${station}-${code}`), station, kind: 'check', code },
      { daysAgo, by: 'tobin', id: scribe.id(job.key) },
    );
  }
}

/** Designs and burns a coupon, and reads what the stand-in camera made of it after the rinse and after the scrub. */
async function proveOnCoupon(scribe: Scribe, job: DemoJob, again: number): Promise<Coupon> {
  const name = `${job.key}${again ? `-again-${again}` : ''}`;
  const id = scribe.id(`${name}-coupon`);
  // A coupon to look again is made some days into the job.
  const at = (daysAgo: number) => ({ daysAgo: daysAgo - 4 * again, by: 'tobin', id });
  const shot = scribe.pictures.of(job, again);
  const body = {
    id,
    ticketId: scribe.id(job.key),
    substrateId: scribe.id(job.substrate),
    compoundId: job.compound ? scribe.id(job.compound) : null,
    headId: scribe.id(job.head),
    lensId: scribe.id(job.lens),
    focusOffsetMm: 0,
    design: shot.design,
  };
  const made = await scribe.call<Coupon>('createCoupon', body, at(job.opened - 0.3));
  if (made.design.code !== shot.design.code)
    throw new Error(`${name} became ${made.design.code}, but was pictured as ${shot.design.code}.`);
  let coupon = await scribe.call<Coupon>('markBurnt', { version: 1 }, at(job.opened - 0.4));
  const rules = couponRules(job.aim.tone, demoCompound(scribe, job.compound));
  for (const [stage, daysAgo] of [
    ['rinsed', job.opened - 0.5],
    ['scrubbed', job.opened - 0.6],
  ] as const) {
    if (stage === 'scrubbed' && job.stage === 'coupon rinsed') break;
    const { jpeg, reading } = await shot[stage]();
    const { hash } = await scribe.keepFile(`${shot.design.code}, ${stage}.jpg`, jpeg, at(daysAgo));
    const entries = pictureEntriesOf(reading, hash, false);
    const pictureId = scribe.id(`${name}-${stage}-picture`);
    await scribe.call('createCouponPicture', { id: pictureId, stage, entries }, at(daysAgo));
    const before = coupon.pictures.find((picture) => picture.stage === 'rinsed')?.entries;
    const outcomes = entries.cells.flatMap((measure) => {
      const earlier =
        stage === 'scrubbed' && before ? { measure: before.cells[measure.cell]!, noise: before.noise } : null;
      const proposed = proposeOutcome(measure, earlier, rules, job.aim.tone);
      return proposed ? [{ cell: measure.cell, outcome: proposed.outcome }] : [];
    });
    const read = { id: scribe.id(`${name}-${stage}`), stage, source: 'picture', pictureId, rules, entries: outcomes };
    coupon = await scribe.call<Coupon>('createReading', read, at(daysAgo));
  }
  return coupon;
}

async function takeRecipe(scribe: Scribe, job: DemoJob, coupon: Coupon): Promise<CreateRecipe | null> {
  const bench = demoBench(scribe, job);
  const cells = couponWindowCells(coupon, bench);
  const fit = fitWindow({ cells, bench: windowBench(bench), seed: 7 });
  const mark = { widthMm: job.mark[0], heightMm: job.mark[1] };
  const search = settingJob(bench, mark, SHOP, 150);
  const quickest = quickestSetting(fit, search);
  const chosen: SettingChoice | null = quickest ?? settingFromWindow(fit, search).widest;
  if (!chosen) return null;
  const body: CreateRecipe = {
    id: scribe.id(`${job.key}-recipe`),
    ticketId: scribe.id(job.key),
    kind: quickest ? 'quickest' : 'widest',
    couponIds: [coupon.id],
    powerPercent: chosen.powerPercent,
    speedMmPerS: chosen.speedMmPerS,
    intervalMm: chosen.intervalMm,
    passes: chosen.passes,
    focusOffsetMm: 0,
    seed: 7,
  };
  await scribe.call('createRecipe', body, { daysAgo: job.opened - 0.7, by: 'ines' });
  return body;
}

async function startCoating(scribe: Scribe, job: DemoJob): Promise<void> {
  await weigh(scribe, job, 0, 4, 3 / 1440);
  await scribe.call(
    'createClock',
    { id: scribe.id(`${job.key}-dry`), kind: 'dry', label: 'beakers 1-4', minimumS: 420 },
    { daysAgo: 2 / 1440, by: 'tobin', id: scribe.id(job.key) },
  );
}

/** Container and parts weighed; the film that results wanders round the job's mean. */
async function weigh(scribe: Scribe, job: DemoJob, index: number, pieces: number, daysAgo: number): Promise<void> {
  if (!job.film || !job.container) return;
  const items = demoStores(
    (key) => scribe.id(key),
    (ago) => scribe.day(ago),
  );
  const container = items.find((item): item is DemoItem<'container'> => item.key === job.container)!.body;
  const compound = items.find((item): item is DemoItem<'compound'> => item.key === job.compound)!.body;
  const area = (job.mark[0] + 6) * (job.mark[1] + 6) * pieces;
  const share = scribe.near(job.film.transfer, 0.08, 4);
  const dry = Number((scribe.near(job.film.meanUm, 0.1, 2) * area * compound.dryDensity * 1e-6).toFixed(2));
  const laid = Number((dry / (share * sprayedMix(compound).massSolids)).toFixed(1));
  const used = (job.opened > 100 ? 60 : 20) + index * laid;
  const before = Number(Math.max(container.tareG + laid + 6, container.tareG + container.netG - used).toFixed(1));
  const partsWeighed = index % 2 === 0 && dry > 0.1;
  const bare = Number((pieces * 18.4).toFixed(2));
  const body = {
    id: scribe.id(`${job.key}-weighing-${index}`),
    containerId: scribe.id(job.container),
    pieces,
    before: { value: before, unit: 'g' },
    after: { value: Number((before - laid).toFixed(1)), unit: 'g' },
    partsBefore: partsWeighed ? { value: bare, unit: 'g' } : null,
    partsAfter: partsWeighed ? { value: Number((bare + dry).toFixed(2)), unit: 'g' } : null,
    correctsId: null,
  };
  await scribe.call('createWeighing', body, { daysAgo, by: OPERATORS[index % 4]!, id: scribe.id(job.key) });
}

async function runPieces(scribe: Scribe, job: DemoJob, recipe: CreateRecipe): Promise<void> {
  if (!job.runs || !job.piecesPerRun) return;
  await tick(scribe, job, 'place', ['focus', 'thickness', 'placed'], job.opened - 0.8);
  await readPlace(scribe, job);
  const span = Math.max(1, job.opened - 1 - Math.max(0, job.wanted ?? 0));
  for (let i = 0; i < job.runs; i += 1) {
    const daysAgo = job.opened - 1 - (span * i) / job.runs;
    if (i % 4 === 0) await weigh(scribe, job, i / 4, job.piecesPerRun * Math.min(4, job.runs - i), daysAgo + 0.1);
    await runOnce(scribe, job, recipe, i, daysAgo);
  }
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

async function readPlace(scribe: Scribe, job: DemoJob): Promise<void> {
  if (job.key !== 'orchid') return;
  const at = { daysAgo: job.opened - 0.9, by: 'tobin', id: scribe.id(job.key) };
  const dots = DOTS.map(([heightMm, widthMm]) => ({ heightMm, widthMm }));
  await scribe.call(
    'createPlaceReading',
    { id: scribe.id('orchid-focus'), kind: 'focus', entries: { dots, growth: 0.05 }, decision: 'taken', note: '' },
    at,
  );
  const readings = BENT.map(([x, y, heightMm]) => ({ xMm: x * job.mark[0], yMm: y * job.mark[1], heightMm }));
  await scribe.call(
    'createPlaceReading',
    {
      id: scribe.id('orchid-flatness'),
      kind: 'flatness',
      entries: { readings, focusMm: 0.1 },
      decision: 'rejected',
      note: 'box 3',
    },
    { ...at, daysAgo: 2 },
  );
}

async function runOnce(
  scribe: Scribe,
  job: DemoJob,
  recipe: CreateRecipe,
  index: number,
  daysAgo: number,
): Promise<void> {
  const by = OPERATORS[index % 4]!;
  const id = scribe.id(`${job.key}-run-${index}`);
  const pieces = job.piecesPerRun!;
  const seconds =
    (job.mark[1] / recipe.intervalMm) * (job.mark[0] / recipe.speedMmPerS + (2 * recipe.speedMmPerS) / 5000);
  const run = {
    id,
    ticketId: scribe.id(job.key),
    recipeId: recipe.id,
    correctsId: null,
    pieces,
    power: { value: recipe.powerPercent, unit: '%' },
    speed: { value: recipe.speedMmPerS, unit: 'mm/s' },
    interval: { value: recipe.intervalMm, unit: 'mm' },
    passes: 1,
    focusOffsetMm: 0,
    air: job.air ?? 'off',
    minutes: Math.max(0.5, scribe.near((seconds * pieces) / 60, 0.04, 1)),
    note: '',
  };
  await scribe.call('createRun', run, { daysAgo, by });
  const lubricant = job.compound === 'greyslip';
  const look = LOOKS[job.truth!];
  const cleaning = {
    id: scribe.id(`${job.key}-clean-${index}`),
    method: lubricant ? 'alcohol and scrubbing' : job.compound ? 'water and sponge' : 'isopropyl alcohol',
    minutes: Math.max(0.1, scribe.near(look.cleanMinutes * pieces, 0.3)),
    residue: lubricant && index % 3 === 0 ? 'some' : index % 5 === 0 ? 'trace' : 'none',
  };
  await scribe.call('createCleaning', cleaning, { daysAgo: daysAgo - 0.02, by, id });
  const faulty = job.faults !== undefined && (index + 1) % job.faults.every === 0;
  const judgement = {
    id: scribe.id(`${job.key}-judge-${index}`),
    contrastStep: byEye(scribe, look.contrast - (faulty ? 1 : 0)),
    evenness: EVENNESS_STEPS[byEye(scribe, look.evenness - (faulty ? 1.5 : 0)) - 1]!,
    piecesGood: faulty ? Math.max(0, pieces - 1) : pieces,
    faults: faulty ? [job.faults!.fault] : [],
    tests: [
      { test: 'abrasive pad', result: faulty ? 'slightly paler' : 'no change' },
      ...(index % 4 === 0 ? [{ test: 'denatured alcohol', result: 'no change' }] : []),
    ],
    note: '',
  };
  await scribe.call('createJudgement', judgement, { daysAgo: daysAgo - 0.03, by, id });
}

/** A step of a five-step scale as an eye reads it: off by a half now and then. */
function byEye(scribe: Scribe, mean: number): number {
  return Math.min(5, Math.max(1, Math.round(mean + 1.2 * (scribe.random() - 0.5))));
}
