import { stoodWords, writtenIn } from '@unto/core';
import type { CleaningAdvice, Recipe } from '@unto/contract';
import type { Context } from '../db/context.js';
import { lastingRows } from '../durability/service.js';
import type { FileAnswer } from '../http/file-answer.js';
import { cleaningOf } from '../runs/cleaning-advice.js';
import { recipeOnPaper } from './recipe-label.js';
import { pdf } from './pdf.js';

/** Tests of marks that a card names. */
const MOST = 4;

/**
 * A card of a recipe to hang at the bench: the setting large, what it is valid for, how such marks were cleaned and what they stood, and a
 * code that opens it on the bench phone.
 * @param at where the workshop is reached, as its page was opened
 * @throws not-found; invalid-input for an address that is none
 */
export async function recipeCard(context: Context, id: string, at: string): Promise<FileAnswer> {
  const said = await recipeOnPaper(context, id, at);
  const { recipe, swatch, equipment, reading } = said;
  const cleaned = await cleaningOf(context, recipe);
  const stood = (await lastingRows(context, { substrateId: recipe.substrateId }))
    .filter(({ compoundId }) => compoundId === recipe.compoundId)
    .slice(0, MOST);
  const heading = (text: string) => ({ text, bold: true, margin: [0, 8, 0, 1] });
  return pdf(`recipe-card-v${recipe.number}.pdf`, {
    pageSize: 'A5',
    pageOrientation: 'landscape',
    pageMargins: [28, 24, 28, 22],
    content: [
      {
        columns: [
          { width: '*', stack: [{ text: said.pairing, fontSize: 17, bold: true }, said.under, said.taken] },
          { width: 74, qr: said.address, fit: 70 },
        ],
      },
      ...stateLines(recipe),
      { text: said.setting, fontSize: 22, bold: true, margin: [0, 8, 0, 4] },
      {
        columnGap: 16,
        columns: [
          {
            width: '*',
            stack: [
              heading('Valid for'),
              { ul: validLines(recipe, (mm) => writtenIn(reading, 'length', mm)) },
              heading('Cleaned so'),
              cleaned.length ? { ul: cleaned.slice(0, 2).map(cleaningLine) } : 'Nothing was cleaned of it yet.',
              heading('What such marks stood'),
              stood.length ? { ul: stood.map(stoodWords) } : 'Nothing was tested of it yet.',
              heading('Mind'),
              {
                ul: [
                  `Eyewear: ${equipment.head.eyewear}. Never fire a wet coat; never leave a running laser.`,
                  'Follow the safety data sheet, the machine’s manual and local rules.',
                ],
              },
            ],
          },
          {
            width: 110,
            stack: [...(swatch ? [{ svg: swatch.svg, width: 104 }] : []), { text: said.shown, fontSize: 7.5 }],
          },
        ],
      },
    ],
  });
}

/** What hangs on the wall may have been suspended since: the card says how it stood as it was printed. */
function stateLines({ state, number }: Recipe): object[] {
  const standing = state.state === 'in use' ? '' : `${state.state}: ${state.why}. `;
  const text = `v${number}. ${standing}Scan the code before a run: it opens how the recipe stands now.`;
  return [{ text, fontSize: 8.5, ...(standing ? { bold: true } : {}) }];
}

function validLines({ valid, worst }: Recipe, length: (mm: number) => string): string[] {
  const held = worst ? [`holds in ${Math.round(100 * worst.value)} of 100 at its worst`] : [];
  if (!valid) return [...held, 'what it was taken from says no range'];
  const { lots, filmUm, thicknessMm, coats, restDays } = valid;
  return [
    ...held,
    ...(filmUm
      ? [`dry film ${filmUm.low} to ${filmUm.high} µm${coats ? `, ${coats} coat${coats > 1 ? 's' : ''}` : ''}`]
      : []),
    ...(thicknessMm === null ? [] : [`parts ${length(thicknessMm)} thick`]),
    ...(lots.length ? [`lots ${lots.join(', ')}`] : []),
    `looked at again after ${restDays} days without a run`,
  ];
}

const cleaningLine = ({ method, runs, clean, minutesPerPiece }: CleaningAdvice) =>
  `${method}, ${minutesPerPiece.toFixed(1)} min a piece; nothing left in ${clean} of ${runs} runs`;
