import { setTimeout as wait } from 'node:timers/promises';
import {
  Injectable,
  Logger,
  type BeforeApplicationShutdown,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import { Subject } from 'rxjs';
import { CHANNEL, type Told } from '../changes/tell.ts';
import { touch, touchAll } from '../changes/ticks.ts';
import { SteadyClient } from '../database/database.ts';
import { Settings } from '../platform/settings.ts';

const AGAIN_AFTER_MS = 1_000;
const TOUCHING: ReadonlySet<Told['kind']> = new Set(['changed', 'stale', 'checked']);

/** Listens to the notifications of all servers on this database, on its own connection, which is reopened when it breaks. */
@Injectable()
export class Listener implements OnApplicationBootstrap, BeforeApplicationShutdown {
  /** A notification; null: some may have been lost. */
  readonly told = new Subject<Told | null>();
  private readonly logger = new Logger('Listener');
  private client: SteadyClient | null = null;
  private isOver = false;

  constructor(private readonly settings: Settings) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.connect().catch((error: unknown) => this.lost(error));
  }

  private async connect(): Promise<void> {
    const client = new SteadyClient({
      connectionString: this.settings.databaseUrl,
      application_name: 'water-clock events',
      keepAlive: true,
    });
    client.once('error', (error) => this.lost(error, client));
    client.once('end', () => this.lost('the connection ended', client));
    client.on('notification', ({ payload = '' }) => {
      // Safe cast: only our own servers notify on this channel.
      const told = JSON.parse(payload) as Told;
      if (TOUCHING.has(told.kind)) touch(told.companyId);
      this.told.next(told);
    });
    await client.connect();
    await client.query(`listen ${CHANNEL}`);
    if (this.isOver) await client.end();
    else this.client = client;
  }

  private lost(why: unknown, client: SteadyClient | null = null): void {
    if (this.isOver || (client !== null && client !== this.client)) return;
    this.client = null;
    this.logger.warn(`${String(why)}; listening again`);
    void this.again();
  }

  private async again(): Promise<void> {
    await wait(AGAIN_AFTER_MS, undefined, { ref: false });
    if (this.isOver) return;
    try {
      await this.connect();
      touchAll();
      this.told.next(null);
    } catch (error) {
      this.lost(error);
    }
  }

  async beforeApplicationShutdown(): Promise<void> {
    this.isOver = true;
    this.told.complete();
    await this.client?.end().catch(() => undefined);
  }
}
