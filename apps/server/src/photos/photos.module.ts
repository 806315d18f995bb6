import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Photo } from './photo.entity.ts';
import { PhotosController } from './photos.controller.ts';
import { PhotosService } from './photos.service.ts';

/** Photos of stations and panels. */
@Module({
  imports: [TypeOrmModule.forFeature([Photo])],
  controllers: [PhotosController],
  providers: [PhotosService],
})
export class PhotosModule {}
