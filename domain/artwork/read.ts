import {
  pathData,
  dxfArtwork,
  gcodeArtwork,
  imageArtwork,
  measureArtwork,
  svgArtwork,
  type Artwork,
  type ArtworkMeasure,
  type ArtworkShape,
  type MarkedDots,
} from '@unto/core';
import type { ArtworkDrawing, ArtworkKind, CreateArtwork } from '@unto/contract';

/** A picture as decoded: lightness of every dot from the top row down, and how many dots it says an inch has. */
export interface GreyPicture {
  readonly width: number;
  readonly height: number;
  readonly grey: Uint8Array;
  readonly dotsPerInch: number | null;
}

/** A file of artwork with what was said of it: a text, or a picture that is decoded already. */
export interface ArtworkFile {
  readonly kind: ArtworkKind;
  readonly content: Uint8Array | GreyPicture;
  readonly entered: CreateArtwork['entries'];
}

const READERS = { SVG: svgArtwork, DXF: dxfArtwork, 'G-code': gcodeArtwork } as const;

/** Reads a file of artwork. @throws artwork.*, csv.* of the core */
export function readArtwork({ kind, content, entered }: ArtworkFile): Artwork {
  if ('grey' in content) return pictureArtwork(content, entered);
  const text = new TextDecoder().decode(content).replace(/^\uFEFF/, '');
  return READERS[kind as keyof typeof READERS](text, entered);
}

function pictureArtwork({ width, height, grey, dotsPerInch }: GreyPicture, entered: CreateArtwork['entries']): Artwork {
  const dots: MarkedDots = { width, height, dots: grey.map((light) => (light < entered.darker ? 1 : 0)) };
  // The width said is the picture's, not that of what is dark in it.
  const own = entered.widthMm !== null ? entered.widthMm / width : dotsPerInch ? 25.4 / dotsPerInch : null;
  return imageArtwork(dots, own);
}

/** What an artwork measures and what was left out of it. */
export function artworkFacts(file: ArtworkFile): {
  readonly measure: ArtworkMeasure;
  readonly said: readonly string[];
} {
  const artwork = readArtwork(file);
  return { measure: measureArtwork(artwork), said: artwork.said };
}

/** An artwork as paths in mm, y down from its upper left corner. */
export function drawingOf({ shapes, widthMm, heightMm }: Artwork): ArtworkDrawing {
  return {
    widthMm,
    heightMm,
    paths: shapes.map((shape) => ({ as: shape.as, evenodd: evenodd(shape), d: pathData(shape, heightMm) })),
  };
}

function evenodd({ as, rule }: ArtworkShape): string | null {
  return as !== 'line' && rule === 'evenodd' ? 'evenodd' : null;
}
