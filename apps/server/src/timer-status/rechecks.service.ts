import { createHash, randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { parseDate, unprovenStatus, type EpochDay, type TimerStatus } from '@water-clock/core';
import { DataSource, In } from 'typeorm';
import { tell } from '../changes/tell.ts';
import { touch } from '../changes/ticks.ts';
import { Listener } from '../events/listener.service.ts';
import { Company } from '../identity/company.entity.ts';
import { ApiError } from '../http/api-error.ts';
import { Settings } from '../platform/settings.ts';
import { rulesOfCompany } from '../sites/site-rules.ts';
import { Timer } from '../sites/timer.entity.ts';
import { todayIn } from '../sites/today.ts';
import { WeatherFeed } from '../weather/weather-feed.ts';
import type { InputOf } from '../work/tasks.ts';
import { WorkService } from '../work/work.service.ts';
import { DueVisitRow } from './due-visit.entity.ts';
import { keptOf } from './kept.ts';
import { TimerStatusRow } from './timer-status.entity.ts';
import { zonesOf } from './zones.ts';

/** Timers in one batch; an ordinary one takes a few hundredths of a second. */
const IN_A_PIECE = 8;
/** Batches for each thread that a server claims at once. */
const PIECES_AHEAD = 2;
/** Longer than a batch takes. Another server takes over what a dead server left. */
const CLAIMED_SECONDS = 90;

type Question = InputOf<'statuses'>[number];

/** SHA-256 of the built core: another release may calculate another status. */
function engineEdition(): string {
  const folder = path.dirname(fileURLToPath(import.meta.resolve('@water-clock/core')));
  const hash = createHash('sha256');
  for (const name of fs.readdirSync(folder, { recursive: true, encoding: 'utf8' }).sort())
    if (name.endsWith('.js')) hash.update(fs.readFileSync(path.join(folder, name)));
  return hash.digest('base64url').slice(0, 12);
}

/** A claimed timer, with the mark it had before it was read. */
interface Claim {
  readonly id: string;
  readonly mark: number;
}

/** Skips rows locked by a write: the answer would be old at once, and waiting might never end. $1: company, $2: timers. */
const UNTOUCHED = `select st.id from timer_status st join timers t on t.company_id = st.company_id and t.id = st.id
  where st.company_id = $1 and st.id = any($2) order by st.id
  for update of st skip locked for key share of t skip locked`;

const FREE = '(claimed_until is null or claimed_until < now())';

/** Some of a company's timers that are out of date. $1: company, $2: seconds, $3: how many. */
const claiming = (tables: string, condition: string) => `update timer_status
  set claimed_until = now() + make_interval(secs => $2)
  where company_id = $1 and id in (
    select st.id from ${tables} where st.company_id = $1 and st.listed and ${FREE} and ${condition}
    order by st.id limit $3 for update of st skip locked)
  returning id, mark`;
const CHANGED = claiming('timer_status st', 'st.stale');
const OUT_OF_DATE = claiming(
  'unnest($4::text[], $5::int[]) as z (zone, today) join timer_status st on st.time_zone = z.zone',
  'st.until_day < z.today',
);

/**
 * Keeps timer status up to date: timers that changed, or whose dates have passed, are recalculated in threads. Servers share the work by
 * claims.
 */
@Injectable()
export class RechecksService implements OnApplicationBootstrap {
  readonly engine = engineEdition();
  private readonly logger = new Logger('Rechecks');
  /** The last run of each company, and whether another was requested. */
  private readonly turns = new Map<string, { done: Promise<void>; again: boolean }>();

  constructor(
    private readonly database: DataSource,
    private readonly work: WorkService,
    private readonly weather: WeatherFeed,
    private readonly listener: Listener,
    private readonly settings: Settings,
  ) {}

  onApplicationBootstrap(): void {
    this.listener.told.subscribe((told) => {
      if (told === null) void this.everywhere();
      else if (told.kind === 'changed' || told.kind === 'stale') void this.soon(told.companyId);
    });
    if (this.settings.jobs) void this.everywhere();
  }

  /** For passing dates, missed notifications, results of another release, and clocks set back. */
  async everywhere(now = new Date()): Promise<void> {
    try {
      const companies = await this.database.manager.find(Company, { select: { id: true } });
      for (const { id } of companies) {
        const { zones, todays } = await zonesOf(this.database, id, now);
        await this.database.query(
          `update timer_status st set stale = true
           from unnest($2::text[], $3::int[]) as z (zone, today)
           where st.company_id = $1 and z.zone = st.time_zone and not st.stale
             and (st.engine <> $4 or st.from_day > z.today)`,
          [id, zones, todays, this.engine],
        );
        await this.soon(id, now);
      }
    } catch (error) {
      this.logger.warn(error);
    }
  }

  /** Brings all timers of a company up to date, including changes made in the meantime. Never throws. */
  soon(companyId: string, now?: Date): Promise<void> {
    const running = this.turns.get(companyId);
    if (running) {
      running.again = true;
      return running.done;
    }
    const turn = { again: false, done: Promise.resolve() };
    turn.done = this.inTurn(companyId, turn, now).finally(() => this.turns.delete(companyId));
    this.turns.set(companyId, turn);
    return turn.done;
  }

  private async inTurn(
    companyId: string,
    turn: { again: boolean },
    now: Date | undefined,
  ): Promise<void> {
    try {
      do {
        turn.again = false;
        while (await this.batch(companyId, now ?? new Date()));
      } while (turn.again);
    } catch (error) {
      // The claims expire, and the next request starts again.
      this.logger.warn(error);
    }
  }

  /** @returns whether there was anything to do */
  private async batch(companyId: string, now: Date): Promise<boolean> {
    const claims = await this.claim(companyId, now);
    if (claims.length === 0) return false;
    const ids = claims.map(({ id }) => id);
    const { manager } = this.database;
    const [timers, rules, towns, lastVisits] = await Promise.all([
      manager.find(Timer, { where: { companyId, id: In(ids) }, relations: { site: true } }),
      rulesOfCompany(manager, companyId),
      this.weather.towns(),
      this.lastVisits(companyId, ids),
    ]);
    const marks = new Map(claims.map(({ id, mark }) => [id, mark]));
    const townNames = new Map(towns.map(({ id, name }) => [id, name]));
    const pieceFrom = async (at: number) => {
      const piece = timers.slice(at, at + IN_A_PIECE);
      const statuses = await this.workedOut(
        piece.map(({ plan, survey, site }) => ({
          record: { plan, survey },
          rules: rules.get(site.rulesId) ?? null,
          house: site,
          on: todayIn(site.timeZone, now),
        })),
      );
      const kept = piece.flatMap((timer, i) => {
        const status = statuses[i];
        const town = townNames.get(timer.site.town ?? '') ?? '';
        const mark = marks.get(timer.id) ?? 0;
        return status
          ? [{ ...keptOf(timer, status, town, lastVisits.get(timer.id) ?? null), timer, mark }]
          : [];
      });
      await this.save(companyId, kept);
    };
    const starts = timers.flatMap((_, at) => (at % IN_A_PIECE === 0 ? [at] : []));
    await Promise.all(starts.map(pieceFrom));
    return true;
  }

  private async save(
    companyId: string,
    kept: readonly (ReturnType<typeof keptOf> & {
      readonly timer: Timer;
      readonly mark: number;
    })[],
  ): Promise<void> {
    const { engine } = this;
    const saved = await this.database.transaction(async (database) => {
      const rows: { id: string }[] = await database.query(UNTOUCHED, [
        companyId,
        kept.map(({ timer }) => timer.id),
      ]);
      const mine = kept.filter(({ timer }) => rows.some(({ id }) => id === timer.id));
      if (mine.length === 0) return mine;
      for (const { timer, mark, row } of mine)
        await database.update(
          TimerStatusRow,
          { companyId, id: timer.id },
          { ...row, engine, claimedUntil: null, stale: () => `mark <> ${mark}` },
        );
      const ids = mine.map(({ timer }) => timer.id);
      await database.delete(DueVisitRow, { companyId, timerId: In(ids) });
      await database.insert(
        DueVisitRow,
        mine.flatMap(({ timer, due }) =>
          due.map((one) => ({ companyId, id: randomUUID(), timerId: timer.id, ...one })),
        ),
      );
      await tell(database, { kind: 'checked', companyId });
      return mine;
    });
    touch(companyId);
    const left = kept.filter((one) => !saved.includes(one)).map(({ timer }) => timer.id);
    if (left.length > 0)
      await this.database.manager.update(
        TimerStatusRow,
        { companyId, id: In(left) },
        { claimedUntil: null },
      );
  }

  /** Claims some timers that are out of date and not claimed. */
  private async claim(companyId: string, now: Date): Promise<readonly Claim[]> {
    const most = this.settings.workers * PIECES_AHEAD * IN_A_PIECE;
    const values = [companyId, CLAIMED_SECONDS, most];
    // For an update, the driver returns the rows and their count.
    const [changed]: [Claim[], number] = await this.database.query(CHANGED, values);
    if (changed.length > 0) return changed;
    const { zones, todays } = await zonesOf(this.database, companyId, now);
    const [old]: [Claim[], number] = await this.database.query(OUT_OF_DATE, [
      ...values,
      zones,
      todays,
    ]);
    return old;
  }

  /** Date of each timer's last closed visit. */
  private async lastVisits(
    companyId: string,
    ids: readonly string[],
  ): Promise<ReadonlyMap<string, EpochDay | null>> {
    const rows: { timer_id: string; began: string }[] = await this.database.query(
      `select timer_id, to_char(max(began), 'YYYY-MM-DD') as began
       from visits where company_id = $1 and timer_id = any($2) group by timer_id`,
      [companyId, ids],
    );
    return new Map(rows.map(({ timer_id, began }) => [timer_id, parseDate(began)]));
  }

  /** One timer that takes too long must not hold up the others. */
  private async workedOut(questions: readonly Question[]): Promise<readonly TimerStatus[]> {
    try {
      return await this.work.run('', 'statuses', questions, { inBackground: true });
    } catch (error) {
      if (!(error instanceof ApiError) || error.code !== 'too-much-work') throw error;
      const [first] = questions;
      if (first && questions.length === 1) return [unprovenStatus(first.record.plan, first.on)];
      const each: TimerStatus[] = [];
      for (const one of questions) each.push(...(await this.workedOut([one])));
      return each;
    }
  }

  /** Waits for a company's recalculation, but no longer than people wait for a list. */
  async within(companyId: string, milliseconds: number): Promise<void> {
    const patience = new AbortController();
    await Promise.race([
      this.soon(companyId),
      wait(milliseconds, undefined, { signal: patience.signal }).catch(() => undefined),
    ]);
    patience.abort();
  }
}
