import {
  decisive,
  makeFigure,
  SETTING_PART_NAMES,
  settingDifferences,
  settingOf,
  weakestGrade,
  type Figure,
  type Grade,
  type MarkSetting,
  type OpenStation,
} from '@unto/core';
import type { CreateRun, Revisions } from '@unto/contract';
import { doseOf, sameRevisions, type FittedEquipment } from '@unto/domain';
import type { Rows } from '../db/models/index.js';

/** Units of speed that a panel says outright; others are shares of a top speed that somebody stated. */
const OUTRIGHT: readonly string[] = ['mm/s', 'mm/min', 'in/s', 'in/min'];

/** Dose of a run, J/mm², on what it rests; null where it cannot be known. */
export function doseFigure(
  setting: MarkSetting,
  { speed }: Pick<CreateRun, 'speed'>,
  equipment: FittedEquipment,
  revisions: Revisions,
): Figure | null {
  const value = doseOf(setting);
  if (value === null) return null;
  const metered = Boolean(equipment.calibration);
  const said = OUTRIGHT.includes(speed.unit);
  return makeFigure({
    formula: 'arealDose',
    value,
    unit: 'J/mm²',
    inputs: [
      decisive('power at the part', metered ? 'measured' : 'stated', {
        value: Number(setting.powerW!.toPrecision(4)),
        unit: 'W',
        ref: { kind: metered ? 'calibration' : 'head', id: revisions.calibration ?? revisions.head },
      }),
      decisive(said ? 'speed' : 'speed, by the stated scale of the panel', said ? 'measured' : 'stated', {
        value: Number(setting.speedMmPerS!.toPrecision(4)),
        unit: 'mm/s',
        ref: { kind: 'machine', id: revisions.machine },
      }),
      decisive('line interval', 'measured', { value: setting.intervalMm!, unit: 'mm' }),
      decisive('passes', 'measured', { value: setting.passes * setting.hatches }),
    ],
  });
}

/**
 * A run earns its recipe's grade when it is the same setting in every part on the same revisions. What the recipe never noted, or
 * other revisions, make it carried; a part that is another makes it a guess.
 */
export function gradeOfRun(
  setting: MarkSetting,
  recipe: Rows['recipes'] | null,
  revisions: Revisions,
  open: readonly OpenStation[],
): { grade: Grade; because: string[] } {
  const stood = open.map(({ station, word }) => `${station}: ${word}`);
  if (!recipe) return { grade: 'guess', because: stood };
  const asked = settingOf(recipe);
  const other = settingDifferences(asked, setting);
  const because = other.map(
    (part) =>
      `${SETTING_PART_NAMES[part]}: ${setting[part] ?? 'not noted'}, ${asked[part] ?? 'not noted'} in the recipe`,
  );
  if (!sameRevisions(recipe.revisions, revisions)) because.push('other revisions of what stands on the bench');
  because.push(...stood);
  if (because.length === 0) return { grade: recipe.grade, because: [...recipe.because] };
  const known = other.some((part) => asked[part] !== null && setting[part] !== null);
  return { grade: known ? 'guess' : weakestGrade([recipe.grade, 'carried']), because: [...recipe.because, ...because] };
}
