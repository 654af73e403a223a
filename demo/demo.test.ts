import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { boundariesAt, fitWindow, layoutCoupon, type Outcome } from '@unto/core';
import type { Coupon, Workshop } from '@unto/contract';
import {
  couponWindowCells,
  familyFor,
  newestReads,
  proofOf,
  sameRevisions,
  settableParts,
  settingJob,
  windowEquipment,
  windowFamilies,
  type FittedEquipment,
} from '@unto/domain';
import { connect, defineModels, folderStore, migrate, type Models } from '@unto/server';
import type { Sequelize } from 'sequelize';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freshDatabase } from '../server/testing/rig.js';
import { loadDemoWhenEmpty } from './index.js';
import { GROUND_TRUTHS } from '@unto/simulators/ground-truth';

const folder = mkdtempSync(join(tmpdir(), 'unto-demo-'));
const FILES = folderStore(folder);
const NOW = new Date('2026-04-01T10:00:00Z');
let sequelize: Sequelize;
let models: Models;
beforeAll(async () => {
  sequelize = connect(await freshDatabase());
  models = defineModels(sequelize);
  await migrate(sequelize);
  expect(await loadDemoWhenEmpty({ sequelize, models, files: FILES, now: NOW })).toBe(true);
  // The pictures of 26 coupons are made once; later loads find them.
}, 240_000);
afterAll(async () => {
  await sequelize.close();
  rmSync(folder, { recursive: true, force: true });
});

const count = async (table: string) =>
  Number(((await sequelize.query(`SELECT count(*) FROM ${table}`))[0][0] as { count: string }).count);

describe('the made-up workshop', () => {
  it('has something true for every screen', async () => {
    expect(await count('tickets')).toBe(23);
    expect(await count('coupons')).toBe(26);
    expect(await count('runs')).toBeGreaterThanOrEqual(400);
    expect(await count('weighings')).toBeGreaterThan(60);
    expect(await count('recipes')).toBeGreaterThanOrEqual(18);
    const open = await sequelize.query(`SELECT id FROM timers WHERE ended_at IS NULL`);
    expect(open[0]).toHaveLength(1);
    expect(await count('stated_settings')).toBeGreaterThanOrEqual(6);
    expect(await count('remarks')).toBe(2);
  });

  it('is not loaded over somebody’s data', async () => {
    expect(await loadDemoWhenEmpty({ sequelize, models, files: FILES, now: NOW })).toBe(false);
  });

  it('is the same from the same day', async () => {
    const other = connect(await freshDatabase());
    await migrate(other);
    await loadDemoWhenEmpty({ sequelize: other, models: defineModels(other), files: FILES, now: NOW });
    const digest = async (database: Sequelize) =>
      (
        await database.query(
          `SELECT md5(string_agg(r::text, '' ORDER BY id)) FROM (SELECT id, entered, power_percent, speed_mm_per_s, minutes, grade, at FROM runs) r`,
        )
      )[0];
    expect(await digest(other)).toEqual(await digest(sequelize));
    await other.close();
  }, 150_000);

  it('lets the fit find the steepness of the hidden coat it was made from', async () => {
    const [rows] = await sequelize.query(
      `SELECT c.design, r.entries FROM coupons c JOIN readings r ON r.coupon_id = c.id JOIN tickets t ON t.id = c.ticket_id WHERE t.title = 'Orchid bed tags' AND r.stage = 'scrubbed'`,
    );
    const { design, entries } = (rows as { design: never; entries: { cell: number; outcome: Outcome }[] }[])[0]!;
    const layout = layoutCoupon(design, {
      bed: { widthMm: 700, heightMm: 500 },
      topSpeedMmPerS: 600,
      firingThresholdPercent: 7,
    });
    const cells = entries.map(({ cell, outcome }) => {
      const { powerPercent, speedMmPerS, intervalMm } = layout.cells[cell]!;
      return { powerW: (powerPercent * 50.6) / 100, speedMmPerS, intervalMm, passes: 1, outcome };
    });
    const { radiusMm, conductivity, diffusivity, heatShare } = GROUND_TRUTHS.corvidStainless;
    const fit = fitWindow({ cells, equipment: { radiusMm, conductivity, diffusivity }, seed: 1 });
    // The hidden coat bonds with half by heat index, half by dose: an interval counts (1 − heat share) of a power.
    const needed = (intervalMm: number) =>
      boundariesAt(fit, { powerW: 1, speedMmPerS: 120, intervalMm, passes: 1 }).bondAt.reduce(
        (sum, one) => sum + one,
        0,
      );
    const [close, wide] = [
      Math.min(...cells.map((cell) => cell.intervalMm)),
      Math.max(...cells.map((cell) => cell.intervalMm)),
    ];
    const byInterval = (needed(wide) - needed(close)) / fit.drawCount / Math.log(wide / close);
    expect(byInterval).toBeGreaterThan(1 - heatShare - 0.25);
    expect(byInterval).toBeLessThan(1 - heatShare + 0.25);
  });

  it('calls nothing proved that a reader of its rows could not prove again', async () => {
    const rows = async (query: string) => (await sequelize.query(query))[0] as any[];
    const [{ body: settings }] = (await rows('SELECT body FROM workshop')) as [{ body: Workshop }];
    const bodies = new Map((await rows('SELECT id, body FROM inventory_revisions')).map(({ id, body }) => [id, body]));
    const equipmentAt = (revisions: Record<string, string>): FittedEquipment =>
      Object.fromEntries(
        (['machine', 'head', 'lens', 'substrate', 'calibration'] as const).map((kind) => [
          kind,
          bodies.get(revisions[kind]) ?? null,
        ]),
      ) as unknown as FittedEquipment;
    const coupons = (await models.coupons.findAll({ raw: true })) as unknown as Coupon[];
    const readings = (await models.readings.findAll({ raw: true, order: [['sequence', 'ASC']] })) as unknown as any[];
    const recipes = (await models.recipes.findAll({ raw: true })) as unknown as any[];
    const proved = recipes.filter(({ grade }) => grade.startsWith('proved'));
    expect(proved.length).toBeGreaterThan(0);
    for (const recipe of proved) {
      const equipment = equipmentAt(recipe.revisions);
      const cells = coupons
        .filter(({ id }) => recipe.couponIds.includes(id))
        .flatMap((coupon) => {
          const own = readings.filter(({ couponId }) => couponId === coupon.id);
          const reads = newestReads({ readings: own }, 'scrubbed');
          return couponWindowCells(coupon, coupon.compoundId, reads, equipmentAt(coupon.revisions as never));
        });
      const family = familyFor(windowFamilies(cells), recipe)!;
      const { tolerance, bound } = settingJob(equipment, { widthMm: 1, heightMm: 1 }, settings, recipe.speedMmPerS);
      const terms = {
        fit: fitWindow({ cells: family.cells, equipment: windowEquipment(equipment), seed: Number(recipe.seed) }),
        ...{ equipment: windowEquipment(equipment), tolerance, bound },
        ...{ otherRevisions: [], settable: settableParts(equipment) },
      };
      expect(proofOf(family, recipe, terms).grade, recipe.id).toBe(recipe.grade);
    }
    const runs = ((await models.runs.findAll({ raw: true })) as unknown as any[]).filter(({ grade }) =>
      grade.startsWith('proved'),
    );
    expect(runs.length).toBeGreaterThan(0);
    for (const run of runs) {
      const recipe = proved.find(({ id }) => id === run.recipeId);
      expect(recipe?.grade, run.id).toBe(run.grade);
      expect(sameRevisions(run.revisions, recipe.revisions), run.id).toBe(true);
    }
  });
});
