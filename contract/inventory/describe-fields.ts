import type { SchemaDescription, SchemaObjectDescription } from 'yup';
import { INVENTORY_BODIES, INVENTORY_LINKS, type InventoryKind } from './bodies.js';
import { KIND_FIELDS } from './of-kind.js';

/** One field of a store item's form, read off its schema. */
export interface ShelfField {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  readonly kind: 'text' | 'day' | 'number' | 'yes' | 'one' | 'many' | 'link' | 'rows' | 'file';
  readonly optional: boolean;
  /** A share, 0 to 1: percent and fraction are both understood. */
  readonly share: boolean;
  readonly words: readonly string[];
  readonly linkTo?: InventoryKind | undefined;
  /** Columns of a table of rows: key, label, whether a number. */
  readonly columns: readonly { readonly key: string; readonly label: string; readonly number: boolean }[];
}

/** The fields of a kind, in the order of its schema. */
export function shelfFields(kind: InventoryKind): ShelfField[] {
  const { fields } = INVENTORY_BODIES[kind].describe() as SchemaObjectDescription;
  return Object.entries(fields).map(([key, field]) => fieldOf(kind, key, field as SchemaDescription));
}

function fieldOf(kind: InventoryKind, key: string, field: SchemaDescription): ShelfField {
  const inner = (
    field as SchemaDescription & { innerType?: SchemaDescription & { fields?: Record<string, SchemaDescription> } }
  ).innerType;
  const link = INVENTORY_LINKS[kind];
  const base = {
    key,
    label: field.label ?? key,
    unit: String((field.meta as { unit?: string } | undefined)?.unit ?? ''),
    optional: field.nullable,
    share: Boolean((field.meta as { share?: boolean } | undefined)?.share),
    columns: [],
    words: [] as string[],
  };
  if (link?.field === key) return { ...base, kind: 'link', linkTo: link.kind };
  if (field.type === 'object') return { ...base, kind: 'file' };
  if (field.type === 'array' && inner?.fields) {
    const columns = Object.entries(inner.fields).map(([column, described]) => ({
      key: column,
      label: described.label ?? column,
      number: described.type === 'number',
    }));
    return { ...base, kind: 'rows', columns };
  }
  if (field.type === 'array') return { ...base, kind: 'many', words: (inner?.oneOf ?? []) as string[] };
  if (field.oneOf.length)
    return {
      ...base,
      kind: 'one',
      words: (field.oneOf as (string | null)[]).filter((word): word is string => word !== null),
    };
  if (field.type === 'boolean') return { ...base, kind: 'yes' };
  if ((field.meta as { day?: boolean } | undefined)?.day) return { ...base, kind: 'day' };
  return { ...base, kind: field.type === 'number' ? 'number' : 'text' };
}

/** Fields with a value of their own: what a form asks and a page shows. */
export function ownFields(kind: InventoryKind): ShelfField[] {
  return shelfFields(kind).filter(({ key }) => !(KIND_FIELDS as readonly string[]).includes(key));
}

/** A first body of a kind to be filled in. */
export function emptyBody(kind: InventoryKind): Record<string, unknown> {
  return Object.fromEntries(shelfFields(kind).map((field) => [field.key, blank(field)]));
}

function blank(field: ShelfField): unknown {
  switch (field.kind) {
    case 'rows':
    case 'many':
      return [];
    case 'yes':
      return false;
    case 'number':
      return field.optional ? null : Number.NaN;
    default:
      return field.optional ? null : '';
  }
}
