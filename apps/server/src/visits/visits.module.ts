import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { CommentsService } from './comments.service.ts';
import { VisitComment } from './visit-comment.entity.ts';
import { VisitRow } from './visit.entity.ts';
import { VisitsController } from './visits.controller.ts';
import { VisitsService } from './visits.service.ts';

/** The logbook: closed visits. */
@Module({
  imports: [TypeOrmModule.forFeature([VisitRow, VisitComment])],
  controllers: [VisitsController],
  providers: [VisitsService, CommentsService],
})
export class VisitsModule {}
