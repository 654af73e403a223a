import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { INVENTORY_KINDS, changeableFields } from '@unto/contract';
import { fillInventory, openTestRig, storeBody, ticketBody, weighingBody, type TestRig } from '../testing/rig.js';

let rig: TestRig;
let ids: Awaited<ReturnType<typeof fillInventory>>;
beforeAll(async () => {
  rig = await openTestRig();
  ids = await fillInventory(rig);
});
afterAll(() => rig.close());

const bring = (format: string, text: string, kind?: string) =>
  rig.call('POST', `/api/inventory/import?format=${format}${kind ? `&kind=${kind}` : ''}`, text);
const words = (answer: { body: any }) =>
  (answer.body.faults ?? []).map(({ message }: { message: string }) => message).join('\n');
const csvOf = async (kind: string) => (await rig.call('GET', `/api/inventory.csv?kind=${kind}`)).body as string;

describe('store files', () => {
  it('come back from JSON and from a CSV of every kind without a change', async () => {
    const { body: file } = await rig.call('GET', '/api/inventory.json');
    expect((await bring('json', JSON.stringify(file))).body).toMatchObject({
      created: 0,
      revised: 0,
      unchanged: INVENTORY_KINDS.length,
    });
    for (const kind of INVENTORY_KINDS)
      expect((await bring('csv', await csvOf(kind), kind)).body, kind).toMatchObject({
        created: 0,
        revised: 0,
        unchanged: 1,
      });
  });

  it('fill an empty shop in one go, links before what they link to', async () => {
    const { body: file } = await rig.call('GET', '/api/inventory.json');
    const other = await openTestRig();
    const { body } = await other.call('POST', '/api/inventory/import?format=json', {
      ...file,
      items: [...file.items].reverse(),
    });
    expect(body).toMatchObject({ created: INVENTORY_KINDS.length });
    expect((await other.call('GET', '/api/inventory.json')).body).toEqual(file);
    await other.close();
  });

  it('are written out in the units of the shop, and come back without a change', async () => {
    const shop = (await rig.call('GET', '/api/workshop')).body;
    const inches = { ...shop, lengthUnit: 'in', filmUnit: 'mil', massUnit: 'oz', speedUnit: 'in/s' };
    expect((await rig.call('PUT', '/api/workshop', inches)).status).toBe(200);
    for (const [kind, heading] of [
      ['substrate', 'Thickness [in]'],
      ['compound', 'Dry film from [mil]'],
      ['container', 'Net contents [oz]'],
      ['machine', 'Top speed [in/s]'],
    ] as const) {
      const text = await csvOf(kind);
      expect(text.split('\r\n')[0]).toContain(heading);
      expect([kind, (await bring('csv', text, kind)).body]).toMatchObject([kind, { created: 0, revised: 0 }]);
    }
    await rig.call('PUT', '/api/workshop', { ...shop, version: shop.version + 1 });
  });

  it('take another unit in the heading, and say which unit they do not know', async () => {
    const text = await csvOf('substrate');
    const inches = text.replace('Thickness [mm]', 'Thickness [in]').replace(',1.2,', ',0.05,');
    const { body } = await bring('csv', inches, 'substrate');
    expect(body).toMatchObject({ revised: 1 });
    const {
      body: { records: items },
    } = await rig.call('GET', '/api/inventory?kind=substrate');
    expect(items[0].body.thicknessMm).toBeCloseTo(1.27, 9);
    expect(words(await bring('csv', inches.replace('[in]', '[ell]'), 'substrate'))).toMatch(
      /Line 2.*Thickness.*“ell” does not turn into mm\. It can be given in mm, cm/,
    );
  });

  it('find a link by name, and tell a retired one from an unknown one', async () => {
    const text = await csvOf('container');
    const named = text.replaceAll(ids.container, randomUUID()).replaceAll(ids.compound, '');
    expect((await bring('csv', named, 'container')).body).toMatchObject({ created: 1 });
    expect(
      words(
        await bring(
          'csv',
          named.replaceAll('Corvid Film,Corvid', 'X').replace(/Corvid Film,(?=,)/, 'Nobody,'),
          'container',
        ),
      ),
    ).toMatch(/no compound is called “Nobody”|unchanged/);
    const compound = randomUUID();
    await rig.call('POST', '/api/inventory', {
      id: compound,
      kind: 'compound',
      body: { ...storeBody('compound'), name: 'Gone' },
    });
    await rig.call('PUT', `/api/inventory/${compound}/retired`, { version: 1, retired: true });
    const retired = {
      format: 'unto-stores',
      version: 1,
      items: [
        {
          id: randomUUID(),
          kind: 'container',
          retired: false,
          body: { ...storeBody('container'), compoundId: compound },
        },
      ],
    };
    expect(words(await bring('json', JSON.stringify(retired)))).toMatch(/Line 1: its compound “Gone” is retired/);
    const unknown = {
      ...retired,
      items: [{ ...retired.items[0]!, body: { ...storeBody('container'), compoundId: randomUUID() } }],
    };
    expect(words(await bring('json', JSON.stringify(unknown)))).toMatch(/not kept here and not in the file/);
  });

  it('change nothing at all when one line is wrong, and name every fault by its line', async () => {
    const before = (await rig.call('GET', '/api/inventory.json')).body;
    const good = { id: randomUUID(), kind: 'substrate', retired: false, body: storeBody('substrate') };
    const bad = {
      id: randomUUID(),
      kind: 'compound',
      retired: false,
      body: { ...storeBody('compound'), dryS: 0, dryFilmMinUm: 20 },
    };
    const answer = await bring(
      'json',
      JSON.stringify({ format: 'unto-stores', version: 1, items: [good, bad, { ...good, id: 'x' }] }),
    );
    expect(answer.status).toBe(422);
    expect(words(answer)).toMatch(
      /Line 2: The coat band must rise[\s\S]*Line 2: Dry by itself must be above 0[\s\S]*Line 3: “x” is not an identifier/,
    );
    expect((await rig.call('GET', '/api/inventory.json')).body).toEqual(before);
  });

  it('refuse what is no such file: broken JSON, another export, a newer version, a missing column, a number that is none', async () => {
    expect(words(await bring('json', '{'))).toMatch(/not readable JSON/);
    expect(words(await bring('json', '{"format":"unto-ledger"}'))).toMatch(/not a file of stores exported here/);
    expect(words(await bring('json', '{"format":"unto-stores","version":9,"items":[]}'))).toMatch(/version 9/);
    expect(words(await bring('csv', 'id,Name\r\n', 'machine'))).toMatch(/no column “Motion”/);
    const text = await csvOf('lens');
    expect(words(await bring('csv', text.replace('50.8,', 'long,'), 'lens'))).toMatch(/“long” is not a number/);
    expect(words(await bring('csv', text))).toMatch(/say which/);
  });

  it('tell a gauge without metal from a thickness that is not its gauge’s', async () => {
    const refuse = async (change: object) =>
      words(
        await rig.call('POST', '/api/inventory', {
          id: randomUUID(),
          kind: 'substrate',
          body: { ...storeBody('substrate'), ...change },
        }),
      );
    expect(await refuse({ gaugeNumber: 24 })).toMatch(/Gauge 24 means nothing until the metal is named/);
    expect(await refuse({ gaugeNumber: 24, gaugeMetal: 'stainless', thicknessMm: 0.6 })).toMatch(
      /is 0\.635 mm; the thickness says 0\.6/,
    );
    expect(await refuse({ gaugeNumber: 24.5, gaugeMetal: 'stainless', thicknessMm: 0.6 })).toMatch(/no gauge 24\.5/);
    expect(await refuse({ gaugeNumber: 24, gaugeMetal: 'stainless', thicknessMm: 0.635 })).toBe('');
  });

  it('tell a calibration that falls from one with duplicate rows', async () => {
    const refuse = async (rows: object[]) =>
      words(
        await rig.call('POST', '/api/inventory', {
          id: randomUUID(),
          kind: 'calibration',
          body: { ...storeBody('calibration', ids), rows },
        }),
      );
    expect(
      await refuse([
        { percent: 10, watts: 5 },
        { percent: 20, watts: 4 },
      ]),
    ).toMatch(/falls/);
    expect(
      await refuse([
        { percent: 10, watts: 5 },
        { percent: 10, watts: 6 },
      ]),
    ).toMatch(/twice|more than once|duplicate/i);
  });
});

