import { Controller, Get } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Answers } from '../platform/openapi.ts';
import { Public } from '../platform/public.ts';

@Controller('health')
export class HealthController {
  constructor(private readonly database: DataSource) {}

  /** Answers once the server can reach its database. */
  @Answers({ schema: 'Health', open: true })
  @Public()
  @Get()
  async health(): Promise<{ ok: true }> {
    await this.database.query('select 1');
    return { ok: true };
  }
}
