import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, until } from 'selenium-webdriver';
import { openBrowser } from '../e2e/browser.js';
import { startCluster } from './lib/cluster.mjs';
import { ROOT } from './lib/paths.mjs';
import { launchServer, launchSimulators } from './lib/server.mjs';
import { ShotData } from './shot-data.js';

/**
 * Fresh pictures of the main views from the demo, 1280×800. `--into FOLDER` writes elsewhere, `--only NAME,NAME` takes some,
 * `--lamp` in the dark theme, `--size 390x800` at another size.
 */
const option = (name: string) => {
  const at = process.argv.indexOf(`--${name}`);
  return at > 0 ? (process.argv[at + 1] ?? '') : '';
};

interface Shot {
  readonly name: string;
  readonly path: string;
  /** Selector that must be there before the picture is taken. */
  readonly ready: string;
  readonly press?: readonly string[];
  /** What is done before the page is opened. */
  readonly before?: () => Promise<void>;
}

interface Named {
  readonly id: string;
  readonly title?: string;
  readonly code?: string;
  readonly substrateId?: string;
  readonly compoundId?: string;
  readonly headId?: string;
  readonly lensId?: string;
}

async function shotList(base: string, data: ShotData): Promise<Shot[]> {
  const get = async <T extends Named>(path: string) =>
    ((await (await fetch(base + path)).json()) as { records: T[] }).records;
  const tickets = await get('/api/tickets?limit=500');
  const coupons = await get('/api/coupons?limit=500');
  const ticket = (title: string) => tickets.find((found) => found.title === title)!.id;
  const [orchid, circle, beakers, markers] = [
    ticket('Orchid bed tags'),
    ticket('Setting circle of the 1911 refractor'),
    ticket('Rain-gauge beakers'),
    ticket('Arboretum trail markers'),
  ];
  const { substrateId, headId, lensId, compoundId } = tickets.find(({ id }) => id === orchid)!;
  const { tasks } = (await (await fetch(`${base}/api/today`)).json()) as { tasks: { to: string }[] };
  const shelf = (kind: string) => get<{ id: string; body: { name: string } }>(`/api/inventory?kind=${kind}&limit=500`);
  const [stores, substrates] = [await shelf('compound'), await shelf('substrate')];
  return [
    { name: 'today', path: '/today', ready: '[data-test-id="task-first"]' },
    { name: 'tickets', path: '/tickets', ready: 'td strong' },
    { name: 'choose', path: `/tickets/${markers}/choose`, ready: '[data-test-id="verdict"]' },
    { name: 'prepare', path: `/tickets/${beakers}/prepare`, ready: 'figure.section svg' },
    { name: 'coat', path: `/tickets/${beakers}/coat`, ready: '[data-test-id="drying"]' },
    {
      name: 'place',
      path: `/tickets/${orchid}/place`,
      press: ['[data-test-id="place-flatness"]'],
      ready: '[data-test-id="warp-map"]',
    },
    { name: 'begin', path: '/begin', ready: '[data-test-id="begin-keep"]' },
    {
      name: 'design',
      path: `/tickets/${circle}/prove`,
      press: ['[data-test-id="design-coupon"]'],
      ready: '[data-test-id="coupon-grid"]',
    },
    {
      name: 'coupon',
      path: `/coupons/${coupons.find(({ code }) => code === 'K-008')!.id}`,
      press: ['[data-test-id="coupon-grid"] image ~ g:nth-of-type(12)'],
      ready: '[data-test-id="kept-map"]',
    },
    {
      name: 'window',
      path: `/windows/${substrateId}/${headId}/${lensId}/${compoundId}?ticket=${orchid}`,
      ready: '.window[aria-busy="false"] [data-test-id="offer-quickest"]',
    },
    {
      name: 'recipe',
      path: tasks.find(({ to }) => to.startsWith('/recipes/'))!.to,
      ready: '[data-test-id="control-charts"] canvas',
    },
    {
      name: 'mark',
      path: `/tickets/${orchid}/mark`,
      ready: '[data-test-id="piece-3"].now',
      press: [
        'check-focus',
        'check-air',
        'check-extraction',
        'check-passes',
        'begin-run',
        'piece-done',
        'first-held',
        'piece-done',
      ].map((id) => `[data-test-id="${id}"]`),
    },
    {
      name: 'judge',
      path: `/tickets/${orchid}/judge`,
      before: () => data.finishRun(),
      ready: '[data-test-id="tray-picture"], figure.section svg',
    },
    {
      name: 'fault',
      path: `/tickets/${ticket('Shutter-drive scale')}/judge`,
      press: ['[data-test-id="judge-fault"]', '[data-test-id="fault-place"]'],
      ready: '[data-test-id="fault-test"]',
    },
    {
      name: 'substrate',
      path: `/substrates/${substrates.find(({ body }) => body.name.startsWith('304 stainless'))!.id}`,
      ready: '[data-test-id="sheet-settings"] img',
    },
    { name: 'ledger', path: '/ledger', ready: '[data-test-id="ledger-row"]' },
    {
      name: 'stores',
      path: `/stores/${stores.find(({ body }) => body.name === 'Corvid Film')!.id}`,
      ready: '[data-test-id="revise"]',
    },
    { name: 'practice', path: '/practice', ready: '[data-test-id="stated-row"]' },
    {
      name: 'artwork',
      path: `/tickets/${markers}/place`,
      press: ['[data-test-id="place-artwork"]'],
      ready: '[data-test-id="artwork-facts"]',
    },
  ];
}

