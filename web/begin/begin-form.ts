import { changeWorkshop, INVENTORY_BODIES, positive, type CreateInventoryItem, type Workshop } from '@unto/contract';
import { SURFACE_LAYERS, type SubstrateFamily, type SurfaceLayer } from '@unto/core';
import {
  bodyOfKind,
  finishesOf,
  groundOf,
  HEAD_KINDS,
  lensKey,
  usualBody,
  type HeadKind,
  type KindedItem,
} from '@unto/domain';
import { number, object, reach, string, type NumberSchema, type ObjectSchema, type Schema } from 'yup';

/** Units a shop begins with; each can be changed by itself on its page. */
export const UNIT_SETS = {
  metric: { speedUnit: 'mm/s', intervalUnit: 'mm', lengthUnit: 'mm', filmUnit: 'µm', massUnit: 'g' },
  inch: { speedUnit: 'in/s', intervalUnit: 'lines/in', lengthUnit: 'in', filmUnit: 'mil', massUnit: 'oz' },
} as const satisfies Record<string, Partial<Workshop>>;
export type UnitSet = keyof typeof UNIT_SETS;

/** No compound: the beam marks the bare material, or burns a layer off. */
export const NO_COMPOUND = 'none';

/** What a shop says of itself at the beginning. Numbers are in core units and major money; null is what it did not say. */
export interface BeginDraft {
  person: string;
  workshop: string;
  units: UnitSet;
  currency: string;
  headKind: string;
  headName: string;
  ratedW: number | null;
  topSpeedMmPerS: number | null;
  lens: string;
  compoundKind: string;
  compoundName: string;
  container: string;
  netG: number | null;
  price: number | null;
  material: string;
  layer: SurfaceLayer | '';
  finish: string;
  thicknessMm: number;
  blankWidthMm: number | null;
  blankHeightMm: number | null;
  blanks: number | null;
}

export function emptyBegin(shop: Workshop, person: string): BeginDraft {
  return {
    ...{ person, workshop: shop.name, units: 'metric', currency: shop.currency },
    ...{ headKind: '', headName: '', ratedW: null, topSpeedMmPerS: null, lens: '' },
    ...{ compoundKind: '', compoundName: '', container: '', netG: null, price: null },
    ...{ material: '', layer: '', finish: '', thicknessMm: Number.NaN },
    ...{ blankWidthMm: null, blankHeightMm: null, blanks: null },
  };
}

const needed = (label: string) => string().label(label).required(`${label}.`);
/** A number that a store item holds, with its own limits; null where nobody said it. */
const open = (kind: KindedItem, field: string) =>
  (reach(INVENTORY_BODIES[kind] as Schema, field) as NumberSchema).nullable().notRequired();

/** What must be said to begin, and within which limits the rest lies. */
export const beginSchema: ObjectSchema<object> = object({
  person: needed('Say who works here').max(80, 'Name is longer than 80 characters.'),
  workshop: changeWorkshop.fields.name,
  currency: changeWorkshop.fields.currency,
  headKind: needed('Choose what stands on the bench'),
  headName: string().max(200, 'Name is longer than 200 characters.'),
  ratedW: open('head', 'ratedW'),
  topSpeedMmPerS: open('machine', 'topSpeedMmPerS'),
  compoundKind: needed('Choose what is in the cupboard, or that there is no compound'),
  compoundName: string()
    .max(200, 'Name is longer than 200 characters.')
    .test(
      'named',
      'Say what its label calls it.',
      (name, { parent }) => [NO_COMPOUND, ''].includes((parent as BeginDraft).compoundKind) || Boolean(name?.trim()),
    ),
  netG: open('container', 'netG'),
  price: number().nullable().min(0, 'Price cannot be negative.').max(1e6, 'Price must be at most 1000000.'),
  material: needed('Choose what you mark'),
  layer: needed('Say what lies on it'),
  finish: string().max(100, 'Finish is longer than 100 characters.'),
  thicknessMm: positive('Thickness', 'mm'),
  blankWidthMm: open('blank', 'widthMm'),
  blankHeightMm: open('blank', 'heightMm').test(
    'both',
    'Say both sides of a blank, or neither.',
    (height, { parent }) => (height === null) === ((parent as BeginDraft).blankWidthMm === null),
  ),
  blanks: open('blank', 'left'),
});

export const headKindOf = (key: string): HeadKind | null => HEAD_KINDS.find((kind) => kind.key === key) ?? null;
export const familyOf = (material: string): SubstrateFamily | null => usualBody('substrate', material)?.family ?? null;
export const finishChoices = (material: string): readonly string[] => {
  const family = familyOf(material);
  return family ? finishesOf(family) : [];
};
export const layerChoices = (material: string): readonly SurfaceLayer[] => (material ? SURFACE_LAYERS : []);

