import { readLooseTable } from '@unto/core';
import { describe, expect, it } from 'vitest';
import { dayOrderOf, guessColumns, outcomeIn, readOldRecords, unknownMaterials, type OldRecordPlan } from './index.js';

const plan = (columns: OldRecordPlan['columns'], change: Partial<OldRecordPlan> = {}): OldRecordPlan => ({
  columns,
  ...{
    materials: {},
    family: null,
    beam: 'co2',
    compound: '',
    ratedW: null,
    topSpeedMmPerS: null,
    source: 'old sheet',
  },
  ...change,
});
function read(text: string, change: Partial<OldRecordPlan> = {}) {
  const table = readLooseTable(text);
  const columns = guessColumns(table);
  return { table, columns, records: readOldRecords(table, plan(columns, change)) };
}
const fields = (columns: OldRecordPlan['columns']) =>
  columns.map((column) => column && `${column.field} ${column.unit}`.trim());

describe('an old sheet', () => {
  it('is read whatever the order of its columns and the language of its units', () => {
    const { columns, records } = read(
      'Speed (mm/min)\tMaterial\tLeistung %\tSpray\tLPI\tHow it went\n9000\t304 stainless\t95\tCorvid Film\t340\tblack, held\n1 200\tMessing\t80,5\tCorvid Film\t\tpale\n',
    );
    expect(fields(columns)).toEqual([
      'speed mm/min',
      'material',
      'power %',
      'compound',
      'interval lines/in',
      'outcome',
    ]);
    expect(records.map(({ setting, faults }) => [setting?.title, faults])).toEqual([
      ['Corvid Film on 304 stainless', []],
      ['Corvid Film on Messing', []],
    ]);
    expect(records[0]!.setting).toMatchObject({
      ...{ family: 'stainless', wavelengthClass: 'co2', compound: 'Corvid Film', source: 'old sheet' },
      ...{ speed: { value: 9000, unit: 'mm/min' }, power: { value: 95, unit: '%' } },
      ...{ interval: { value: 340, unit: 'lines/in' }, note: 'black, held' },
      past: { on: null, pieces: null, minutes: null, outcome: 'held' },
    });
    expect(records[1]!.setting).toMatchObject({ speed: { value: 1200 }, power: { value: 80.5 }, interval: null });
  });

  it('takes the unit of a cell before that of its column, and of a range the middle, saying so', () => {
    const { records } = read('job;power;speed;metal\nTags;38 W;30-40 mm/s;steel\n');
    expect(records[0]).toMatchObject({
      setting: { title: 'Tags', power: { value: 38, unit: 'W' }, speed: { value: 35, unit: 'mm/s' } },
      remarks: ['speed: the middle of 30–40'],
    });
    expect(records[0]!.setting!.note).toBe('speed: the middle of 30–40');
  });

  it('guesses units that nobody wrote by how the numbers look', () => {
    expect(fields(read('power,speed,interval,material\n850,200,225,brass\n').columns)).toEqual([
      'power 0-1000',
      'speed mm/s',
      'interval lines/in',
      'material',
    ]);
  });

  it('refuses a line with its number and its reasons, and keeps the others', () => {
    const { records } = read(
      'material,power,speed\nstainless,90,200\nunobtainium,90,200\nbrass,,\nglass,much,10\nbrass,900,10\n',
    );
    expect(records.map(({ line, faults }) => [line, ...faults])).toEqual([
      [2],
      [3, 'No material is known by “unobtainium”: say which it is.'],
      [4, 'It says neither power nor speed.'],
      [5, 'power: “much” is no number.'],
      [6],
    ]);
    // One column, one unit: the 900 of the last line says that all are thousandths.
    expect(records[0]!.setting!.power).toEqual({ value: 90, unit: '0-1000' });
  });

  it('learns what a word for a material means, and what holds for the whole sheet', () => {
    const text = 'material,power,speed\nsplorg,90,200\n';
    const { table, columns, records } = read(text, { beam: null });
    expect(unknownMaterials(table, columns)).toEqual(['splorg']);
    expect(records[0]!.faults).toHaveLength(2);
    const [told] = read(text, { materials: { splorg: 'zinc' }, beam: 'blue', ratedW: 10 }).records;
    expect(told!.setting).toMatchObject({ family: 'zinc', wavelengthClass: 'blue', ratedW: 10 });
    expect(read('power,speed\n90,200\n', { family: 'glass' }).records[0]!.setting!.family).toBe('glass');
  });

  it('reads beams, pulses, air and top speed as they are called', () => {
    const { records } = read(
      'item|laser|wattage|max speed mm/min|power %|speed %|freq kHz|pulse ns|passes|air assist|metal\nBone plate|fiber|80|60000|70|25|500|200|3|off|bone\n',
    );
    expect(records[0]!.setting).toMatchObject({
      ...{ wavelengthClass: 'near-infrared', ratedW: 80, topSpeedMmPerS: 1000, speed: { value: 25, unit: '%' } },
      ...{ frequencyKHz: 500, pulseNs: 200, passes: 3, air: 'off', family: 'bone' },
    });
  });

  it('is told when what a cell says cannot be', () => {
    const { records } = read('material,power (%),speed,passes\nbrass,140,200,1\nbrass,90,200,250\n');
    expect(records[0]!.faults).toEqual(['Power must be at most 100.']);
    expect(records[1]!.faults.join()).toMatch(/Passes must be at most 99/);
  });

  it('are runs of the past where a day, pieces, minutes or an outcome stand with them', () => {
    const { columns, records } = read(
      'Date;Qty;Power;Speed;Metal;Minutes;Result\n13/4/2025;12;90;200;brass;2:30;good, dark\n3/4/2025;;80;150;brass;;washed off\n31/4/2025;1;80;150;brass;;\n',
    );
    expect(fields(columns)).toEqual([
      ...['when day first', 'pieces', 'power %', 'speed mm/s', 'material', 'minutes', 'outcome'],
    ]);
    expect(records.map(({ setting, faults }) => setting?.past ?? faults)).toEqual([
      { on: '2025-04-13', pieces: 12, minutes: 2.5, outcome: 'held' },
      { on: '2025-04-03', pieces: null, minutes: null, outcome: 'lost' },
      ['day it was run: “31/4/2025” is no day of the calendar.'],
    ]);
    expect(records[0]!.setting!.note).toBe('good, dark');
  });

  it('asks which day is meant where it could be two', () => {
    const text = 'date,power,speed,material\n3/4/2025,90,200,brass\n';
    const { columns, records } = read(text);
    expect(records[0]!.faults).toEqual([
      'day it was run: “3/4/2025” could be two days: say whether the day or the month stands first.',
    ]);
    const said = columns.map(
      (column) => column && { ...column, unit: column.field === 'when' ? 'month first' : column.unit },
    );
    expect(readOldRecords(readLooseTable(text), plan(said))[0]!.setting!.past!.on).toBe('2025-03-04');
  });
});

describe('days and outcomes of old sheets', () => {
  // Common practice, no source: how sheets of three habits write 4 March 2025.
  it.each([
    [['2025-03-04'], 'year first'],
    [['4.3.2025'], 'day first'],
    [['4/3/25', '28/2/25'], 'day first'],
    [['3/4/2025', '2/28/2025'], 'month first'],
    [['3/4/2025'], ''],
  ])('%j are written %s', (cells, order) => {
    expect(dayOrderOf(cells)).toBe(order);
  });

  it.each([
    ['washed off in the sink', 'lost'],
    ['did not hold', 'lost'],
    ['faint in one corner', 'partly'],
    ['Good', 'held'],
    ['8 of 10', null],
  ])('%s is %s', (words, outcome) => {
    expect(outcomeIn(words)).toBe(outcome);
  });
});
