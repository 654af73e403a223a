import {
  PLAIN_SETTING,
  type LooseTable,
  type SubstrateFamily,
  type SwitchState,
  type WavelengthClass,
} from '@unto/core';
import { createStatedSetting, type CreateStatedSetting, type PastOutcome } from '@unto/contract';
import { OLD_FIELD_WORDS, OLD_QUANTITIES, unitIn, type ColumnPlan, type OldField } from './columns.js';
import { dayIn, outcomeIn, pastOf } from './past.js';
import { beamNamed, familyNamed } from './words.js';

/** How a sheet is read: its columns, what its words mean, and what holds where a cell is empty. */
export interface OldRecordPlan {
  readonly columns: readonly (ColumnPlan | null)[];
  /** Words for materials that mean a family by somebody's choice. */
  readonly materials: Readonly<Record<string, SubstrateFamily>>;
  readonly family: SubstrateFamily | null;
  readonly beam: WavelengthClass | null;
  readonly compound: string;
  readonly ratedW: number | null;
  readonly topSpeedMmPerS: number | null;
  readonly source: string;
}

/** One line of a sheet: the setting it states, or what is wrong with it. */
export interface OldRecord {
  readonly line: number;
  readonly setting: Omit<CreateStatedSetting, 'id'> | null;
  readonly faults: readonly string[];
  /** What was made of a cell that says it otherwise. */
  readonly remarks: readonly string[];
}

type Cells = Partial<Record<OldField, { readonly text: string; readonly unit: string }>>;

/**
 * Reads every line of a sheet as a stated setting, never more: what it says stays as it was written, in the units it was written in, and
 * what fits nowhere goes into the note with its heading. A line with neither power nor speed, or whose material or beam nobody can tell,
 * is refused with its reasons.
 */
export function readOldRecords(table: LooseTable, plan: OldRecordPlan): OldRecord[] {
  return table.rows.map(({ line, cells }) => readLine(line, cells, table.header, plan));
}

function readLine(
  line: number,
  row: readonly string[],
  header: readonly string[] | null,
  plan: OldRecordPlan,
): OldRecord {
  const faults: string[] = [];
  const remarks: string[] = [];
  const { cells, rest } = sorted(row, header, plan.columns);
  const number = (field: OldField) => {
    const found = numberIn(cells[field]?.text ?? '');
    if (found?.middleOf) remarks.push(`${OLD_FIELD_WORDS[field]}: the middle of ${found.middleOf}`);
    if (cells[field] && !found) faults.push(`${OLD_FIELD_WORDS[field]}: “${cells[field].text}” is no number.`);
    return found?.value ?? null;
  };
  const quantity = (field: 'power' | 'speed' | 'interval') => {
    const value = number(field);
    const unit = unitIn(OLD_QUANTITIES[field]!, cells[field]?.text ?? '') ?? cells[field]?.unit ?? '';
    return value === null ? null : { value, unit };
  };
  const material = cells.material?.text ?? '';
  const family = material ? (plan.materials[material] ?? familyNamed(material)) : plan.family;
  if (!family)
    faults.push(material ? `No material is known by “${material}”: say which it is.` : 'Its material is not said.');
  const beam = beamNamed(cells.beam?.text ?? '') ?? plan.beam;
  if (!beam) faults.push('Its beam is not said: choose one for the whole sheet.');
  const parts = { power: quantity('power'), speed: quantity('speed'), interval: quantity('interval') };
  if (!parts.power && !parts.speed) faults.push('It says neither power nor speed.');
  const compound = cells.compound?.text ?? plan.compound;
  const outcome = outcomeOf(cells.outcome?.text ?? '');
  const setting = {
    ...PLAIN_SETTING,
    ...parts,
    title: cells.title?.text ?? ([compound, material].filter(Boolean).join(' on ') || `Line ${line}`),
    ...{ family, wavelengthClass: beam, compound },
    ratedW: number('ratedW') ?? plan.ratedW,
    topSpeedMmPerS: topSpeed(cells.topSpeed, number) ?? plan.topSpeedMmPerS,
    passes: number('passes') ?? 1,
    frequencyKHz: number('frequency'),
    pulseNs: number('pulse'),
    focusOffsetMm: number('focus') ?? 0,
    angleDeg: number('angle') ?? 0,
    air: airOf(cells.air?.text),
    past: pastOf({
      on: dayOf(cells.when, faults),
      pieces: number('pieces'),
      minutes: minutesOf(cells.minutes) ?? number('minutes'),
      outcome: outcome.said,
    }),
    source: cells.source?.text ?? plan.source,
    note: [...rest, ...outcome.rest, ...remarks].join('; '),
  };
  if (!faults.length) faults.push(...refusals(setting));
  return { line, setting: faults.length ? null : (setting as Omit<CreateStatedSetting, 'id'>), faults, remarks };
}

