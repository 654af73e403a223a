import type { Outcome, Point2 } from '@unto/core';
import type { CouponPicture, CouponPictureEntries } from '@unto/contract';

/** A picture of a coupon at a stage: as kept, or opened and not kept yet. */
export interface OpenedPicture {
  readonly hash: string;
  /** The row it is kept under; null until it is. */
  readonly keptAs: string | null;
  readonly at: string | null;
  readonly entries: CouponPictureEntries | null;
  /** The photograph and its size; null while it was not opened again. */
  readonly photo: { readonly url: string; readonly width: number; readonly height: number } | null;
  readonly level: LevelView | null;
  /** Corner marks in the photograph, px. */
  readonly corners: readonly Point2[];
  readonly sure: boolean;
  readonly missing: readonly string[];
  readonly tookS: number | null;
}

/** The coupon straight from above. */
export interface LevelView {
  readonly url: string;
  readonly pxMm: number;
  /** What is to be kept of it; null where it is kept already. */
  readonly made: Blob | null;
}

/** An outcome somebody took against what was proposed, and why. */
export interface TakenByHand {
  readonly outcome: Outcome;
  readonly reason: string;
}

/** What a kept row tells of its picture. */
export function keptParts({ id, at, entries }: CouponPicture) {
  return { keptAs: id, at, entries, corners: entries.corners, sure: true };
}

/** A kept picture as it is first shown: straight as it was kept, its photograph left where it lies. */
export function asKept(kept: CouponPicture): OpenedPicture {
  const { fileHash, level } = kept.entries;
  return {
    hash: fileHash,
    ...keptParts(kept),
    photo: null,
    level: level ? { url: `/api/files/${level.fileHash}`, pxMm: level.pxMm, made: null } : null,
    missing: [],
    tookS: null,
  };
}
