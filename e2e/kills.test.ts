import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { useApp } from './app.js';

const app = useApp();

interface Made {
  readonly id: string;
  readonly version: number;
}
interface BurnRow {
  readonly id: string;
  readonly state: string;
  readonly attempt: number;
}
const LIVE = `('queued', 'sending', 'running', 'paused', 'waiting', 'silent')`;

async function call<T>(method: string, path: string, body?: object): Promise<T> {
  const [operator] = await app.sql<{ id: string }>('SELECT id FROM operators LIMIT 1');
  const response = await fetch(app.base + path, {
    method,
    headers: { 'content-type': 'application/json', 'x-unto-operator': operator!.id },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
  return (await response.json()) as T;
}

/** The same coupon as one of the demo, designed again for a head that takes G-code. */
async function newCoupon(): Promise<Made> {
  const [like] = await app.sql(
    `SELECT c.* FROM coupons c JOIN inventory_items h ON h.id = c.head_id
     JOIN inventory_revisions r ON r.item_id = h.id WHERE c.design->'fixed'->>'frequencyKHz' IS NULL
     AND r.body->>'wavelengthClass' = 'co2' ORDER BY c.number LIMIT 1`,
  );
  return call('POST', '/api/coupons', {
    ...{ id: randomUUID(), ticketId: null, substrateId: like!['substrate_id'], compoundId: like!['compound_id'] },
    ...{ headId: like!['head_id'], lensId: like!['lens_id'], focusOffsetMm: 0, design: like!['design'] },
  });
}
const setPace = (choice: string) =>
  fetch(`${app.devices}/controller/pace`, {
    method: 'POST',
    body: new URLSearchParams({ choice }),
    redirect: 'manual',
  });
const begun = async () => (await (await fetch(`${app.devices}/controller/begun`)).json()) as string[];
const burns = () =>
  app.sql<BurnRow>("SELECT id, state, attempt FROM burns WHERE started_at > now() - interval '1 hour'");

async function ended(withinMs: number): Promise<void> {
  const until = Date.now() + withinMs;
  while ((await app.sql(`SELECT 1 FROM burns WHERE state IN ${LIVE}`)).length) {
    if (Date.now() > until) throw new Error(JSON.stringify(await burns()));
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

describe('a server that is killed around the sending of a program', () => {
  it('never begins one twice nor without its row, and ends in a state that is true', async () => {
    await setPace('20000');
    // From before it is taken up to after it has ended, and once until the lease of the dead one runs out by itself.
    const moments = [0, 40, 90, 200, 400];
    for (const [round, wait] of moments.entries()) {
      const { id, version } = await newCoupon();
      const body = { id: randomUUID(), version, laserOn: 'M3', air: 'off', extraction: 'on' };
      await call('POST', `/api/coupons/${id}/burns`, body);
      await new Promise((resolve) => setTimeout(resolve, wait));
      await app.killServer();
      if (round > 0) await app.sql(`UPDATE burns SET lease_until = now() WHERE state IN ${LIVE}`);
      await app.startServer();
      await ended(25_000);
      await app.sql(`UPDATE burns SET state = 'nothing' WHERE state = 'unknown'`);
      const { burn } = await call<{ burn: { state: string } }>('GET', `/api/coupons/${id}`);
      const reached = (await begun()).includes(`${body.id} 1`);
      expect(reached ? ['done'] : ['not sent', 'nothing'], `${wait} ms`).toContain(burn.state);
    }
    const [programs, rows] = [await begun(), await burns()];
    expect(new Set(programs).size).toBe(programs.length);
    const known = new Set(rows.map(({ id, attempt }) => `${id} ${attempt}`));
    expect(programs.filter((name) => !known.has(name))).toEqual([]);
  }, 240_000);

  it('in the middle of a long one: the next server follows it to its end', async () => {
    await setPace('20');
    const { id, version } = await newCoupon();
    const before = (await begun()).length;
    await call('POST', `/api/coupons/${id}/burns`, {
      id: randomUUID(),
      version,
      laserOn: 'M3',
      air: 'off',
      extraction: 'on',
    });
    while ((await begun()).length === before) await new Promise((resolve) => setTimeout(resolve, 20));
    await app.killServer();
    await setPace('20000');
    await app.startServer();
    await ended(25_000);
    const coupon = await call<{ stage: string; burn: { state: string } }>('GET', `/api/coupons/${id}`);
    expect([coupon.stage, coupon.burn.state]).toEqual(['burnt', 'done']);
    expect((await begun()).length).toBe(before + 1);
  }, 60_000);
});
