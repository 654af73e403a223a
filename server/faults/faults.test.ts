import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, weighingBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
/** The compound of the rig as loose powder. */
let powder: string;

beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
  const { body: compounds } = await rig.call('GET', '/api/inventory?kind=compound');
  const item = compounds.records[0];
  powder = item.id;
  const body = { ...item.body, handling: 'loose powder' };
  await rig.call('PUT', `/api/inventory/${powder}`, { version: item.version, body });
});
afterAll(() => rig.close());

const post = async (path: string, body: object) => rig.call('POST', path, { id: randomUUID(), ...body });
const EDGE = { faults: ['pale along one edge'], spots: [{ x: 0.5, y: 0.9 }], note: '' };

/** A judged run with air on over powder, on a long mark; two of its pieces came out pale along one edge. */
async function paleRun(change: object = {}): Promise<{ ticket: any; run: any }> {
  const { body: ticket } = await rig.call(
    'POST',
    '/api/tickets',
    ticketBody(ids, { pieces: 4, markWidthMm: 160, markHeightMm: 14 }),
  );
  const { id: _id, number: _n, version, createdAt: _c, changedAt: _h, layoutId: _l, ...fields } = ticket;
  const { sweptWidthMm: _w, sweptHeightMm: _s, ...rest } = fields;
  await rig.call('PUT', `/api/tickets/${ticket.id}`, { ...rest, version, compoundId: powder, choiceReason: 'fast' });
  await post(`/api/tickets/${ticket.id}/weighings`, weighingBody(ids, { id: randomUUID(), pieces: 4 }));
  const run = runBody(ticket.id, { pieces: 2, air: 'on', ...change });
  const made = await rig.call('POST', '/api/runs', run);
  expect(made.body.faults ?? made.status).toBe(200);
  await post(`/api/runs/${run.id}/cleanings`, { method: 'water and sponge', minutes: 3, residue: 'none' });
  await post(`/api/runs/${run.id}/judgements`, {
    ...{ contrastStep: 3, evenness: 'patchy', piecesGood: 0, faults: EDGE.faults, tests: [], note: '' },
  });
  return { ticket, run: made.body };
}

const open = (run: any, change: object = {}) =>
  post('/api/faults', { kind: 'run', subjectId: run.id, pieces: [1, 2], ...EDGE, ...change });
const top = (found: any) => found.chances[0];

