import { mmText as mm } from './xml.js';

/** A comment line of R12 holds 255 characters at most. */
const COMMENT_CHARACTERS = 240;

/** A DXF R12 file of some entities, mm; a note rides in comments (group 999), cut into lines that readDxfNote joins again. */
export function dxfFile(entities: readonly string[], note = ''): string {
  const lines = note.match(new RegExp(`.{1,${COMMENT_CHARACTERS}}`, 'g')) ?? [];
  const comments = lines.flatMap((line) => ['999', line]);
  const header = ['0', 'SECTION', '2', 'HEADER', '9', '$ACADVER', '1', 'AC1009', '0', 'ENDSEC'];
  return [...comments, ...header, '0', 'SECTION', '2', 'ENTITIES', ...entities, '0', 'ENDSEC', '0', 'EOF', ''].join(
    '\r\n',
  );
}

/** The note that dxfFile put in front. */
export function readDxfNote(text: string): string {
  return Array.from(text.matchAll(/^ *999\r?\n(.*?)\r?$/gm), ([, line]) => line).join('');
}

/** A polyline through points, mm. */
export function dxfPolyline(
  points: readonly (readonly [x: number, y: number])[],
  layer: string,
  closed: boolean,
): string[] {
  return [
    ...['0', 'POLYLINE', '8', layer, '66', '1', '70', closed ? '1' : '0', '10', '0', '20', '0', '30', '0'],
    ...points.flatMap(([x, y]) => ['0', 'VERTEX', '8', layer, '10', mm(x), '20', mm(y), '30', '0']),
    ...['0', 'SEQEND', '8', layer],
  ];
}
