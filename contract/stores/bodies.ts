import type { InferType } from 'yup';
import { calibrationBody, headBody, lensBody, machineBody } from './bench-bodies.js';
import { blankBody, compoundBody, containerBody, profileBody, substrateBody } from './shelf-bodies.js';

/** Kinds of things a shop keeps. Each has immutable revisions. */
export const STORE_KINDS = [
  'machine',
  'head',
  'lens',
  'calibration',
  'compound',
  'container',
  'substrate',
  'blank',
  'profile',
] as const;
export type StoreKind = (typeof STORE_KINDS)[number];

/** The schema of each kind's body. */
export const STORE_BODIES = {
  machine: machineBody,
  head: headBody,
  lens: lensBody,
  calibration: calibrationBody,
  compound: compoundBody,
  container: containerBody,
  substrate: substrateBody,
  blank: blankBody,
  profile: profileBody,
} as const;

export type MachineBody = InferType<typeof machineBody>;
export type HeadBody = InferType<typeof headBody>;
export type LensBody = InferType<typeof lensBody>;
export type CalibrationBody = InferType<typeof calibrationBody>;
export type CompoundBody = InferType<typeof compoundBody>;
export type ContainerBody = InferType<typeof containerBody>;
export type SubstrateBody = InferType<typeof substrateBody>;
export type BlankBody = InferType<typeof blankBody>;
export type ProfileBody = InferType<typeof profileBody>;

export interface StoreBodyOf {
  machine: MachineBody;
  head: HeadBody;
  lens: LensBody;
  calibration: CalibrationBody;
  compound: CompoundBody;
  container: ContainerBody;
  substrate: SubstrateBody;
  blank: BlankBody;
  profile: ProfileBody;
}

/** A store item with the body of its newest revision. */
export interface StoreItem<K extends StoreKind = StoreKind> {
  readonly id: string;
  readonly kind: K;
  readonly version: number;
  readonly retired: boolean;
  readonly revisionId: string;
  readonly revision: number;
  readonly body: StoreBodyOf[K];
  readonly changedAt: string;
  readonly changedBy: string;
}

/** References from one kind to another, by field. */
export const STORE_LINKS: Partial<Record<StoreKind, { field: string; kind: StoreKind }>> = {
  head: { field: 'machineId', kind: 'machine' },
  lens: { field: 'headId', kind: 'head' },
  calibration: { field: 'headId', kind: 'head' },
  container: { field: 'compoundId', kind: 'compound' },
  blank: { field: 'substrateId', kind: 'substrate' },
};

/**
 * Fields that came later, with what an earlier revision is taken to have said. A migration writes them into revisions made before,
 * and a file without them is read so.
 */
export const LATER_FIELDS: Partial<Record<StoreKind, Record<string, unknown>>> = {
  head: { pulseNsMin: null, pulseNsMax: null, beamDiameterMm: null },
  lens: { spotSource: 'stated' },
  compound: {
    makerClaim: '',
    marks: 'dark',
    forceDry: 'never',
    thinner: '',
    thinnerMinorPerL: 0,
    potLifeHours: null,
    dataSheet: null,
    leadTimeDays: null,
    availability: null,
    help: null,
    trackRecord: null,
  },
  substrate: { alloy: '', ground: 'light', gaugeNumber: null, gaugeMetal: null, density: null, diameterMm: null },
};