describe('the cause of a fault', () => {
  it('is looked for with what the record says, frozen as it is first looked for', async () => {
    const { run, ticket } = await paleRun();
    const { body: page } = await rig.call('GET', `/api/faults/of/run/${run.id}`);
    expect(page.record).toMatchObject({
      ...{ air: 'on', coat: { handling: 'loose powder', driedS: null } },
      place: { heightsRead: false, longestMm: 160, focusFound: false },
      part: { metal: true, vitreous: false },
    });
    expect(page.proposals).toEqual([expect.objectContaining({ fault: 'pale along one edge', words: 'said at Judge' })]);
    const { body: found } = await open(run);
    expect(found.record.pieces).toEqual({ made: 2, alike: 2, samePlace: true });
    // Heights that are read from here on are a test, no fact.
    const flat = [0, 1, 2, 3].map((i) => ({ xMm: 50 * (i % 2), yMm: 10 * (i >> 1), heightMm: 0.01 * i }));
    await post(`/api/tickets/${ticket.id}/place-readings`, {
      ...{ kind: 'flatness', entries: { readings: flat, focusMm: 0 }, decision: 'taken', note: '' },
    });
    const again = (await rig.call('GET', `/api/faults/of/run/${run.id}`)).body.cases[0];
    expect(again.record.place.heightsRead).toBe(false);
    expect(again.looks).toHaveLength(1);
  });

  it('is settled with what every cause was given, and what is changed: the compound, and a question that then stands at Mark', async () => {
    const { run, ticket } = await paleRun();
    const { body: found } = await open(run);
    await post(`/api/faults/${found.id}/tests`, { test: 'heights', result: 'clear', note: '' });
    const remedies = [
      { kind: 'compound air off' },
      { kind: 'question', question: { station: 'mark', text: 'Air assist shut at its valve', of: 'compound' } },
    ];
    const settled = await post(`/api/faults/${found.id}/findings`, {
      ...{ causes: ['air blew the powder'], way: 'redo the region', regionShare: 0.25, remedies, note: 'both bars' },
    });
    expect(settled.body.faults ?? settled.status).toBe(200);
    const [finding] = settled.body.findings;
    expect(top(finding).cause).toBe('air blew the powder');
    expect(top(finding).chance).toBeGreaterThan(0.6);
    expect(finding.plan.minutes).toBeGreaterThan(0);
    expect(finding.remedies.map(({ words }: any) => words)).toEqual([
      expect.stringMatching(/in Stores: air off$/),
      'Mark asks: Air assist shut at its valve',
    ]);
    const page = (await rig.call('GET', `/api/tickets/${ticket.id}`)).body;
    expect(page.questions).toEqual([expect.objectContaining({ station: 'mark', answered: false })]);
    // The next run asks: neither the question nor the air passes without a word.
    const next = runBody(ticket.id, { pieces: 1, air: 'on', reason: '' });
    const refused = await rig.call('POST', '/api/runs', next);
    expect(refused.body.faults[0].message).toContain('not answered: Air assist shut at its valve');
    expect(refused.body.faults[0].message).toContain('wants the air off');
    await post(`/api/tickets/${ticket.id}/checks`, {
      ...{ station: 'mark', kind: 'check', code: `question-${page.questions[0].id}` },
    });
    expect((await rig.call('GET', `/api/tickets/${ticket.id}`)).body.questions[0].answered).toBe(true);
    // Once it ran, it is asked anew.
    expect(
      (await rig.call('POST', '/api/runs', { ...next, id: randomUUID(), air: 'off', reason: 'as it is' })).status,
    ).toBe(200);
    expect((await rig.call('GET', `/api/tickets/${ticket.id}`)).body.questions[0].answered).toBe(false);
    // Asked no more: with a reason.
    const ended = await post(`/api/questions/${page.questions[0].id}/end`, { why: 'the valve is gone' });
    expect(ended.body[0].ended).toBe(true);
    expect((await rig.call('GET', `/api/tickets/${ticket.id}`)).body.questions).toEqual([]);
  });

  it('teaches the shop: the same look is then more often the same cause', async () => {
    const shares = async () => {
      const { run } = await paleRun({ air: 'off', reason: 'valve shut' });
      const { body: found } = await open(run);
      const { body } = await post(`/api/faults/${found.id}/findings`, {
        ...{ causes: ['uneven spray'], way: 'accept', remedies: [], note: '' },
      });
      return body.findings[0].chances.find(({ cause }: any) => cause === 'uneven spray').chance as number;
    };
    const first = await shares();
    await shares();
    expect(await shares()).toBeGreaterThan(first);
    const { body: causes } = await rig.call('GET', `/api/fault-causes?compoundId=${powder}`);
    expect(causes.causes[0]).toMatchObject({ cause: 'uneven spray', cases: 3, faults: EDGE.faults });
    expect((await rig.call('GET', `/api/fault-causes?substrateId=${randomUUID()}`)).body.causes).toEqual([]);
  });

  it('is corrected by another finding, and by another after that; the newest counts', async () => {
    const { run } = await paleRun({ air: 'off', reason: 'valve shut' });
    const { body: found } = await open(run);
    const settle = (causes: string[]) =>
      post(`/api/faults/${found.id}/findings`, { causes, way: null, remedies: [], note: '' });
    const before = (await rig.call('GET', '/api/fault-causes')).body.cases;
    await settle(['warped or tilted']);
    await settle(['touched or greasy']);
    const { body } = await settle(['warped or tilted', 'uneven spray']);
    expect(body.findings).toHaveLength(3);
    const after = (await rig.call('GET', '/api/fault-causes')).body;
    expect(after.cases).toBe(before + 1);
    expect(after.causes.some(({ cause }: any) => cause === 'touched or greasy')).toBe(false);
  });

  it('sets a can aside once; what is changed already has nothing left to change', async () => {
    const { run } = await paleRun({ air: 'off', reason: 'valve shut' });
    const { body: found } = await open(run);
    const settle = () =>
      post(`/api/faults/${found.id}/findings`, {
        ...{ causes: ['compound off'], way: null, remedies: [{ kind: 'retire container' }], note: '' },
      });
    const first = await settle();
    expect(first.body.findings[0].remedies[0].words).toMatch(/set aside in Stores$/);
    const [can] = await rig.sql<{ retired: boolean }>(
      `SELECT retired FROM inventory_items WHERE id = '${first.body.findings[0].remedies[0].recordId}'`,
    );
    expect(can!.retired).toBe(true);
    const again = await settle();
    expect(again.body.faults[0]).toMatchObject({ path: 'remedies[0]' });
    expect((await rig.call('GET', `/api/faults/of/run/${run.id}`)).body.container.retired).toBe(true);
    await rig.sql(`UPDATE inventory_items SET retired = false WHERE kind = 'container'`);
  });

  it('counts causes by whoever made the runs, and tells how many are still looked for', async () => {
    const mine = (await rig.call('GET', `/api/fault-causes?operatorId=${rig.operator}`)).body;
    const all = (await rig.call('GET', '/api/fault-causes')).body;
    expect(mine.cases).toBe(all.cases);
    const { run } = await paleRun({ air: 'off', reason: 'valve shut' });
    await open(run);
    expect((await rig.call('GET', '/api/fault-causes')).body.open).toBe(all.open + 1);
    expect((await rig.call('GET', `/api/fault-causes?operatorId=${randomUUID()}`)).body.cases).toBe(0);
  });

  it.each([
    ['a mark that is gone and grainy', { faults: ['washed off whole', 'grainy'] }, 'faults', 'cannot be'],
    ['nothing seen', { faults: [] }, 'faults', 'Press what it looks like'],
    ['a piece the run does not have', { pieces: [7] }, 'pieces', 'there is no 7'],
    ['a place off the piece', { spots: [{ x: 1.4, y: 0.5 }] }, 'spots[0].x', 'Across'],
  ])('refuses %s at its field', async (_, change, path, words) => {
    const { run } = await paleRun({ air: 'off', reason: 'valve shut' });
    const { status, body } = await open(run, change);
    expect(status).toBe(422);
    expect(body.faults[0].path).toBe(path);
    expect(body.faults[0].message).toContain(words);
  });

  it('refuses a cause that cannot be, a remedy of another cause, and changes nothing then', async () => {
    const { run } = await paleRun({ air: 'off', reason: 'valve shut' });
    const { body: found } = await open(run);
    const settle = (change: object) =>
      post(`/api/faults/${found.id}/findings`, { causes: [], way: null, remedies: [], note: '', ...change });
    expect((await settle({ causes: ['washed while hot'] })).body.faults[0].message).toContain('cannot have been');
    const ask = { kind: 'question', question: { station: 'mark', text: 'Is it Tuesday?', of: 'compound' } };
    expect((await settle({ causes: ['air blew the powder'], remedies: [ask] })).body.faults[0].path).toBe(
      'remedies[0]',
    );
    expect((await settle({ remedies: [{ kind: 'compound air off' }] })).body.faults[0].path).toBe('causes');
    expect((await rig.call('GET', `/api/faults/of/run/${run.id}`)).body.cases[0].findings).toEqual([]);
    expect(
      (await post(`/api/faults/${found.id}/tests`, { test: 'meter', result: 'skipped', note: '' })).body.faults[0].path,
    ).toBe('note');
    expect((await post(`/api/faults/${randomUUID()}/tests`, { test: 'meter', result: 'found', note: '' })).status).toBe(
      404,
    );
  });
});

