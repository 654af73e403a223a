import type { WavelengthClass } from '../choose/vocabulary.js';
import { requirePositive } from '../support/require.js';

/** Ways to find the focus height. */
export const FOCUS_METHODS = ['dot hunt', 'gauge block', 'focus stick', 'twin piece'] as const;
export type FocusMethod = (typeof FOCUS_METHODS)[number];

/** A way with what speaks for it on this head. */
export interface FocusAdvice {
  readonly method: FocusMethod;
  readonly why: string;
}

/** Below this half depth levers and sticks are too coarse, mm. Common practice, no source. */
export const SHALLOW_MM = 1;

/**
 * Ways to find the focus on a head, the first one first. A head of shallow depth is hunted; a deep one may be gauged. A coat is never
 * focused on: its twin is. Common practice, no source.
 * @param head half depth of focus in mm, above 0
 * @throws value.not-positive
 */
export function focusMethods(head: {
  beam: WavelengthClass;
  depthMm: number;
  coated: boolean;
  hunted: boolean;
}): FocusAdvice[] {
  const shallow = requirePositive('depth of focus', head.depthMm) < SHALLOW_MM;
  const hunt: FocusAdvice = {
    method: 'dot hunt',
    why: shallow
      ? `only ± ${Number(head.depthMm.toFixed(2))} mm deep: a lever or stick is too coarse, and often wrong`
      : 'the surest way, on a scrap: it marks even at 1 %',
  };
  const gauge: FocusAdvice = {
    method: 'gauge block',
    why: head.hunted
      ? 'the hunt with this lens is on record: set a block to its height'
      : 'only as good as the height it was cut to',
  };
  const stick: FocusAdvice = { method: 'focus stick', why: 'good enough for a deep focus' };
  const twin: FocusAdvice = { method: 'twin piece', why: 'of the same thickness, uncoated: never on the coated part' };
  const ways = shallow ? (head.hunted ? [gauge, hunt] : [hunt, gauge]) : [stick, gauge, hunt];
  return head.coated ? [...ways, twin] : ways;
}

/** What is done when a head or lens is changed, in this order. Common practice, no source; the machine's manual goes before. */
export const HEAD_CHANGE_STEPS = [
  { code: 'power-down', text: 'Machine switched off and unplugged' },
  { code: 'plug', text: 'Plug the right way round, cable rated for this head, no strain on it' },
  { code: 'seat', text: 'Head or lens seated, screws hand-tight, covers back on' },
  { code: 'eyewear', text: 'Eyewear for this wavelength taken, the other pair put away' },
  { code: 'refocus', text: 'Focus to be found anew, and the piece aligned anew' },
] as const;
export type HeadChangeStep = (typeof HEAD_CHANGE_STEPS)[number]['code'];
