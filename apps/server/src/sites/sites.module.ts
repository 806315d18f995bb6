import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Site } from './site.entity.ts';
import { StandingRow } from './standing.entity.ts';
import { StandingsService } from './standings.service.ts';
import { Timer } from './timer.entity.ts';
import { SitesController } from './sites.controller.ts';
import { SitesService } from './sites.service.ts';

/** Houses, the timers at them, and how those stand. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([Site, Timer, StandingRow])],
  controllers: [SitesController],
  providers: [SitesService, StandingsService],
  exports: [StandingsService],
})
export class SitesModule {}
