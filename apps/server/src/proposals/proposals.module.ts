import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Proposal } from './proposal.entity.ts';
import { LeftBehindController } from './left-behind.controller.ts';
import { ProposalsController } from './proposals.controller.ts';
import { ProposalsService } from './proposals.service.ts';

/** Suggestions by people who may not change timers. */
@Module({
  imports: [TypeOrmModule.forFeature([Proposal])],
  controllers: [ProposalsController, LeftBehindController],
  providers: [ProposalsService],
  exports: [ProposalsService],
})
export class ProposalsModule {}
