import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CRITERIA, drawValueScores, rankOptions, type Criterion } from '@unto/core';
import type { ChoiceOptionView, ChoicePage } from '@unto/contract';
import {
  DESIGN,
  fillInventory,
  openTestRig,
  runBody,
  storeBody,
  ticketBody,
  weighingBody,
  type TestRig,
  BURNT,
} from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

const EVEN = Object.fromEntries(CRITERIA.map((criterion) => [criterion, 1])) as Record<Criterion, number>;
const post = (path: string, body: object) => rig.call('POST', path, { id: randomUUID(), ...body });
async function add(kind: Parameters<typeof storeBody>[0], change: object): Promise<string> {
  const id = randomUUID();
  const { status, body } = await rig.call('POST', '/api/inventory', {
    id,
    kind,
    body: { ...storeBody(kind, ids), ...change },
  });
  expect(status, JSON.stringify(body)).toBe(200);
  return id;
}
async function openTicket(change: object = {}) {
  const { body } = await rig.call('POST', '/api/tickets', ticketBody(ids, change));
  return body;
}
async function page(ticketId: string): Promise<ChoicePage> {
  const { status, body } = await rig.call('GET', `/api/tickets/${ticketId}/choice`);
  expect(status, JSON.stringify(body)).toBe(200);
  return body;
}
const of = (found: ChoicePage, id: string): ChoiceOptionView => found.options.find((option) => option.id === id)!;
const choose = (ticket: any, optionId: string, change: object = {}) =>
  post(`/api/tickets/${ticket.id}/choices`, {
    version: ticket.version,
    optionId,
    profileId: null,
    weights: EVEN,
    reason: '',
    ...change,
  });

/** A coupon whose slow and strong cells hold, burnt and scrubbed. */
async function scrubbedCoupon(compoundId: string | null, ticket: any) {
  const { ticketId, substrateId, headId, lensId } = { ticketId: ticket.id, ...ticket };
  const { body: coupon } = await post('/api/coupons', {
    ticketId,
    substrateId,
    compoundId,
    headId,
    lensId,
    focusOffsetMm: 0,
    design: DESIGN,
  });
  await rig.call('PUT', `/api/coupons/${coupon.id}/burnt`, BURNT);
  const entries = Array.from({ length: 12 }, (_, cell) => ({ cell, outcome: cell < 8 ? 'holds' : 'under' }));
  const { status } = await post(`/api/coupons/${coupon.id}/readings`, {
    stage: 'scrubbed',
    source: 'entered',
    entries,
  });
  expect(status).toBe(200);
  return coupon.id as string;
}

/** A judged and cleaned run of the ticket's compound. */
async function judgedRun(ticket: any, contrastStep: number, change: object = {}) {
  await post(`/api/tickets/${ticket.id}/weighings`, weighingBody(ids));
  const { body: run } = await rig.call('POST', '/api/runs', runBody(ticket.id));
  await post(`/api/runs/${run.id}/cleanings`, { method: 'water and sponge', minutes: 3, residue: 'none' });
  await post(`/api/runs/${run.id}/judgements`, {
    contrastStep,
    evenness: 'even',
    piecesGood: 6,
    faults: [],
    tests: [{ test: 'abrasive pad', result: 'no change' }],
    note: '',
    ...change,
  });
  return run;
}

