import { fitWindow, type Expected, type SettingChoice, type SettingJob, type WindowFit } from '@unto/core';
import { familyJob, proofOf, settingIn } from '@unto/domain';
import { earlierOf } from './earlier';
import type { ComparedWindow, OfferedSetting } from './computations';

/** A window fitted, the job as its rows ran, and what any setting in it is worth. */
export interface JudgedWindow {
  readonly fit: WindowFit;
  readonly job: SettingJob;
  readonly offered: (choice: SettingChoice, contrast: Expected | null) => OfferedSetting;
}

/** The fit that was made last, by what it was made of. */
let last: { readonly key: string; readonly fit: WindowFit } | null = null;

/** Fits a window; the same cells asked for again, for another mark or mix, are not fitted anew. */
export function judgedWindow(window: ComparedWindow, seed: number): JudgedWindow {
  const { family, equipment, job, otherRevisions, settable, teachings } = window;
  const { cells } = family;
  const { tolerance, bound } = job;
  const earlier = earlierOf(teachings);
  const key = JSON.stringify({ cells, equipment, seed, teachings });
  if (last?.key !== key) last = { key, fit: fitWindow({ cells, equipment, seed, earlier }) };
  const { fit } = last;
  const terms = { fit, equipment, tolerance, bound, otherRevisions, settable, earlier };
  return {
    fit,
    job: familyJob(family, job),
    offered: (choice, contrast) => ({ ...choice, proof: proofOf(family, settingIn(family, choice), terms), contrast }),
  };
}
