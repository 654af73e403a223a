import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DESIGN, fillInventory, openTestRig, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

describe('papers', () => {
  const pages = async (path: string) => {
    const response = await fetch(rig.base + path);
    const text = Buffer.from(await response.arrayBuffer()).toString('latin1');
    return { type: response.headers.get('content-type'), text };
  };

  it('are PDFs at true scale: card, step scale, working sheet', async () => {
    const { body: coupon } = await rig.call('POST', '/api/coupons', {
      ...{ id: randomUUID(), ticketId: null, substrateId: ids.substrate, compoundId: ids.compound, focusOffsetMm: 0 },
      ...{ headId: ids.head, lensId: ids.lens, design: { ...DESIGN, bareStrip: true, anchors: true } },
    });
    const card = await pages('/api/card.pdf?size=A4');
    expect(card.type).toBe('application/pdf');
    expect(card.text).toMatch(/^%PDF-/);
    // A4 landscape in points of 1/72 in: 297 × 210 mm.
    expect(card.text).toMatch(/MediaBox \[0 0 841.88\d* 595.27\d*\]/);
    expect((await pages('/api/step-scale.pdf')).text).toMatch(/^%PDF-/);
    expect((await pages(`/api/coupons/${coupon.id}/sheet.pdf`)).text).toMatch(/^%PDF-/);
    expect((await pages('/api/card.svg')).text).toMatch(/width="210mm" height="148mm"/);
  });

  it('are a label a tray that dries, and none where none does', async () => {
    const { body: ticket } = await rig.call('POST', '/api/tickets', ticketBody(ids));
    const labels = `/api/tickets/${ticket.id}/trays.pdf`;
    expect((await rig.call('GET', labels)).body).toMatchObject({ type: 'wrong-stage' });
    const start = (tray: number) => ({
      id: randomUUID(),
      kind: 'dry',
      label: `tray ${tray}`,
      minimumS: 240,
      tray,
      pieces: 12,
    });
    for (const tray of [1, 2]) await rig.call('POST', `/api/tickets/${ticket.id}/timers`, start(tray));
    const { type, text } = await pages(labels);
    expect([type, text.slice(0, 5)]).toEqual(['application/pdf', '%PDF-']);
  });
});
