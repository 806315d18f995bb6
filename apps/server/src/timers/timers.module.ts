import { Module } from '@nestjs/common';
import { TimersController } from './timers.controller.ts';
import { TimersService } from './timers.service.ts';

/** A timer's settings and survey, change by change. */
@Module({
  controllers: [TimersController],
  providers: [TimersService],
  exports: [TimersService],
})
export class TimersModule {}
