import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, logging, type WebDriver } from 'selenium-webdriver';
import { Options, ServiceBuilder, type Driver } from 'selenium-webdriver/chrome.js';

/** A headless Chromium of its own, with its console kept. */
export interface Browser {
  readonly driver: WebDriver;
  readonly downloads: string;
  /** Messages that the page's console called severe since the last time it was asked. */
  severe(): Promise<string[]>;
  viewport(width: number, height: number): Promise<void>;
  close(): Promise<void>;
}

/** Counts what a page has asked the server for and not been answered yet, from its first line on. */
const COUNT_ASKED = `
  window.asked = 0;
  const fetched = window.fetch;
  window.fetch = (...args) => {
    window.asked += 1;
    return fetched(...args).finally(() => (window.asked -= 1));
  };
`;

/** Opens Debian's Chromium, 1280×800 exactly (device metrics: a window's size would include its frame). */
export async function openBrowser(): Promise<Browser> {
  const profile = mkdtempSync(join(tmpdir(), 'unto-browser-'));
  const downloads = join(profile, 'downloads');
  const options = new Options();
  options.setBinaryPath('/usr/bin/chromium');
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-dev-shm-usage',
    '--force-color-profile=srgb',
    '--lang=en-GB',
    `--user-data-dir=${profile}`,
  );
  options.setUserPreferences({ 'download.default_directory': downloads, 'intl.accept_languages': 'en-GB' });
  const kept = new logging.Preferences();
  kept.setLevel(logging.Type.BROWSER, logging.Level.ALL);
  options.setLoggingPrefs(kept);
  const driver = await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
    .build();
  const chrome = driver as Driver;
  const viewport = async (width: number, height: number) => {
    await chrome.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
      width,
      height,
      deviceScaleFactor: 1,
      mobile: false,
    });
  };
  await viewport(1280, 800);
  await chrome.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source: COUNT_ASKED });
  await chrome.sendDevToolsCommand('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: downloads });
  return {
    driver,
    downloads,
    viewport,
    severe: async () => {
      const entries = await driver.manage().logs().get(logging.Type.BROWSER);
      return entries.filter(({ level }) => level.value >= logging.Level.SEVERE.value).map(({ message }) => message);
    },
    close: async () => {
      await driver.quit();
      rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
    },
  };
}
