import { Module } from '@nestjs/common';
import { TimersController } from './timers.controller.ts';
import { TimersService } from './timers.service.ts';

/** What is set on a timer and found out about it, change by change. */
@Module({
  controllers: [TimersController],
  providers: [TimersService],
  exports: [TimersService],
})
export class TimersModule {}
