import { fork, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { axisValues, deliveredPower, equivalentRadius, PLAIN_DESIGN, type CouponDesign, type Stage } from '@unto/core';
import { burnSetup, couponLimits, powerSource, rowMotion, type FittedEquipment } from '@unto/domain';
import { GROUND_TRUTHS } from '@unto/simulators/ground-truth';
import { demoCompound, demoEquipment, type Named } from './demo-equipment.js';
import type { DemoJob } from './job.js';
import type { PictureTask, PictureAnswer } from './picture-worker.js';

/** What the simulated camera made of a coupon of the demo, stage by stage, and what was read of it. */
export interface PicturedCoupon {
  readonly design: CouponDesign;
  rinsed(): Promise<PictureAnswer>;
  scrubbed(): Promise<PictureAnswer>;
}

/** Pictures of all coupons of some jobs, made by two workers ahead of whoever asks. */
export class CouponPictures {
  private readonly made = new Map<string, PicturedCoupon>();
  private readonly pool = new Pool();

  constructor(named: Named, jobs: readonly DemoJob[]) {
    let number = 0;
    for (const job of jobs) {
      if (!job.truth || !job.axes) continue;
      for (let again = 0; again < (job.coupons ?? 1); again += 1) {
        number += 1;
        const task = taskOf(named, job, `K-${String(number).padStart(3, '0')}`);
        const stages: readonly Stage[] = job.stage === 'coupon rinsed' ? ['rinsed'] : ['rinsed', 'scrubbed'];
        const asked = this.pool.ask({ ...task, stages, seed: 31 * number });
        const at = (stage: Stage) => asked.then((answers) => answers[stages.indexOf(stage)]!);
        this.made.set(`${job.key} ${again}`, {
          design: task.design,
          rinsed: () => at('rinsed'),
          scrubbed: () => at('scrubbed'),
        });
      }
    }
  }

  of({ key }: DemoJob, again: number): PicturedCoupon {
    return this.made.get(`${key} ${again}`)!;
  }

  close(): void {
    this.pool.close();
  }
}

function taskOf(named: Named, job: DemoJob, code: string): Omit<PictureTask, 'stages' | 'seed'> {
  const equipment = demoEquipment(named, job);
  const design = couponDesign(job, equipment, code);
  const compound = demoCompound(named, job.compound)?.name ?? '';
  const blocks = [{ fromMm: 0, toMm: 1000, compound, coats: 1, powder: false }];
  return {
    design,
    limits: couponLimits(equipment),
    motion: rowMotion(equipment.machine),
    setup: burnSetup(equipment, { key: code, blank: design.blank, blocks, batch: '', focusMm: 0 }),
  };
}

function couponDesign(job: DemoJob, equipment: FittedEquipment, code: string): CouponDesign {
  return {
    ...PLAIN_DESIGN,
    code,
    axes: job.axes!,
    fixed: {
      powerPercent: 80,
      speedMmPerS: 120,
      intervalMm: job.intervalMm ?? 0.06,
      frequencyKHz: job.frequencyKHz ?? null,
      pulseNs: job.pulseNs ?? null,
    },
    cell: { widthMm: 5, heightMm: 4 },
    gapMm: 1,
    marginMm: 3,
    fill: 'filled',
    lineSpacingMm: 0.5,
    hatchAngleDeg: 0,
    directions: 'two-way',
    labels: { at: 'edges', heightMm: 1.8, ...labelSetting(job, equipment) },
    blank: { widthMm: job.axes!.block ? 110 : 70, heightMm: 60 },
  };
}

/** Strong enough to hold: half as much again as the dose that bonds, as whoever labels this pairing has learnt. */
function labelSetting(
  job: DemoJob,
  equipment: FittedEquipment,
): Pick<CouponDesign['labels'], 'powerPercent' | 'speedMmPerS'> {
  const { powerW, speedMmPerS, intervalMm } = GROUND_TRUTHS[job.truth!].bondsAt;
  const axis = [job.axes!.x, job.axes!.y].find(({ parameter }) => parameter === 'power');
  const powerPercent = axis ? Math.max(...axisValues(axis)) : 80;
  // A line much finer than this is not seen by a camera: it is burnt so much harder.
  const widthMm = Math.max(0.13, 2 * equivalentRadius(equipment.lens.spotXMm, equipment.lens.spotYMm));
  const dose = (1.5 * powerW) / (speedMmPerS * intervalMm);
  const speed = deliveredPower(powerPercent, powerSource(equipment)) / (dose * widthMm);
  return { powerPercent, speedMmPerS: Number(Math.min(speed, equipment.machine.topSpeedMmPerS).toPrecision(2)) };
}

const HERE = fileURLToPath(new URL('.', import.meta.url));
/** Pictures made before lie here; what they are made by is part of their names. */
const CACHE = join(HERE, '../node_modules/.cache/unto-demo');
const MADE_BY = [
  'core/target',
  'core/coupon-reading',
  'core/coupon',
  'simulators/burn',
  'simulators/camera',
  'simulators/ground-truth',
];

/** Two workers that take the tasks in turn; what was made before is read again. */
class Pool {
  private readonly workers: ChildProcess[] = [];
  private readonly version = versionOf(MADE_BY.map((folder) => join(HERE, '..', folder)));
  private next = 0;

  ask(task: PictureTask): Promise<PictureAnswer[]> {
    const name = createHash('sha256').update(this.version).update(JSON.stringify(task)).digest('hex');
    const known = cached(name, task.stages.length);
    if (known) return Promise.resolve(known);
    const answer = this.work(task, name);
    answer.catch(() => undefined);
    return answer;
  }

  private work(task: PictureTask, name: string): Promise<PictureAnswer[]> {
    if (this.workers.length < 2) this.workers.push(startWorker());
    const worker = this.workers[this.next++ % this.workers.length]!;
    return new Promise((resolve, reject) => {
      const listen = (message: { name: string; answers?: PictureAnswer[]; fault?: string }) => {
        if (message.name !== name) return;
        worker.off('message', listen);
        if (!message.answers) return reject(new Error(message.fault));
        message.answers.forEach((answer, i) => keep(`${name}-${i}`, answer));
        resolve(message.answers);
      };
      worker.on('message', listen);
      worker.once('error', reject);
      worker.send({ name, task });
    });
  }

  close(): void {
    for (const worker of this.workers) worker.disconnect();
  }
}

function startWorker(): ChildProcess {
  // From source it runs as this does; compiled it lies beside this.
  const compiled = import.meta.url.endsWith('.js');
  const worker = fork(join(HERE, compiled ? 'picture-worker.js' : 'picture-worker.ts'), {
    execArgv: compiled ? [] : ['--import', 'tsx'],
    serialization: 'advanced',
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  return worker.setMaxListeners(0);
}

function versionOf(folders: readonly string[]): string {
  const hash = createHash('sha256');
  for (const folder of folders)
    for (const file of readdirSync(folder).sort())
      if (/(?<!\.test)\.ts$/.test(file)) hash.update(readFileSync(join(folder, file)));
  return hash.digest('hex');
}

function cached(name: string, count: number): PictureAnswer[] | null {
  try {
    return Array.from({ length: count }, (_, i) => {
      const path = join(CACHE, `${name}-${i}`);
      const { pxMm, ...reading } = JSON.parse(readFileSync(`${path}.json`, 'utf8')) as PictureAnswer['reading'] & {
        pxMm: number;
      };
      const level = { jpeg: readFileSync(`${path}-straight.jpg`), pxMm };
      return { reading, jpeg: readFileSync(`${path}.jpg`), level };
    });
  } catch {
    return null;
  }
}

/** A folder that cannot be written only costs time. */
function keep(name: string, { jpeg, reading, level }: PictureAnswer): void {
  const files: readonly (readonly [string, Uint8Array | string])[] = [
    [`${name}.jpg`, jpeg],
    [`${name}-straight.jpg`, level.jpeg],
    [`${name}.json`, JSON.stringify({ ...reading, pxMm: level.pxMm })],
  ];
  try {
    mkdirSync(CACHE, { recursive: true });
    const part = join(CACHE, `${name}.${process.pid}`);
    for (const [file, content] of files) {
      writeFileSync(part, content);
      renameSync(part, join(CACHE, file));
    }
  } catch {
    return;
  }
}
