import { randomUUID } from 'node:crypto';
import { driftCharts, driftFactors, type DriftMeasure, type DriftRun, type RunFactors } from '@unto/core';
import type { Judgement, RecipePage } from '@unto/contract';
import { list, type Context } from '../db/context.js';
import { judgedWhere, type JudgedRow } from '../coupons/window-evidence.js';
import { checkedSince, setState } from './use.js';
import { recipeById, recordOf } from './views.js';

const MEASURE_WORDS: Record<DriftMeasure, string> = {
  contrast: 'Contrast',
  kept: 'What the scrub left',
  'hold rate': 'The share of good pieces',
};

/** Newest judged runs of a recipe that its charts show. */
const MOST_RUNS = 400;
/** A run is out for what goes with it where it lies so far below, in σ. */
const OUT = -1;

/** Charts of a recipe’s judged runs, and what went with those that were out. */
async function driftOf(context: Context, id: string) {
  const runs = await runsOf(context, id);
  const charts = driftCharts(runs.map(driftRun), await restarted(context, id, runs));
  const alarmed = charts.find(({ alarm }) => alarm !== null);
  const zOf = new Map(alarmed?.points.map(({ run, z }) => [run, z]));
  const factors = alarmed
    ? driftFactors(
        await factorsOf(context, runs),
        runs.map((_, run) => (zOf.get(run) ?? 0) < OUT),
      )
    : [];
  return { runs, charts, factors };
}

/** A recipe, how its judged runs went, whether they drift and what went with those that did. */
export async function recipePage(context: Context, id: string): Promise<RecipePage> {
  const recipe = await recipeById(context, id);
  const { runs, charts, factors } = await driftOf(context, id);
  const { state, since } = recipe.state;
  return {
    recipe,
    record: await recordOf(context, id),
    charts: charts.map(({ points, alarm, ...chart }) => ({
      ...chart,
      points: points.map(({ run, value, z, sums, rules }) => ({
        ...{ runId: runs[run]!.id, at: runs[run]!.at.toISOString(), value, z },
        ...{ high: sums.high, low: sums.low, rules: [...rules] },
      })),
      alarm: alarm && { index: points.findIndex(({ run }) => run === alarm.run), words: alarm.by, sure: alarm.sure },
    })),
    factors,
    checked: state === 'suspended' && (await checkedSince(context, recipe, new Date(since!))),
  };
}

/**
 * Looks whether the runs of a recipe drift, as one of them was judged: it may drift once one is out, and is suspended once two of the last
 * three are.
 */
export async function watchDrift(context: Context, recipeId: string | null): Promise<void> {
  if (!recipeId) return;
  const recipe = await recipeById(context, recipeId);
  if (recipe.state.state === 'suspended') return;
  const { charts, factors } = await driftOf(context, recipeId);
  const found = charts.find(({ alarm }) => alarm?.sure) ?? charts.find(({ alarm }) => alarm !== null);
  const state = found?.alarm?.sure ? 'suspended' : 'may drift';
  if (!found || state === recipe.state.state) return;
  const [first] = factors;
  const cause = first
    ? `; ${first.outWith} of ${first.runsWith} runs with ${first.factor} ${first.level}, ${first.outWithout} of ${first.runsWithout} others`
    : '';
  const why = `${MEASURE_WORDS[found.measure]} went down: ${found.alarm!.by}${cause}`;
  await setState(context, recipeId, { id: randomUUID(), state, why });
}

async function runsOf(context: Context, recipeId: string): Promise<JudgedRow[]> {
  return (await judgedWhere(context, { recipeId }, MOST_RUNS)).reverse();
}

/** The first run since the recipe was put back into use: what lies before was dealt with. */
async function restarted(context: Context, id: string, runs: readonly JudgedRow[]): Promise<number> {
  const [back] = await list(context, 'recipeStates', {
    where: { recipeId: id, state: 'in use' },
    order: [['at', 'DESC']],
    limit: 1,
  });
  if (!back) return 0;
  const first = runs.findIndex(({ at }) => at >= back.at);
  return first < 0 ? runs.length : first;
}

const RESULT_KEPT: Record<Judgement['tests'][number]['result'], number> = {
  'no change': 1,
  'slightly paler': 0.7,
  lost: 0,
};
const SCRUBS: readonly string[] = ['abrasive pad', '600 grit wet paper', 'wet sponge'];

function driftRun({ pieces, judgement }: JudgedRow): DriftRun {
  const scrubs = judgement.tests.filter(({ test }) => SCRUBS.includes(test)).map(({ result }) => RESULT_KEPT[result]);
  return {
    contrast: judgement.contrastStep,
    kept: scrubs.length ? Math.min(...scrubs) : null,
    pieces,
    good: judgement.piecesGood,
  };
}

/** What each run was made with, as far as it was kept. */
async function factorsOf(context: Context, runs: readonly JudgedRow[]): Promise<RunFactors[]> {
  const people = new Map((await list(context, 'operators')).map(({ id, name }) => [id, name]));
  const humidity = await humidityOf(context, runs);
  return runs.map(({ bench, byId, revisions, id }) => ({
    'can lot': bench?.coat?.lot || null,
    'blank lot': bench?.blank?.lot || null,
    operator: people.get(byId) ?? null,
    'head as entered': revisions.head,
    'lens as entered': revisions.lens,
    calibration: revisions.calibration,
    'air in the room': humidity.get(id) ?? null,
  }));
}

const HUMID = 65;

/** Whether the room was humid as a run’s coat was laid, where somebody looked. */
async function humidityOf(context: Context, runs: readonly JudgedRow[]): Promise<ReadonlyMap<string, string>> {
  const coats = new Map(runs.flatMap(({ id, bench }) => (bench?.coat ? [[id, bench.coat.weighingId] as const] : [])));
  if (!coats.size) return new Map();
  const rows = await list(context, 'weighings', { where: { id: [...new Set(coats.values())] } });
  const seen = new Map(rows.map(({ id, entered }) => [id, entered['roomHumidity'] as number | null | undefined]));
  return new Map(
    [...coats].flatMap(([run, coat]) => {
      const percent = seen.get(coat);
      return typeof percent === 'number'
        ? [[run, percent > HUMID ? `above ${HUMID} %` : `up to ${HUMID} %`] as const]
        : [];
    }),
  );
}
