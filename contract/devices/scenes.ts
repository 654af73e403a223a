import type { CalibrationRow, Stage, SubstrateFamily, SurfaceLayer, WavelengthClass } from '@unto/core';

/** What lies at a device, told to a simulator before it is used. A real device needs none of it: it looks for itself. */
export type Scene =
  | ({ readonly at: 'scale' } & ScaleScene)
  | ({ readonly at: 'camera' } & CameraScene)
  | ({ readonly at: 'head' } & HeadScene);

/** What is about to be weighed. */
export interface ScaleScene {
  /** Names the thing on the pan: the same name is the same thing. */
  readonly key: string;
  readonly moment: 'before' | 'after';
  /** The coat that lies between before and after: the ticket's. */
  readonly batch: string;
  readonly lastKnownG: number;
  /** Mass meant to leave the container, g. */
  readonly massToApplyG: number;
  readonly massSolids: number;
}

/** What lies before the camera. */
export type CameraScene = CoatScene | CouponScene | TrayScene;

/** A coated part with a bare twin beside it. */
export interface CoatScene {
  readonly kind: 'coat';
  /** The coat that is looked at: the ticket's. */
  readonly batch: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly ground: 'light' | 'dark' | 'clear';
}

/** A burnt coupon on the reference card; the program it was burnt by, should the simulator not know the blank. */
export interface CouponScene {
  readonly kind: 'coupon';
  readonly stage: Stage;
  readonly setup: BurnSetup;
  readonly program: string;
}

/** Washed pieces in rows beside the reference card; the program they were burnt by, should the simulator not know them. */
export interface TrayScene {
  readonly kind: 'tray';
  readonly stage: Stage;
  readonly setup: BurnSetup;
  /** Where each lay under the head as it was burnt, in the order they lie on the tray now. */
  readonly pieces: readonly LaidPiece[];
  readonly program: string;
}

/** A piece of a jig: which of its program it is, and where its lower left corner lies. */
export interface LaidPiece {
  /** Its number less one. */
  readonly part: number;
  readonly xMm: number;
  readonly yMm: number;
  /** Turned about it, degrees counter-clockwise; straight where nothing is said. */
  readonly turnDeg?: number;
}

/** Blanks under the head, and how the switches beside it stand; null for not said. */
export interface HeadScene {
  readonly setup: BurnSetup;
  /** Pieces alike, each a blank of its own; none where one lies at 0, 0. */
  readonly pieces?: readonly LaidPiece[] | undefined;
  readonly air: boolean | null;
  readonly extraction: boolean | null;
}

/** A part of a blank that was sprayed like no other: by its left and right edge, mm. */
export interface SprayedBlock {
  readonly fromMm: number;
  readonly toMm: number;
  /** Name of the compound; empty where nothing was sprayed. */
  readonly compound: string;
  readonly coats: number;
  /** Dries to loose powder, which air carries away. */
  readonly powder: boolean;
}

/** What lies under the head, and the head itself. */
export interface BurnSetup {
  /** Names the blank: the same name is the same blank. */
  readonly key: string;
  readonly blank: { readonly widthMm: number; readonly heightMm: number };
  readonly blocks: readonly SprayedBlock[];
  /** The coat it was sprayed with: the ticket's, as a scale may have weighed it; empty for none. */
  readonly batch: string;
  /** Focus above the surface as the head was set, mm. */
  readonly focusMm: number;
  readonly family: SubstrateFamily;
  readonly layer: SurfaceLayer;
  readonly ground: 'light' | 'dark' | 'clear';
  readonly conductivity: number;
  readonly diffusivity: number;
  readonly beam: WavelengthClass;
  readonly ratedW: number;
  readonly firingThresholdPercent: number;
  readonly calibration: readonly CalibrationRow[] | null;
  /** Radius of the spot (1/e²), mm. */
  readonly radiusMm: number;
  readonly rayleighMm: number;
  readonly accelerationMmPerS2: number;
  readonly rapidMmPerS: number;
  readonly fullScaleS: number;
}
