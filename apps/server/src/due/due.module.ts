import { Module } from '@nestjs/common';
import { DueController } from './due.controller.ts';
import { DueService } from './due.service.ts';

/** When somebody has to come back. */
@Module({
  controllers: [DueController],
  providers: [DueService],
})
export class DueModule {}
