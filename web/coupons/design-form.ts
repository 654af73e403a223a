import type { CouponAxis, CouponDesign, CouponParameter } from '@unto/core';
import { parseNumber } from '../ui/format';

/** An axis as it is typed: numbers apart from each other, the list as text. */
export interface AxisDraft {
  parameter: CouponParameter;
  spacing: 'linear' | 'log' | 'list';
  from: number;
  to: number;
  count: number;
  list: string;
}

/** A design as it is typed. */
export interface DesignDraft {
  x: AxisDraft;
  y: AxisDraft;
  third: boolean;
  block: AxisDraft;
  powerPercent: number;
  speedMmPerS: number;
  intervalMm: number;
  passes: number;
  cellWidthMm: number;
  cellHeightMm: number;
  gapMm: number;
  marginMm: number;
  fill: 'filled' | 'lines';
  lineSpacingMm: number;
  hatchAngleDeg: number;
  directions: 'one-way' | 'two-way';
  labelsAt: 'edges' | 'each';
  labelHeightMm: number;
  labelPowerPercent: number;
  labelSpeedMmPerS: number;
  blankWidthMm: number;
  blankHeightMm: number;
  focusOffsetMm: number;
}

/** A first design for a head: power across, speed down, from where it may hold to its top. */
export function firstDraft(head: { topSpeedMmPerS: number; firingThresholdPercent: number }): DesignDraft {
  const top = head.topSpeedMmPerS;
  const round = (value: number) => Number(value.toPrecision(2));
  return {
    x: {
      parameter: 'power',
      spacing: 'linear',
      from: Math.max(40, head.firingThresholdPercent),
      to: 100,
      count: 7,
      list: '',
    },
    y: { parameter: 'speed', spacing: 'log', from: round(top * 0.1), to: round(top * 0.75), count: 8, list: '' },
    third: false,
    block: { parameter: 'interval', spacing: 'list', from: 0.04, to: 0.1, count: 2, list: '0.05, 0.08' },
    powerPercent: 90,
    speedMmPerS: round(top * 0.25),
    intervalMm: 0.06,
    passes: 1,
    cellWidthMm: 5,
    cellHeightMm: 4,
    gapMm: 1,
    marginMm: 3,
    fill: 'filled',
    lineSpacingMm: 0.5,
    hatchAngleDeg: 0,
    directions: 'two-way',
    labelsAt: 'each',
    labelHeightMm: 1.8,
    labelPowerPercent: 60,
    labelSpeedMmPerS: round(top * 0.15),
    blankWidthMm: 70,
    blankHeightMm: 60,
    focusOffsetMm: 0,
  };
}

/** The design that a draft means. */
export function designOf(draft: DesignDraft, code = ''): CouponDesign {
  return {
    code,
    axes: { x: axisOf(draft.x), y: axisOf(draft.y), ...(draft.third ? { block: axisOf(draft.block) } : {}) },
    fixed: { powerPercent: draft.powerPercent, speedMmPerS: draft.speedMmPerS, intervalMm: draft.intervalMm },
    passes: draft.passes,
    cell: { widthMm: draft.cellWidthMm, heightMm: draft.cellHeightMm },
    gapMm: draft.gapMm,
    marginMm: draft.marginMm,
    fill: draft.fill,
    lineSpacingMm: draft.lineSpacingMm,
    hatchAngleDeg: draft.hatchAngleDeg,
    directions: draft.directions,
    labels: {
      at: draft.labelsAt,
      heightMm: draft.labelHeightMm,
      powerPercent: draft.labelPowerPercent,
      speedMmPerS: draft.labelSpeedMmPerS,
    },
    blank: { widthMm: draft.blankWidthMm, heightMm: draft.blankHeightMm },
  };
}

function axisOf(axis: AxisDraft): CouponAxis {
  const { parameter, spacing } = axis;
  if (spacing === 'list')
    return {
      parameter,
      spacing,
      values: axis.list
        .split(/[;,\s]+/)
        .filter(Boolean)
        .map(parseNumber),
    };
  return { parameter, spacing, from: axis.from, to: axis.to, count: axis.count };
}

/** Parameters that no axis of a draft varies; their single values are asked for. */
export function fixedParameters(draft: DesignDraft): CouponParameter[] {
  const varied = [draft.x.parameter, draft.y.parameter, ...(draft.third ? [draft.block.parameter] : [])];
  return (['power', 'speed', 'interval'] as const).filter((parameter) => !varied.includes(parameter));
}
