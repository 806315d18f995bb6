import { Controller, Get } from '@nestjs/common';
import { HealthCheckService, TypeOrmHealthIndicator } from '@nestjs/terminus';
import { unavailable } from '../http/api-error.ts';
import { Drain } from '../http/drain.ts';
import { Answers } from '../http/openapi.ts';
import { Public } from '../http/public.ts';

/** Monitoring expects an answer within a second, whatever the database does. */
const PATIENCE_MS = 700;

@Public()
@Controller('health')
export class HealthController {
  constructor(
    private readonly health: HealthCheckService,
    private readonly database: TypeOrmHealthIndicator,
    private readonly drain: Drain,
  ) {}

  /** Whether the process responds. If not, restart it. */
  @Answers({ schema: 'Health', open: true })
  @Get('live')
  live(): { ok: true } {
    return { ok: true };
  }

  /** Whether to send requests here: the database is reachable and the server is not stopping. */
  @Answers({ schema: 'Health', open: true })
  @Get(['', 'ready'])
  async ready(): Promise<{ ok: true }> {
    if (this.drain.isDraining) throw unavailable('this server is about to stop');
    try {
      await this.health.check([
        () => this.database.pingCheck('database', { timeout: PATIENCE_MS }),
      ]);
    } catch {
      throw unavailable('the database cannot be reached at the moment');
    }
    return { ok: true };
  }
}
