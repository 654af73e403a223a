import { mean, sampleVariance, studentT90 } from '@unto/core/statistics';
import type { CleaningAdvice } from '@unto/contract';
import { find, type Context } from '../db/context.js';

/** Ways of cleaning from the gentlest to the hardest. Common practice, no source. */
const GENTLE_FIRST = [
  'dry paper towel',
  'water and sponge',
  'ultrasonic bath',
  'isopropyl alcohol',
  'alcohol and scrubbing',
  'dishwasher',
  'water and abrasive pad',
] as const satisfies readonly CleaningAdvice['method'][];

/** Runs that are learnt from: the newest. */
const MOST = 200;

/** How runs of a ticket's compound on its substrate were cleaned, the gentlest way first, with the minutes a piece took. */
export async function cleaningAdvice(context: Context, ticketId: string): Promise<CleaningAdvice[]> {
  return cleaningOf(context, await find(context, 'tickets', ticketId));
}

/** As cleaningAdvice, of a compound on a substrate. */
export async function cleaningOf(
  context: Context,
  { compoundId, substrateId }: { readonly compoundId: string | null; readonly substrateId: string },
): Promise<CleaningAdvice[]> {
  const [found] = await context.sequelize.query(
    `SELECT * FROM (SELECT DISTINCT ON (r.id) c.method, c.minutes / r.pieces AS minutes, c.residue, r.at
     FROM standing_runs r JOIN cleanings c ON c.run_id = r.id
     WHERE r.substrate_id = :substrateId AND r.compound_id IS NOT DISTINCT FROM :compoundId::uuid
     ORDER BY r.id, c.sequence DESC) newest ORDER BY at DESC LIMIT ${MOST}`,
    { replacements: { substrateId, compoundId }, transaction: context.transaction ?? null },
  );
  const rows = found as { method: string; minutes: number; residue: string }[];
  return GENTLE_FIRST.flatMap((method) => {
    const own = rows.filter((row) => row.method === method);
    if (!own.length) return [];
    const minutes = own.map((row) => row.minutes);
    const half = own.length > 1 ? studentT90(own.length - 1) * Math.sqrt(sampleVariance(minutes) / own.length) : null;
    const middle = mean(minutes);
    return [
      {
        ...{ method, runs: own.length, clean: own.filter(({ residue }) => residue === 'none').length },
        ...{ minutesPerPiece: middle, low: half === null ? null : Math.max(0, middle - half) },
        high: half === null ? null : middle + half,
      },
    ];
  });
}
