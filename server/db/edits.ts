import { createHash } from 'node:crypto';
import { Op } from 'sequelize';
import { ApiError } from '../errors/api-error.js';
import { find, isId, stableJson, type Context } from './context.js';

/** A change that is sent again after longer than this is made again, or refused by its version. */
const KEPT_DAYS = 30;

/**
 * Makes a change once for a request: sent again, because its answer was lost, it is answered as it was then. Runs inside the transaction
 * of the change, so that one sent twice at the same time waits for the first.
 * @param request the request's id, made by the client; without one the change is simply made
 * @throws identity-conflict when the id stands for another change; whatever `make` throws
 */
export async function editOnce(
  context: Context,
  request: string | undefined,
  what: object,
  make: () => Promise<unknown>,
): Promise<unknown> {
  if (request === undefined) return make();
  if (!isId(request)) throw new ApiError('not-readable', 'X-Unto-Request is no identifier.');
  const whatHash = createHash('sha256').update(stableJson(what)).digest('hex');
  const [, inserted] = await context.sequelize.query(
    'INSERT INTO edits (id, what_hash, at) VALUES (:request, :whatHash, :at) ON CONFLICT (id) DO NOTHING',
    {
      replacements: { request, whatHash, at: context.now },
      transaction: context.transaction ?? null,
      type: 'INSERT' as never,
    },
  );
  if ((inserted as unknown as number) === 0) {
    const earlier = await find(context, 'edits', request);
    if (earlier.whatHash === whatHash) return earlier.answer;
    throw new ApiError('identity-conflict', 'This request was made already, and asked for something else.');
  }
  const answer = await make();
  await context.models.edits.update(
    { answer: answer ?? null },
    { where: { id: request }, transaction: context.transaction ?? null },
  );
  return answer;
}

/** Forgets changes whose answer nobody waits for any more. */
export async function forgetEdits({ models, now }: Pick<Context, 'models' | 'now'>): Promise<number> {
  return models.edits.destroy({ where: { at: { [Op.lt]: new Date(now.getTime() - KEPT_DAYS * 86_400_000) } } });
}
