import { randomUUID } from 'node:crypto';
import { Installation, smallWrite, type Finding } from './installation.js';

/** The same and contrary things sent in the same moment. */
export async function races(rounds: number): Promise<Finding[]> {
  const unto = new Installation({ UNTO_DEMO: 'no' });
  try {
    await unto.start();
    return [await contrary(unto, rounds), await repeated(unto, rounds)];
  } finally {
    await unto.remove();
  }
}

/** Two changes of one version: one is taken, and it is the one that stands. */
async function contrary(unto: Installation, rounds: number): Promise<Finding> {
  let [both, lost, strange] = [0, 0, 0];
  for (let i = 0; i < rounds; i += 1) {
    const shop = (await unto.call('GET', '/api/workshop')).body;
    const change = (name: string) => unto.call('PUT', '/api/workshop', { ...shop, name });
    const answers = await Promise.all([change(`A ${i}`), change(`B ${i}`)]);
    const taken = answers.filter(({ status }) => status === 200);
    strange += answers.filter(({ status }) => status !== 200 && status !== 409).length;
    if (taken.length !== 1) both += 1;
    else if ((await unto.call('GET', '/api/workshop')).body.name !== taken[0]!.body.name) lost += 1;
  }
  return {
    trial: 'races',
    tried: `${rounds} rounds of two changes of the shop’s settings at once`,
    found: `both or none taken ${both}, the taken one lost ${lost}, other answers ${strange}`,
    held: both + lost + strange === 0,
  };
}

/** One thing sent four times at once: made once, answered alike. */
async function repeated(unto: Installation, rounds: number): Promise<Finding> {
  let [unlike, strange] = [0, 0];
  for (let i = 0; i < rounds; i += 1) {
    const body = i % 2 ? smallWrite() : { id: randomUUID(), name: `Person ${i}`, role: 'lead' };
    const path = i % 2 ? '/api/stated-settings' : '/api/operators';
    const answers = await Promise.all([1, 2, 3, 4].map(() => unto.call('POST', path, body)));
    strange += answers.filter(({ status }) => status !== 200).length;
    if (new Set(answers.map(({ body: answer }) => JSON.stringify(answer))).size !== 1) unlike += 1;
  }
  return {
    trial: 'races',
    tried: `${rounds} rounds of the same thing sent four times at once`,
    found: `answered unlike ${unlike}, refused ${strange}`,
    held: unlike + strange === 0,
  };
}
