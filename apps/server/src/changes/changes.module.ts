import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Change } from './change.entity.ts';

/** The record of who changed what. */
@Module({
  imports: [TypeOrmModule.forFeature([Change])],
})
export class ChangesModule {}
