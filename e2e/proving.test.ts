import { layoutCoupon } from '@unto/core';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();

async function ticketOf(title: string): Promise<string> {
  const [row] = await app.sql<{ id: string }>(`SELECT id FROM tickets WHERE title = '${title}'`);
  return row!.id;
}
/** Keeps a plain design of 56 cells; answers the coupon. */
async function keepDesign(ticket: string): Promise<string> {
  const { page } = app;
  await page.open(`/tickets/${ticket}/prove`);
  await page.designs();
  await page.press('keep-coupon');
  return (await page.at(/\/coupons\/[0-9a-f-]{36}$/)).split('/').pop()!;
}
const burnOf = async (coupon: string) =>
  (
    await app.sql<{ state: string; attempt: number; done: number }>(
      `SELECT state, attempt, jsonb_array_length(cells_done) AS done FROM burns WHERE coupon_id = '${coupon}'`,
    )
  )[0]!;

describe('the brass setting circle', () => {
  let circle = '';
  let coupon = '';

  it('has a coupon designed with its figures, sent to the head and burnt by it', async () => {
    const { page } = app;
    await page.signIn('Tobin');
    circle = await ticketOf('Setting circle of the 1911 refractor');
    await app.deviceIs('controller/pace', '20');
    await page.open(`/tickets/${circle}/prove`);
    await page.designs();
    await page.reads('cell-dose', /J\/mm²/);
    await page.press('anchors');
    await page.reads('design-fault', /needs \d\d\.\d × \d\d\.\d mm/);
    await page.type('blank-height', '76');
    await page.reads('cell-count', /61/);
    await page.press('anchors');
    await page.reads('cell-count', /56/);
    await page.type('blank-height', '60');
    await page.accessible('Coupon designer');
    await page.press('keep-coupon');
    coupon = (await page.at(/\/coupons\/[0-9a-f-]{36}$/)).split('/').pop()!;
    await page.fires();
    await page.press('send-burn');
    await page.reads('burn-state', /Burning/);
    await page.press('pause-burn');
    await page.reads('burn-state', /Paused, beam off/);
    expect((await burnOf(coupon)).state).toBe('paused');
    await app.deviceIs('controller/pace', '400');
    await page.press('resume-burn');
    await page.find('stage-rinsed');
    expect(await burnOf(coupon)).toEqual({ state: 'done', attempt: 1, done: 56 });
  });

  it('is rinsed and pictured; Today says that its scrub is to come', async () => {
    const { page, sql } = app;
    await page.press('take-picture');
    await page.reads('reading-about', /card A5 found, straightened, light levelled · [\d.]+ mm a pixel · 5\d of 56/);
    await page.accessible('Coupon read from its picture');
    await page.press('keep-readings');
    await page.says(/readings kept with their picture/);
    const [picture] = await sql<{ stage: string; cells: number }>(
      `SELECT stage, jsonb_array_length(entries -> 'cells') AS cells FROM coupon_pictures WHERE coupon_id = '${coupon}'`,
    );
    expect(picture).toEqual({ stage: 'rinsed', cells: 56 });
    await page.open('/today');
    await page.says(/Scrub coupon K-027/);
  });

  it('is scrubbed, pictured, read, one cell taken against the picture with its reason, and accepted', async () => {
    const { page, sql } = app;
    await page.open(`/coupons/${coupon}`);
    await page.find('cell-measures');
    await page.press('take-picture');
    await page.find('kept-map');
    await page.press('cell-56');
    await page.reads('cell-proposal', /Proposed: contrast -?\d+ under 20/);
    await page.press('outcome-over');
    expect(await (await page.find('keep-readings')).isEnabled()).toBe(false);
    await page.type('reason', 'scorched at its rim');
    await page.press('stage-measures');
    await page.find('measure-maps');
    await page.press('keep-readings');
    await page.at(new RegExp(`/windows/.*ticket=${circle}$`));
    const [reading] = await sql<{ source: string; rules: { contrast: number }; entries: any[] }>(
      `SELECT source, rules, entries FROM readings WHERE coupon_id = '${coupon}' AND stage = 'scrubbed'`,
    );
    expect([reading!.source, reading!.rules.contrast]).toEqual(['picture', 20]);
    expect(reading!.entries.find(({ cell }) => cell === 55)).toEqual({
      cell: 55,
      outcome: 'over',
      proposed: 'under',
      kept: expect.any(Number),
      reason: 'scorched at its rim',
    });
    expect(reading!.entries.filter(({ outcome }) => outcome === 'holds').length).toBeGreaterThan(2);
    await page.quiet();
  });

  it('makes the same coupon again from each of its files', async () => {
    const { page } = app;
    for (const [id, name] of [
      ['export-svg', 'K-027.svg'],
      ['export-dxf', 'K-027.dxf'],
      ['export-gcode', 'K-027.gcode'],
      ['export-csv', 'K-027.csv'],
    ] as const) {
      await page.open(`/coupons/${coupon}`);
      await page.find('cell-measures');
      await page.press('take-along');
      await page.press(id);
      const text = await page.downloaded(name);
      await page.open(`/tickets/${circle}/prove`);
      await page.designs();
      await page.type('x-count', '3');
      await page.reads('cell-count', /24/);
      await page.bring('bring-design', `again-${name}`, text);
      await page.says(/The design of K-027 was brought back/);
      await page.reads('cell-count', /56/);
    }
    await page.bring('bring-design', 'plain.svg', '<svg xmlns="http://www.w3.org/2000/svg"/>');
    await page.says(/carries no coupon design[\s\S]*left as it is/);
    await page.reads('cell-count', /56/);
  });
});

