import { Module } from '@nestjs/common';
import { HealthController } from './health.controller.ts';

/** Whether the server is up. */
@Module({
  controllers: [HealthController],
})
export class HealthModule {}
