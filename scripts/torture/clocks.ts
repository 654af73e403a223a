import { randomUUID } from 'node:crypto';
import { Installation, type Finding } from './installation.js';

const DAYS = 400;

/** The same shop by a clock that is set back between two starts. */
export async function clocks(): Promise<Finding[]> {
  const unto = new Installation();
  try {
    await unto.start();
    const tickets = (await unto.call('GET', '/api/tickets')).body.records as { id: string }[];
    const ticket = tickets[0]!.id;
    await check(unto, ticket, 'check');
    await unto.stop();
    await unto.start({ UNTO_CLOCK_AHEAD_S: String(-DAYS * 86_400) });
    await check(unto, ticket, 'taken back');
    const { checks } = (await unto.call('GET', `/api/tickets/${ticket}`)).body as { checks: { code: string }[] };
    const stands = checks.some(({ code }) => code === 'trial');
    const pages = await Promise.all(
      ['/api/today', '/api/ledger', '/api/coupons', ...tickets.map(({ id }) => `/api/tickets/${id}`)].map((path) =>
        unto.call('GET', path),
      ),
    );
    const broken = pages.filter(({ status }) => status !== 200).length;
    return [
      {
        trial: 'clock',
        tried: `the clock set back by ${DAYS} days between a tick and its taking back; every page read after`,
        found: `${stands ? 'the tick stands' : 'the last word counts'}; ${broken} of ${pages.length} pages broken`,
        held: !stands && broken === 0,
      },
    ];
  } finally {
    await unto.remove();
  }
}

const check = (unto: Installation, ticket: string, kind: string) =>
  unto.call('POST', `/api/tickets/${ticket}/checks`, { id: randomUUID(), station: 'place', kind, code: 'trial' });
