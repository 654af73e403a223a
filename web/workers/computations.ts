import { CoreError, type CoreErrorCode } from '@unto/core';
import type {
  BedPicture,
  CardOnMachine,
  PieceSize,
  PlanePoint,
  Comparison,
  Expected,
  ExpectedGain,
  Match,
  Measure,
  PieceReading,
  PieceSpots,
  Mix,
  SeenEffect,
  MeasuredCell,
  Spread,
  NestProgress,
  ChoiceKind,
  NextBlock,
  NextReach,
  OddCell,
  Point2,
  CardPrints,
  CellOutcomes,
  CellPrediction,
  CharacterisedCard,
  CoatMap,
  CoatReference,
  CouponEquipment,
  CouponDesign,
  CouponLayout,
  CouponLimits,
  CouponPictureReading,
  GcodeOptions,
  SettingChoice,
  SettingCost,
  SettingJob,
  WindowBand,
  WindowEquipment,
  WindowFit,
  WindowMap,
  WindowRest,
  WindowTimes,
} from '@unto/core';
import type { LayoutEntries, PictureEntries, SheetEntries, Teaching } from '@unto/contract';
import type { PiecePreview, piecePreview, Proof, SettablePart, SheetResult, WindowFamily } from '@unto/domain';

/** An answer of the worker: the value, or the core's refusal with its code. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | {
      readonly ok: false;
      readonly code: CoreErrorCode;
      readonly message: string;
      readonly path?: string | undefined;
      readonly line?: number | undefined;
    };

export interface DesignedCoupon {
  readonly layout: CouponLayout;
  readonly predictions: readonly CellPrediction[];
  readonly runTimeS: number;
  /** Room the fastest row needs beside the cells to come up to speed, mm. */
  readonly runUpMm: number;
  /** Dose of the labels, J/mm². */
  readonly labelDose: number;
}

/** What a map is worked out over. */
export interface WindowGrid {
  readonly powersW: readonly number[];
  readonly speedsMmPerS: readonly number[];
  readonly rest: WindowRest;
}

/** A fitted window. */
export interface DrawnWindow {
  readonly fit: WindowFit;
  /** What may be chosen, by what for. */
  readonly answer: Readonly<Record<ChoiceKind, OfferedSetting | null>>;
  /** What lots and people seen in it ask for. */
  readonly seen: readonly SeenEffect[];
  /** Cells that the others do not bear out. */
  readonly odd: readonly OddCell[];
  /** What the fit says of the cells as a whole. */
  readonly notes: readonly string[];
  /** Where a next coupon tells most. */
  readonly next: NextBlock | null;
}

/** A window to be compared with others. */
export interface ComparedWindow {
  readonly family: WindowFamily;
  readonly equipment: WindowEquipment;
  readonly job: SettingJob;
  readonly otherRevisions: readonly string[];
  readonly settable: readonly SettablePart[];
  /** What the shop knows of the compound elsewhere, for such a family. */
  readonly teachings: readonly Teaching[];
}

/** What the comparison says of a window: where it holds, how quick it may be, and how it compares with the first. */
export interface ComparedAnswer {
  readonly bands: readonly WindowBand[];
  readonly times: WindowTimes;
  readonly best: Spread;
  readonly quickest: OfferedSetting | null;
  readonly withFirst: Comparison;
  /** Watts at which the quicker of it and the first changes. */
  readonly crossovers: readonly number[];
}

/** A setting that the window offers, and what its proof is worth. */
export type OfferedSetting = SettingChoice & {
  readonly proof: Proof;
  /** Contrast that a mark made there is expected to read, L*; null where too few cells were read from pictures. */
  readonly contrast: Expected | null;
};

/** A setting that comes near a piece, and what its proof is worth. */
export type MatchedSetting = Omit<Match, 'choice'> & { readonly choice: OfferedSetting };
export interface MatchedWindow {
  readonly nearest: MatchedSetting | null;
  readonly proven: MatchedSetting | null;
}

/** What a picture tells of a coupon, and the coupon straight from above as a JPEG. */
export interface ReadCouponPicture {
  readonly reading: Omit<CouponPictureReading, 'picture'>;
  readonly level: Blob;
  readonly levelPxMm: number;
  readonly tookMs: number;
}

/** Where somebody pointed at a cross: its middle where one shows. */
export type SeenCross = PlanePoint & { readonly cross: boolean };

/** A bed as it is shown: its picture as a JPEG, mm on the machine. */
export type SeenBed = Omit<BedPicture, 'pixels'> & { readonly level: Blob };

