import { Controller, Get } from '@nestjs/common';
import { HealthCheckService, TypeOrmHealthIndicator } from '@nestjs/terminus';
import { unavailable } from '../http/api-error.ts';
import { Drain } from '../http/drain.ts';
import { Answers } from '../http/openapi.ts';
import { Public } from '../http/public.ts';

/** Whoever asks wants an answer within a second, whatever the database does. */
const PATIENCE_MS = 700;

@Public()
@Controller('health')
export class HealthController {
  constructor(
    private readonly health: HealthCheckService,
    private readonly database: TypeOrmHealthIndicator,
    private readonly drain: Drain,
  ) {}

  /** Whether the process answers at all; if it does not, start it again. */
  @Answers({ schema: 'Health', open: true })
  @Get('live')
  live(): { ok: true } {
    return { ok: true };
  }

  /** Whether to send requests here: the database can be reached, and the server is not about to stop. */
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