describe('what rests on an item', () => {
  it('counts tickets, coupons, runs and weighings, and says what a container still holds', async () => {
    const { body: ticket } = await rig.call('POST', '/api/tickets', ticketBody(ids));
    const fields = changeableFields(ticket);
    await rig.call('PUT', `/api/tickets/${ticket.id}`, { ...fields, compoundId: ids.compound });
    expect((await rig.call('GET', `/api/inventory/${ids.container}/use`)).body.left).toBeNull();
    const mass = (value: number) => ({ value, unit: 'g' });
    const weighing = weighingBody(ids, { before: mass(312.4), after: mass(301.6) });
    await rig.call('POST', `/api/tickets/${ticket.id}/weighings`, weighing);
    const { body: container } = await rig.call('GET', `/api/inventory/${ids.container}/use`);
    // 301.6 − 96 = 205.6 g; 10.8 g for ten: 190 more.
    expect(container.left.grams.value).toBeCloseTo(205.6, 9);
    expect(container.left.pieces.value).toBe(190);
    expect(container.left.grams.grade).toBe('measured');
    expect((await rig.call('GET', `/api/inventory/${ids.compound}/use`)).body).toMatchObject({
      tickets: 1,
      weighings: 1,
      left: null,
    });
  });
});

describe('kept files', () => {
  const PDF = Buffer.from('%PDF-1.4 a data sheet');
  const keep = (name: string, bytes: Buffer) =>
    fetch(`${rig.base}/api/files?name=${encodeURIComponent(name)}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream', 'x-unto-operator': rig.operator },
      body: new Uint8Array(bytes),
    });

  it('are kept by content, handed back as they were, and can be named by a compound', async () => {
    const kept = (await (await keep('Corvid sheet.pdf', PDF)).json()) as any;
    expect(kept).toMatchObject({ name: 'Corvid sheet.pdf', mediaType: 'application/pdf', bytes: PDF.length });
    expect(((await (await keep('again.pdf', PDF)).json()) as any).hash).toBe(kept.hash);
    const back = await fetch(`${rig.base}/api/files/${kept.hash}`);
    expect(back.headers.get('content-disposition')).toMatch(/attachment.*Corvid sheet\.pdf/);
    expect(Buffer.from(await back.arrayBuffer())).toEqual(PDF);
    const body = { ...storeBody('compound'), dataSheet: { hash: kept.hash, name: kept.name } };
    expect((await rig.call('POST', '/api/inventory', { id: randomUUID(), kind: 'compound', body })).status).toBe(200);
  });

  it('refuse what is no PDF or picture inside, nothing at all, and a hash nobody brought', async () => {
    const refused = (await (await keep('sheet.pdf', Buffer.from('MZ not a sheet'))).json()) as any;
    expect(refused).toMatchObject({
      type: 'wrong-file',
      status: 415,
      detail: expect.stringMatching(/no PDF, PNG, JPEG, SVG, DXF or G-code inside/),
    });
    expect((await keep('empty.pdf', Buffer.alloc(0))).status).toBe(415);
    const hash = 'a'.repeat(64);
    expect((await fetch(`${rig.base}/api/files/${hash}`)).status).toBe(404);
    const body = { ...storeBody('compound'), dataSheet: { hash, name: 'sheet.pdf' } };
    const answer = await rig.call('POST', '/api/inventory', { id: randomUUID(), kind: 'compound', body });
    expect(answer.body.faults[0]).toMatchObject({ path: 'dataSheet', message: expect.stringMatching(/not kept here/) });
  });
});
