import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { JoinController } from './join.controller.ts';
import { LinksService } from './links.service.ts';
import { MembersService } from './members.service.ts';
import { PersonLink } from './person-link.entity.ts';
import { InvitationsController, PeopleController } from './team.controller.ts';

/** Who comes into a firm, as what, and who leaves it. */
@Module({
  imports: [TypeOrmModule.forFeature([PersonLink])],
  controllers: [PeopleController, InvitationsController, JoinController],
  providers: [MembersService, LinksService],
})
export class TeamModule {}
