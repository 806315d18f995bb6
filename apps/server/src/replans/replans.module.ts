import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { WeatherModule } from '../weather/weather.module.ts';
import { ProposalsModule } from '../proposals/proposals.module.ts';
import { AcceptanceService } from './acceptance.service.ts';
import { Replan, ReplanTimer } from './replan.entity.ts';
import { ReplanningService } from './replanning.service.ts';
import { ReplansController } from './replans.controller.ts';
import { ReplansService } from './replans.service.ts';

/** Replans: new plans for many timers when rules or the month change. */
@Module({
  imports: [TypeOrmModule.forFeature([Replan, ReplanTimer]), WeatherModule, ProposalsModule],
  controllers: [ReplansController],
  providers: [ReplansService, ReplanningService, AcceptanceService],
  exports: [ReplanningService, AcceptanceService],
})
export class ReplansModule {}
