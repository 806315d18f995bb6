import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { PracticeResult } from './practice-result.entity.ts';
import { PracticeController } from './practice.controller.ts';
import { PracticeService } from './practice.service.ts';

/** Practice on the bench. */
@Module({
  imports: [TypeOrmModule.forFeature([PracticeResult])],
  controllers: [PracticeController],
  providers: [PracticeService],
})
export class PracticeModule {}
