import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  measureArtwork,
  programParts,
  svgArtwork,
  type Artwork,
  type ProgramOptions,
  type ProgramPiece,
  type ProgramSetting,
} from '@unto/core';
import { median, type Line } from './line.js';

const AS_IS = { unit: null, closed: 'filled', widthMm: null } as const;

/** A drawing of so many corners: rings of wavy outline. */
function drawing(corners: number): string {
  const rings = 50;
  const each = Math.floor(corners / rings);
  const path = Array.from({ length: rings }, (_, ring) => {
    const [x, y] = [6 + 12 * (ring % 10), 6 + 12 * Math.floor(ring / 10)];
    return Array.from({ length: each }, (_, k) => {
      const turn = (2 * Math.PI * k) / each;
      const radius = 5 + 0.3 * Math.sin(40 * turn);
      return `${k ? 'L' : 'M'}${(x + radius * Math.cos(turn)).toFixed(4)} ${(y + radius * Math.sin(turn)).toFixed(4)}`;
    }).join('');
  }).join('Z');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="130mm" height="70mm" viewBox="0 0 130 70"><path d="${path}Z"/></svg>`;
}

/** Fifty thousand segments measured, once they are read. */
export function artworkMeasured(): Line {
  const artwork = svgArtwork(drawing(50_000), AS_IS);
  const time = median(5, () => measureArtwork(artwork));
  const read = median(3, () => svgArtwork(drawing(50_000), AS_IS));
  return {
    what: 'artwork of 50 000 segments measured',
    figure: `${time.toFixed(0)} ms; reading its SVG ${read.toFixed(0)} ms`,
    against: 'reading the file',
    ratio: (time / read).toFixed(2),
    goal: '< 300 ms',
    met: time < 300,
  };
}

const SETTING: ProgramSetting = {
  ...{ powerPercent: 90, speedMmPerS: 80, intervalMm: 0.08, passes: 1, hatches: 1, angleDeg: 0, directions: 'two-way' },
};
const OPTIONS: ProgramOptions = {
  ...{ title: 'Tags', work: 'both', outlineFirst: false, oneByOne: false, fullScaleS: 1000, laserOn: 'M4' },
  motion: { kind: 'gantry', accelerationMmPerS2: 3000, rapidMmPerS: 400 },
};

function tags(artwork: Artwork): ProgramPiece[] {
  return Array.from({ length: 48 }, (_, i) => ({
    ...{ number: i + 1, name: `BED ${i + 1}`, xMm: 46 * (i % 8), yMm: 30 * Math.floor(i / 8), turnDeg: 0 },
    ...{ shapes: artwork.shapes, own: [] },
  }));
}

/** A program of 48 pieces made, against writing its bytes. */
export function artworkProgram(): Line {
  const pieces = tags(svgArtwork(drawing(4000), { ...AS_IS, widthMm: 38 }));
  const text = [...programParts(pieces, SETTING, OPTIONS)].join('');
  const made = median(5, () => [...programParts(pieces, SETTING, OPTIONS)].length);
  const file = join(tmpdir(), 'unto-bench-program.gcode');
  const written = median(5, () => writeFileSync(file, text));
  return {
    what: 'program of 48 pieces',
    figure: `${made.toFixed(0)} ms for ${(text.length / 1e6).toFixed(1)} MB`,
    against: 'writing its bytes to a file',
    ratio: (made / written).toFixed(1),
    goal: '≤ 4 ×',
    met: made <= 4 * written,
  };
}
