import {
  alignTwoPoints,
  bedCorners,
  decidingOrUsual,
  decisive,
  fitCircle,
  fitWaist,
  focusStrips,
  makeFigure,
  planFlatness,
  planRotary,
  pointerOffset,
  spotOffFocus,
  usableChord,
  usualInterval,
  warpSurface,
  type ArtworkBox,
  type Figure,
  type FigureInput,
  type PlanePoint,
} from '@unto/core';
import type { LensBody, PlaceEntriesOf, PlaceKind, PlaceResultOf } from '@unto/contract';
import { rayleighOf } from '../equipment/index.js';
import { gradeOf, usualFactor } from '../kinds/usual-factors.js';

/** What a reading is worked out against: the artwork, and how deep the focus is (measured by a dot hunt, or the lens's own figure). */
export interface PlaceSetup {
  readonly markWidthMm: number;
  readonly markHeightMm: number;
  readonly depth: Figure;
  readonly lens: Pick<LensBody, 'spotXMm' | 'spotYMm' | 'depthOfFocusMm' | 'depthGrowth' | 'usual'>;
}

/** Works a reading out: the page while it is typed, the server when it is kept. @throws place.*, value.* of the core */
export function workOutPlace<K extends PlaceKind>(
  kind: K,
  entries: PlaceEntriesOf[K],
  equipment: PlaceSetup,
): PlaceResultOf[K] {
  return WORK[kind](entries, equipment);
}

const WORK: { [K in PlaceKind]: (entries: PlaceEntriesOf[K], equipment: PlaceSetup) => PlaceResultOf[K] } = {
  focus: ({ dots, growth }) => {
    const fit = fitWaist(dots, growth);
    const read = decisive('dots measured', 'measured', { value: dots.length, unit: 'dots' });
    const reach = fit.heightReachMm;
    return {
      height: mm('fitWaist', fit.heightMm, [read], reach === null ? undefined : reach),
      spot: mm('fitWaist', fit.spotMm, [read]),
      depth: mm('fitWaist', fit.depthMm, [
        read,
        decisive('growth allowed', 'measured', { value: Math.round(100 * growth), unit: '%' }),
      ]),
      bracketed: fit.bracketed,
    };
  },
  flatness: ({ readings, focusMm }, equipment) => {
    const plan = planFlatness(warpSurface(readings), artworkOf(equipment), { focusMm, depthMm: equipment.depth.value });
    const inputs = [
      decisive('heights read', 'measured', { value: readings.length, unit: 'places' }),
      decisive('depth of focus, ±', equipment.depth.grade, { value: equipment.depth.value, unit: 'mm' }),
    ];
    return {
      inFocus: makeFigure({ formula: 'planFlatness', value: 100 * plan.inFocus, unit: '%', inputs }),
      best: mm('planFlatness', plan.best.focusMm, inputs),
      bestShare: plan.best.share,
      fallMm: plan.highMm - plan.lowMm,
      steps: plan.steps,
      advice: plan.advice,
    };
  },
  centre: ({ points }) => {
    const fit = fitCircle(points);
    const inputs = [
      decisive('rim points touched', 'measured', { value: points.length, unit: 'points' }),
      decisive('they lie off by (rms)', 'measured', { value: Number(fit.rmsMm.toPrecision(2)), unit: 'mm' }),
    ];
    return {
      x: mm('fitCircle', fit.centre.xMm, inputs),
      y: mm('fitCircle', fit.centre.yMm, inputs),
      diameter: mm('fitCircle', 2 * fit.radiusMm, inputs),
      worst: fit.worst.index,
    };
  },
  round: (entries, equipment) => {
    const { nearMm, farMm, alongMm } = entries;
    const sphere = entries.shape === 'sphere';
    const plan = planRotary({ nearMm, farMm: sphere ? nearMm : farMm, alongMm, artworkMm: equipment.markWidthMm });
    const diameter = decisive('diameter', 'measured', { value: nearMm, unit: 'mm' });
    const depth = decisive('depth of focus, ±', equipment.depth.grade, { value: equipment.depth.value, unit: 'mm' });
    const radius = (sphere ? nearMm : Math.min(nearMm, farMm)) / 2;
    const halfWidthMm =
      (sphere ? Math.hypot(equipment.markWidthMm, equipment.markHeightMm) : equipment.markWidthMm) / 2;
    return {
      mmPerDegree: makeFigure({ formula: 'planRotary', value: plan.mmPerDegree, unit: 'mm/°', inputs: [diameter] }),
      degrees: makeFigure({ formula: 'planRotary', value: plan.degrees, unit: '°', inputs: [diameter] }),
      seam: mm('planRotary', plan.seamMm, [diameter]),
      chord: mm('usableChord', usableChord(radius, equipment.depth.value), [diameter, depth]),
      tiltDegrees: plan.tiltDegrees,
      stretch: plan.stretch,
      strips: halfWidthMm < radius ? focusStrips(radius, halfWidthMm, equipment.depth.value) : [],
      halfWidthMm,
    };
  },
  align: ({ drawn, found }, equipment) => {
    const [a, b] = [drawn, found] as unknown as [readonly [PlanePoint, PlanePoint], readonly [PlanePoint, PlanePoint]];
    const at = alignTwoPoints(a, b);
    const inputs = [decisive('points found on the piece', 'measured', { value: 2 })];
    const { widthMm, heightMm } = artworkOf(equipment);
    return {
      turn: makeFigure({ formula: 'alignTwoPoints', value: at.turnDegrees, unit: '°', inputs }),
      zeroX: mm('alignTwoPoints', at.zero.xMm, inputs),
      zeroY: mm('alignTwoPoints', at.zero.yMm, inputs),
      longer: mm('alignTwoPoints', at.longerMm, inputs),
      corners: [
        [0, 0],
        [widthMm, 0],
        [widthMm, heightMm],
        [0, heightMm],
      ].map(([xMm, yMm]) => at.toMachine({ xMm: xMm!, yMm: yMm! })),
    };
  },
  pointer: ({ pairs }) => {
    const offset = pointerOffset(
      pairs.map((pair) => ({
        pointer: { xMm: pair.pointerXMm, yMm: pair.pointerYMm },
        mark: { xMm: pair.markXMm, yMm: pair.markYMm },
      })),
    );
    const inputs = [decisive('dots marked', 'measured', { value: pairs.length, unit: 'dots' })];
    return {
      x: mm('pointerOffset', offset.xMm, inputs, offset.reachMm?.xMm),
      y: mm('pointerOffset', offset.yMm, inputs, offset.reachMm?.yMm),
      worst: offset.worst.index,
      worstOffMm: offset.worst.offMm,
    };
  },
  zero: ({ burnt, seen }) => {
    const [a, b] = [seen, burnt] as unknown as [readonly [PlanePoint, PlanePoint], readonly [PlanePoint, PlanePoint]];
    const at = alignTwoPoints(a, b);
    const inputs = [decisive('crosses burnt and seen', 'measured', { value: 2 })];
    return {
      turn: makeFigure({ formula: 'alignTwoPoints', value: at.turnDegrees, unit: '°', inputs }),
      zeroX: mm('alignTwoPoints', at.zero.xMm, inputs),
      zeroY: mm('alignTwoPoints', at.zero.yMm, inputs),
      longer: mm('alignTwoPoints', -at.longerMm, inputs),
    };
  },
  laid: ({ pieces, pieceWidthMm, pieceHeightMm }) => {
    const corners = pieces.flatMap((piece) => bedCorners(piece, { widthMm: pieceWidthMm, heightMm: pieceHeightMm }));
    const [xs, ys] = [corners.map(({ xMm }) => xMm), corners.map(({ yMm }) => yMm)];
    const [xMm, yMm] = [Math.min(...xs), Math.min(...ys)];
    return { xMm, yMm, widthMm: Math.max(...xs) - xMm, heightMm: Math.max(...ys) - yMm };
  },
  set: ({ offsetMm }, equipment) => ({ spot: spotAt(equipment.lens, offsetMm) }),
};

