import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { VisitRow } from './visit.entity.ts';
import { VisitsController } from './visits.controller.ts';
import { VisitsService } from './visits.service.ts';

/** The logbook: visits that were closed. */
@Module({
  imports: [TypeOrmModule.forFeature([VisitRow])],
  controllers: [VisitsController],
  providers: [VisitsService],
})
export class VisitsModule {}
