import type { Sequelize, Transaction } from 'sequelize';
import { seededRandom, type Random } from '@unto/core';
import type { AnswerOf, KeptFile, RouteName, Routes } from '@unto/contract';
import { CouponPictures } from './coupon-pictures.js';
import type { DemoJob } from './job.js';
import { INLINE_POOL, NO_DEVICES, ROUTERS, tiedDevices, type FileStore, type Models } from '@unto/server';

/** Writes the demo through the services, as if operators had entered it at past moments. */
export class Seeder {
  readonly random: Random = seededRandom(1911);
  readonly pictures: CouponPictures;
  private readonly made = new Map<string, string>();

  constructor(
    private readonly database: { sequelize: Sequelize; models: Models; files: FileStore; transaction: Transaction },
    readonly now: Date,
    jobs: readonly DemoJob[],
  ) {
    this.pictures = new CouponPictures(this, jobs);
  }

  /** The identifier of a key: made on first use, the same every time the demo is loaded. */
  id(key: string): string {
    const known = this.made.get(key);
    if (known) return known;
    const random = seededRandom(
      [...key].reduce((hash, letter) => Math.imul(hash ^ letter.charCodeAt(0), 16_777_619) >>> 0, 2_166_136_261),
    );
    const hex = Array.from({ length: 32 }, () => Math.floor(random() * 16).toString(16));
    hex[12] = '4';
    hex[16] = '8';
    const text = hex.join('');
    const id = [text.slice(0, 8), text.slice(8, 12), text.slice(12, 16), text.slice(16, 20), text.slice(20)].join('-');
    this.made.set(key, id);
    return id;
  }

  /** A moment some days (fractions allowed) before now. */
  ago(days: number): Date {
    return new Date(this.now.getTime() - days * 86_400_000);
  }

  day(daysAgo: number): string {
    return this.ago(daysAgo).toISOString().slice(0, 10);
  }

  /** Calls a route's service at a past moment as an operator. Bodies are checked against the contract like any client's. */
  async call<N extends RouteName>(
    name: N,
    body: object,
    at: { daysAgo: number; by: string; id?: string },
  ): Promise<AnswerOf<Routes[N]>> {
    const { route, answer } = operation(name);
    const checked: unknown = route.body ? await route.body.validate(body, { strict: true }) : body;
    const call = { params: { id: at.id ?? '' }, body: checked, query: {} };
    return (await answer(this.context(at), call as never)) as AnswerOf<Routes[N]>;
  }

  private context(at: { daysAgo: number; by: string }) {
    return {
      ...this.database,
      tied: tiedDevices(NO_DEVICES),
      jobs: null,
      pool: INLINE_POOL,
      now: this.ago(at.daysAgo),
      actor: this.id(at.by),
    };
  }

  /** Keeps a file as whoever was at the bench. */
  async keepFile(name: string, bytes: Uint8Array, at: { daysAgo: number; by: string }): Promise<KeptFile> {
    const call = { params: {}, body: Buffer.from(bytes), query: { name } };
    return (await operation('keepFile').answer(this.context(at), call as never)) as KeptFile;
  }

  /** A number near a mean, spread as a share of it, rounded. */
  near(mean: number, spread: number, digits = 1): number {
    return Number((mean * (1 + spread * (2 * this.random() - 1))).toFixed(digits));
  }
}

function operation(name: RouteName) {
  return ROUTERS.find((mounted) => mounted.name === name)!;
}
