import { INVENTORY_BODIES, type CreateInventoryItem, type InventoryKind, type Workshop } from '@unto/contract';
import { COMPOUND_KINDS, HEAD_KINDS, SUBSTRATE_KINDS } from '@unto/domain';
import { describe, expect, it } from 'vitest';
import { ValidationError } from 'yup';
import { SHOP } from '../testing/shop';
import {
  beginItems,
  beginSchema,
  emptyBegin,
  headNameOf,
  NO_COMPOUND,
  substrateNameOf,
  type BeginDraft,
} from './begin-form';

const said = (change: Partial<BeginDraft> = {}): BeginDraft => ({
  ...emptyBegin(SHOP as Workshop, 'Wanda'),
  ...{ headKind: 'co2-55', compoundKind: 'film-aerosol', compoundName: 'Corvid Film' },
  ...{ material: '304', layer: 'bare', thicknessMm: 1.2 },
  ...change,
});
const ids = () => {
  let next = 0;
  return () => `0b6a0f0e-6c5c-4d33-9f29-${String((next += 1)).padStart(12, '0')}`;
};
const made = (draft: BeginDraft) => beginItems(draft, ids());
const bodyOf = (items: readonly CreateInventoryItem[], kind: InventoryKind) =>
  items.find((one) => one.kind === kind)?.body as unknown as Record<string, unknown>;

function faultsOf(draft: BeginDraft): Record<string, string> {
  try {
    beginSchema.validateSync(draft, { strict: true, abortEarly: false });
    return {};
  } catch (error) {
    const all = (error as ValidationError).inner;
    return Object.fromEntries(all.map(({ path, message }) => [path, message]));
  }
}

describe('what a shop begins with', () => {
  it('asks seven things, and none that nobody at a bench knows', () => {
    expect(Object.keys(faultsOf(emptyBegin(SHOP as Workshop, ''))).sort()).toEqual([
      'compoundKind',
      'headKind',
      'layer',
      'material',
      'person',
      'thicknessMm',
    ]);
    expect(faultsOf(said({ compoundName: ' ' }))).toEqual({ compoundName: 'Say what its label calls it.' });
    expect(faultsOf(said())).toEqual({});
  });

  it.each(HEAD_KINDS.map(({ key }) => key))('makes whole items of the head %s', (headKind) => {
    for (const { kind, body } of made(said({ headKind })))
      expect(() => INVENTORY_BODIES[kind as InventoryKind].validateSync(body, { strict: true })).not.toThrow();
  });

  it('makes whole items of every compound and every material', () => {
    for (const { key } of [...COMPOUND_KINDS, ...SUBSTRATE_KINDS]) {
      const draft = COMPOUND_KINDS.some((kind) => kind.key === key)
        ? said({ compoundKind: key })
        : said({ material: key });
      for (const { kind, body } of made({ ...draft, blankWidthMm: 70, blankHeightMm: 60 }))
        expect(() => INVENTORY_BODIES[kind as InventoryKind].validateSync(body, { strict: true }), key).not.toThrow();
    }
  });

  it('keeps what was said as said, and the rest as usual', () => {
    const items = made(said({ ratedW: 60, netG: 400, price: 52, finish: 'brushed' }));
    expect(items.map(({ kind }) => kind)).toEqual(['machine', 'head', 'lens', 'compound', 'container', 'substrate']);
    expect(bodyOf(items, 'head')).toMatchObject({ ratedW: 60, ofKind: 'co2-55' });
    expect(bodyOf(items, 'head')['usual']).not.toContain('ratedW');
    expect(bodyOf(items, 'head')['usual']).toContain('m2');
    expect(bodyOf(items, 'container')).toMatchObject({ netG: 400, priceMinor: 5200 });
    expect(bodyOf(items, 'container')['usual']).toEqual(expect.not.arrayContaining(['netG', 'priceMinor']));
    expect(bodyOf(items, 'container')['usual']).toContain('tareG');
    expect(bodyOf(items, 'compound')).toMatchObject({ sizes: [{ label: 'can', netG: 400, priceMinor: 5200 }] });
    expect(bodyOf(items, 'substrate')).toMatchObject({ name: '304 stainless brushed, 1.2 mm', finish: 'brushed' });
    expect(bodyOf(items, 'substrate')['usual']).not.toContain('finish');
  });

  it('asks for no compound where the beam alone marks, and takes a blank only with both its sides', () => {
    const bare = said({ compoundKind: NO_COMPOUND, compoundName: '' });
    expect(faultsOf(bare)).toEqual({});
    expect(made(bare).map(({ kind }) => kind)).not.toContain('compound');
    expect(faultsOf(said({ blankWidthMm: 70 }))).toHaveProperty('blankHeightMm');
    expect(bodyOf(made(said({ blankWidthMm: 70, blankHeightMm: 60 })), 'blank')).toMatchObject({
      ...{ widthMm: 70, heightMm: 60, thicknessMm: 1.2, left: 5 },
      usual: expect.arrayContaining(['left', 'priceMinor']),
    });
  });

  it('names what nobody named', () => {
    expect(headNameOf(said())).toBe('CO2 panel machine, 50–60 W');
    expect(headNameOf(said({ ratedW: 60 }))).toBe('CO2 panel machine, 60 W');
    expect(headNameOf(said({ headName: ' Long bench ' }))).toBe('Long bench');
    expect(substrateNameOf(said({ layer: 'anodised', finish: 'black' }))).toBe('304 stainless anodised black, 1.2 mm');
  });
});
