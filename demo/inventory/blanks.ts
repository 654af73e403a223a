import { NO_KIND, type BlankBody } from '@unto/contract';
import type { DemoItem, Refer } from './demo-item.js';

export function blanks(refer: Refer): DemoItem<'blank'>[] {
  const blank = (
    key: string,
    of: string | null,
    body: Pick<BlankBody, 'name' | 'supplier' | 'priceMinor' | 'left'> & Partial<BlankBody>,
    size: readonly [widthMm: number, heightMm: number, thicknessMm: number],
  ): DemoItem<'blank'> => ({
    key,
    kind: 'blank',
    body: {
      ...NO_KIND,
      grade: '',
      lot: '',
      note: '',
      ...body,
      substrateId: of && refer(of),
      widthMm: size[0],
      heightMm: size[1],
      thicknessMm: size[2],
    },
  });
  const hollin = { supplier: 'Hollin Sheet and Section' };
  const potter = { supplier: 'Dunmore Enamels' };
  return [
    blank(
      'blank-tags',
      'stainless-12',
      { name: 'Bed tag blanks', ...hollin, grade: '304 2B', lot: 'H12', priceMinor: 62, left: 84 },
      [44.6, 27.8, 1.2],
    ),
    blank(
      'blank-circle',
      'brass',
      { name: 'Setting circle ring segments', ...hollin, grade: 'CZ108', priceMinor: 2150, left: 3 },
      [190, 24, 1.6],
    ),
    blank(
      'blank-markers',
      'enamel',
      { name: 'Trail marker discs', ...potter, lot: 'D-88', priceMinor: 410, left: 33 },
      [90, 90, 1.5],
    ),
    blank(
      'blank-plates',
      'anodised',
      { name: 'Drawer plates', ...hollin, grade: '6082', priceMinor: 48, left: 26 },
      [60, 20, 1.5],
    ),
    blank(
      'mystery',
      null,
      {
        name: 'Mystery blank box',
        supplier: 'found in the store room',
        priceMinor: 0,
        left: 40,
        note: 'Silvery strips, no label, one corner drilled.',
      },
      [80, 20, 1.3],
    ),
  ];
}
