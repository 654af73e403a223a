import { dxfFile, dxfPolyline } from '../formats/dxf.js';
import { escapeXml, mmText as mm } from '../formats/xml.js';
import type { ProgramOptions, ProgramPiece } from './program.js';
import { pathData } from './path-data.js';
import { placed, type ArtworkShape } from './shapes.js';

/** Words that ride along: what the drawing is marked with. */
interface Said {
  readonly options: Pick<ProgramOptions, 'title' | 'work'>;
  readonly words: string;
}

/** Shapes of a piece where it lies, those that are marked. */
function shapesAt(piece: ProgramPiece, { options }: Said): ArtworkShape[] {
  const wanted = [...piece.shapes, ...piece.own].filter(
    ({ as }) => options.work === 'both' || (options.work === 'lines') === (as === 'line'),
  );
  return placed(wanted, piece);
}

/**
 * Pieces in their places as SVG 1.1 at true size in mm, a group a piece with its number and name; fills are filled, lines are strokes, what is
 * left bare is white. What they are marked with stands in the metadata.
 */
export function piecesSvg(pieces: readonly ProgramPiece[], said: Said): string {
  const all = pieces.map((piece) => shapesAt(piece, said));
  const corners = all.flat().flatMap(({ rings }) => rings);
  const [width, height] = [0, 1].map((axis) =>
    Math.ceil(
      Math.max(
        1,
        ...corners.map((ring) => ring.reduce((most, at, i) => (i % 2 === axis ? Math.max(most, at) : most), 0)),
      ),
    ),
  ) as [number, number];
  const groups = pieces.map(
    ({ number, name }, i) =>
      `<g id="piece-${number}"><title>${escapeXml(`${number} ${name}`.trim())}</title>${all[i]!.map((shape) => pathElement(shape, height)).join('')}</g>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" version="1.1" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">
<title>${escapeXml(said.options.title)}</title>
<metadata>${escapeXml(said.words)}</metadata>
${groups.join('\n')}
</svg>
`;
}

function pathElement({ as, rule, rings }: ArtworkShape, height: number): string {
  const d = pathData({ as, rings }, height, mm);
  if (as === 'line') return `<path d="${d}" fill="none" stroke="#000" stroke-width="0.1"/>`;
  return `<path d="${d}" fill="${as === 'marked' ? '#000' : '#fff'}" fill-rule="${rule}"/>`;
}

/** Pieces in their places as DXF R12 in mm, a layer a piece; what they are marked with stands in comments. */
export function piecesDxf(pieces: readonly ProgramPiece[], said: Said): string {
  const entities = pieces.flatMap((piece) =>
    shapesAt(piece, said).flatMap(({ as, rings }) =>
      rings.flatMap((ring) => {
        const points = Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i]!, ring[2 * i + 1]!] as const);
        return dxfPolyline(points, `PIECE_${piece.number}`, as !== 'line');
      }),
    ),
  );
  return dxfFile(entities, `${said.options.title}: ${said.words}`.replace(/[^\x20-\x7e]/g, '?'));
}
