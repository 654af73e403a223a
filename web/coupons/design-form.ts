import {
  cellLabelsFit,
  type CouponAxis,
  type CouponDesign,
  type CouponLimits,
  type CouponParameter,
  type UnitReading,
} from '@unto/core';
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
  frequencyKHz: number | null;
  pulseNs: number | null;
  passes: number;
  crossed: boolean;
  cellWidthMm: number;
  cellHeightMm: number;
  gapMm: number;
  marginMm: number;
  fill: CouponDesign['fill'];
  artwork: CouponDesign['artwork'];
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
  compoundIds: string[];
  anchors: boolean;
  bareStrip: boolean;
  shuffled: boolean;
}

type Head = Pick<CouponLimits, 'topSpeedMmPerS' | 'firingThresholdPercent' | 'frequencyKHz' | 'pulseNs'>;

/**
 * A first design for a head: power across, speed down, from where it may hold to its top; labels under every cell where the panel's
 * numbers are short enough for that.
 */
export function firstDraft(head: Head, reading: UnitReading | null = null): DesignDraft {
  const draft = plainDraft(head);
  return cellLabelsFit(designOf(draft, reading)) ? draft : { ...draft, labelsAt: 'edges' };
}

function plainDraft(head: Head): DesignDraft {
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
    frequencyKHz: middleOf(head.frequencyKHz),
    pulseNs: middleOf(head.pulseNs),
    passes: 1,
    crossed: false,
    cellWidthMm: 5,
    cellHeightMm: 4,
    gapMm: 1,
    marginMm: 3,
    fill: 'filled',
    artwork: null,
    lineSpacingMm: 0.5,
    hatchAngleDeg: 0,
    directions: 'two-way',
    labelsAt: 'each',
    labelHeightMm: 1.8,
    labelPowerPercent: 90,
    labelSpeedMmPerS: round(top * 0.1),
    blankWidthMm: 70,
    blankHeightMm: 60,
    focusOffsetMm: 0,
    compoundIds: [],
    anchors: false,
    bareStrip: false,
    shuffled: false,
  };
}

/** The design that a draft means, its labels burnt as a panel reads them; as the core counts where nothing is said. */
export function designOf(draft: DesignDraft, reading: UnitReading | null = null, code = ''): CouponDesign {
  return {
    code,
    axes: { x: axisOf(draft.x), y: axisOf(draft.y), ...(draft.third ? { block: axisOf(draft.block) } : {}) },
    fixed: {
      powerPercent: draft.powerPercent,
      speedMmPerS: draft.speedMmPerS,
      intervalMm: draft.intervalMm,
      frequencyKHz: draft.frequencyKHz,
      pulseNs: draft.pulseNs,
    },
    passes: draft.passes,
    hatches: draft.crossed ? 2 : 1,
    cell: { widthMm: draft.cellWidthMm, heightMm: draft.cellHeightMm },
    gapMm: draft.gapMm,
    marginMm: draft.marginMm,
    fill: draft.fill,
    artwork: draft.fill === 'artwork' ? draft.artwork : null,
    lineSpacingMm: draft.lineSpacingMm,
    hatchAngleDeg: draft.hatchAngleDeg,
    directions: draft.directions,
    labels: {
      at: draft.labelsAt,
      captions: 'grid',
      heightMm: draft.labelHeightMm,
      powerPercent: draft.labelPowerPercent,
      speedMmPerS: draft.labelSpeedMmPerS,
      reading,
    },
    blank: { widthMm: draft.blankWidthMm, heightMm: draft.blankHeightMm },
    compoundIds: varies(draft, 'compound') ? [...draft.compoundIds] : [],
    anchors: draft.anchors,
    bareStrip: draft.bareStrip,
    frame: true,
    order: draft.shuffled ? 'shuffled' : 'as read',
    orderSeed: 1,
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

/** Parameters with a single value of their own that no axis of a draft varies; their values are asked for. */
export function fixedParameters(draft: DesignDraft): FixedParameter[] {
  return FIXED_PARAMETERS.filter(
    (parameter) =>
      !varies(draft, parameter) &&
      !(parameter === 'frequency' && draft.frequencyKHz === null) &&
      !(parameter === 'pulse' && draft.pulseNs === null),
  );
}

const FIXED_PARAMETERS = ['power', 'speed', 'interval', 'frequency', 'pulse'] as const;
export type FixedParameter = (typeof FIXED_PARAMETERS)[number];

/** Whether an axis of a draft varies a parameter. */
export function varies(draft: DesignDraft, parameter: CouponParameter): boolean {
  return [draft.x, draft.y, ...(draft.third ? [draft.block] : [])].some((axis) => axis.parameter === parameter);
}

/** The draft that means a design: what a file brings, or a coupon to be made again. */
export function draftOf(design: CouponDesign, focusOffsetMm: number): DesignDraft {
  const axis = (from: CouponAxis | undefined): AxisDraft => ({
    parameter: from?.parameter ?? 'interval',
    spacing: from?.spacing ?? 'list',
    from: from && from.spacing !== 'list' ? from.from : 0.04,
    to: from && from.spacing !== 'list' ? from.to : 0.1,
    count: from && from.spacing !== 'list' ? from.count : 2,
    list: from?.spacing === 'list' ? from.values.join(', ') : '',
  });
  return {
    x: axis(design.axes.x),
    y: axis(design.axes.y),
    third: Boolean(design.axes.block),
    block: axis(design.axes.block),
    ...design.fixed,
    passes: design.passes,
    crossed: design.hatches === 2,
    cellWidthMm: design.cell.widthMm,
    cellHeightMm: design.cell.heightMm,
    gapMm: design.gapMm,
    marginMm: design.marginMm,
    fill: design.fill,
    artwork: design.artwork,
    lineSpacingMm: design.lineSpacingMm,
    hatchAngleDeg: design.hatchAngleDeg,
    directions: design.directions,
    labelsAt: design.labels.at,
    labelHeightMm: design.labels.heightMm,
    labelPowerPercent: design.labels.powerPercent,
    labelSpeedMmPerS: design.labels.speedMmPerS,
    blankWidthMm: design.blank.widthMm,
    blankHeightMm: design.blank.heightMm,
    focusOffsetMm,
    compoundIds: [...design.compoundIds],
    anchors: design.anchors,
    bareStrip: design.bareStrip,
    shuffled: design.order === 'shuffled',
  };
}

function middleOf(range: { readonly low: number; readonly high: number } | undefined): number | null {
  return range ? Number(Math.sqrt(range.low * range.high).toPrecision(2)) : null;
}
