import { Module } from '@nestjs/common';
import { ArchiveController } from './archive.controller.ts';
import { ArchiveService } from './archive.service.ts';

/** A whole site as a ZIP file. */
@Module({
  controllers: [ArchiveController],
  providers: [ArchiveService],
})
export class ArchiveModule {}
