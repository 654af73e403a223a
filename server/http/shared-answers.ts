import type { Sequelize } from 'sequelize';
import { JsonText } from './json-text.js';

/** How old an answer may be that follows from the time as well, s. */
const HOLDS_S = 2;
const MOST_ENTRIES = 500;
/** Answers that are longer are worked out anew: they are files in all but name. */
const LONGEST = 2_000_000;

interface Asked {
  readonly key: string;
  readonly now: number;
  readonly holdsS?: number | undefined;
}

interface Entry {
  readonly at: number;
  readonly moment: number;
  readonly text: Promise<string>;
}

/**
 * Answers of reads, worked out once for all who ask the same while nothing was written. What PostgreSQL calls a snapshot changes with
 * every write that commits, whoever made it: as long as it is the same, so is everything that is read.
 */
export class SharedAnswers {
  #snapshot = '';
  readonly #entries = new Map<string, Entry>();
  readonly #sequelize: Sequelize;

  constructor(sequelize: Sequelize) {
    this.#sequelize = sequelize;
  }

  /**
   * The answer to a read, as JSON text.
   * @param asked what was asked, whole; how long its answer holds, s; and the moment of the request, ms since 1970
   */
  async get({ key, now, holdsS = HOLDS_S }: Asked, work: () => Promise<unknown>): Promise<string> {
    const snapshot = await this.#taken();
    // Whatever was read under another one can never be right again.
    if (snapshot !== this.#snapshot) this.#entries.clear();
    this.#snapshot = snapshot;
    const found = this.#entries.get(key);
    const holdsMs = 1000 * holdsS;
    if (found && performance.now() - found.at < holdsMs && Math.abs(now - found.moment) < holdsMs) return found.text;
    return this.#keep(key, now, work().then(textOf));
  }

  async #keep(key: string, moment: number, text: Promise<string>): Promise<string> {
    const entry = { at: performance.now(), moment, text };
    if (this.#entries.size >= MOST_ENTRIES) this.#entries.clear();
    this.#entries.set(key, entry);
    const forget = () => {
      if (this.#entries.get(key) === entry) this.#entries.delete(key);
    };
    try {
      const whole = await text;
      if (whole.length > LONGEST) forget();
      return whole;
    } catch (error) {
      forget();
      throw error;
    }
  }

  async #taken(): Promise<string> {
    const [[row]] = (await this.#sequelize.query('SELECT pg_current_snapshot()::text AS snapshot')) as unknown as [
      [{ snapshot: string }],
    ];
    return row.snapshot;
  }
}

/** An answer as it is sent. */
export const textOf = (answer: unknown) => (answer instanceof JsonText ? answer.text : JSON.stringify(answer ?? {}));
