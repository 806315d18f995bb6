import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { EventsModule } from '../events/events.module.ts';
import { FactsService } from './facts.service.ts';
import { ReportsController } from './reports.controller.ts';
import { ReportsService } from './reports.service.ts';
import { VisitFactsRow } from './visit-facts.entity.ts';

/** Reports for owners. */
@Module({
  imports: [TypeOrmModule.forFeature([VisitFactsRow]), EventsModule],
  controllers: [ReportsController],
  providers: [ReportsService, FactsService],
})
export class ReportsModule {}
