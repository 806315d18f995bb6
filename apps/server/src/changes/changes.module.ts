import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Change } from './change.entity.ts';

/** The record of changes. */
@Module({
  imports: [TypeOrmModule.forFeature([Change])],
})
export class ChangesModule {}
