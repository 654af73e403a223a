import { Op } from 'sequelize';
import { ledgerTrend, type TrendRun } from '@unto/core';
import {
  MOST_TREND_RUNS,
  type LedgerQuery,
  type LedgerTrendAnswer,
  type RunPicture,
  type RunPicturesQuery,
} from '@unto/contract';
import { list, NEWEST_FIRST, OLDEST_FIRST, rowsOf, together, type Context } from '../db/context.js';
import { inParts } from '../db/in-parts.js';
import type { Rows } from '../db/models/index.js';
import { newestIn } from './ledger.js';

/** Runs that a filter lets through, followed over time; one that was corrected counts as its correction. */
export async function trendOfLedger(context: Context, query: LedgerQuery): Promise<LedgerTrendAnswer> {
  const found = await newestIn(context, query, MOST_TREND_RUNS + 1);
  const ids = found.slice(0, MOST_TREND_RUNS);
  const { runs, pairings } = await trendRuns(context, ids);
  const { by, points, ways } = ledgerTrend(runs);
  const moment = (ms: number) => new Date(ms).toISOString();
  return {
    ...{ runs: runs.length, pairings, whole: found.length <= MOST_TREND_RUNS, by, ways: [...ways] },
    points: points.map((point) => ({ ...point, from: moment(point.from), to: moment(point.to) })),
  };
}

async function trendRuns(context: Context, ids: readonly string[]) {
  const attributes = ['id', 'at', 'pieces', 'minutes', 'minutesFrom', 'substrateId', 'compoundId'];
  const [runs, judged, corrections] = await together(
    context,
    () => rowsOf(context, 'runs', ids, { attributes }),
    () => judgementsOf(context, ids),
    () => rowsOf(context, 'runs', ids, { key: 'correctsId', attributes: ['correctsId'] }),
  );
  const corrected = new Set(corrections.map(({ correctsId }) => correctsId));
  const standing = runs.filter(({ id }) => !corrected.has(id));
  return {
    runs: standing.map(({ id, at, pieces, minutes, minutesFrom }): TrendRun => {
      const { contrastStep = null, piecesGood = null } = judged.get(id) ?? {};
      const taken = minutesFrom === 'planned' ? null : minutes;
      return { at: at.getTime(), pieces, minutes: taken, contrast: contrastStep, good: piecesGood };
    }),
    pairings: new Set(standing.map(({ substrateId, compoundId }) => `${substrateId} ${compoundId}`)).size,
  };
}

/** The judgement of each run that counts: the newest. */
async function judgementsOf(context: Context, ids: readonly string[]): Promise<Map<string, Rows['judgements']>> {
  const newest = new Map<string, Rows['judgements']>();
  for (const some of inParts(ids))
    for (const row of await list(context, 'judgements', { where: { runId: { [Op.in]: some } }, order: OLDEST_FIRST }))
      newest.set(row.runId, row);
  return newest;
}

/** Pictures that tell of some runs: of the washed pieces first, then of what was put beside them, of the coat, of the coupon. */
export async function runPictures(context: Context, { runs: asked }: RunPicturesQuery): Promise<RunPicture[]> {
  const runs = await rowsOf(context, 'runs', asked.split(','), { attributes: ['id', 'bench'] });
  const ids = runs.map(({ id }) => id);
  const [trays, notes, coats, coupons] = await together(
    context,
    () => list(context, 'trayReadings', { where: { runId: ids }, order: NEWEST_FIRST }),
    () => notesOf(context, ids),
    () => coatsOf(context, runs),
    () => couponsOf(context, runs),
  );
  const moment = (at: Date) => at.toISOString();
  return [
    ...trays.map(({ runId, fileHash, at }) => ({ runId, of: 'tray' as const, fileHash, words: '', at: moment(at) })),
    ...notes.map(({ runId, fileHash, words, at }) => ({
      ...{ runId: runId!, of: 'note' as const, fileHash: fileHash!, words, at: moment(at) },
    })),
    ...coats,
    ...coupons,
  ];
}

/** Notes with a picture; a file of another kind is none. */
async function notesOf(context: Context, ids: readonly string[]): Promise<Rows['remarks'][]> {
  const where = { runId: [...ids], retired: false, fileHash: { [Op.ne]: null } };
  const notes = await list(context, 'remarks', { where, order: NEWEST_FIRST });
  const files = await rowsOf(context, 'storedFiles', new Set(notes.map(({ fileHash }) => fileHash!)), { key: 'hash' });
  const pictures = new Set(files.filter(({ mediaType }) => mediaType.startsWith('image/')).map(({ hash }) => hash));
  return notes.filter(({ fileHash }) => pictures.has(fileHash!));
}

type Benched = Pick<Rows['runs'], 'id' | 'bench'>;

async function coatsOf(context: Context, runs: readonly Benched[]): Promise<RunPicture[]> {
  const weighings = runs.flatMap(({ bench }) => bench?.coat?.weighingId ?? []);
  const pictures = await rowsOf(context, 'coatPictures', new Set(weighings), { key: 'weighingId' });
  return runs.flatMap(({ id, bench }) =>
    pictures
      .filter(({ weighingId }) => weighingId === bench?.coat?.weighingId)
      .map(({ entries, decision, at }) => ({
        ...{ runId: id, of: 'coat' as const, fileHash: entries.fileHash, words: decision, at: at.toISOString() },
      })),
  );
}

async function couponsOf(context: Context, runs: readonly Benched[]): Promise<RunPicture[]> {
  const ids = new Set(runs.flatMap(({ bench }) => bench?.coupons.flatMap(({ pictureId }) => pictureId ?? []) ?? []));
  const pictures = new Map((await rowsOf(context, 'couponPictures', ids)).map((row) => [row.id, row]));
  return runs.flatMap(({ id, bench }) =>
    (bench?.coupons ?? []).flatMap(({ code, pictureId }) => {
      const picture = pictureId && pictures.get(pictureId);
      if (!picture) return [];
      return [
        { runId: id, of: 'coupon' as const, fileHash: picture.fileHash, words: code, at: picture.at.toISOString() },
      ];
    }),
  );
}
