import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig, keptFile } from '../testing/rig.js';

const DAY = 86_400_000;
let rig: TestRig;
let ticketId: string;
const runs: any[] = [];

async function judge(run: any, contrastStep: number, piecesGood: number) {
  const cleaned = { id: randomUUID(), method: 'water and sponge', minutes: 2, residue: 'none' };
  await rig.call('POST', `/api/runs/${run.id}/cleanings`, cleaned);
  const { status } = await rig.call('POST', `/api/runs/${run.id}/judgements`, {
    ...{ id: randomUUID(), contrastStep, evenness: 'even', piecesGood, faults: [], tests: [], note: '' },
  });
  expect(status).toBe(200);
}

beforeAll(async () => {
  rig = await openTestRig();
  const ids = await fillInventory(rig);
  const { body: ticket } = await rig.call('POST', '/api/tickets', ticketBody(ids));
  ticketId = ticket.id;
  for (let i = 0; i < 8; i += 1) {
    rig.now = new Date(rig.now.getTime() + 40 * DAY);
    const minutes = { minutes: 4 + i, minutesFrom: i === 0 ? 'planned' : 'typed' };
    const { body } = await rig.call('POST', '/api/runs', runBody(ticket.id, { pieces: 1, ...minutes }));
    runs.push(body);
    if (i < 7) await judge(body, 5 - Math.floor(i / 2), 1);
  }
});
afterAll(() => rig.close());

describe('the ledger over time', () => {
  it('tells what the filter lets through, what was planned only left out of its minutes', async () => {
    const { body } = await rig.call('GET', '/api/ledger/trend');
    expect(body).toMatchObject({ runs: 8, whole: true, pairings: 1, by: 'month' });
    const told = body.points.filter((point: any) => point.runs);
    expect(told.map((point: any) => point.contrast?.value ?? null)).toEqual([5, 5, 4, 4, 3, 3, 2, null]);
    expect(told.map((point: any) => point.minutes?.value ?? null)).toEqual([null, 5, 6, 7, 8, 9, 10, 11]);
    const contrast = body.ways.find(({ measure }: any) => measure === 'contrast');
    expect([contrast.tau < -0.8, contrast.chance < 0.02, contrast.runs]).toEqual([true, true, 7]);
    const since = await rig.call('GET', `/api/ledger/trend?from=${runs[5].at}`);
    expect(since.body.runs).toBe(3);
    expect((await rig.call('GET', '/api/ledger/trend?canLot=none')).body).toMatchObject({
      runs: 0,
      points: [],
      ways: [],
    });
  });

  it('takes the newest judgement, and a correction in place of the run it corrects', async () => {
    await judge(runs[6], 4, 0);
    const corrected = runBody(ticketId, { pieces: 1, correctsId: runs[7].id, minutes: 20 });
    expect((await rig.call('POST', '/api/runs', corrected)).status).toBe(200);
    const { body } = await rig.call('GET', '/api/ledger/trend');
    expect(body.runs).toBe(8);
    const told = body.points.filter((point: any) => point.runs);
    expect([told[6].contrast.value, told[6].good.value, told[7].minutes.value]).toEqual([4, 0, 20]);
  });
});

describe('pictures of runs', () => {
  it('are those put beside a run that are pictures and stand, each by its run', async () => {
    const large = sharp({ create: { width: 1600, height: 1200, channels: 3, background: '#884422' } });
    const hash = await keptFile(rig, 'washed.jpg', await large.jpeg().toBuffer());
    const sheet = await keptFile(rig, 'sheet.pdf', Buffer.from('%PDF-1.4\n%%EOF\n'));
    for (const fileHash of [hash, sheet])
      expect(
        (
          await rig.call('POST', '/api/remarks', {
            ...{ id: randomUUID(), ticketId, runId: runs[2].id, words: 'washed', fileHash, shows: null },
          })
        ).status,
      ).toBe(200);
    const { body } = await rig.call('GET', `/api/ledger/pictures?runs=${runs[2].id},${runs[3].id}`);
    expect(body).toEqual([expect.objectContaining({ runId: runs[2].id, of: 'note', fileHash: hash, words: 'washed' })]);

    const small = await fetch(`${rig.base}/api/files/${hash}/small`);
    const { width, height, format } = await sharp(Buffer.from(await small.arrayBuffer())).metadata();
    expect([width, height, format, small.headers.get('cache-control')]).toEqual([
      ...[320, 240, 'jpeg', expect.stringContaining('immutable')],
    ]);
    expect((await rig.call('GET', `/api/files/${sheet}/small`)).body.type).toBe('wrong-file');
    expect((await rig.call('GET', `/api/files/${'0'.repeat(64)}/small`)).status).toBe(404);
    const broken = await keptFile(rig, 'broken.jpg', Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2]));
    expect((await rig.call('GET', `/api/files/${broken}/small`)).body.detail).toMatch(/cannot be opened/);
  });

  it('are asked for by ids, no more than a page of them', async () => {
    for (const asked of ['', 'x', `${runs[0].id};`, Array(51).fill(runs[0].id).join(',')])
      expect((await rig.call('GET', `/api/ledger/pictures?runs=${asked}`)).status).toBe(422);
  });
});
