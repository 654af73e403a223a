import {
  axisLabel,
  axisValues,
  cardSvg,
  CORE_READING,
  couponSvg,
  couponRunTime,
  spotWidth,
  readParameter,
  referenceCard,
  stepScaleSvg,
  writtenIn,
  type CardSize,
  type CouponAxis,
} from '@unto/core';
import { rowMotion } from '@unto/domain';
import { find, type Context } from '../db/context.js';
import type { FileAnswer } from '../http/file-answer.js';
import { namesOf } from '../inventory/service.js';
import { couponOnEquipment, type CouponOnEquipment } from '../coupons/setup.js';
import { pdf } from './pdf.js';

const PT_PER_MM = 72 / 25.4;

/** The reference card at true scale on a page of its own size. */
export function cardPdf(size: CardSize): Promise<FileAnswer> {
  const { widthMm, heightMm } = referenceCard(size);
  const [width, height] = [widthMm * PT_PER_MM, heightMm * PT_PER_MM];
  return pdf(`unto-card-${size}.pdf`, {
    pageSize: { width, height },
    pageMargins: 0,
    content: [{ svg: cardSvg(size), width, height, absolutePosition: { x: 0, y: 0 } }],
  });
}

/** The step scale at true scale. */
export function stepScalePdf(): Promise<FileAnswer> {
  const [width, height] = [181 * PT_PER_MM, 56 * PT_PER_MM];
  return pdf('unto-step-scale.pdf', {
    pageSize: { width, height },
    pageMargins: 0,
    content: [{ svg: stepScaleSvg(), width, height, absolutePosition: { x: 0, y: 0 } }],
  });
}

/** What to do with a coupon, in order; the grid at true scale; room for notes. */
export async function couponSheet(context: Context, couponId: string): Promise<FileAnswer> {
  const coupon = await find(context, 'coupons', couponId);
  const on = await couponOnEquipment(context, coupon);
  const names = await namesOf(context, [coupon.substrateId, coupon.compoundId, coupon.headId, coupon.lensId]);
  const name = (id: string | null) => (id ? (names.get(id) ?? '') : 'no compound');
  const { code, blank, labels } = coupon.design;
  const reading = labels.reading ?? CORE_READING;
  return pdf(`${code}.pdf`, {
    pageSize: 'A4',
    pageMargins: [42, 40, 42, 40],
    content: [
      { text: `Coupon ${code}`, fontSize: 18, bold: true },
      {
        text: `${name(coupon.compoundId)} on ${name(coupon.substrateId)} · ${name(coupon.headId)}, ${name(coupon.lensId)}`,
        margin: [0, 2, 0, 8],
      },
      {
        columns: [
          { width: '*', stack: [{ text: 'What it varies', bold: true }, ...axisLines(on)] },
          {
            width: '*',
            stack: [
              { text: 'About it', bold: true },
              `${on.layout.cells.length} cells, blank ${writtenIn(reading, 'length', blank.widthMm)} × ${writtenIn(reading, 'length', blank.heightMm)}`,
              `about ${Math.ceil(couponRunTime(on.layout, rowMotion(on.equipment.machine), spotWidth(on.equipment.lens)) / 60)} min to burn`,
              `focus offset ${writtenIn(reading, 'length', coupon.focusOffsetMm)}`,
              ...unreachableLines(on),
            ],
          },
        ],
        columnGap: 20,
      },
      { text: 'Steps', bold: true, margin: [0, 10, 0, 2] },
      { ol: steps(on) },
      { text: 'Mind', bold: true, margin: [0, 8, 0, 2] },
      { ul: cautions(on) },
      {
        svg: couponSvg(on.layout),
        width: blank.widthMm * PT_PER_MM,
        height: blank.heightMm * PT_PER_MM,
        margin: [0, 12, 0, 2],
      },
      {
        text: `At true scale when printed at 100 %: the blank measures ${writtenIn(reading, 'length', blank.widthMm)} across.`,
        fontSize: 8,
      },
      { text: 'Notes', bold: true, margin: [0, 8, 0, 0] },
      ...Array.from({ length: 4 }, () => ({
        canvas: [{ type: 'line', x1: 0, y1: 18, x2: 510, y2: 18, lineWidth: 0.5, lineColor: '#999' }],
      })),
    ],
  });
}

function axisLines({ layout: { design } }: CouponOnEquipment): string[] {
  const reading = design.labels.reading ?? CORE_READING;
  const line = (title: string, axis: CouponAxis) => {
    const { unit } = readParameter(axis.parameter, axisValues(axis)[0]!, reading);
    const values = axisValues(axis).map((value) => axisLabel(design, axis.parameter, value));
    return `${title}: ${axis.parameter} ${values.join(', ')} ${unit}`;
  };
  const { fixed, axes } = design;
  const varied = [axes.x, axes.y, ...(axes.block ? [axes.block] : [])].map(({ parameter }) => parameter);
  const held = (
    [
      ['power', fixed.powerPercent],
      ['speed', fixed.speedMmPerS],
      ['interval', fixed.intervalMm],
    ] as const
  )
    .filter(([parameter]) => !varied.includes(parameter))
    .map(([parameter, value]) => `${parameter} ${writtenIn(reading, parameter, value)}`);
  return [
    line('across', axes.x),
    line('down', axes.y),
    ...(axes.block ? [line('blocks', axes.block)] : []),
    ...(held.length ? [`held: ${held.join(', ')}`] : []),
  ];
}

function unreachableLines({ layout }: CouponOnEquipment): string[] {
  const count = layout.cells.filter(({ reachable }) => !reachable).length;
  return count ? [`${count} cells are left out: the head cannot reach them`] : [];
}

function steps({ layout, equipment, setup }: CouponOnEquipment): string[] {
  const { design } = layout;
  const bare = layout.cells.some(({ role }) => role === 'bare');
  return [
    'Degrease a spare blank and let it dry; do not touch it after.',
    ...(bare ? ['Mask the strip at the right edge: it stays uncoated.'] : []),
    ...(setup.blocks.some(({ compound }) => compound)
      ? ['Coat it as the pieces will be coated; let all gloss go.']
      : []),
    `Lay it with its lower left corner at the head's origin; focus on an uncoated twin.`,
    equipment.machine.motion === 'gantry'
      ? `Send ${design.code} to the head, or bring it the G-code. M3 keeps the power through corners and suits small cells; M4 lets it follow the speed.`
      : `Bring the head the SVG or DXF: every cell stands on a layer of its own with its setting.`,
    'Rinse with plain water; dry; photograph it on the reference card.',
    'Scrub with the abrasive side of a pad, 40 strokes; dry; photograph it again.',
    'Read it in Unto. Only what held the scrub is proof.',
  ];
}

function cautions({ setup, equipment }: CouponOnEquipment): string[] {
  return [
    `Eyewear: ${equipment.head.eyewear}. Enclosure shut; never leave a running laser; extinguisher at hand.`,
    'Never fire a wet coat. Extraction on; air assist off over powder.',
    ...(setup.family === 'glass'
      ? ['Glass: let it cool before the rinse; eye and hand protection; it may be weaker where it was marked.']
      : []),
    'Follow the safety data sheet, the machine’s manual and local rules; ask a qualified laser-safety person.',
  ];
}
