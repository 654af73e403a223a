import type {} from '../../scripts/lib/test-cluster.js';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import pino from 'pino';
import type { Sequelize } from 'sequelize';
import { inject } from 'vitest';
import { CRITERIA, PLAIN_DESIGN, PLAIN_SETTING } from '@unto/core';
import {
  isFileAnswer,
  LATER_FIELDS,
  ROUTES,
  type DeviceJob,
  type InventoryKind,
  type Route,
  type Scene,
} from '@unto/contract';
import type { Devices } from '../index.js';
import {
  connect,
  createApp,
  defineModels,
  folderStore,
  INLINE_POOL,
  migrate,
  openJobQueue,
  startWork,
  type AppDeps,
  type FileStore,
  type Models,
} from '../index.js';

/** An application on an empty database of its own, with a clock that tests set. */
export interface TestRig {
  readonly base: string;
  readonly url: string;
  readonly sequelize: Sequelize;
  readonly models: Models;
  readonly operator: string;
  now: Date;
  /** Tests put a device here. */
  devices: { -readonly [K in keyof Devices]: Devices[K] };
  /** What a simulator would have been told. */
  readonly scenes: Scene[];
  call(
    method: string,
    path: string,
    body?: unknown,
    options?: { operator?: string | null; headers?: Record<string, string> },
  ): Promise<{ status: number; body: any }>;
  /** What became of something asked of a device. */
  cameOf(asked: Promise<{ body: DeviceJob }>): Promise<DeviceJob>;
  /** Looks again and again until something is so. @throws when it is not within ten seconds */
  until<T>(look: () => Promise<T>, is: (seen: T) => boolean): Promise<T>;
  sql<T>(query: string): Promise<T[]>;
  close(): Promise<void>;
}

/** Makes an empty database in the test cluster. */
export async function freshDatabase(): Promise<string> {
  const name = `t${randomUUID().replaceAll('-', '')}`;
  const admin = new pg.Client(inject('databaseUrl'));
  await admin.connect();
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.end();
  return inject('databaseUrl').replace(/\/postgres$/, `/${name}`);
}

export interface RigOptions {
  readonly callsPerMinute?: AppDeps['callsPerMinute'];
  /** How long the database may take, ms. */
  readonly queryWithinMs?: number;
  /** What kept files do otherwise than a folder with room. */
  readonly store?: Partial<FileStore>;
  /** Does what is asked of devices; without, nothing can be asked of one. */
  readonly works?: boolean;
}

