import { say } from '@water-clock/core';
import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { DataSource } from 'typeorm';
import { ApiError } from '../http/api-error.ts';
import { Settings } from '../platform/settings.ts';

const MINUTE_SECONDS = 60;
/** Failed sign-ins allowed from one address over all accounts, as a multiple of those for one account: an office may share an address. */
const ACCOUNTS_OF_ADDRESS = 10;

/** Limits mail to one mailbox, whatever addresses the requests come from. */
const LINKS_A_MINUTE = 3;

/** Only a hash of what was tried is kept. */
const keyOf = (parts: readonly string[]) =>
  createHash('sha256').update(JSON.stringify(parts)).digest('base64url');

class Limit {
  private readonly limiter: RateLimiterPostgres;

  constructor(database: DataSource, keyPrefix: string, points: number) {
    this.limiter = new RateLimiterPostgres({
      storeClient: database,
      storeType: 'typeorm',
      tableName: 'tries',
      tableCreated: true,
      clearExpiredByTimeout: false,
      keyPrefix,
      points,
      duration: MINUTE_SECONDS,
    });
  }

  /** @throws ApiError 429 `too-many-tries` */
  async count(key: string): Promise<void> {
    try {
      await this.limiter.consume(key);
    } catch (told) {
      if (!(told instanceof RateLimiterRes)) throw told;
      const seconds = Math.max(1, Math.ceil(told.msBeforeNext / 1000));
      throw new ApiError(
        {
          code: 'too-many-tries',
          message: say`too many tries; wait ${seconds} seconds and try again`,
        },
        seconds,
      );
    }
  }

  async forget(key: string): Promise<void> {
    await this.limiter.delete(key);
  }

  async takeBack(key: string): Promise<void> {
    await this.limiter.reward(key, 1);
  }
}

/** Counts attempts in the database, so that all servers share the counts. */
@Injectable()
export class Tries {
  private readonly pair: Limit;
  private readonly address: Limit;
  private readonly page: Limit;
  private readonly link: Limit;

  constructor(database: DataSource, { signInTriesPerMinute, pageTriesPerMinute }: Settings) {
    this.pair = new Limit(database, 'pair', signInTriesPerMinute);
    this.address = new Limit(database, 'address', signInTriesPerMinute * ACCOUNTS_OF_ADDRESS);
    this.page = new Limit(database, 'page', pageTriesPerMinute);
    this.link = new Limit(database, 'link', LINKS_A_MINUTE);
  }

  /**
   * Counts a sign-in before it is checked and takes the count back if it succeeds. Counts by address and account together, so that guessing
   * from elsewhere locks nobody out.
   *
   * @returns a function to call on success
   * @throws ApiError 429 `too-many-tries`
   */
  async signIn(address: string, account: string): Promise<() => Promise<void>> {
    const pair = keyOf([address, account.trim().toLowerCase()]);
    const own = keyOf([address]);
    await this.address.count(own);
    await this.pair.count(pair);
    return async () => {
      await this.pair.forget(pair);
      await this.address.takeBack(own);
    };
  }

  /**
   * Counts openings of page links, since guessing links takes many.
   *
   * @throws ApiError 429 `too-many-tries`
   */
  async openPage(address: string): Promise<void> {
    await this.page.count(keyOf([address]));
  }

  /**
   * Counts requests for a link by mail.
   *
   * @throws ApiError 429 `too-many-tries`
   */
  async askForLink(address: string, account: string): Promise<void> {
    await this.address.count(keyOf([address]));
    await this.link.count(keyOf([account]));
  }
}