describe('choosing', () => {
  it('has nothing but ranges, stated figures and what would fill them on an untried pairing', async () => {
    const found = await page((await openTicket()).id);
    const option = of(found, ids.compound);
    expect(option.judgement.verdict).toBe('offered');
    expect(option.estimates.contrast).toMatchObject({ figure: null, wanted: 'coupon needed' });
    expect(option.estimates.handling.figure!.grade).toBe('stated');
    expect(found.methods.map(({ method }) => method)).toContain('blue diode on stainless');
    expect(found.choices).toEqual([]);
    expect(found.blank).toMatchObject({ name: 'Tag blanks', priceMinor: 80 });
  });

  it('reads contrast, cleaning and durability off judged runs, signed by the aim they were judged for', async () => {
    const compoundId = await add('compound', { name: 'Tallow Black' });
    const first = await openTicket();
    const { body: ticket } = await choose(first, compoundId);
    expect(ticket.compoundId).toBe(compoundId);
    for (const step of [4, 5, 4]) await judgedRun(ticket, step);
    const option = of(await page(ticket.id), compoundId);
    expect(option.runs).toBe(3);
    expect(option.estimates.contrast.figure).toMatchObject({ grade: 'proved by eye' });
    expect(option.estimates.contrast.figure!.value).toBeCloseTo(13 / 3, 9);
    // 3 minutes for 6 pieces.
    expect(option.estimates.cleaning.figure).toMatchObject({ value: 0.5, grade: 'measured' });
    expect(option.estimates.durability.figure!.value).toBe(1);
    const pale = await openTicket({ aim: { tone: 'light on dark', strength: 'clear', work: 'fill' } });
    expect(of(await page(pale.id), compoundId).estimates.contrast.figure!.value).toBeCloseTo(-13 / 3, 9);
  });

  it('carries runs over from another substrate of the family, wider, and forgets a corrected run', async () => {
    const compoundId = await add('compound', { name: 'Linden Black' });
    const other = await add('substrate', { name: '430 stainless' });
    const { body: ticket } = await choose(await openTicket({ substrateId: other }), compoundId);
    const wrong = await judgedRun(ticket, 1);
    const { body: right } = await rig.call('POST', '/api/runs', runBody(ticket.id, { correctsId: wrong.id }));
    await post(`/api/runs/${right.id}/cleanings`, { method: 'water and sponge', minutes: 3, residue: 'none' });
    await post(`/api/runs/${right.id}/judgements`, {
      contrastStep: 4,
      evenness: 'even',
      piecesGood: 6,
      faults: [],
      tests: [],
      note: '',
    });
    const option = of(await page((await openTicket()).id), compoundId);
    expect([option.runs, option.runsNear]).toEqual([0, 1]);
    expect(option.estimates.contrast.figure).toMatchObject({ value: 4, grade: 'carried' });
    expect(option.estimates.contrast.high - option.estimates.contrast.low).toBeGreaterThan(1.5);
  });

  it('takes the area rate from scrubbed coupons, proved only on the present revisions', async () => {
    const compoundId = await add('compound', { name: 'Rowan Fast' });
    const ticket = await openTicket();
    const coupon = await scrubbedCoupon(compoundId, ticket);
    const option = of(await page(ticket.id), compoundId);
    const rate = option.estimates.rate.figure!;
    expect(option.coupons).toBe(1);
    expect(rate.unit).toBe('cm²/min');
    expect(rate.value).toBeGreaterThan(1);
    expect(rate.interval!.low).toBeLessThan(rate.value);
    expect(rate.inputs.some(({ ref }) => ref?.id === coupon)).toBe(true);
    expect(option.judgement.reasons.some(({ code }) => code === 'proved-here')).toBe(true);
    const revise = (version: number, change: object) =>
      rig.call('PUT', `/api/inventory/${compoundId}`, { version, body: { ...storeBody('compound'), ...change } });
    // Better known and called otherwise, it is the same compound.
    await revise(1, { name: 'Rowan Faster', dryDensity: 3.7 });
    const known = of(await page(ticket.id), compoundId);
    expect(known.judgement.reasons.some(({ code }) => code === 'proved-here')).toBe(true);
    expect(known.estimates.rate.figure!.grade).toBe(rate.grade);
    await revise(2, { name: 'Rowan Fast', dryS: 300 });
    const later = of(await page(ticket.id), compoundId);
    expect(later.estimates.rate.figure!.grade).toBe('carried');
    expect(later.judgement.reasons.some(({ code }) => code === 'proved-here')).toBe(false);
  });

  it('keeps a choice with everything to make its ranking again', async () => {
    const ticket = await openTicket();
    const found = await page(ticket.id);
    const weights = { ...EVEN, contrast: 4, cost: 0 };
    const { status, body: changed } = await choose(ticket, ids.compound, { weights, reason: 'Wanted dark.' });
    expect(status).toBe(200);
    expect(changed).toMatchObject({ compoundId: ids.compound, choiceReason: 'Wanted dark.', version: 2 });
    const [choice] = (await page(ticket.id)).choices;
    expect(choice).toMatchObject({ optionId: ids.compound, weights, offLabel: false, by: rig.operator });
    const again = rankOptions(
      drawValueScores(
        found.options.filter(({ judgement }) => judgement.verdict !== 'blocked'),
        choice!.seed,
      ),
      choice!.weights,
    );
    expect(choice!.scores.map(({ optionId }) => optionId)).toEqual(again.map(({ option }) => option.id));
    choice!.scores.forEach(({ score }, i) => expect(score).toBeCloseTo(again[i]!.score, 6));
    await expect(rig.sql(`UPDATE choices SET reason = 'other'`)).rejects.toThrow(/append-only/);
  });

  it('records an off-label choice as such', async () => {
    const compoundId = await add('compound', { name: 'Thorn', statedBeams: ['near-infrared'] });
    const ticket = await openTicket();
    expect(of(await page(ticket.id), compoundId)).toMatchObject({ offLabel: true, judgement: { verdict: 'warned' } });
    expect((await choose(ticket, compoundId)).status).toBe(200);
    expect((await page(ticket.id)).choices[0]).toMatchObject({ offLabel: true });
  });

  it('refuses a withheld option with its reason, an unknown one, weights of nought and a stale ticket', async () => {
    const ptfe = await add('compound', { name: 'Slick', containsPtfe: true });
    const ticket = await openTicket();
    expect((await choose(ticket, ptfe)).body.faults[0]).toMatchObject({
      path: 'optionId',
      message: expect.stringMatching(/fluorinated/),
    });
    expect((await choose(ticket, 'glitter')).body.faults[0].message).toMatch(/no option/);
    const none = Object.fromEntries(CRITERIA.map((criterion) => [criterion, 0]));
    expect((await choose(ticket, ids.compound, { weights: none })).body).toMatchObject({ status: 422 });
    expect((await choose({ ...ticket, version: 9 }, ids.compound)).body.type).toBe('version-conflict');
    expect(await rig.sql(`SELECT 1 FROM choices WHERE ticket_id = '${ticket.id}'`)).toEqual([]);
  });

  it('takes the beam alone where a layer is burnt off, under its own name', async () => {
    const anodised = await add('substrate', {
      name: 'Anodised',
      family: 'aluminium',
      layer: 'anodised',
      ground: 'dark',
    });
    const ticket = await openTicket({
      substrateId: anodised,
      aim: { tone: 'light on dark', strength: 'clear', work: 'fill' },
    });
    const found = await page(ticket.id);
    expect(of(found, 'burn off the layer').judgement.verdict).toBe('offered');
    expect(
      found.options.filter(({ compoundId }) => compoundId).every(({ judgement }) => judgement.verdict === 'blocked'),
    ).toBe(true);
    const { body } = await choose(ticket, 'burn off the layer');
    expect(body).toMatchObject({ compoundId: null, choiceReason: 'Taken: Burn off the layer.' });
  });

  it('names other heads that could do what this one cannot', async () => {
    const machineId = await add('machine', { name: 'Post' });
    await add('head', { name: 'Post fibre', machineId, wavelengthClass: 'near-infrared', ratedW: 25 });
    const { methods } = await page((await openTicket()).id);
    const infrared = methods.find(({ method }) => method === 'infrared on bare metal')!;
    expect(infrared.judgement.verdict).toBe('blocked');
    expect(infrared.elsewhere).toEqual(['Post fibre']);
  });

  it('adds up what a year used of each compound', async () => {
    const ticket = await openTicket();
    await choose(ticket, ids.compound);
    const before = (await page(ticket.id)).yearlyUse[ids.compound]!;
    await rig.call(
      'POST',
      `/api/tickets/${ticket.id}/weighings`,
      weighingBody(ids, { pieces: 10, before: { value: 300, unit: 'g' }, after: { value: 296, unit: 'g' } }),
    );
    const { yearlyUse } = await page(ticket.id);
    // (38 + 6) × (22 + 6) mm × 10 pieces = 123.2 cm²
    expect(yearlyUse[ids.compound]!.grams - before.grams).toBeCloseTo(4, 9);
    expect(yearlyUse[ids.compound]!.areaCm2 - before.areaCm2).toBeCloseTo(123.2, 6);
  });
});
