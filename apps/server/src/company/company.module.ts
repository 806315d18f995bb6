import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { CompanyController } from './company.controller.ts';
import { CompanyService } from './company.service.ts';
import { JoinController } from './join.controller.ts';
import { LinksService } from './links.service.ts';
import { MembersService } from './members.service.ts';
import { NewCompanyController } from './new-company.controller.ts';
import { NewCompanyService } from './new-company.service.ts';
import { InvitationsController, PeopleController } from './people.controller.ts';
import { PersonLink } from './person-link.entity.ts';

/** A company: creation, settings, joining, roles and leaving. */
@Module({
  imports: [TypeOrmModule.forFeature([PersonLink])],
  controllers: [
    CompanyController,
    NewCompanyController,
    PeopleController,
    InvitationsController,
    JoinController,
  ],
  providers: [CompanyService, NewCompanyService, MembersService, LinksService],
})
export class CompanyModule {}
