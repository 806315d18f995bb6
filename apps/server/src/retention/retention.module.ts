import { Module } from '@nestjs/common';
import { RetentionService } from './retention.service.ts';
import { ReplansModule } from '../replans/replans.module.ts';
import { TimerStatusModule } from '../timer-status/timer-status.module.ts';
import { Nightly } from './nightly.ts';

/** Scheduled work: nightly deletion of data that is no longer needed, and hourly updates for new dates. */
@Module({ imports: [TimerStatusModule, ReplansModule], providers: [RetentionService, Nightly] })
export class RetentionModule {}
