import { mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key, until, type WebElement } from 'selenium-webdriver';
import { expect } from 'vitest';
import type { Browser } from './browser.js';

const WAIT_MS = 30_000;
/** A list that shows nothing for so long is not open any more. */
const REOPEN_MS = 4000;
/** What is said of an element that the page drew anew, or drew something over, since it was found. */
const REDRAWN = /stale|intercepted|not interactable/i;
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What a person does at the screen: press, type, choose, read. Everything is found by our own test ids. */
export class Page {
  constructor(
    private readonly browser: Browser,
    readonly base: string,
  ) {}

  /** What was pressed and what was filled in since the last count. */
  private done = { presses: 0, entries: 0 };

  /** Presses and entries since this was asked last. */
  counted(): { presses: number; entries: number } {
    const { done } = this;
    this.done = { presses: 0, entries: 0 };
    return done;
  }

  get driver() {
    return this.browser.driver;
  }

  async open(path: string): Promise<void> {
    await this.driver.get(this.base + path);
  }

  private located(testId: string): Promise<WebElement> {
    const locator = By.css(`[data-test-id="${testId}"]`);
    return this.driver.wait(until.elementLocated(locator), WAIT_MS, `“${testId}” never appeared`);
  }

  async find(testId: string): Promise<WebElement> {
    const element = await this.located(testId);
    return this.driver.wait(until.elementIsVisible(element), WAIT_MS, `“${testId}” never showed`);
  }

  /** Presses, again if the page redrew the element meanwhile. */
  async press(testId: string): Promise<void> {
    this.done.presses += 1;
    await this.driver.wait(
      async () => {
        try {
          const element = await this.located(testId);
          await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
          if (!(await element.isEnabled())) return false;
          await element.click();
          return true;
        } catch (error) {
          if (REDRAWN.test(String(error))) return false;
          throw error;
        }
      },
      WAIT_MS,
      `“${testId}” could not be pressed`,
    );
  }

  /** Says how the machine stands while a coupon is fired: air off, extraction on. */
  async fires(): Promise<void> {
    await this.press('fire-air-off');
    await this.press('fire-extraction-on');
  }

  /** Opens the designer, and takes 7 × 8 cells from 60 to 450 mm/s on a blank of 70 × 60 mm, whatever it starts from. */
  async designs(): Promise<void> {
    await this.press('design-coupon');
    await this.find('cell-count');
    const sizes = {
      'blank-width': 70,
      'blank-height': 60,
      'cell-width': 5,
      'cell-height': 4,
      'x-count': 7,
      'y-count': 8,
    };
    for (const [field, size] of Object.entries(sizes)) await this.type(field, String(size));
    await this.type('y-from', '60 mm/s');
    await this.type('y-to', '450 mm/s');
    await this.reads('cell-count', /^56$/);
  }

  /** Picks the radio of a row. */
  async pick(testId: string): Promise<void> {
    this.done.presses += 1;
    const row = await this.find(testId);
    await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', row);
    await row.findElement(By.css('input')).click();
  }

