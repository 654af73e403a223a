import { spawnSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Installation, smallWrite, type Finding } from './installation.js';

const SIZE = '260m';
const TRIED = `a disk of ${SIZE} filled to the last byte under a running shop`;

/** A small disk of its own, filled up: what is kept stays readable, what cannot be kept is said, nothing is left half. */
export async function fullDisk(): Promise<Finding[]> {
  const mount = mkdtempSync(join(tmpdir(), 'unto-torture-'));
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${SIZE}`, 'tmpfs', mount]).status !== 0) {
    rmSync(mount, { recursive: true });
    return [{ trial: 'full disk', tried: TRIED, found: 'not tried: no disk can be mounted here', held: null }];
  }
  chmodSync(mount, 0o755);
  mkdirSync(join(mount, 'state'));
  const unto = new Installation({ UNTO_DEMO: 'no' }, join(mount, 'state'));
  try {
    await unto.start();
    await unto.call('POST', '/api/stated-settings', smallWrite());
    fill(mount);
    const said = await unto.call('GET', '/api/health');
    const answers: number[] = [];
    for (let i = 0; i < 40; i += 1) answers.push((await keepPicture(unto, i)).status);
    const reads = [await unto.call('GET', '/api/stated-settings'), await unto.call('GET', '/api/today')];
    const half = readdirSync(join(mount, 'state/files'), { recursive: true }).filter(
      (name) => !/[0-9a-f]{64}$|installation$|^[0-9a-f]{2}$/.test(String(name)),
    );
    rmSync(join(mount, 'filler'));
    const after = await keepPicture(unto, 99);
    const strange = answers.filter((status) => ![200, 503, 507].includes(status)).length;
    const refused = answers.filter((status) => status === 507).length;
    return [
      {
        trial: 'full disk',
        tried: TRIED,
        found: `said in health (${(100 * said.body.diskFree).toFixed(1)} % free); 40 pictures of 1 MB: ${refused} refused as full, ${strange} otherwise; reads ${reads.map(({ status }) => status).join(', ')}; ${half.length} half files; after making room ${after.status}`,
        held:
          refused > 0 &&
          strange === 0 &&
          half.length === 0 &&
          after.status === 200 &&
          reads.every(({ status }) => status === 200),
      },
    ];
  } finally {
    await unto.stop();
    spawnSync('umount', [mount]);
    rmSync(mount, { recursive: true, force: true });
  }
}

/** Fills it but for less than what one picture takes. */
function fill(mount: string): void {
  const { bavail, bsize } = statfsSync(mount);
  writeFileSync(join(mount, 'filler'), Buffer.alloc(Math.max(0, bavail * bsize - 400_000)));
}

async function keepPicture(unto: Installation, i: number): Promise<{ status: number }> {
  const operators = (await unto.call('GET', '/api/operators')).body as { id: string }[];
  const picture = Buffer.alloc(1_000_000, i);
  picture.set([0xff, 0xd8, 0xff, 0xe0]);
  const response = await fetch(`${unto.lock.address}/api/files?name=p.jpg`, {
    method: 'POST',
    headers: { 'content-type': 'image/jpeg', 'x-unto-operator': operators[0]!.id },
    body: picture,
  });
  return { status: response.status };
}
