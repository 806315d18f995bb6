import { Module } from '@nestjs/common';
import { HousesController } from './houses.controller.ts';
import { ImportsService } from './imports.service.ts';
import { ManyService } from './many.service.ts';
import { HousesService } from './houses.service.ts';

/** Sites with several timers: placing, archiving and deleting. */
@Module({
  controllers: [HousesController],
  providers: [HousesService, ImportsService, ManyService],
})
export class HousesModule {}