  async type(testId: string, text: string): Promise<void> {
    this.done.entries += 1;
    const element = await this.find(testId);
    await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
    await element.click();
    await element.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, text);
  }

  /** Chooses an option of a select by its words: one entry, however many presses it takes. */
  async choose(testId: string, words: string): Promise<void> {
    this.done.entries += 1;
    await this.press(testId);
    this.done.presses -= 1;
    const option = By.xpath(`//li[@role="option"][.//text()[contains(., ${JSON.stringify(words)})]]`);
    let pressed = performance.now();
    // The list may be drawn anew under the press: it is pressed as it then stands.
    await this.driver.wait(
      async () => {
        const [element] = await this.driver.findElements(option);
        if (!element && performance.now() - pressed > REOPEN_MS) {
          // What was open went with a form that was drawn anew.
          pressed = performance.now();
          await this.press(testId);
          this.done.presses -= 1;
        }
        if (!element) return false;
        try {
          await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
          await element.click();
          return true;
        } catch (error) {
          if (REDRAWN.test(String(error))) return false;
          throw error;
        }
      },
      WAIT_MS,
      `no option “${words}” under “${testId}”`,
    );
    await this.driver.wait(
      async () => (await this.driver.findElements(option)).length === 0,
      WAIT_MS,
      `the options of “${testId}” stayed open`,
    );
  }

  async text(testId: string): Promise<string> {
    return (await this.find(testId)).getText();
  }

  /** Waits until what stands there matches. */
  async reads(testId: string, pattern: RegExp): Promise<string> {
    let seen = '';
    await this.driver
      .wait(
        async () => {
          seen = await this.text(testId).catch(() => '');
          return pattern.test(seen);
        },
        WAIT_MS,
        `“${testId}” never read ${pattern}`,
      )
      .catch((error: Error) => {
        throw new Error(`${error.message}; it read “${seen}”`);
      });
    return seen;
  }

  /** Waits until a field holds something. */
  async filled(testId: string): Promise<void> {
    const value = async () => (await this.find(testId)).getAttribute('value');
    await this.driver.wait(async () => Boolean(await value()), WAIT_MS, `“${testId}” was never filled in`);
  }

  /** Waits until the page as a whole reads so. */
  async says(pattern: RegExp): Promise<void> {
    await this.driver.wait(
      async () => pattern.test(await this.driver.findElement(By.css('body')).getText()),
      WAIT_MS,
      `the page never said ${pattern}`,
    );
  }

  /** What the page, or a part of it, reads once nothing is asked any more, nothing is busy, and it stays so. */
  async settled(css = 'main'): Promise<string> {
    let last = '';
    await this.driver.wait(
      async () => {
        await new Promise((resolve) => setTimeout(resolve, 400));
        const now = await this.driver.findElement(By.css(css)).getText();
        const working = await this.driver.executeScript(
          'return window.asked > 0 || document.querySelector(\'main [aria-busy="true"]\') !== null',
        );
        const same = !working && now === last && now !== '';
        last = now;
        return same;
      },
      WAIT_MS,
      'the page never came to rest',
    );
    return last;
  }

  async gone(testId: string): Promise<void> {
    await this.driver.wait(
      async () => (await this.driver.findElements(By.css(`[data-test-id="${testId}"]`))).length === 0,
      WAIT_MS,
      `“${testId}” stayed`,
    );
  }

  async keys(...keys: string[]): Promise<void> {
    await this.driver
      .actions()
      .sendKeys(...keys)
      .perform();
  }

  async at(pattern: RegExp): Promise<string> {
    await this.driver.wait(until.urlMatches(pattern), WAIT_MS, `never came to ${pattern}`);
    return this.driver.getCurrentUrl();
  }

  async signIn(name: string): Promise<void> {
    await this.open('/today');
    await this.press(`person-${name}`);
    await this.gone('operator-picker');
  }

  /** Moves a mark on a picture to a place of it (px). With the keyboard: ten pixels a press with shift, one without. */
  async moves(testId: string, to: { x: number; y: number }): Promise<void> {
    const handle = await this.find(testId);
    const label = (await handle.getAttribute('aria-label')) ?? '';
    const [, x, y] = /, (\d+), (\d+);/.exec(label)!.map(Number);
    const presses = (by: number, more: string, less: string) => {
      const [tens, ones] = [Math.trunc(Math.abs(by) / 10), Math.round(Math.abs(by) % 10)];
      const key = by > 0 ? more : less;
      return [Key.chord(Key.SHIFT, key.repeat(tens)), key.repeat(ones)];
    };
    const keys = [
      ...presses(to.x - x!, Key.ARROW_RIGHT, Key.ARROW_LEFT),
      ...presses(to.y - y!, Key.ARROW_DOWN, Key.ARROW_UP),
    ];
    await handle.sendKeys(...keys);
  }

  /** Gives a file to a file field. */
  async bring(testId: string, name: string, content: string | Uint8Array): Promise<void> {
    const path = join(this.browser.downloads, '..', name);
    writeFileSync(path, content);
    const input = await this.driver.findElement(By.css(`[data-test-id="${testId}"]`));
    await input.sendKeys(path);
  }

  /** Text of a file that the page handed over, once it is there whole. */
  async downloaded(name: string): Promise<string> {
    const path = join(this.browser.downloads, name);
    // The browser keeps the name with an empty file until the whole one takes its place.
    const whole = () => this.downloads().includes(name) && statSync(path).size > 0;
    await this.driver.wait(whole, WAIT_MS, `${name} was never saved`);
    return readFileSync(path, 'utf8');
  }

  private downloads(): string[] {
    try {
      return readdirSync(this.browser.downloads);
    } catch {
      return [];
    }
  }

  /** Axe finds nothing serious here. */
  async accessible(where: string): Promise<void> {
    await this.driver.executeScript(AXE);
    const found = (await this.driver.executeAsyncScript(
      'const done = arguments[0]; axe.run({ resultTypes: ["violations"] }).then((r) => done(r.violations.filter((v) => ["serious", "critical"].includes(v.impact)).map((v) => v.id + ": " + v.nodes.map((n) => n.html).slice(0, 3).join(" | "))))',
    )) as string[];
    expect(found, where).toEqual([]);
  }

  /** The page’s console said nothing severe, but what is expected. */
  async quiet(except = /^$/): Promise<void> {
    const messages = (await this.browser.severe()).filter((message) => !except.test(message));
    expect(messages).toEqual([]);
  }

  async picture(name: string): Promise<string> {
    const folder = join(tmpdir(), 'unto-failures');
    mkdirSync(folder, { recursive: true });
    const path = join(folder, `${name}.png`);
    writeFileSync(path, Buffer.from(await this.driver.takeScreenshot(), 'base64'));
    return path;
  }
}
