import {
  Injectable,
  Logger,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import PgBoss from 'pg-boss';
import { makingQueues } from '../database/database.ts';
import { AcceptanceService } from '../replans/acceptance.service.ts';
import { ReplanningService } from '../replans/replanning.service.ts';
import { RechecksService } from '../timer-status/rechecks.service.ts';
import { Settings } from '../platform/settings.ts';
import { RetentionService } from './retention.service.ts';

const LOOK_EVERY_SECONDS = 30;

/** Runs scheduled jobs; of several servers on one database, one runs each. */
@Injectable()
export class Nightly implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('Nightly');
  private boss: PgBoss | null = null;

  constructor(
    private readonly clearing: RetentionService,
    private readonly rechecks: RechecksService,
    private readonly replanning: ReplanningService,
    private readonly acceptance: AcceptanceService,
    private readonly settings: Settings,
  ) {}

  /** Jobs by name, each with its schedule (UTC). */
  private readonly jobs: Readonly<
    Record<string, { readonly at: string; readonly work: () => Promise<void> }>
  > = {
    'nightly-clearing': {
      at: '30 2 * * *',
      work: async () => this.logger.log({ cleared: await this.clearing.clear() }),
    },
    // Somewhere a new day starts every hour, with new dates and rules.
    'hourly-checks': {
      at: '1 * * * *',
      work: async () => {
        await this.rechecks.everywhere();
        await this.replanning.everywhere();
        await this.acceptance.everywhere();
      },
    },
  };

  async onApplicationBootstrap(): Promise<void> {
    if (!this.settings.jobs) return;
    const boss = new PgBoss({ connectionString: this.settings.databaseUrl, max: 2 });
    // The database is in trouble; the job runs again once it is over.
    boss.on('error', (error) => this.logger.warn(error));
    const jobs = Object.entries(this.jobs);
    await makingQueues(this.settings, async () => {
      await boss.start();
      for (const [name, { at }] of jobs) {
        await boss.createQueue(name);
        await boss.schedule(name, at);
      }
    });
    for (const [name, { work }] of jobs)
      await boss.work(name, { pollingIntervalSeconds: LOOK_EVERY_SECONDS }, work);
    this.boss = boss;
  }

  async beforeApplicationShutdown(): Promise<void> {
    await this.boss?.stop({ graceful: true, timeout: this.settings.drainSeconds * 1000 });
  }
}
