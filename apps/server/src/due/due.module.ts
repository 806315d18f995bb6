import { Module } from '@nestjs/common';
import { StandingsModule } from '../standings/standings.module.ts';
import { DueController } from './due.controller.ts';
import { DueService } from './due.service.ts';

/** When somebody has to come back. */
@Module({
  imports: [StandingsModule],
  controllers: [DueController],
  providers: [DueService],
})
export class DueModule {}