/** Everything the worker computes. */
export interface Computations {
  design(task: {
    design: CouponDesign;
    limits: CouponLimits;
    equipment: CouponEquipment;
  }): Promise<Answer<DesignedCoupon>>;
  program(task: { layout: CouponLayout; options: GcodeOptions }): Promise<Answer<string>>;
  drawing(layout: CouponLayout): Promise<Answer<string>>;
  dxf(layout: CouponLayout): Promise<Answer<string>>;
  table(task: {
    layout: CouponLayout;
    predictions: readonly CellPrediction[];
    outcomes: readonly CellOutcomes[];
  }): Promise<Answer<string>>;
  readTable(task: { text: string; layout: CouponLayout }): Promise<Answer<CellOutcomes[]>>;
  /** Opens a picture for reading, at most 1600 px across; with a first guess at the corners of the part on it. */
  openPicture(
    picture: Blob,
  ): Promise<Answer<{ readonly width: number; readonly height: number; readonly corners: readonly Point2[] | null }>>;
  /** Film over the opened picture. */
  readCoat(
    task: Omit<PictureEntries, 'map'> & { readonly cellMm: number; readonly ground: CoatReference['ground'] },
  ): Promise<Answer<CoatMap>>;
  /** Opens a picture of a coupon under a name: finds its card and levels it. The two opened last are kept. */
  openCoupon(task: {
    readonly key: string;
    readonly picture: Blob;
    readonly prints: CardPrints;
  }): Promise<Answer<{ readonly width: number; readonly height: number }>>;
  /** Reads an opened picture, by the corner marks it finds or by those given (px of the picture). */
  readCoupon(task: {
    readonly key: string;
    readonly layout: CouponLayout;
    readonly corners: readonly Point2[] | null;
  }): Promise<Answer<ReadCouponPicture>>;
  /** Middles of burnt crosses near places of an open picture (px), mm on its card; the places themselves where no cross shows. */
  crosses(task: { readonly key: string; readonly places: readonly Point2[] }): Promise<Answer<readonly SeenCross[]>>;
  /** The bed from straight above in the machine's own mm, and the pieces found on it. */
  bedPicture(task: {
    readonly key: string;
    readonly card: CardOnMachine;
    readonly size: PieceSize;
  }): Promise<Answer<SeenBed>>;
  /** Reads a mark on any piece, on a picture that is open. */
  readPiece(task: { readonly key: string; readonly spots: PieceSpots }): Promise<Answer<PieceReading>>;
  /** What comes nearest a piece in each of some windows. */
  match(task: {
    readonly windows: readonly ComparedWindow[];
    readonly target: PieceReading;
    readonly seed: number;
  }): Promise<Answer<readonly MatchedWindow[]>>;
  /** What a card's print throws back, from a photograph with a known white in its window. */
  characteriseCard(task: { readonly picture: Blob; readonly white: number }): Promise<Answer<CharacterisedCard>>;
  /** The texts of a layout as they come out on one piece, and what is wrong with those of any. */
  pieceTexts(task: { entries: LayoutEntries; job: Parameters<typeof piecePreview>[1] }): Promise<Answer<PiecePreview>>;
  /** Lays a sheet out; `tell` hears of the best layout after every order tried. */
  sheet(entries: SheetEntries, tell: (progress: NestProgress) => void): Promise<Answer<SheetResult>>;
  /** What pictures tell of one measure over the grid of a map; null where too few cells tell it. */
  measureMap(task: {
    readonly cells: readonly MeasuredCell[];
    readonly measure: Measure;
    readonly map: WindowGrid;
  }): Promise<Answer<Float64Array | null>>;
  /** What a proposed coupon is likely to bring, played through. */
  gain(task: {
    readonly fit: WindowFit;
    readonly job: SettingJob;
    readonly block: NextBlock;
    readonly proven: SettingChoice | null;
    readonly equipment: WindowEquipment;
    readonly teachings: readonly Teaching[];
  }): Promise<Answer<ExpectedGain>>;
  /** A fitted window over a grid. */
  map(task: { readonly fit: WindowFit; readonly grid: WindowGrid }): Promise<Answer<WindowMap>>;
  /** Windows against one another on the same axes, the others against the first. */
  compare(task: {
    readonly windows: readonly ComparedWindow[];
    readonly powersW: readonly number[];
    readonly seed: number;
  }): Promise<Answer<readonly ComparedAnswer[]>>;
  window(
    task: ComparedWindow & {
      seed: number;
      /** What a piece costs besides the minutes under the head; null where no price is known. */
      cost: SettingCost | null;
      /** Whether the mark is to be darker or lighter than its ground. */
      tone: 'dark on light' | 'light on dark';
      /** What somebody weighs against what; null where nobody does. */
      mix: Mix | null;
      reach: NextReach;
    },
  ): Promise<Answer<DrawnWindow>>;
}

/** Runs a piece of the core and keeps its refusal's code across the worker's border. */
export function answered<T>(work: () => T): Answer<T> {
  try {
    return { ok: true, value: work() };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    const { code, message, path, line } = error;
    return { ok: false, code, message, path, line };
  }
}

/** As answered, for work that takes its time. */
export async function answeredLater<T>(work: () => Promise<T>): Promise<Answer<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    return answered<T>(() => {
      throw error;
    });
  }
}

/** The value of an answer. @throws CoreError when it was refused */
export function valueOf<T>(answer: Answer<T>): T {
  if (answer.ok) return answer.value;
  throw new CoreError(answer.code, answer.message, {
    ...(answer.path ? { path: answer.path } : {}),
    ...(answer.line ? { line: answer.line } : {}),
  });
}