async function main(): Promise<void> {
  const into = option('into') || join(ROOT, 'docs/screenshots');
  const only = option('only').split(',').filter(Boolean);
  mkdirSync(into, { recursive: true });
  const folder = mkdtempSync(join(tmpdir(), 'unto-shots-'));
  const cluster = await startCluster({ folder, durable: false });
  const simulators = launchSimulators();
  const devices = await simulators.address;
  await fetch(`${devices}/camera/scene`, { method: 'POST', body: new URLSearchParams({ choice: 'touched' }) });
  const server = launchServer({ url: cluster.url, port: 0, files: join(folder, 'files'), simulator: devices });
  const browser = await openBrowser();
  try {
    const base = await server.address;
    const [width, height] = (option('size') || '1280x800').split('x').map(Number);
    await browser.viewport(width!, height!);
    await browser.driver.get(`${base}/icon.svg`);
    const operators = (await (await fetch(`${base}/api/operators`)).json()) as { id: string; name: string }[];
    const tobin = operators.find(({ name }) => name === 'Tobin Ash')!.id;
    await browser.driver.executeScript(
      `localStorage.setItem('unto-operator', ${JSON.stringify(tobin)}); localStorage.setItem('unto-theme', '${process.argv.includes('--lamp') ? 'lamp' : 'paper'}')`,
    );
    const data = new ShotData(base, tobin);
    await data.bringMarkers();
    await data.bringTags();
    for (const shot of await shotList(base, data)) {
      if (only.length && !only.includes(shot.name)) continue;
      await shot.before?.();
      await browser.driver.get(base + shot.path);
      for (const selector of shot.press ?? [])
        await (
          await browser.driver.wait(until.elementLocated(By.css(selector)), 10_000, `${shot.name}: ${selector}`)
        ).click();
      await browser.driver
        .wait(until.elementLocated(By.css(shot.ready)), 15_000, `${shot.name} never showed ${shot.ready}`)
        .catch(async (error: unknown) => {
          console.log((await browser.severe()).join('\n'));
          throw error;
        });
      await browser.driver.executeAsyncScript(
        'const done = arguments[0]; document.fonts.ready.then(() => setTimeout(done, 700))',
      );
      writeFileSync(join(into, `${shot.name}.png`), Buffer.from(await browser.driver.takeScreenshot(), 'base64'));
      for (const message of await browser.severe()) console.log(`${shot.name}: ${message}`);
    }
    console.log(`Pictures are in ${into}`);
  } finally {
    await browser.close();
    await server.stop();
    await simulators.stop();
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
