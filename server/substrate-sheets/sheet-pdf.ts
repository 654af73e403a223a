import { CAUSE_WORDS, settingWords, stoodWords } from '@unto/core';
import type { SubstrateSheet } from '@unto/contract';
import { panelReading, shopUnits } from '@unto/domain';
import type { Context } from '../db/context.js';
import type { FileAnswer } from '../http/file-answer.js';
import { equipmentOf } from '../inventory/service.js';
import { originOf } from '../paper/origin.js';
import { pdf } from '../paper/pdf.js';
import { swatchOf } from '../paper/swatch.js';
import { workshop } from '../workshop/service.js';
import { substrateSheet } from './service.js';

/** Settings that have a swatch and a code on the wall; more are in a line each. */
const WITH_SWATCH = 8;

/** What works on a substrate here, on paper, each setting with its swatch and the code that opens it. @throws not-found; invalid-input for an address that is none */
export async function substrateSheetPdf(context: Context, id: string, at: string): Promise<FileAnswer> {
  const origin = originOf(at);
  const sheet = await substrateSheet(context, id);
  const { name, currency } = await workshop(context);
  const settings = [];
  for (const [i, setting] of sheet.settings.entries())
    settings.push(await settingRow(context, setting, { origin, currency, drawn: i < WITH_SWATCH }));
  const heading = (text: string) => ({ text, fontSize: 13, bold: true, margin: [0, 10, 0, 3] });
  return pdf(`${sheet.name}.pdf`, {
    pageSize: 'A4',
    pageMargins: [36, 36, 36, 36],
    content: [
      { text: `What works on ${sheet.name}`, fontSize: 20, bold: true },
      `${sheet.family}, ${sheet.layer}, ${sheet.finish}, ${sheet.thicknessMm} mm · ${name} · from ${sheet.runs} judged runs`,
      heading('Settings'),
      settings.length
        ? { table: { widths: [70, '*', 60], body: settings, dontBreakRows: true }, layout: 'lightHorizontalLines' }
        : 'No setting was taken on it yet.',
      ...(sheet.cleaning.length ? [heading('Cleaning'), { ul: sheet.cleaning.map(cleaningLine) }] : []),
      ...(sheet.lasting.length ? [heading('What marks stood'), { ul: sheet.lasting.map(lastingLine) }] : []),
      ...(sheet.faults.length ? [heading('Faults, and what they were here'), { ul: sheet.faults.map(faultLine) }] : []),
      ...(sheet.never.length
        ? [
            heading('Never tried'),
            sheet.never.map(({ compoundName, headName }) => `${compoundName} under ${headName}`).join('; '),
          ]
        : []),
    ],
  });
}

type Setting = SubstrateSheet['settings'][number];

async function settingRow(
  context: Context,
  { recipe, compoundName, headName, lensName, runs, pieces, good, priceMinor }: Setting,
  { origin, currency, drawn }: { readonly origin: string; readonly currency: string; readonly drawn: boolean },
): Promise<object[]> {
  const equipment = await equipmentOf(context, recipe.revisions);
  const reading = panelReading(shopUnits(await workshop(context)), equipment);
  const swatch = drawn ? await swatchOf(context, recipe) : null;
  const went = runs ? `${good} of ${pieces} pieces good in ${runs} runs` : 'not run yet';
  const price =
    priceMinor === null ? '' : `; ${(priceMinor / 100).toFixed(2)} ${currency} of compound and laser a good piece`;
  return [
    swatch ? { svg: swatch.svg, width: 64 } : { text: '–' },
    {
      stack: [
        { text: `${compoundName ?? 'No compound'} · ${headName}, ${lensName}`, bold: true },
        { text: settingWords({ ...recipe, coats: recipe.valid?.coats ?? 1 }, reading), fontSize: 12 },
        `v${recipe.number}, ${recipe.grade}${recipe.state.state === 'in use' ? '' : `, ${recipe.state.state}`}; ${went}${price}`,
      ],
    },
    drawn ? { qr: `${origin}/recipes/${recipe.id}`, fit: 56 } : { text: '' },
  ];
}

const cleaningLine = ({ compoundName, method, runs, clean, minutesPerPiece }: SubstrateSheet['cleaning'][number]) =>
  `${compoundName ?? 'no compound'}: ${method}, ${minutesPerPiece.toFixed(1)} min a piece, nothing left in ${clean} of ${runs} runs`;

const lastingLine = ({ compoundName, ...stood }: SubstrateSheet['lasting'][number]) =>
  `${compoundName ?? 'no compound'}: ${stoodWords(stood)}`;

const faultLine = ({ fault, runs, causes }: SubstrateSheet['faults'][number]) =>
  `${fault}, in ${runs} runs${causes.length ? `: ${causes.map(({ cause, cases }) => `${CAUSE_WORDS[cause].toLowerCase()} (${cases})`).join(', ')}` : '; not traced yet'}`;