export async function openTestRig(options: RigOptions = {}): Promise<TestRig> {
  const url = await freshDatabase();
  const sequelize = connect(url, { withinMs: options.queryWithinMs ?? 15_000 });
  const models = defineModels(sequelize);
  await migrate(sequelize);
  const files = mkdtempSync(join(tmpdir(), 'unto-files-'));
  const rig = {
    now: new Date('2026-03-02T09:00:00Z'),
    devices: { scale: null, camera: null, controller: null } as TestRig['devices'],
    scenes: [] as Scene[],
  };
  const jobs = options.works ? await openJobQueue(sequelize, () => undefined) : null;
  const deps: AppDeps = {
    sequelize,
    models,
    files: { ...folderStore(files), ...options.store },
    devices: rig.devices,
    clock: () => rig.now,
    log: pino({ level: process.env['UNTO_LOG'] ?? 'silent' }),
    hosts: ['127.0.0.1'],
    jobs,
    pool: INLINE_POOL,
    // Tests are no client that has gone wild.
    callsPerMinute: options.callsPerMinute ?? { any: 1e9, writes: 1e9, heavy: 1e9 },
  };
  const tell = async (scene: Scene) => void rig.scenes.push(scene);
  const stopWork = jobs && (await startWork(deps, { tell, lookEveryMs: 20 }));
  const app = createApp(deps);
  const server: Server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const operator = randomUUID();
  const call: TestRig['call'] = async (method, path, body, options = {}) => {
    const sent = options.operator === undefined ? operator : options.operator;
    const response = await fetch(base + path, {
      method,
      headers: { 'content-type': 'application/json', ...(sent ? { 'x-unto-operator': sent } : {}), ...options.headers },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const text = await response.text();
    const json = /^application\/(problem\+)?json/.test(response.headers.get('content-type') ?? '');
    const answer = { status: response.status, body: json ? JSON.parse(text) : text };
    if (response.ok) requireAnswer(method, path, answer.body);
    return answer;
  };
  await call('POST', '/api/operators', { id: operator, name: 'Ines Varga', role: 'lead' }, { operator: null });
  return Object.assign(rig, {
    base,
    url,
    sequelize,
    models,
    operator,
    call,
    until,
    cameOf: async (asked: Promise<{ body: DeviceJob }>) => {
      const { kind, id } = (await asked).body;
      const look = async () => (await call('GET', `/api/devices/jobs/${kind}/${id}`)).body as DeviceJob;
      return until(look, ({ state }) => state !== 'waiting');
    },
    sql: async <T>(query: string) => (await sequelize.query(query))[0] as T[],
    close: async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await stopWork?.();
      await sequelize.close();
      rmSync(files, { recursive: true, force: true });
    },
  });
}

async function until<T>(look: () => Promise<T>, is: (seen: T) => boolean): Promise<T> {
  const begun = performance.now();
  for (;;) {
    const seen = await look();
    if (is(seen)) return seen;
    if (performance.now() - begun > 10_000) throw new Error(`It stayed ${JSON.stringify(seen)}.`);
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
}

/** Every answer that a test gets is what its route says it is. @throws naming route and place otherwise */
export function requireAnswer(method: string, path: string, body: unknown): void {
  const bare = path.split('?')[0]!;
  const found = Object.entries<Route>(ROUTES)
    .filter(([, route]) => route.method === method.toLowerCase() && patternOf(route).test(bare))
    // A fixed address stands before one with parameters.
    .sort(([, a], [, b]) => Object.keys(a.params).length - Object.keys(b.params).length)[0];
  if (!found) throw new Error(`No route answers ${method} ${path}.`);
  const [name, { answer }] = found;
  if (isFileAnswer(answer)) return;
  try {
    answer.validateSync(body, { strict: true });
  } catch (error) {
    throw new Error(`${name} answers what its route does not say: ${(error as Error).message}`, { cause: error });
  }
}

function patternOf({ path }: Route): RegExp {
  return new RegExp(`^${path.replaceAll('.', '\\.').replace(/:\w+/g, '[^/]+')}$`);
}

const BODIES: Record<InventoryKind, (ids: Record<string, string>) => Record<string, unknown>> = {
  machine: () => ({
    name: 'Long bench',
    motion: 'gantry',
    bedWidthMm: 700,
    bedHeightMm: 500,
    topSpeedMmPerS: 600,
    accelerationMmPerS2: 5000,
    jumpDelayS: 0,
    panelPower: '%',
    panelSpeed: '%',
    dialTable: [],
    fullScaleS: 1000,
    laserMinorPerMinute: 25,
  }),
  head: (ids) => ({
    name: 'CO2',
    machineId: ids['machine'],
    wavelengthClass: 'co2',
    wavelengthNm: 10600,
    emission: 'continuous',
    ratedW: 55,
    firingThresholdPercent: 7,
    m2: 1.2,
    frequencyKHzMin: null,
    frequencyKHzMax: null,
    eyewear: 'the clear pair',
  }),
  lens: (ids) => ({
    name: '50.8 mm',
    headId: ids['head'],
    focalLengthMm: 50.8,
    spotXMm: 0.165,
    spotYMm: 0.165,
    depthOfFocusMm: 0.53,
    depthGrowth: 0.05,
  }),
  calibration: (ids) => ({
    name: 'metered',
    headId: ids['head'],
    meteredOn: '2026-01-05',
    rows: [
      { percent: 7, watts: 1 },
      { percent: 100, watts: 50 },
    ],
  }),
  compound: () => ({
    name: 'Corvid Film',
    form: 'metal film-forming',
    colour: 'black',
    statedBeams: ['co2'],
    statedFamilies: ['stainless'],
    containsPtfe: false,
    solventBased: true,
    handling: 'can be touched',
    dryFilmMinUm: 8,
    dryFilmMaxUm: 12,
    coats: 1,
    distanceMinMm: 150,
    distanceMaxMm: 250,
    shakeS: 75,
    dryS: 240,
    shelfLifeDays: 30,
    volumeSolids: 0.3,
    massSolids: 0.12,
    dryDensity: 3.6,
    thinnerRatio: 0,
    thinnerDensityRatio: 0.9,
    cleaning: 'water',
    hazards: '',
    sizes: [{ label: 'can', netG: 420, priceMinor: 6800 }],
  }),
  container: (ids) => ({
    name: 'Corvid Film, lot K7',
    compoundId: ids['compound'],
    lot: 'K7',
    openedOn: null,
    expiresOn: null,
    tareG: 96,
    netG: 420,
    priceMinor: 6800,
  }),
  substrate: () => ({
    name: '304 stainless',
    family: 'stainless',
    layer: 'bare',
    finish: '2B',
    thicknessMm: 1.2,
    conductivity: 0.0162,
    diffusivity: 4.05,
    thermalSource: 'handbook',
    curvature: '',
  }),
  blank: (ids) => ({
    name: 'Tag blanks',
    substrateId: ids['substrate'] ?? null,
    supplier: 'Hollin & Daughters',
    grade: '304',
    lot: 'H12',
    priceMinor: 80,
    widthMm: 40,
    heightMm: 25,
    thicknessMm: 1.2,
    left: 60,
    note: '',
  }),
  profile: () => ({ name: 'Rush', about: '', ...Object.fromEntries(CRITERIA.map((criterion) => [criterion, 1])) }),
};

/** A body of a kind to be changed by a test. */
export function storeBody(kind: InventoryKind, ids: Record<string, string> = {}): Record<string, any> {
  return { ...LATER_FIELDS[kind], ...BODIES[kind](ids) };
}

/** Fills the stores with one of each kind; answers their ids by kind. */
export async function fillInventory(rig: TestRig): Promise<Record<InventoryKind, string>> {
  const ids: Record<string, string> = {};
  for (const kind of Object.keys(BODIES) as InventoryKind[]) {
    ids[kind] = randomUUID();
    const { status, body } = await rig.call('POST', '/api/inventory', {
      id: ids[kind],
      kind,
      body: storeBody(kind, ids),
    });
    if (status !== 200) throw new Error(JSON.stringify(body));
  }
  return ids as Record<InventoryKind, string>;
}

/** A ticket body on those stores. */
export function ticketBody(ids: Record<string, string>, change: object = {}) {
  return {
    id: randomUUID(),
    title: 'Orchid bed tags',
    pieces: 48,
    markWidthMm: 38,
    markHeightMm: 22,
    coatMarginMm: 3,
    substrateId: ids['substrate'],
    headId: ids['head'],
    lensId: ids['lens'],
    aim: { tone: 'dark on light', strength: 'clear', work: 'fill' },
    foodUse: false,
    wantedOn: null,
    note: '',
    ...change,
  };
}

/** A weighing of ten pieces from the container among those stores, 10 g of coat. */
export function weighingBody(ids: Record<string, string>, change: object = {}) {
  return {
    id: randomUUID(),
    containerId: ids['container'],
    pieces: 10,
    before: { value: 120, unit: 'g' },
    after: { value: 110, unit: 'g' },
    partsBefore: null,
    partsAfter: null,
    correctsId: null,
    ...change,
  };
}

/** A coupon design of three powers by four speeds. */
export const DESIGN = {
  ...PLAIN_DESIGN,
  code: '',
  axes: {
    x: { parameter: 'power', spacing: 'linear', from: 40, to: 100, count: 3 },
    y: { parameter: 'speed', spacing: 'log', from: 60, to: 480, count: 4 },
  },
  fixed: { powerPercent: 80, speedMmPerS: 150, intervalMm: 0.06, frequencyKHz: null, pulseNs: null },
  cell: { widthMm: 5, heightMm: 4 },
  gapMm: 1,
  marginMm: 3,
  fill: 'filled',
  lineSpacingMm: 0.5,
  hatchAngleDeg: 0,
  directions: 'two-way',
  labels: { at: 'edges', heightMm: 1.8, powerPercent: 60, speedMmPerS: 80 },
  blank: { widthMm: 70, heightMm: 60 },
};

/** Address of what the window of some stores is fitted to. */
export function windowAddress({ substrate, compound, head, lens }: Record<string, string>): string {
  const asked = { substrateId: substrate!, compoundId: compound!, headId: head!, lensId: lens! };
  return `/api/windows/cells?${new URLSearchParams(asked).toString()}`;
}

/** What is noted of the machine while it fires. */
export const FIRED = { air: 'off', extraction: 'on', powerMode: 'constant' } as const;

/** Says that a coupon, as it was first kept, was fired by hand. */
export const BURNT = { version: 1, notes: FIRED };

/** A run body, every station before it open; recipes and corrections are a test’s own. */
export function runBody(ticketId: string, change: object = {}) {
  return {
    id: randomUUID(),
    ticketId,
    recipeId: null,
    correctsId: null,
    pieces: 6,
    power: { value: 90, unit: '%' },
    speed: { value: 25, unit: '%' },
    interval: { value: 340, unit: 'lines/in' },
    ...PLAIN_SETTING,
    directions: 'two-way',
    ...FIRED,
    minutes: 9.5,
    note: '',
    reason: 'Nothing was checked before.',
    ...change,
  };
}

/** Brings a file, as a page does: what the server says of it. */
export async function bringFile(rig: TestRig, name: string, content: string | Buffer) {
  const answer = await fetch(`${rig.base}/api/files?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream', 'x-unto-operator': rig.operator },
    body: typeof content === 'string' ? content : new Uint8Array(content),
  });
  return { status: answer.status, body: (await answer.json()) as any };
}

/** Keeps a file: the hash it is kept under. */
export async function keptFile(rig: TestRig, name: string, content: string | Buffer): Promise<string> {
  return (await bringFile(rig, name, content)).body.hash;
}
