import { expect, it } from 'vitest';
import { addressOf } from './route.js';

it('fills parameters and query into an address, escaped, and leaves out what was not asked', () => {
  expect(addressOf({ path: '/api/tickets/:id/checks' }, { id: 'a/b' })).toBe('/api/tickets/a%2Fb/checks');
  expect(addressOf({ path: '/api/ledger' }, {}, { grade: 'proved', cursor: undefined, text: 'ä&b', limit: 5 })).toBe(
    '/api/ledger?grade=proved&text=%C3%A4%26b&limit=5',
  );
});