describe('a coupon whose run breaks off', () => {
  it('keeps what is burnt, and burns the other cells once the head answers again', async () => {
    const { page } = app;
    const coupon = await keepDesign(await ticketOf('Orchid bed tags'));
    await app.deviceIs('controller/fault', 'drops half way');
    await page.fires();
    await page.press('send-burn');
    await page.reads('burn-state', /does not answer/);
    const broken = await burnOf(coupon);
    expect(broken.state).toBe('silent');
    await app.deviceIs('controller/fault', 'none');
    await page.reads('burn-state', /Stopped, beam off/);
    const { done } = await burnOf(coupon);
    expect(done).toBeGreaterThan(0);
    expect(done).toBeLessThan(56);
    await page.press('resume-rest');
    await page.find('stage-rinsed');
    // The cell that was under the beam as it stopped was begun, and is burnt no second time.
    const [whole] = await app.sql<{ burnt: number | null; cut: number }>(
      `SELECT jsonb_array_length(c.burnt_cells) AS burnt, jsonb_array_length(b.cells_cut) AS cut
       FROM coupons c JOIN burns b ON b.coupon_id = c.id WHERE c.id = '${coupon}'`,
    );
    expect(await burnOf(coupon)).toEqual({ state: 'done', attempt: 2, done: 56 - whole!.cut });
    expect(whole!.burnt).toBe(whole!.cut === 0 ? null : 56 - whole!.cut);
  });
});

describe('a picture that needs handles', () => {
  it('asks for them, and is read once they stand on the corner marks', async () => {
    const { page, sql } = app;
    const coupon = await keepDesign(await ticketOf('Orchid bed tags'));
    await page.fires();
    await page.press('burnt');
    await app.deviceIs('camera/coupon', 'corner marks faint');
    await page.press('take-picture');
    await page.reads('picture-fault', /corner marks of the coupon cannot be found: put the four handles/);
    const outline = (await (await fetch(`${app.devices}/camera/outline`)).json()) as { x: number; y: number }[];
    const [row] = await sql<{ design: any }>(`SELECT design FROM coupons WHERE id = '${coupon}'`);
    // The marks stand 1.8 mm off three edges of the blank; the right ones where the cells end.
    const limits = { bed: { widthMm: 700, heightMm: 500 }, topSpeedMmPerS: 600, firingThresholdPercent: 7 };
    const { needed } = layoutCoupon(row!.design, limits);
    const marks = marksOn(outline, row!.design.blank, 1.8, needed.widthMm - 1.8);
    for (const [i, at] of marks.entries()) await app.page.moves(`handle-${i}`, at);
    await page.reads('reading-about', /5\d of 56 cells readable/);
    await page.gone('picture-fault');
    await page.press('move-handles');
    await page.find('coupon-grid');
    await page.reads('code-asked', /Code not readable: is this K-/);
    await page.press('code-sure');
    await page.press('keep-readings');
    await page.says(/readings kept with their picture/);
    const [picture] = await sql<{ by_hand: string }>(
      `SELECT entries ->> 'byHand' AS by_hand FROM coupon_pictures WHERE coupon_id = '${coupon}'`,
    );
    expect(picture!.by_hand).toBe('true');
    await app.deviceIs('camera/coupon', 'plain');
  });

  /** Places on a blank by its corners in the picture, between which a small tilt may be taken as even. */
  function marksOn(
    [ll, lr, ur, ul]: { x: number; y: number }[],
    { widthMm, heightMm }: { widthMm: number; heightMm: number },
    left: number,
    right: number,
  ): { x: number; y: number }[] {
    const at = (x: number, y: number) => {
      const [u, v] = [x / widthMm, y / heightMm];
      const mix = (k: 'x' | 'y') =>
        ll![k] * (1 - u) * (1 - v) + lr![k] * u * (1 - v) + ur![k] * u * v + ul![k] * (1 - u) * v;
      return { x: mix('x'), y: mix('y') };
    };
    const [low, high] = [1.8, heightMm - 1.8];
    return [at(left, low), at(right, low), at(right, high), at(left, high)];
  }
});

