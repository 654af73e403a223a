import { isMetal, type SubstrateFamily, type SurfaceLayer } from '../choose/vocabulary.js';

/** Something to look at and tick off. */
export interface StationCheck {
  readonly code: string;
  readonly text: string;
}

/** What to check before coating, for this part only. Common practice, no source. */
export function prepareChecks(part: { family: SubstrateFamily; layer: SurfaceLayer; coated: boolean }): StationCheck[] {
  const checks: StationCheck[] = [];
  if (isMetal(part.family) && part.coated) {
    checks.push({
      code: 'bare',
      text: 'Bare metal: acetone leaves no colour on a rag, a hidden scratch shows metal all through',
    });
  }
  checks.push({ code: 'measured', text: 'Stock measured, not taken from its label' });
  if (isMetal(part.family)) checks.push({ code: 'flat', text: 'Flat on the table, no corner lifting' });
  checks.push({
    code: 'clean',
    text: part.coated ? 'Degreased, dry, touched only with gloves since' : 'Clean and dry',
  });
  return checks;
}

/** What to check before firing. Common practice, no source. */
export function placeChecks(part: { coated: boolean }): StationCheck[] {
  return [
    {
      code: 'focus',
      text: part.coated
        ? 'Focus found on an uncoated twin, never on the coated part'
        : 'Focus found on a scrap of the same thickness',
    },
    { code: 'thickness', text: 'Part thickness set' },
    { code: 'placed', text: 'Piece in its jig or outline, framed once with the beam off' },
  ];
}