/** Cells by what they hold; those that hold nothing known as words for the note. */
function sorted(row: readonly string[], header: readonly string[] | null, columns: OldRecordPlan['columns']) {
  const cells: Cells = {};
  const rest: string[] = [];
  row.forEach((cell, i) => {
    const text = cell.trim();
    const plan = columns[i];
    if (!text) return;
    if (plan && plan.field !== 'note') cells[plan.field] = { text, unit: plan.unit };
    else rest.push(header?.[i] && !plan ? `${header[i]}: ${text}` : text);
  });
  return { cells, rest };
}

/** A number with or without a unit, comma or point; of a range its middle. */
function numberIn(text: string): { readonly value: number; readonly middleOf: string | null } | null {
  const plain = text.replace(/(\d)[ \u00a0\u202f](?=\d{3}\b)/g, '$1').replaceAll(',', '.');
  const range = /^\D*?(\d+(?:\.\d+)?)\s*(?:-|–|to|\.\.\.?)\s*(\d+(?:\.\d+)?)/.exec(plain);
  if (range && Number(range[2]) > Number(range[1]))
    return { value: (Number(range[1]) + Number(range[2])) / 2, middleOf: `${range[1]}–${range[2]}` };
  const one = /[+-]?\d+(?:\.\d+)?/.exec(plain);
  return one ? { value: Number(one[0]), middleOf: null } : null;
}

function topSpeed(cell: Cells['topSpeed'], number: (field: OldField) => number | null): number | null {
  if (!cell) return null;
  const value = number('topSpeed');
  const unit = unitIn('speed', cell.text) ?? cell.unit;
  if (value === null) return null;
  return unit === 'mm/min' ? value / 60 : unit === 'in/s' ? value * 25.4 : value;
}

function dayOf(cell: Cells['when'], faults: string[]): string | null {
  if (!cell) return null;
  const read = dayIn(cell.text, cell.unit);
  if ('on' in read) return read.on;
  faults.push(`${OLD_FIELD_WORDS.when}: ${read.fault}`);
  return null;
}

/** Minutes written with their seconds, 2:30. */
function minutesOf(cell: Cells['minutes']): number | null {
  const parts = /^\s*(\d+):([0-5]\d)\s*(min)?\s*$/.exec(cell?.text ?? '');
  return parts && Number(parts[1]) + Number(parts[2]) / 60;
}

/** How it came out, and its own words beside it: they say more than one of three. */
function outcomeOf(text: string): { readonly said: PastOutcome | null; readonly rest: readonly string[] } {
  const said = outcomeIn(text);
  return { said, rest: text && text.toLowerCase() !== said ? [text] : [] };
}

function airOf(text: string | undefined): SwitchState | null {
  if (!text) return null;
  if (/^(no|off|0|none|aus|nein|false|without)/i.test(text)) return 'off';
  return /^(yes|on|1|ein|ja|true|full|low|high)/i.test(text) ? 'on' : null;
}

/** What the schema of a stated setting would refuse, by the field. */
function refusals(setting: object): string[] {
  try {
    createStatedSetting.validateSync({ id: NOBODY, ...setting }, { strict: true, abortEarly: false });
    return [];
  } catch (error) {
    const { errors } = error as { errors?: readonly string[] };
    if (!errors) throw error;
    return [...new Set(errors)];
  }
}
const NOBODY = '00000000-0000-4000-8000-000000000000';

/** Words for materials of a sheet that mean no family by themselves. */
export function unknownMaterials(table: LooseTable, columns: OldRecordPlan['columns']): string[] {
  const at = columns.findIndex((plan) => plan?.field === 'material');
  const words = at < 0 ? [] : table.rows.map(({ cells }) => (cells[at] ?? '').trim());
  return [...new Set(words)].filter((word) => word && !familyNamed(word));
}