describe('a coupon by eye', () => {
  it('is read against the printed step scale, and graded so', async () => {
    const { page, sql } = app;
    const coupon = await keepDesign(await ticketOf('Orchid bed tags'));
    await page.fires();
    await page.press('burnt');
    await page.press('stage-scrubbed');
    await page.press('use-scale');
    await page.press('cell-1');
    await page.press('step-6');
    await page.press('cell-2');
    await page.press('step-1');
    await page.press('keep-outcomes');
    await page.says(/2 outcomes kept/);
    const [reading] = await sql<{ source: string; entries: unknown }>(
      `SELECT source, entries FROM readings WHERE coupon_id = '${coupon}'`,
    );
    expect(reading).toEqual({
      source: 'scale',
      entries: [
        { cell: 0, outcome: 'holds', step: 6 },
        { cell: 1, outcome: 'under', step: 1 },
      ],
    });
  });
});

describe('pictures that cannot be read', () => {
  it('are refused in words, kept, and nothing typed is lost', async () => {
    const { page, sql } = app;
    const coupon = await keepDesign(await ticketOf('Orchid bed tags'));
    await page.fires();
    await page.press('burnt');
    await page.press('brush-under');
    await page.press('cell-3');
    const plain = await sharp({ create: { width: 900, height: 700, channels: 3, background: '#b9a36a' } })
      .jpeg()
      .toBuffer();
    const big = Buffer.from(plain);
    // The size that the JPEG itself states: 20 000 × 10 000.
    const frame = big.indexOf(Buffer.from([0xff, 0xc0]));
    big.writeUInt16BE(10_000, frame + 5);
    big.writeUInt16BE(20_000, frame + 7);
    for (const [name, content, words] of [
      ['no-card.jpg', plain, /No reference card is in this picture/],
      ['cut.jpg', plain.subarray(0, plain.length - 300), /cut short or damaged/],
      ['paper.jpg', Buffer.from('%PDF-1.4\n%nothing'), /PDF inside/],
      ['tiny.jpg', plain.subarray(0, 1000), /cut short or damaged/],
      ['huge.jpg', big, /200 megapixels; at most 60/],
      ['phone.heic', Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic'), /HEIC[\s\S]*JPEG/],
    ] as const) {
      await page.bring('picture-file', name, content);
      await page.reads('picture-fault', words);
    }
    await app.deviceIs('camera/coupon', 'two cards');
    await page.press('take-picture');
    await page.reads('picture-fault', /Two reference cards/);
    await app.deviceIs('camera/coupon', 'unplugged');
    await page.press('take-picture');
    await page.reads('picture-fault', /camera does not answer[\s\S]*kept/i);
    await app.deviceIs('camera/coupon', 'plain');
    await page.reads('keep-outcomes', /Keep 1 outcome/);
    expect(await sql(`SELECT id FROM coupon_pictures WHERE coupon_id = '${coupon}'`)).toEqual([]);
    const kept = await sql<{ name: string }>(`SELECT name FROM stored_files WHERE name IN ('no-card.jpg', 'cut.jpg')`);
    expect(kept).toHaveLength(2);
  });
});

describe('the reference card of the shop', () => {
  it('is known from one photograph beside a known white, and pictures are read by it from then on', async () => {
    const { page, sql } = app;
    const svg = await (await fetch(`${app.base}/api/card.svg`)).text();
    const card = await sharp(Buffer.from(svg), { density: 300 })
      .resize(1680)
      .flatten({ background: '#fff' })
      // Paper and ink of another printer: neither as white nor as black.
      .linear(0.84, 26)
      .png()
      .toBuffer();
    const sheet = { create: { width: 980, height: 660, channels: 3 as const, background: '#f6f6f6' } };
    const laid = await sharp(card)
      .composite([{ input: await sharp(sheet).png().toBuffer() }])
      .png()
      .toBuffer();
    const photo = await sharp(laid)
      .extend({ top: 60, bottom: 60, left: 60, right: 60, background: '#6b6258' })
      .jpeg({ quality: 92 })
      .toBuffer();
    await page.open('/card');
    await page.reads('card-basis', /Measured with a meter/);
    await page.type('card-white', '96');
    await page.bring('picture-file', 'card.jpg', photo);
    await page.reads('card-basis', /Read from the photograph, not kept yet/);
    await page.accessible('Reference card');
    const paper = Number(await page.text('card-l-0'));
    expect(paper).toBeLessThan(96);
    await page.press('keep-card');
    await page.reads('card-basis', /Photographed beside a known white/);
    const [row] = await sql(`SELECT size, print->>'basis' AS basis, white FROM cards ORDER BY at DESC LIMIT 1`);
    expect(row).toMatchObject({ size: 'A5', basis: 'photographed' });
    expect(row!['white']).toBeCloseTo(0.9, 1);
  });
});
