import { expose } from 'comlink';
import {
  cellsCsv,
  couponGcode,
  couponRunTime,
  couponSvg,
  fitWindow,
  layoutCoupon,
  predictCells,
  readCellsCsv,
  settingFromWindow,
  widestRunUp,
  windowMap,
} from '@unto/core';
import { answered, type Computations } from './computations';

/** The heavy part of the core, away from the page. */
const computations: Computations = {
  design: async ({ design, limits, bench }) =>
    answered(() => {
      const layout = layoutCoupon(design, limits);
      return {
        layout,
        predictions: predictCells(layout, bench),
        runTimeS: couponRunTime(layout, bench.motion),
        runUpMm: widestRunUp(layout, bench.motion),
      };
    }),
  program: async ({ layout, options }) => answered(() => couponGcode(layout, options)),
  drawing: async (layout) => answered(() => couponSvg(layout)),
  table: async ({ layout, predictions, outcomes }) => answered(() => cellsCsv(layout, predictions, outcomes)),
  readTable: async ({ text, layout }) => answered(() => readCellsCsv(text, layout)),
  window: async ({ cells, bench, seed, job, map }) =>
    answered(() => {
      const fit = fitWindow({ cells, bench, seed });
      return { fit, map: windowMap(fit, map), answer: settingFromWindow(fit, job) };
    }),
};

expose(computations);
