import { Module } from '@nestjs/common';
import { RetentionService } from './retention.service.ts';
import { ReplansModule } from '../replans/replans.module.ts';
import { TimerStatusModule } from '../timer-status/timer-status.module.ts';
import { Nightly } from './nightly.ts';

/** What is done at fixed times: the clearing of what nobody can use any more each night, and what a new date changes each hour. */
@Module({ imports: [TimerStatusModule, ReplansModule], providers: [RetentionService, Nightly] })
export class RetentionModule {}
