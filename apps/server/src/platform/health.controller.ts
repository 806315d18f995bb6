import { Controller, Get } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Public } from '../people/session.guard.ts';

@Controller('health')
export class HealthController {
  constructor(private readonly database: DataSource) {}

  /** Answers once the server can reach its database. */
  @Public()
  @Get()
  async health(): Promise<{ ok: true }> {
    await this.database.query('select 1');
    return { ok: true };
  }
}
