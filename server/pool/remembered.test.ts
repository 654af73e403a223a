import { expect, it } from 'vitest';
import { remembered } from './remembered.js';

it('is worked out once for the same input, also for nothing, and forgets what was not asked for longest', () => {
  const worked: number[] = [];
  const half = remembered(2, ({ of }: { of: number }) => {
    worked.push(of);
    return of % 2 ? undefined : of / 2;
  });
  expect([half({ of: 4 }), half({ of: 4 }), half({ of: 3 }), half({ of: 3 })]).toEqual([2, 2, undefined, undefined]);
  expect(worked).toEqual([4, 3]);
  half({ of: 4 });
  half({ of: 8 });
  expect([half({ of: 4 }), half({ of: 3 })]).toEqual([2, undefined]);
  expect(worked).toEqual([4, 3, 8, 3]);
});

it('what was refused once is worked out again, what came is not', async () => {
  let asked = 0;
  const work = remembered(2, async ({ of }: { of: number }) => {
    asked += 1;
    if (asked === 1) throw new Error('away');
    return of;
  });
  await expect(work({ of: 4 })).rejects.toThrow('away');
  expect(await work({ of: 4 })).toBe(4);
  expect(await work({ of: 4 })).toBe(4);
  expect(asked).toBe(2);
});
