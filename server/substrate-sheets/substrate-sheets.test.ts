import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

const post = (path: string, body: object) => rig.call('POST', path, { id: randomUUID(), ...body });
const sheet = async () => (await rig.call('GET', `/api/substrates/${ids['substrate']}/sheet`)).body;

describe('what works on a substrate', () => {
  it('says what was never tried before anything was', async () => {
    const { settings, runs, cleaning, never } = await sheet();
    expect([settings, runs, cleaning]).toEqual([[], 0, []]);
    expect(never).toEqual([expect.objectContaining({ compoundId: ids['compound'], headId: ids['head'] })]);
    expect((await rig.call('GET', `/api/substrates/${randomUUID()}/sheet`)).status).toBe(404);
  });

  it('counts its runs by recipe, how they were cleaned, their faults and what those were', async () => {
    const { body: ticket } = await rig.call('POST', '/api/tickets', ticketBody(ids, { pieces: 12 }));
    for (const [good, faults, residue] of [
      [6, [], 'none'],
      [4, ['grainy'], 'trace'],
    ] as const) {
      const run = runBody(ticket.id, { pieces: 6, minutes: 12 });
      expect((await rig.call('POST', '/api/runs', run)).status).toBe(200);
      await post(`/api/runs/${run.id}/cleanings`, { method: 'water and sponge', minutes: 3, residue });
      const judged = { contrastStep: 4, evenness: 'even', piecesGood: good, faults, tests: [], note: '' };
      expect((await post(`/api/runs/${run.id}/judgements`, judged)).status).toBe(200);
      if (!faults.length) continue;
      const { body: found } = await post('/api/faults', {
        ...{ kind: 'run', subjectId: run.id, pieces: [1, 2], faults, spots: [], note: '' },
      });
      await post(`/api/faults/${found.id}/findings`, { causes: ['too fast'], way: null, remedies: [], note: '' });
    }
    const { runs, cleaning, faults } = await sheet();
    expect(runs).toBe(2);
    expect(cleaning).toEqual([
      expect.objectContaining({ method: 'water and sponge', runs: 2, clean: 1, minutesPerPiece: 0.5 }),
    ]);
    expect(faults).toEqual([{ fault: 'grainy', runs: 1, causes: [{ cause: 'too fast', cases: 1 }] }]);
  });

  it('goes on paper, with codes only of a real address', async () => {
    const path = `${rig.base}/api/substrates/${ids['substrate']}/sheet.pdf`;
    const paper = await fetch(`${path}?at=http://127.0.0.1:4000/x`);
    expect(paper.headers.get('content-type')).toContain('application/pdf');
    expect(
      Buffer.from(await paper.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
    expect((await fetch(`${path}?at=javascript:alert(1)`)).status).toBe(422);
  });
});
