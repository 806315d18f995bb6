import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { EventsModule } from '../events/events.module.ts';
import { WeatherModule } from '../weather/weather.module.ts';
import { DueVisitRow } from './due-visit.entity.ts';
import { LinesController } from './lines.controller.ts';
import { LinesService } from './lines.service.ts';
import { RechecksService } from './rechecks.service.ts';
import { TimerStatusRow } from './timer-status.entity.ts';

/** Timer status: kept up to date in the background, and listed. */
@Module({
  imports: [TypeOrmModule.forFeature([TimerStatusRow, DueVisitRow]), EventsModule, WeatherModule],
  controllers: [LinesController],
  providers: [RechecksService, LinesService],
  exports: [RechecksService, LinesService],
})
export class TimerStatusModule {}
