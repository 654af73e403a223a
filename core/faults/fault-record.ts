import type { CoatHandling } from '../choose/vocabulary.js';
import type { Ranged } from '../cost/cost-per-piece.js';
import type { SwitchState } from '../setting/mark-setting.js';
import type { FaultSpot } from './symptoms.js';

/** Pieces judged good of those made, with one lot and with the others. */
export interface LotRecord {
  readonly lot: string;
  readonly good: number;
  readonly made: number;
  readonly othersGood: number;
  readonly othersMade: number;
}

/** The coat that was fired; each part null where nobody kept it. */
export interface CoatRecord {
  readonly handling: CoatHandling;
  /** Dry film, µm, nine of ten times between its ends. */
  readonly film: Ranged | null;
  readonly bandUm: { readonly low: number; readonly high: number };
  /** What a look or a picture found of it before it was fired; null where nobody looked, empty where nothing was wrong. */
  readonly findings: readonly ('thin' | 'thick' | 'lumps' | 'runs' | 'touched' | 'brush')[] | null;
  readonly driedS: number | null;
  readonly dryS: number;
  readonly shaken: boolean;
  /** A wet mix was sprayed after its time, or the container was used past its date. */
  readonly pastTime: boolean;
  /** Percent, as it was sprayed. */
  readonly humidity: number | null;
  /** It lay on the shelf before it was fired. */
  readonly stored: boolean;
  readonly lot: LotRecord | null;
}

/** How it lay under the beam. */
export interface PlaceRecord {
  /** Heights were read over the part before it was fired. */
  readonly heightsRead: boolean;
  /** Height off the focus where the fault lies, or at the worst place of the mark; mm, null where no heights were read. */
  readonly offMm: number | null;
  readonly depthMm: number;
  readonly longestMm: number;
  /** Somebody found the focus, or set it by a gauge, on this ticket. */
  readonly focusFound: boolean;
  /** Ticked as the run began. */
  readonly focusTicked: boolean;
}

/** The setting against what is known of its window. */
export interface FiredSetting {
  /** Chances that it bonds and that it is overdone, by the window; null where no window tells. */
  readonly window: { readonly bonds: number; readonly overdone: number } | null;
  /** Line interval over the width of the spot. */
  readonly intervalToSpot: number;
  /** Speed over the recipe’s; null without one. */
  readonly speedToRecipe: number | null;
  /** It is the setting of a proved recipe, unchanged; null for a coupon, which is there to try. */
  readonly asProved: boolean | null;
  /** Runs of its recipe drift. */
  readonly drifts: boolean;
}

/** All that the record says of what was fired, as of the moment the fault is looked for. */
export interface FaultRecord {
  readonly coat: CoatRecord | null;
  readonly air: SwitchState | null;
  readonly extraction: SwitchState | null;
  readonly place: PlaceRecord;
  /** Null for a coat that was not fired. */
  readonly setting: FiredSetting | null;
  /** Hours that the lens was under the beam since it was cleaned, and the tube since it was new; null where nobody noted either. */
  readonly lensHours: number | null;
  readonly tubeHours: number | null;
  readonly part: {
    readonly metal: boolean;
    readonly vitreous: boolean;
    /** Somebody ticked that it is bare; null where that is not asked. */
    readonly bareTicked: boolean | null;
    /** Chance that it is not bare, by a test of what it is; null without one. */
    readonly notBare: number | null;
    /** Its ground is of the tone the mark should have. */
    readonly groundLikeMark: boolean;
    readonly degreased: boolean;
    readonly lot: LotRecord | null;
  };
  /** Pieces of the run, and how many of them look alike; null where only one is known. */
  readonly pieces: { readonly made: number; readonly alike: number; readonly samePlace: boolean } | null;
  readonly spots: readonly FaultSpot[];
  readonly wash: {
    /** Minutes from the run to its cleaning; null where it was not cleaned yet. */
    readonly afterMinutes: number | null;
    /** A cooling clock ran out before it was washed; null where none is asked for. */
    readonly cooled: boolean | null;
    readonly residue: string | null;
  };
}