/** The artwork with its lower left corner as the readings' zero. */
export function artworkOf(equipment: Pick<PlaceSetup, 'markWidthMm' | 'markHeightMm'>): ArtworkBox {
  return { xMm: 0, yMm: 0, widthMm: equipment.markWidthMm, heightMm: equipment.markHeightMm };
}

function mm(formula: string, value: number, inputs: readonly FigureInput[], reach?: number): Figure {
  const interval = reach === undefined ? undefined : { low: value - reach, high: value + reach, level: 0.9 };
  return makeFigure({ formula, value, unit: 'mm', interval, inputs });
}

/** The spot on a part that lies off the focus by an offset. */
export function spotAt(lens: PlaceSetup['lens'], offsetMm: number): Figure {
  const spotMm = Math.sqrt(lens.spotXMm * lens.spotYMm);
  return makeFigure({
    formula: 'spotOffFocus',
    value: spotOffFocus({ spotMm, rayleighMm: rayleighOf(lens) }, offsetMm),
    unit: 'mm',
    inputs: [
      decisive('spot in focus', gradeOf('lens', lens, 'spotXMm'), { value: spotMm, unit: 'mm' }),
      decisive('depth of focus', gradeOf('lens', lens, 'depthOfFocusMm'), { value: lens.depthOfFocusMm, unit: 'mm' }),
      decisive('focus offset', 'measured', { value: offsetMm, unit: 'mm' }),
    ],
  });
}

/** Depth of focus of a lens: as its newest dot hunt found it, else as its record states. */
export function focusDepth(
  lens: Pick<LensBody, 'depthOfFocusMm' | 'depthGrowth' | 'usual'>,
  hunted: Figure | null,
): Figure {
  if (hunted) return hunted;
  const { depthOfFocusMm: value, depthGrowth } = lens;
  const factor = usualFactor('lens', lens, 'depthOfFocusMm');
  return makeFigure({
    formula: 'depthOfFocus',
    value,
    unit: 'mm',
    interval: usualInterval(value, factor),
    inputs: [
      decidingOrUsual('depth of focus of the lens', 'stated', factor, {
        value: `spot +${Math.round(depthGrowth * 100)} %`,
      }),
    ],
  });
}
