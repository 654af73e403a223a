/** What a piece is filled with: lines beside each other, lines apart from each other, or strokes of the artwork. */
export const FILLS = ['filled', 'lines', 'artwork'] as const;
export type Fill = (typeof FILLS)[number];

/** Rows run one way only, or there and back. */
export const DIRECTIONS = ['one-way', 'two-way'] as const;
export type Directions = (typeof DIRECTIONS)[number];

/** Power held while the head slows down and speeds up, or scaled with its speed. */
export const POWER_MODES = ['constant', 'scaled'] as const;
export type PowerMode = (typeof POWER_MODES)[number];

export const SWITCH_STATES = ['off', 'on'] as const;
export type SwitchState = (typeof SWITCH_STATES)[number];

/** What of a setting is said without a panel's scale. */
export interface SettingRest {
  readonly passes: number;
  /** 1 in one direction, 2 crossed at a right angle. */
  readonly hatches: number;
  readonly angleDeg: number;
  readonly fill: Fill;
  /** Focus above the surface, mm. */
  readonly focusOffsetMm: number;
  /** Null where the head has none to set. */
  readonly frequencyKHz: number | null;
  /** Null where the head has none to set. */
  readonly pulseNs: number | null;
  /** Null where nobody noted it; so with what follows. */
  readonly directions: Directions | null;
  readonly powerMode: PowerMode | null;
  readonly air: SwitchState | null;
  readonly extraction: SwitchState | null;
}

/** All that decides a mark and can be set, in core units; null where it cannot be known. */
export interface MarkSetting extends SettingRest {
  readonly powerPercent: number | null;
  /** What reached the part, by the calibration in force. */
  readonly powerW: number | null;
  readonly speedMmPerS: number | null;
  /** Between lines: of the hatch, or of separate lines. */
  readonly intervalMm: number | null;
}

/** A setting of which power, speed and interval are known. */
export interface KnownSetting extends MarkSetting {
  readonly powerPercent: number;
  readonly powerW: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
}

/** The rest of a setting before anybody said anything: once over, in one direction, at focus. */
export const PLAIN_SETTING = {
  passes: 1,
  hatches: 1,
  angleDeg: 0,
  fill: 'filled',
  focusOffsetMm: 0,
  frequencyKHz: null,
  pulseNs: null,
  directions: null,
  powerMode: null,
  air: null,
  extraction: null,
} as const satisfies SettingRest;

/** The parts of a setting, in the order they are said. Power is compared as it is set. */
export const SETTING_PARTS = [
  'powerPercent',
  'speedMmPerS',
  'intervalMm',
  'passes',
  'hatches',
  'angleDeg',
  'fill',
  'focusOffsetMm',
  'frequencyKHz',
  'pulseNs',
  'directions',
  'powerMode',
  'air',
  'extraction',
] as const satisfies readonly (keyof MarkSetting)[];
export type SettingPart = (typeof SETTING_PARTS)[number];

export const SETTING_PART_NAMES: Record<SettingPart, string> = {
  powerPercent: 'power',
  speedMmPerS: 'speed',
  intervalMm: 'line interval',
  passes: 'passes',
  hatches: 'crossing',
  angleDeg: 'hatch angle',
  fill: 'fill',
  focusOffsetMm: 'focus',
  frequencyKHz: 'frequency',
  pulseNs: 'pulse length',
  directions: 'row directions',
  powerMode: 'power at turns',
  air: 'air assist',
  extraction: 'extraction',
};

/** The setting alone, without what else a record holds. */
export function settingOf(record: MarkSetting): MarkSetting {
  const { powerW } = record;
  return {
    ...(Object.fromEntries(SETTING_PARTS.map((part) => [part, record[part]])) as unknown as MarkSetting),
    powerW,
  };
}
