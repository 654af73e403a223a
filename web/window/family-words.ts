import { settingWords } from '@unto/core';
import type { WindowFamily } from '@unto/domain';
import type { Units } from '../ui/useUnits';

/** What the cells of a family share, in words. */
export const familyWords = ({ fixed, coats }: WindowFamily, units: Units): string =>
  settingWords({ ...fixed, coats: coats || 1 }, units.reading.value) || 'plain';
