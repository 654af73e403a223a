import { randomUUID } from 'node:crypto';
import type { Driver as ChromeDriver } from 'selenium-webdriver/chrome.js';
import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();

/** Marks with a beam and without one end: what lies on a tag beside its number. */
const TAG = `<svg xmlns="http://www.w3.org/2000/svg" width="34mm" height="8mm" viewBox="0 0 34 8">
  <path d="M0 6.4h34v1.6h-34zM0 2h9v3h-9z"/></svg>`;
const BEDS = ['bed,row', ...Array.from({ length: 48 }, (_, i) => `${i + 1},${1 + Math.floor(i / 8)}`)].join('\n');

const network = (offline: boolean) =>
  (app.page.driver as unknown as ChromeDriver).setNetworkConditions({
    ...{ offline, latency: 0, download_throughput: 10_000_000, upload_throughput: 10_000_000 },
  });

async function call(method: string, path: string, body?: unknown, name = 'Ines'): Promise<any> {
  const [operator] = await app.sql<{ id: string }>(`SELECT id FROM operators WHERE name LIKE '${name}%'`);
  const headers = { 'content-type': 'application/json', 'x-unto-operator': operator!.id };
  const answer = await fetch(`${app.base}${path}`, {
    method,
    headers,
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  const said = await answer.json();
  expect(answer.status, JSON.stringify(said)).toBe(200);
  return said;
}

/** 48 tags of the same kind as those of the demo, under their recipe, on a jig of two loads; ready to be fired. */
async function newTags(): Promise<string> {
  const [{ id: model }] = (await app.sql<{ id: string }>(`SELECT id FROM tickets WHERE title = 'Orchid bed tags'`)) as [
    { id: string },
  ];
  const { ticket, recipes, weighings } = await call('GET', `/api/tickets/${model}`);
  const id = randomUUID();
  const { markWidthMm, markHeightMm, coatMarginMm, substrateId, headId, lensId, aim, foodUse } = ticket;
  const fields = {
    ...{ title: 'Fern bed tags', pieces: 48, markWidthMm, markHeightMm, coatMarginMm, substrateId, headId, lensId },
    ...{ aim, foodUse, wantedOn: null, note: '' },
  };
  const made = await call('POST', '/api/tickets', { id, ...fields });
  const { compoundId, choiceReason } = ticket;
  await call('PUT', `/api/tickets/${id}`, {
    ...fields,
    version: made.version,
    compoundId,
    choiceReason,
    state: 'open',
  });
  await call('POST', `/api/tickets/${id}/recipe-uses`, { id: randomUUID(), recipeId: recipes[0].id });
  const { containerId, before, after, pieces } = weighings[0];
  const coat = (48 / pieces) * (before.value - after.value);
  await call('POST', `/api/tickets/${id}/weighings`, {
    ...{ id: randomUUID(), containerId, pieces: 48, before: { value: 400, unit: 'g' } },
    ...{ after: { value: 400 - coat, unit: 'g' }, partsBefore: null, partsAfter: null, correctsId: null },
  });
  await call('POST', `/api/tickets/${id}/sheets`, {
    id: randomUUID(),
    entries: {
      ...{ mode: 'rows', sheetWidthMm: 300, sheetHeightMm: 200, labelWidthMm: null, labelHeightMm: null, gapMm: 4 },
      ...{ marginMm: 6, keepOuts: [], pieceWidthMm: 44, pieceHeightMm: 28, pitchXMm: null, pitchYMm: null },
      ...{ firstXMm: null, firstYMm: null, shiftMm: 0, testPlaces: 12, pieces: [] },
    },
  });
  return id;
}

describe('tags with bed numbers on the controller', () => {
  let tags: string;
  const marking = async () =>
    (await app.sql<{ id: string }>(`SELECT id FROM markings WHERE ticket_id = '${tags}' AND ended_at IS NULL`))[0]!.id;

  it('go from a table to 48 pieces that the head counts, one spoilt, another said by somebody else, the connection lost once', async () => {
    const { page, sql } = app;
    await page.signIn('Ines');
    await app.deviceIs('controller/pace', '400');
    tags = await newTags();
    await page.open(`/tickets/${tags}/place`);
    await page.press('place-artwork');
    await page.bring('artwork-file', 'tag.svg', TAG);
    await page.reads('artwork-facts', /34 × 6/);
    await page.type('layout-x', '5');
    await page.type('layout-y', '4');
    await page.bring('table-file', 'beds.csv', BEDS);
    await page.press('text-add');
    await page.type('text-says-0', 'BED {bed}');
    await page.press('keep-layout');
    await page.says(/Kept\. The mark, its times and its prices follow it/);
    await page.open(`/tickets/${tags}/mark`);
    await page.type('run-pieces', '48');
    for (const check of ['focus', 'air', 'extraction']) await page.press(`check-${check}`);
    await page.type('run-reason', 'coated and dry, looked at by hand');
    await page.press('begin-run');
    await page.reads('now-piece', /^BED 1$/);
    // The first goes alone: it is scrubbed before the second is spent.
    await page.press('send-run');
    await page.reads('first-piece', /rinse and scrub piece 1/);
    await page.press('first-held');
    await page.reads('send-run', /Send 23 to the head: BED 2 to BED 24/);
    await page.press('send-run');
    await page.reads('burn-state', /Burning|Done/);
    await page.accessible('A run on the controller');
    await network(true);
    await app.deviceIs('controller/pace', '20000');
    await app.page.driver.wait(
      async () => (await sql(`SELECT 1 FROM piece_events WHERE what = 'done'`)).length >= 24,
      60_000,
      'the head did not count its load',
    );
    await network(false);
    await page.reads('send-run', /Send 24 to the head: BED 25 to BED 48/);
    // Tobin sees a tag that slipped, at his own screen; Ines another.
    const slipped = { id: randomUUID(), piece: 25, what: 'set aside', why: 'moved in the jig' };
    await call('POST', `/api/markings/${await marking()}/pieces`, slipped, 'Tobin');
    await page.press('piece-7');
    await page.press('spoilt-scorched');
    await page.reads('send-run', /Send 23 to the head: BED 26 to BED 48/);
    await page.press('send-run');
    await page.reads('now-piece', /All 48 are marked/);
    await page.reads('counted', /46 done · 2 set aside · 0 to go/);
    await page.press('end-marking');
    await page.at(/\/clean$/);
    const [run] = await sql(
      `SELECT r.pieces, r.minutes_from, (SELECT count(*)::int FROM burns b WHERE b.marking_id = m.id AND b.state = 'done') AS sent
       FROM runs r JOIN markings m ON m.run_id = r.id WHERE r.ticket_id = '${tags}'`,
    );
    expect(run).toEqual({ pieces: 48, minutes_from: 'counted', sent: 3 });
  });

  it('are washed, read from one picture of the tray, judged, and handed over', async () => {
    const { page, sql } = app;
    await page.open(`/tickets/${tags}/clean`);
    await page.choose('method', 'water and sponge');
    await page.type('clean-minutes', '9');
    await page.choose('residue', 'none');
    await page.choose('rinse-water', 'collected');
    await page.press('keep-cleaning');
    await page.at(/\/judge$/);
    await page.press('scrub-5');
    // The first piece was scrubbed at Mark: where it is drawn it counts.
    await page.reads('sample-says', /[01] of 5 scrubbed/);
    await page.press('take-picture');
    await page.reads('tray-says', /\d of \d read: contrast \d+ to \d+ L\*/);
    await page.accessible('A tray read from a picture');
    const [tray] = await sql(
      `SELECT read->'pieces' AS pieces FROM tray_readings t JOIN runs r ON r.id = t.run_id WHERE r.ticket_id = '${tags}'`,
    );
    const pieces = (tray as { pieces: { contrast: number | null; offMm: number | null }[] }).pieces;
    for (const { contrast, offMm } of pieces) {
      expect(contrast).toBeGreaterThan(20);
      expect(offMm).toBeLessThan(1.5);
    }
    const scrubbed = async () =>
      Number(/(\d) of 5 scrubbed/.exec(await (await page.find('sample-says')).getText())![1]);
    for (let done = await scrubbed(); done < 5; done += 1) {
      await page.reads('sample-says', new RegExp(`${done} of 5 scrubbed`));
      await page.press('stood-no change');
    }
    await page.reads('sample-says', /5 of 5 scrubbed/);
    await page.reads('sample-says', /none lost/);
    await page.choose('contrast', '4 strong');
    await page.choose('evenness', 'even');
    await page.type('good', '46');
    await page.press('keep-judgement');
    await page.press('to-verdict');
    await page.press('verdict-hand over with exceptions');
    await page.type('exceptions', 'beds 7 and 25 are marked again');
    await page.press('decide');
    if ((await page.driver.findElements({ css: '[data-test-id="stands-for-it"]' })).length) {
      await page.press('stands-for-it');
      await page.press('decide');
    }
    await page.reads('verdicts', /hand over with exceptions/);
  });
});
