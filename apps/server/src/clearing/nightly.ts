import {
  Injectable,
  Logger,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import PgBoss from 'pg-boss';
import { makingQueues } from '../database/database.ts';
import { Settings } from '../platform/settings.ts';
import { ClearingService } from './clearing.service.ts';

const QUEUE = 'nightly-clearing';
/** At 2:30 (UTC). */
const WHEN = '30 2 * * *';
const LOOK_EVERY_SECONDS = 30;

/** Calls the clearing each night; of several servers on one database one does it. */
@Injectable()
export class Nightly implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('Nightly');
  private boss: PgBoss | null = null;

  constructor(
    private readonly clearing: ClearingService,
    private readonly settings: Settings,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    if (!this.settings.jobs) return;
    const boss = new PgBoss({ connectionString: this.settings.databaseUrl, max: 2 });
    // Trouble with the database; it goes on by itself when that is over.
    boss.on('error', (error) => this.logger.warn(error));
    await makingQueues(this.settings, async () => {
      await boss.start();
      await boss.createQueue(QUEUE);
      await boss.schedule(QUEUE, WHEN);
    });
    await boss.work(QUEUE, { pollingIntervalSeconds: LOOK_EVERY_SECONDS }, async () => {
      this.logger.log({ cleared: await this.clearing.clear() });
    });
    this.boss = boss;
  }

  async beforeApplicationShutdown(): Promise<void> {
    await this.boss?.stop({ graceful: true, timeout: this.settings.drainSeconds * 1000 });
  }
}
