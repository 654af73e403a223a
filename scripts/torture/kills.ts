import { Installation, pause, smallWrite, type Finding } from './installation.js';

const WRITERS = 4;
const KILLS_A_START = 8;

/** Kills server and database by turns under writers: what was answered must be there, and all comes back by itself. */
export async function kills(rounds: number): Promise<Finding[]> {
  const unto = new Installation({ UNTO_DEMO: 'no' });
  try {
    await unto.start();
    const kept = new Set<string>();
    let writing = true;
    let strange = 0;
    const writers = Array.from({ length: WRITERS }, async () => {
      while (writing) {
        const body = smallWrite();
        const { status } = await unto.call('POST', '/api/stated-settings', body);
        if (status === 200) kept.add(body.id);
        else if (status !== 0 && status !== 503) strange += 1;
        if (status !== 200) await pause(50);
      }
    });
    const back: number[] = [];
    for (let round = 0; round < rounds; round += 1) {
      await pause(700 + Math.random() * 600);
      // What dies too often is not brought back for ever: somebody starts it again.
      if (round > 0 && round % KILLS_A_START === 0) {
        await unto.stop();
        await unto.start();
      }
      const database = round % 2 === 1;
      process.kill(database ? unto.postmaster : unto.lock.server, 'SIGKILL');
      await pause(300);
      back.push(await unto.up());
    }
    writing = false;
    await Promise.all(writers);
    const here = await idsKept(unto);
    const lost = [...kept].filter((id) => !here.has(id)).length;
    const slowest = Math.max(...back) / 1000;
    return [
      {
        trial: 'kills',
        tried: `${rounds} kills (SIGKILL) of server and database by turns under ${WRITERS} writers`,
        found: `${kept.size} answered writes, ${lost} lost; ${strange} answers other than taken, away or none; back within ${slowest.toFixed(1)} s`,
        held: lost === 0 && strange === 0,
      },
    ];
  } finally {
    await unto.remove();
  }
}

async function idsKept(unto: Installation): Promise<Set<string>> {
  const here = new Set<string>();
  for (let cursor: string | null = ''; cursor !== null;) {
    const page = await unto.call('GET', `/api/stated-settings?limit=500${cursor ? `&cursor=${cursor}` : ''}`);
    for (const { id } of page.body.records as { id: string }[]) here.add(id);
    cursor = page.body.next as string | null;
  }
  return here;
}
