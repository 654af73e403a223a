import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readCsv, writeCsv } from '@unto/core';
import { fillInventory, openTestRig, runBody, ticketBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
const runs: any[] = [];
beforeAll(async () => {
  rig = await openTestRig();
  const ids = await fillInventory(rig);
  const { body: ticket } = await rig.call(
    'POST',
    '/api/tickets',
    ticketBody(ids, { title: '=SUM(1), "quoted"\nand broken' }),
  );
  for (let i = 0; i < 7; i += 1) {
    rig.now = new Date(rig.now.getTime() + 3_600_000);
    const { body } = await rig.call(
      'POST',
      '/api/runs',
      runBody(ticket.id, { note: i === 3 ? '+1 "odd"\r\nnote, ünïcode' : '', pieces: i + 1 }),
    );
    runs.push(body);
  }
  await rig.call('POST', `/api/runs/${runs[0].id}/cleanings`, {
    id: randomUUID(),
    method: 'water and sponge',
    minutes: 2,
    residue: 'trace',
  });
  await rig.call('POST', `/api/runs/${runs[0].id}/judgements`, {
    id: randomUUID(),
    contrastStep: 4,
    evenness: 'even',
    piecesGood: 1,
    faults: ['grainy'],
    tests: [{ test: 'abrasive pad', result: 'no change' }],
    note: '',
  });
});
afterAll(() => rig.close());

const emptied = () => rig.sequelize.query('TRUNCATE runs CASCADE');
/** Brings a file as it is, as the page does. */
const bring = (format: 'csv' | 'json', file: string) =>
  rig.call('POST', `/api/ledger/import?format=${format}`, file, {
    headers: { 'content-type': 'application/octet-stream' },
  });
const text = async (path: string) => (await fetch(rig.base + path)).text();

describe('ledger', () => {
  it('pages newest first by cursor without gap or repeat', async () => {
    const seen: string[] = [];
    let cursor = '';
    do {
      const { body } = await rig.call('GET', `/api/ledger?limit=3${cursor}`);
      seen.push(...body.records.map(({ id }: { id: string }) => id));
      cursor = body.next ? `&cursor=${body.next}` : '';
    } while (cursor);
    expect(seen).toEqual(runs.map(({ id }) => id).reverse());
  });

  it('is searched by words of all that is said of a run, each as it begins, whatever signs are typed', async () => {
    const found = async (words: string) =>
      (await rig.call('GET', `/api/ledger?text=${encodeURIComponent(words)}`)).body.records.length;
    expect(await found('ünïc')).toBe(1);
    expect(await found('quoted brok')).toBe(7);
    expect(await found('GRAINY even sponge')).toBe(1);
    expect(await found('grainy walrus')).toBe(0);
    expect(await found(`'); DROP TABLE runs; -- & | ! <-> :*`)).toBe(0);
    expect(await found('  & | ')).toBe(7);
    // A ticket that is called otherwise is found by what it is called now.
    const { body: ticket } = await rig.call('GET', `/api/tickets/${runs[0].ticketId}`);
    await rig.sequelize.query(`UPDATE tickets SET title = 'Sundial' WHERE id = '${ticket.ticket.id}'`);
    expect(await found('sundi')).toBe(7);
    await rig.sequelize.query(`UPDATE tickets SET title = :title WHERE id = '${ticket.ticket.id}'`, {
      replacements: { title: ticket.ticket.title },
    });
  });

  it('keeps filters under a name, each name once, until they are taken away', async () => {
    const query = { judged: 'faulty', text: 'grainy' };
    const named = (name: string) => rig.call('POST', '/api/ledger/filters', { id: randomUUID(), name, query });
    const { body } = await named('Grain');
    expect(body).toEqual([expect.objectContaining({ name: 'Grain', query })]);
    expect((await named('grain ')).body.faults[0].path).toBe('name');
    const kept = await rig.call('PUT', `/api/ledger/filters/${body[0].id}`, { retired: true });
    expect(kept.body).toEqual([]);
    expect((await named('Grain')).status).toBe(200);
  });

  it('filters in SQL and refuses nonsense', async () => {
    const of = async (query: string) => (await rig.call('GET', `/api/ledger?${query}`)).body;
    expect((await of(`substrateId=${runs[0].substrateId}&judged=yes`)).records).toHaveLength(1);
    expect((await of('judged=no')).records).toHaveLength(6);
    expect((await of('grade=proved')).records).toHaveLength(0);
    expect((await of(`from=${runs[5].at}`)).records).toHaveLength(2);
    expect((await of('judged=faulty')).records.map(({ id }: { id: string }) => id)).toEqual([runs[0].id]);
    expect((await of(`operatorId=${runs[0].by}&limit=2`)).records).toHaveLength(2);
    expect((await of('canLot=K9')).records).toHaveLength(0);
    expect((await of('substrateId=1')).type).toBe('invalid-input');
    expect((await of('limit=9999')).type).toBe('invalid-input');
    expect((await of('cursor=abc')).type).toBe('invalid-input');
  });

  it.each(['csv', 'json'] as const)('comes back from its own %s without a change', async (format) => {
    const file = await text(`/api/ledger.${format}`);
    const again = await bring(format, file);
    expect(again.body).toMatchObject({ created: 0, unchanged: 7 });
    await emptied();
    const fresh = await bring(format, file);
    expect(fresh.body).toMatchObject({ created: 7, unchanged: 0 });
    expect(await text(`/api/ledger.${format}`)).toBe(file);
  });

  it('takes files of before a setting had all its parts', async () => {
    const file = await text('/api/ledger.csv');
    const { columns, rows } = readCsv(file, []);
    const later = ['crossing', 'hatch angle [°]', 'fill', 'frequency [kHz]', 'pulse length [ns]', 'row directions'];
    const gone = [...later, 'power at turns', 'extraction', 'why all the same', 'because'];
    const old = columns.filter((name) => !gone.includes(name));
    await emptied();
    const csv = writeCsv(
      old,
      rows.map(({ cells }) => cells),
    );
    expect((await bring('csv', csv)).body).toMatchObject({ created: 7 });
    const [run] = await rig.sql(`SELECT hatches, fill, air, extraction, directions, because FROM runs LIMIT 1`);
    expect(run).toEqual({ hatches: 1, fill: 'filled', air: 'off', extraction: null, directions: null, because: [] });
    await emptied();
    await bring('csv', file);
  });

  it('neutralises formula cells in its CSV', async () => {
    const file = await text('/api/ledger.csv');
    expect(file).toContain(`"'=SUM(1), ""quoted""\nand broken"`);
    expect(file).toContain(`"'+1 ""odd""`);
  });

  it('takes nothing when anything is wrong, and says which line', async () => {
    const file = await text('/api/ledger.csv');
    await emptied();
    const refuse = async (changed: string) => {
      const { status, body } = await bring('csv', changed);
      expect(status).toBe(422);
      expect(await rig.sql('SELECT id FROM runs')).toEqual([]);
      return body.faults[0];
    };
    expect((await refuse(file.replace('substrate id', 'other'))).message).toMatch(/lacks the column “substrate id”/);
    expect((await refuse(file.replace(runs[0].ticketId, randomUUID()))).message).toMatch(
      /Line 2: its ticket .* is not kept here/,
    );
    expect((await refuse(file.replace(',lines/in,', ',furlongs,'))).message).toMatch(
      /Unit of line interval|Unit of interval/,
    );
    expect((await refuse(file + file.split('\r\n').slice(1).join('\r\n'))).message).toMatch(/stands in the file twice/);
    expect((await refuse(file.replace('"{""head""', '"{head""'))).message).toMatch(/damaged|cannot be read/);
    await bring('csv', file);
    const changed = await bring('csv', file.replace(',9.5,', ',8.5,'));
    expect(changed.body.faults[0].message).toMatch(/here already with other entries/);
    expect((await bring('json', '{"a":1}')).body.detail).toMatch(/not a ledger/);
    // A column that only shows what another keeps: the edit would be lost, so it is told.
    await emptied();
    expect((await refuse(file.replace(/(,"even",|,even,)/, ',patchy,'))).message).toMatch(
      /column “evenness”: it says “patchy”, the record beside it “even”/,
    );
    expect((await refuse(file.replaceAll('304 stainless', '316 stainless'))).message).toMatch(
      /column “substrate”: “316 stainless.* is not what stands behind its id/,
    );
    expect((await bring('json', '{')).body.detail).toMatch(/not readable JSON/);
  });
});
