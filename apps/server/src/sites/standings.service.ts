import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Injectable } from '@nestjs/common';
import type { EpochDay, TimerStanding } from '@water-clock/core';
import { DataSource } from 'typeorm';
import { ApiError } from '../platform/api-error.ts';
import { WorkService } from '../work/work.service.ts';
import type { InputOf } from '../work/tasks.ts';
import { rulesOfCompany } from './site-rules.ts';
import { StandingRow } from './standing.entity.ts';
import type { Timer } from './timer.entity.ts';
import { todayIn } from './today.ts';

/** Timers in one piece of work: some hundredths of a second for ordinary ones. */
const AT_ONCE = 8;

type Question = InputOf<'standings'>[number];
interface Wanted {
  readonly id: string;
  /** What it is worked out from, but for the date. */
  readonly basis: string;
  readonly question: Question;
}

/** SHA-256 of the built core: what one release worked out says nothing of the next. */
function engineEdition(): string {
  const folder = path.dirname(fileURLToPath(import.meta.resolve('@water-clock/core')));
  const hash = createHash('sha256');
  for (const name of fs.readdirSync(folder, { recursive: true, encoding: 'utf8' }).sort())
    if (name.endsWith('.js')) hash.update(fs.readFileSync(path.join(folder, name)));
  return hash.digest('base64url').slice(0, 12);
}

const tooMuch = (until: EpochDay): TimerStanding => ({
  proven: { ok: false, faults: [{ code: 'too-much-work', path: ['programs'] }] },
  sideBySide: false,
  anyPhase: [],
  breaches: [],
  coming: null,
  days: [],
  until,
});

/** Knows how each timer stands today. What is known is kept until the timer, its site or its rules change, or the last date is over for which it holds; the rest is worked out in threads. */
@Injectable()
export class StandingsService {
  private readonly edition = engineEdition();
  /** The last turn of each company: one question at a time, so that nothing is worked out twice. */
  private readonly turns = new Map<string, Promise<unknown>>();

  constructor(
    private readonly database: DataSource,
    private readonly work: WorkService,
  ) {}

  /**
   * @param timers of one company, with their sites
   * @returns by the timers' ids
   */
  async of(
    companyId: string,
    timers: readonly Timer[],
    now: Date,
  ): Promise<ReadonlyMap<string, TimerStanding>> {
    const rules = await rulesOfCompany(this.database.manager, companyId);
    const wanted = timers.map(({ id, version, plan, survey, site }): Wanted => {
      const on = todayIn(site.timeZone, now);
      const edition = rules.get(site.rulesId);
      const parts = [this.edition, version, site.version, site.rulesId, edition?.version];
      return {
        id,
        basis: parts.join(' '),
        question: { record: { plan, survey }, rules: edition?.rules ?? null, house: site, on },
      };
    });
    const known = await this.kept(companyId, wanted);
    if (known.size === wanted.length) return known;
    return this.inTurn(companyId, () => this.complete(companyId, wanted));
  }

  private async kept(
    companyId: string,
    wanted: readonly Wanted[],
  ): Promise<Map<string, TimerStanding>> {
    const rows = await this.database.manager.findBy(StandingRow, { companyId });
    const byId = new Map(rows.map((row) => [row.id, row]));
    return new Map(
      wanted.flatMap(({ id, basis, question: { on } }) => {
        const row = byId.get(id);
        // It was worked out for a date, and holds until another.
        const holds = row?.basis === basis && row.from <= on && on <= row.standing.until;
        return holds ? [[id, row.standing]] : [];
      }),
    );
  }

  private async complete(
    companyId: string,
    wanted: readonly Wanted[],
  ): Promise<ReadonlyMap<string, TimerStanding>> {
    const known = await this.kept(companyId, wanted);
    const missing = wanted.filter(({ id }) => !known.has(id));
    for (let first = 0; first < missing.length; first += AT_ONCE) {
      const part = missing.slice(first, first + AT_ONCE);
      const standings = await this.workedOut(
        companyId,
        part.map(({ question }) => question),
      );
      const rows = part.flatMap(({ id, basis, question: { on: from } }, i) => {
        const standing = standings[i];
        return standing ? [{ companyId, id, basis, from, standing }] : [];
      });
      for (const { id, standing } of rows) known.set(id, standing);
      await this.database.manager.upsert(StandingRow, rows, ['companyId', 'id']);
    }
    return known;
  }

  /** One timer that is too much does not keep the answer about the others. */
  private async workedOut(
    companyId: string,
    questions: readonly Question[],
  ): Promise<readonly TimerStanding[]> {
    try {
      return await this.work.run(companyId, 'standings', questions);
    } catch (error) {
      if (!(error instanceof ApiError) || error.code !== 'too-much-work') throw error;
      const [first] = questions;
      if (first && questions.length === 1) return [tooMuch(first.on)];
      const each: TimerStanding[] = [];
      for (const one of questions) each.push(...(await this.workedOut(companyId, [one])));
      return each;
    }
  }

  private async inTurn<T>(companyId: string, work: () => Promise<T>): Promise<T> {
    const before = this.turns.get(companyId) ?? Promise.resolve();
    const mine = before.then(work, work);
    this.turns.set(companyId, mine);
    try {
      return await mine;
    } finally {
      if (this.turns.get(companyId) === mine) this.turns.delete(companyId);
    }
  }
}
