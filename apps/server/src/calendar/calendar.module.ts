import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { TimerStatusModule } from '../timer-status/timer-status.module.ts';
import { CalendarFilesService } from './calendar-files.service.ts';
import { CalendarController } from './calendar.controller.ts';
import { CalendarService } from './calendar.service.ts';
import { CalendarLink, DayOrder, Stop } from './stop.entity.ts';

/** Who has to come back, when, and in which order. */
@Module({
  imports: [TypeOrmModule.forFeature([Stop, DayOrder, CalendarLink]), TimerStatusModule],
  controllers: [CalendarController],
  providers: [CalendarService, CalendarFilesService],
})
export class CalendarModule {}
