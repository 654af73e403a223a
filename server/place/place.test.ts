import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { NO_KIND } from '@unto/contract';
import { fillInventory, openTestRig, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

async function openTicket(change: object = {}) {
  return (await rig.call('POST', '/api/tickets', ticketBody(ids, change))).body;
}
function keep(ticketId: string, kind: string, entries: object, decision = 'taken') {
  rig.now = new Date(rig.now.getTime() + 1000);
  return rig.call('POST', `/api/tickets/${ticketId}/place-readings`, {
    id: randomUUID(),
    kind,
    entries,
    decision,
    note: '',
  });
}
const dots = (...all: [number, number][]) => ({
  dots: all.map(([heightMm, widthMm]) => ({ heightMm, widthMm })),
  growth: 0.05,
});
const HUNT = dots([-2, 0.2236], [-1, 0.1414], [0, 0.1], [1, 0.1414], [2, 0.2236]);
const heights = (rise: number, focusMm = 0) => ({
  readings: [
    { xMm: 0, yMm: 0, heightMm: 0 },
    { xMm: 38, yMm: 0, heightMm: rise },
    { xMm: 0, yMm: 22, heightMm: 0 },
  ],
  focusMm,
});
const messages = (answer: { body: any }) =>
  answer.body.faults.map(({ message }: { message: string }) => message).join('\n');

describe('readings of the Place station', () => {
  it('are worked out here and kept under the head and lens that are fitted', async () => {
    const ticket = await openTicket();
    const { status, body } = await keep(ticket.id, 'focus', HUNT);
    expect(status, JSON.stringify(body)).toBe(200);
    const [reading] = body;
    expect(reading).toMatchObject({
      kind: 'focus',
      lensId: ids.lens,
      headId: ids.head,
      decision: 'taken',
      by: rig.operator,
    });
    // d² = 0.01 + 0.01 z²: spot 0.1, Rayleigh range 1, ± 0.320 mm for 5 %.
    expect(reading.result.spot.value).toBeCloseTo(0.1, 3);
    expect(reading.result.depth.value).toBeCloseTo(0.3202, 3);
    expect(reading.result.height.grade).toBe('measured');
    await expect(rig.sql('DELETE FROM place_readings')).rejects.toThrow(/append-only/);
  });

  it('take the depth of the newest hunt with this lens, on whatever ticket', async () => {
    const ticket = await openTicket();
    const page = async () => (await rig.call('GET', `/api/tickets/${ticket.id}`)).body;
    expect((await page()).huntedDepth.value).toBeCloseTo(0.3202, 3);
    await keep(ticket.id, 'flatness', heights(1));
    const [reading] = (await page()).placeReadings;
    // Rises 1 mm over the width, focus at its low edge, ± 0.32: a third of it.
    expect(reading.result.inFocus.value).toBeGreaterThan(29);
    expect(reading.result.inFocus.value).toBeLessThan(36);
    expect(reading.result.inFocus.grade).toBe('measured');
    expect(reading.result).toMatchObject({ advice: 'steps' });
    expect(reading.result.steps).toHaveLength(2);
  });

  it('fall back on the lens’s stated depth where nobody hunted', async () => {
    const lensId = randomUUID();
    await rig.call('POST', '/api/inventory', {
      id: lensId,
      kind: 'lens',
      body: {
        ...NO_KIND,
        name: '38 mm',
        headId: ids.head,
        focalLengthMm: 38,
        spotXMm: 0.12,
        spotYMm: 0.12,
        spotSource: 'stated',
        depthOfFocusMm: 2,
        depthGrowth: 0.05,
      },
    });
    const ticket = await openTicket({ lensId });
    const { body } = await keep(ticket.id, 'flatness', heights(1, 0.5));
    expect(body[0].result).toMatchObject({ advice: 'accept', inFocus: { value: 100, grade: 'stated' } });
  });

  it('find a centre and plan a round part', async () => {
    const ticket = await openTicket();
    const rim = {
      points: [
        [50, 10],
        [10, 50],
        [-30, 10],
        [10, -30],
      ].map(([xMm, yMm]) => ({ xMm, yMm })),
    };
    const { body: centre } = await keep(ticket.id, 'centre', rim);
    expect(centre[0].result).toMatchObject({
      x: { value: expect.closeTo(10, 9) },
      diameter: { value: expect.closeTo(80, 9) },
    });
    const { body: round } = await keep(ticket.id, 'round', { nearMm: 88, farMm: 80, alongMm: 60 });
    expect(round[0].result.mmPerDegree.value).toBeCloseTo((Math.PI * 84) / 360, 9);
    expect(round[0].result.stretch).toBeCloseTo(0.1, 9);
  });

  it('refuse what cannot be with its reason, and keep nothing of it', async () => {
    const ticket = await openTicket();
    expect(messages(await keep(ticket.id, 'focus', dots([0, 0.1], [1, 0.2])))).toMatch(/three dots at least/);
    expect(messages(await keep(ticket.id, 'focus', dots([0, 0.1], [1, 0.3], [2, 0.42], [3, 0.5])))).toMatch(
      /narrow and widen again/,
    );
    expect(messages(await keep(ticket.id, 'focus', dots([0, 0], [1, 0.2], [2, 0.3])))).toMatch(
      /Dot width must be above 0/,
    );
    const line = { points: [0, 1, 2].map((i) => ({ xMm: i, yMm: i })) };
    expect(messages(await keep(ticket.id, 'centre', line))).toMatch(/in a line/);
    const torn = heights(0.1);
    torn.readings.push({ xMm: 38, yMm: 0.2, heightMm: 2 });
    expect(messages(await keep(ticket.id, 'flatness', torn))).toMatch(
      /Readings 2 and 4 are of one place and differ by 1\.90 mm/,
    );
    expect(messages(await keep(ticket.id, 'round', { nearMm: 80, farMm: 88, alongMm: 60 }))).toMatch(/swapped/);
    expect(messages(await keep(ticket.id, 'round', { nearMm: 0, farMm: 0, alongMm: 60 }))).toMatch(
      /Diameter must be above 0/,
    );
    expect((await keep(ticket.id, 'tilt', {})).status).toBe(422);
    expect((await keep(ticket.id, 'flatness', heights(1), 'shrugged')).status).toBe(422);
    expect(await rig.sql(`SELECT 1 FROM place_readings WHERE ticket_id = '${ticket.id}' AND kind <> 'focus'`)).toEqual(
      [],
    );
  });
});
