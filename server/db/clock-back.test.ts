import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, weighingBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
let ticket: string;
const DAY_MS = 86_400_000;

beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
  const body = ticketBody(ids);
  ticket = body.id;
  await rig.call('POST', '/api/tickets', body);
  const change = { ...body, id: undefined, version: 1, compoundId: ids.compound, choiceReason: 'known', state: 'open' };
  await rig.call('PUT', `/api/tickets/${ticket}`, change);
});
afterAll(() => rig.close());

/** Sends it and wants it taken. */
async function taken(method: string, path: string, body: object): Promise<any> {
  const answer = await rig.call(method, path, body);
  expect([path, answer.status, JSON.stringify(answer.body).slice(0, 300)]).toEqual([path, 200, expect.anything()]);
  return answer.body;
}
const page = async () => (await rig.call('GET', `/api/tickets/${ticket}`)).body;
const back = (days: number) => (rig.now = new Date(rig.now.getTime() - days * DAY_MS));

describe('a clock that is set back', () => {
  it('changes nothing of what came after what', async () => {
    const dry = { id: randomUUID(), kind: 'dry', label: 'tray', minimumS: 240 };
    await taken('POST', `/api/tickets/${ticket}/weighings`, weighingBody(ids));
    await taken('POST', `/api/tickets/${ticket}/timers`, dry);
    rig.now = new Date(rig.now.getTime() + 300_000);
    await taken('PUT', `/api/timers/${dry.id}/end`, { outcome: 'passed' });
    back(400);

    // The newest weighing is the one entered last, though its time is the oldest.
    const second = weighingBody(ids, {
      before: { value: 350, unit: 'g' },
      after: { value: 345, unit: 'g' },
      pieces: 2,
    });
    await taken('POST', `/api/tickets/${ticket}/weighings`, second);
    expect((await page()).weighings.map(({ id }: { id: string }) => id).at(-1)).toBe(second.id);
    const container = (await rig.call('GET', `/api/inventory/${ids.container}/use`)).body;
    expect(container.left.grams.value).toBeCloseTo(345 - 96, 6);

    // A drying that passes now counts for it, though it ends before the coat was laid by the times.
    const again = { ...dry, id: randomUUID(), label: 'tray 2' };
    await taken('POST', `/api/tickets/${ticket}/timers`, again);
    rig.now = new Date(rig.now.getTime() + 300_000);
    await taken('PUT', `/api/timers/${again.id}/end`, { outcome: 'passed' });
    expect((await page()).progress.unclockedPieces).toBe(0);

    // What lies on the shelf is taken up.
    const stored = { id: randomUUID(), pieces: 3, place: 'rack', note: '' };
    await taken('POST', `/api/tickets/${ticket}/stored-coats`, stored);
    back(1);
    await taken('PUT', `/api/stored-coats/${stored.id}/end`, {
      outcome: 'taken up',
      dry: true,
      untouched: true,
      reason: '',
    });
  });

  it('asks again what a change of the head asks, and is content with it', async () => {
    const check = (code: string) => ({ id: randomUUID(), station: 'place', kind: 'check', code });
    await taken('POST', `/api/tickets/${ticket}/checks`, check('focus'));
    back(1);
    const fitting = { id: randomUUID(), headId: ids.head, lensId: ids.lens, ticketId: null, work: 'mark' };
    const steps = (await rig.call('GET', '/api/openapi.json')).body.paths['/api/fittings'].post.requestBody.content[
      'application/json'
    ].schema.properties.steps.items.enum as string[];
    await taken('POST', '/api/fittings', { ...fitting, steps });
    const standing = async () => {
      const { checks, fitting: fitted } = await page();
      return checks.map(({ sequence }: { sequence: number }) => sequence > fitted.sequence);
    };
    expect(await standing()).toEqual([false]);
    back(1);
    await taken('POST', `/api/tickets/${ticket}/checks`, check('focus'));
    expect(await standing()).toEqual([true]);
  });

  it('lets the judgement that was entered last count', async () => {
    const run = runBody(ticket, { pieces: 2, reason: 'the coat is known' });
    await taken('POST', '/api/runs', run);
    const clean = { id: randomUUID(), method: 'water and sponge', minutes: 2, residue: 'none' };
    await taken('POST', `/api/runs/${run.id}/cleanings`, clean);
    const judge = (step: number) => ({
      ...{ id: randomUUID(), contrastStep: step, evenness: 'even', piecesGood: step === 1 ? 0 : 2 },
      ...{ faults: step === 1 ? ['grainy'] : [], tests: [], note: '' },
    });
    await taken('POST', `/api/runs/${run.id}/judgements`, judge(1));
    back(30);
    await taken('POST', `/api/runs/${run.id}/judgements`, judge(4));
    const [record] = (await rig.call('GET', '/api/ledger')).body.records;
    expect(record.judgement.contrastStep).toBe(4);
    expect((await page()).progress).toMatchObject({ runsFaulty: 0, rejectedPieces: 0 });
  });

  it('counts blanks from when they were counted, whatever the time was', async () => {
    const items = (await rig.call('GET', '/api/inventory?kind=blank')).body.records;
    const blank = items.find(({ id }: { id: string }) => id === ids.blank);
    const { body, version } = blank;
    await taken('PUT', `/api/inventory/${ids.blank}`, { version, body: { ...body, left: 40 } });
    back(1);
    const run = runBody(ticket, { pieces: 3, blankId: ids.blank, reason: 'the coat is known' });
    await taken('POST', '/api/runs', run);
    expect((await rig.call('GET', `/api/inventory/${ids.blank}/use`)).body.blanksLeft).toBe(37);
  });
});
