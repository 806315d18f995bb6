import { Module } from '@nestjs/common';
import { ArchiveController } from './archive.controller.ts';
import { ArchiveService } from './archive.service.ts';

/** Sites as ZIP files. */
@Module({
  controllers: [ArchiveController],
  providers: [ArchiveService],
})
export class ArchiveModule {}
