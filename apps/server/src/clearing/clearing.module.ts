import { Module } from '@nestjs/common';
import { ClearingService } from './clearing.service.ts';
import { ReplansModule } from '../replans/replans.module.ts';
import { StandingsModule } from '../standings/standings.module.ts';
import { Nightly } from './nightly.ts';

/** What is done at fixed times: the clearing of what nobody can use any more each night, and what a new date changes each hour. */
@Module({ imports: [StandingsModule, ReplansModule], providers: [ClearingService, Nightly] })
export class ClearingModule {}
