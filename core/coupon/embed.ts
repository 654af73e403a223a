import { readDxfNote } from '../formats/dxf.js';
import { CoreError } from '../support/core-error.js';
import type { CouponDesign } from './design.js';

const OPEN = 'unto-design:';

/** A design as one token of printable ASCII without brackets or angle marks, safe inside a G-code comment and in XML. */
export function designToken(design: CouponDesign): string {
  return OPEN + encodeURIComponent(JSON.stringify(design)).replace(/[()]/g, (c) => `%${c.charCodeAt(0).toString(16)}`);
}

/**
 * Reads the design back out of an SVG, DXF, G-code or CSV file that Unto wrote; whoever asks checks it against its schema.
 * @throws csv.malformed when the file carries none or a damaged one
 */
export function readEmbeddedDesign(text: string): unknown {
  // In a DXF and in G-code the token is cut into comment lines.
  const whole = text.includes('AC1009') ? readDxfNote(text) : text.replace(/\)\r?\n\(\+/g, '');
  const token = /unto-design:([A-Za-z0-9%._~!*'-]+)/.exec(whole)?.[1];
  if (!token) {
    throw new CoreError(
      'csv.malformed',
      'This file carries no coupon design; only files written here can be read back.',
    );
  }
  try {
    return JSON.parse(decodeURIComponent(token)) as unknown;
  } catch {
    throw new CoreError('csv.malformed', 'The coupon design inside this file is damaged.');
  }
}