describe('pieces that are made anew', () => {
  const REGION = { xMm: 3, yMm: 3, widthMm: 160, heightMm: 4 };
  const rework = (ticket: any, run: any, change: object = {}) =>
    post(`/api/tickets/${ticket.id}/reworks`, {
      ...{ runId: run.id, caseId: null, way: 'redo the region', pieces: [2], region: REGION, alignment: null },
      ...{ focusMm: null, note: '', ...change },
    });

  it('are linked from the run that does it, and count for the next chance', async () => {
    const { ticket, run } = await paleRun({ air: 'off', reason: 'valve shut' });
    const { body } = await rework(ticket, run);
    expect(body).toEqual([expect.objectContaining({ runId: run.id, pieces: [2], region: REGION, doneRunId: null })]);
    await post(`/api/tickets/${ticket.id}/weighings`, weighingBody(ids, { id: randomUUID(), pieces: 1 }));
    const again = runBody(ticket.id, { pieces: 1, reworkId: body[0].id });
    expect((await rig.call('POST', '/api/runs', again)).status).toBe(200);
    await post(`/api/runs/${again.id}/cleanings`, { method: 'water and sponge', minutes: 1, residue: 'none' });
    await post(`/api/runs/${again.id}/judgements`, {
      ...{ contrastStep: 4, evenness: 'even', piecesGood: 1, faults: [], tests: [], note: '' },
    });
    expect((await rig.call('GET', `/api/tickets/${ticket.id}`)).body.reworks[0].doneRunId).toBe(again.id);
    const story = async (id: string) => (await rig.call('GET', `/api/runs/${id}/story`)).body;
    expect(await story(run.id)).toMatchObject({ cases: [], reworkOf: null, reworks: [{ doneRunId: again.id }] });
    expect(await story(again.id)).toMatchObject({ reworks: [], reworkOf: { runId: run.id, pieces: [2] } });
    const { work, stood } = await story(again.id);
    expect([work.cleanMinutes, stood]).toEqual([1, []]);
    expect(work.compoundMinor).toBeGreaterThan(0);
    expect((await rig.call('GET', `/api/runs/${randomUUID()}/story`)).status).toBe(404);
    const { before } = (await rig.call('GET', `/api/faults/of/run/${run.id}`)).body;
    expect(before).toContainEqual({ way: 'redo the region', good: 1, made: 1 });
  });

  it('lie on the piece and are aligned by the same two points, or are refused where they are wrong', async () => {
    const { ticket, run } = await paleRun({ air: 'off', reason: 'valve shut' });
    const fault = async (change: object) => (await rework(ticket, run, change)).body.faults[0];
    expect((await fault({ region: { ...REGION, xMm: 400 } })).message).toContain('beside the piece');
    expect((await fault({ region: null })).path).toBe('region');
    expect((await fault({ pieces: [3] })).path).toBe('pieces');
    const points = (to: number) => [
      { xMm: 0, yMm: 0 },
      { xMm: to, yMm: 0 },
    ];
    const longer = await fault({ alignment: { drawn: points(100), found: points(104) } });
    expect(longer.message).toContain('4.0 mm further apart than drawn');
    const other = await paleRun({ air: 'off', reason: 'valve shut' });
    expect((await rework(other.ticket, run)).body.faults[0].path).toBe('runId');
    const elsewhere = (await rework(other.ticket, other.run)).body[0];
    const run2 = runBody(ticket.id, { pieces: 1, reworkId: elsewhere.id });
    expect((await rig.call('POST', '/api/runs', run2)).body.faults[0].path).toBe('reworkId');
  });
});

describe('upkeep of heads and lenses', () => {
  it('tells how long the beam was on since a lens was cleaned, and the fault page says so', async () => {
    const path = `/api/inventory/${ids['lens']}/upkeep`;
    const { body: first } = await rig.call('GET', path);
    expect(first).toMatchObject({ done: [], hoursSinceCleaned: null });
    expect((await post(path, { what: 'source renewed', note: '' })).body.faults[0].path).toBe('what');
    expect((await post(path, { what: 'cleaned', note: 'haze' })).body.hoursSinceCleaned).toBe(0);
    const { run } = await paleRun({ air: 'off', reason: 'valve shut', minutes: 90 });
    expect((await rig.call('GET', path)).body.hoursSinceCleaned).toBeCloseTo(1.5, 9);
    expect((await rig.call('GET', `/api/faults/of/run/${run.id}`)).body.record.lensHours).toBeCloseTo(1.5, 9);
    expect((await post(`/api/inventory/${powder}/upkeep`, { what: 'cleaned', note: '' })).status).toBe(422);
  });
});
