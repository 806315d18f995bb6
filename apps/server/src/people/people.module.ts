import { Global, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Tries } from '../platform/tries.ts';
import { Company } from './company.entity.ts';
import { Person } from './person.entity.ts';
import { SessionController } from './session.controller.ts';
import { Session } from './session.entity.ts';
import { SessionGuard } from './session.guard.ts';
import { SessionService } from './session.service.ts';

/** Companies, their people, and who is signed in. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([Company, Person, Session])],
  controllers: [SessionController],
  providers: [SessionService, Tries, { provide: APP_GUARD, useClass: SessionGuard }],
  exports: [Tries],
})
export class PeopleModule {}