/** How a head is called where nobody says another name: its kind, with the watts of its label. */
export function headNameOf({ headKind, headName, ratedW }: BeginDraft): string {
  if (headName.trim()) return headName.trim();
  const kind = headKindOf(headKind);
  if (!kind) return '';
  return ratedW === null ? kind.name : `${kind.name.replace(/,.*$/, '')}, ${ratedW} W`;
}

/** What a substrate is called: material, layer, finish, thickness. */
export function substrateNameOf({ material, layer, finish, thicknessMm }: BeginDraft): string {
  const name = usualBody('substrate', material)?.alloy ?? material;
  const words = [name, layer === 'bare' || layer === '' ? '' : layer, finish.trim()].filter(Boolean);
  return `${words.join(' ')}, ${thicknessMm} mm`;
}

const said = <T extends object>(fields: { [K in keyof T]: T[K] | null | '' }): Partial<T> =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== null && value !== '')) as Partial<T>;

/** The store items that a beginning means, each of its kind, in the order in which they refer to one another. */
export function beginItems(draft: BeginDraft, id: () => string): CreateInventoryItem[] {
  return [...benchItems(draft, id), ...cupboardItems(draft, id), ...partItems(draft, id)];
}

function benchItems(draft: BeginDraft, id: () => string): CreateInventoryItem[] {
  const { headKind, ratedW, topSpeedMmPerS } = draft;
  const [machineId, headId] = [id(), id()];
  const name = headNameOf(draft);
  const kind = headKindOf(headKind)!;
  const lens = kind.lenses.find(({ key }) => key === draft.lens) ?? kind.lenses[0]!;
  return [
    { id: machineId, kind: 'machine', body: bodyOfKind('machine', headKind, { name, ...said({ topSpeedMmPerS }) }) },
    { id: headId, kind: 'head', body: bodyOfKind('head', headKind, { name, machineId, ...said({ ratedW }) }) },
    { id: id(), kind: 'lens', body: bodyOfKind('lens', lensKey(kind, lens), { name: lens.name, headId }) },
  ];
}

function cupboardItems(draft: BeginDraft, id: () => string): CreateInventoryItem[] {
  const { compoundKind, netG, price } = draft;
  if (compoundKind === NO_COMPOUND) return [];
  const compoundId = id();
  const name = draft.compoundName.trim();
  const usual = usualBody('compound', compoundKind)!;
  const [size] = usual.sizes;
  const priceMinor = price === null ? null : Math.round(price * 100);
  const container = draft.container || containerOf(usual.application, size!.label);
  const net = netG ?? usualBody('container', container)!.netG;
  // What the compound costs by the gram is usual where no price was said.
  const paid = priceMinor ?? Math.round((net * size!.priceMinor) / size!.netG);
  const sizes = netG !== null && priceMinor !== null ? [{ label: size!.label, netG, priceMinor }] : null;
  const can = bodyOfKind('container', container, {
    name: `${name}, first ${size!.label}`,
    compoundId,
    ...said({ netG, priceMinor }),
  });
  return [
    { id: compoundId, kind: 'compound', body: bodyOfKind('compound', compoundKind, { name, ...said({ sizes }) }) },
    { id: id(), kind: 'container', body: { ...can, priceMinor: paid } },
  ];
}

/** What a compound usually comes in. */
export function containerOf(application: string, size: string): string {
  if (application === 'aerosol') return 'can-large';
  return size === 'bottle' || size === 'pot' ? size : 'jar';
}

function partItems(draft: BeginDraft, id: () => string): CreateInventoryItem[] {
  const { material, thicknessMm, blankWidthMm, blankHeightMm, blanks } = draft;
  const substrateId = id();
  const name = substrateNameOf(draft);
  const layer = draft.layer as SurfaceLayer;
  const ground = groundOf(familyOf(material)!, layer);
  const part = bodyOfKind('substrate', material, {
    ...{ name, layer, thicknessMm },
    ...said({ finish: draft.finish.trim() }),
  });
  const substrate = { id: substrateId, kind: 'substrate' as const, body: { ...part, ground } };
  if (blankWidthMm === null || blankHeightMm === null) return [substrate];
  const size = { widthMm: blankWidthMm, heightMm: blankHeightMm, thicknessMm };
  const body = bodyOfKind('blank', 'piece', {
    name: `${name}: blanks`,
    substrateId,
    ...size,
    ...said({ left: blanks }),
  });
  return [substrate, { id: id(), kind: 'blank', body }];
}
