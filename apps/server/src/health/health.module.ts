import { Module } from '@nestjs/common';
import { TerminusModule } from '@nestjs/terminus';
import { Drain } from '../http/drain.ts';
import { HealthController } from './health.controller.ts';

/** Health checks and orderly shutdown. */
@Module({
  imports: [TerminusModule.forRoot({ logger: false })],
  controllers: [HealthController],
  providers: [Drain],
  exports: [Drain],
})
export class HealthModule {}
