import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LibraryEntry } from './library-entry.entity.ts';
import { LibraryController } from './library.controller.ts';
import { LibraryService } from './library.service.ts';

/** The company's library. */
@Module({
  imports: [TypeOrmModule.forFeature([LibraryEntry])],
  controllers: [LibraryController],
  providers: [LibraryService],
})
export class LibraryModule {}
