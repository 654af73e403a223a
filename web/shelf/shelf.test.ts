import { STORE_BODIES, STORE_KINDS } from '@unto/contract';
import { describe, expect, it } from 'vitest';
import { blankBody, rowsToText, shelfFields, textToRows } from './describe-fields';

describe('store forms read off their schemas', () => {
  it.each(STORE_KINDS)('%s: a field for every key, labelled, and a blank body with the same keys', (kind) => {
    const fields = shelfFields(kind);
    expect(fields.map(({ key }) => key)).toEqual(Object.keys(STORE_BODIES[kind].fields));
    for (const field of fields) expect(field.label, field.key).not.toBe(field.key);
    expect(Object.keys(blankBody(kind))).toEqual(fields.map(({ key }) => key));
  });

  it('knows links, choices, tables, units and what may stay empty', () => {
    const compound = Object.fromEntries(shelfFields('compound').map((field) => [field.key, field]));
    expect(compound['form']!.kind).toBe('one');
    expect(compound['statedBeams']!.kind).toBe('many');
    expect(compound['bandLowUm']).toMatchObject({ kind: 'number', unit: 'µm', optional: false });
    expect(compound['shelfLifeDays']!.optional).toBe(true);
    expect(shelfFields('lens').find(({ key }) => key === 'headId')).toMatchObject({ kind: 'link', linkTo: 'head' });
    expect(
      shelfFields('calibration')
        .find(({ key }) => key === 'rows')!
        .columns.map(({ key }) => key),
    ).toEqual(['percent', 'watts']);
  });

  it('reads a pasted table back, tabs or semicolons, and keeps a bad cell as a fault', () => {
    const field = shelfFields('calibration').find(({ key }) => key === 'rows')!;
    const rows = [
      { percent: 7, watts: 1.2 },
      { percent: 100, watts: 50.6 },
    ];
    expect(textToRows(field, rowsToText(field, rows))).toEqual(rows);
    expect(textToRows(field, '7\t1,2\r\n100\t50,6\r\n')).toEqual(rows);
    expect(textToRows(field, '7; x')[0]!['watts']).toBeNaN();
  });
});
