import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { PageLink } from './page-link.entity.ts';
import { LinksController } from './links.controller.ts';
import { PagesController } from './pages.controller.ts';
import { PagesService } from './homeowner-pages.service.ts';

/** The homeowner's page and its private links. */
@Module({
  imports: [TypeOrmModule.forFeature([PageLink])],
  controllers: [LinksController, PagesController],
  providers: [PagesService],
})
export class PagesModule {}
