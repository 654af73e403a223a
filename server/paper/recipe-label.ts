import { settingWords } from '@unto/core';
import { panelReading, shopUnits } from '@unto/domain';
import type { Context } from '../db/context.js';
import type { FileAnswer } from '../http/file-answer.js';
import { loadEquipment, namesOf } from '../inventory/service.js';
import { recipeById } from '../recipes/views.js';
import { workshop } from '../workshop/service.js';
import { originOf } from './origin.js';
import { pdf } from './pdf.js';
import { swatchOf } from './swatch.js';

/** What label and card of a recipe say alike. */
export async function recipeOnPaper(context: Context, id: string, at: string) {
  const recipe = await recipeById(context, id);
  const { substrateId, compoundId, headId, lensId } = recipe;
  const { equipment } = await loadEquipment(context, recipe);
  const names = await namesOf(context, [substrateId, compoundId, headId, lensId]);
  const shop = await workshop(context);
  const reading = panelReading(shopUnits(shop), equipment);
  const day = new Intl.DateTimeFormat('en-GB', { timeZone: shop.timeZone, dateStyle: 'medium' });
  const swatch = await swatchOf(context, recipe);
  return {
    ...{ recipe, equipment, reading, swatch },
    pairing: `${compoundId ? names.get(compoundId) : 'No compound'} on ${names.get(substrateId)}`,
    setting: settingWords({ ...recipe, coats: recipe.valid?.coats ?? 1 }, reading),
    under: `${names.get(headId)}, ${names.get(lensId)}`,
    taken: `${recipe.grade}; taken ${day.format(new Date(recipe.acceptedAt))}`,
    shown: swatch
      ? `as ${swatch.coupon} has it after the scrub, ${settingWords(swatch.cell, reading)}`
      : 'no picture of a cell near this setting',
    address: `${originOf(at)}/recipes/${id}`,
  };
}

/**
 * A label for the swatch of a recipe: its setting as the panel shows it, what it is of, and a code that opens it on the bench phone.
 * @param at where the workshop is reached, as its page was opened
 * @throws not-found; invalid-input for an address that is none
 */
export async function recipeLabel(context: Context, id: string, at: string): Promise<FileAnswer> {
  const { recipe, swatch, ...said } = await recipeOnPaper(context, id, at);
  const lines = [
    said.pairing,
    { text: said.setting, bold: true, fontSize: 13, margin: [0, 3, 0, 3] },
    said.under,
    said.taken,
    ...(recipe.valid?.lots.length ? [`lots ${recipe.valid.lots.join(', ')}`] : []),
  ];
  const code = { qr: said.address, fit: 90, margin: [0, 0, 10, 0] };
  const words = {
    stack: [{ text: `Recipe v${recipe.number}`, bold: true, fontSize: 18 }, ...lines],
    margin: [6, 0, 0, 0],
  };
  const picture = { stack: [...(swatch ? [{ svg: swatch.svg, width: 90 }] : []), { text: said.shown, fontSize: 7.5 }] };
  return pdf(`recipe-v${recipe.number}.pdf`, {
    pageSize: 'A4',
    pageMargins: [42, 40, 170, 40],
    content: [
      {
        table: {
          widths: ['*'],
          body: [[{ margin: [8, 8, 8, 8], columns: [{ width: 100, ...code }, words, { width: 92, ...picture }] }]],
        },
      },
    ],
  });
}
