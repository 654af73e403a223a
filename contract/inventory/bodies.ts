import type { InferType } from 'yup';
import { amount, byKind, flag, instant, uuid, who } from '../fields/index.js';
import { NO_KIND } from './of-kind.js';
import { calibrationBody, headBody, lensBody, machineBody } from './bench-bodies.js';
import { blankBody, compoundBody, containerBody, profileBody, substrateBody } from './shelf-bodies.js';
import type { Frozen } from '../routing/index.js';

/** Kinds of things a shop keeps. Each has immutable revisions. */
export const INVENTORY_KINDS = [
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
export type InventoryKind = (typeof INVENTORY_KINDS)[number];

/** The schema of each kind's body. */
export const INVENTORY_BODIES = {
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

export type MachineBody = Frozen<InferType<typeof machineBody>>;
export type HeadBody = Frozen<InferType<typeof headBody>>;
export type LensBody = Frozen<InferType<typeof lensBody>>;
export type CalibrationBody = Frozen<InferType<typeof calibrationBody>>;
export type CompoundBody = Frozen<InferType<typeof compoundBody>>;
export type ContainerBody = Frozen<InferType<typeof containerBody>>;
export type SubstrateBody = Frozen<InferType<typeof substrateBody>>;
export type BlankBody = Frozen<InferType<typeof blankBody>>;
export type ProfileBody = Frozen<InferType<typeof profileBody>>;

export interface InventoryBodyOf {
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
export interface InventoryItem<K extends InventoryKind = InventoryKind> {
  readonly id: string;
  readonly kind: K;
  readonly version: number;
  readonly retired: boolean;
  readonly revisionId: string;
  readonly revision: number;
  readonly body: InventoryBodyOf[K];
  readonly changedAt: string;
  readonly changedBy: string;
}
/** What an item of each kind holds besides what all do. */
export const INVENTORY_SHAPES = Object.fromEntries(
  INVENTORY_KINDS.map((kind) => [kind, { body: INVENTORY_BODIES[kind] }]),
);
export const inventoryItem = byKind<InventoryItem>('kind', INVENTORY_SHAPES, {
  id: uuid(),
  version: amount(),
  retired: flag(),
  revisionId: uuid(),
  revision: amount(),
  changedAt: instant(),
  changedBy: who(),
});

/** References from one kind to another, by field. */
export const INVENTORY_LINKS: Partial<Record<InventoryKind, { field: string; kind: InventoryKind }>> = {
  head: { field: 'machineId', kind: 'machine' },
  lens: { field: 'headId', kind: 'head' },
  calibration: { field: 'headId', kind: 'head' },
  container: { field: 'compoundId', kind: 'compound' },
  blank: { field: 'substrateId', kind: 'substrate' },
};

/** Fields of earlier files by what they are called now. */
export const RENAMED_FIELDS: Partial<Record<InventoryKind, Readonly<Record<string, string>>>> = {
  compound: { bandLowUm: 'dryFilmMinUm', bandHighUm: 'dryFilmMaxUm' },
};

/**
 * Fields that came later, with what an earlier revision is taken to have said. A migration writes them into revisions made before,
 * and a file without them is read so.
 */
export const LATER_FIELDS: Partial<Record<InventoryKind, Record<string, unknown>>> = {
  machine: { ...NO_KIND },
  head: { pulseNsMin: null, pulseNsMax: null, beamDiameterMm: null, ...NO_KIND },
  lens: { spotSource: 'stated', ...NO_KIND },
  container: { ...NO_KIND },
  blank: { ...NO_KIND },
  compound: {
    ...NO_KIND,
    airAssist: null,
    makerClaim: '',
    marks: 'dark',
    forceDry: 'never',
    application: 'aerosol',
    thinner: '',
    thinnerMinorPerL: 0,
    potLifeHours: null,
    dataSheet: null,
    leadTimeDays: null,
    availability: null,
    help: null,
    trackRecord: null,
  },
  substrate: {
    ...NO_KIND,
    ...{ alloy: '', ground: 'light', gaugeNumber: null, gaugeMetal: null, density: null, diameterMm: null },
  },
};
