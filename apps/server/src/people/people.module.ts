import { Global, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Tries } from '../platform/tries.ts';
import { AccountController } from './account.controller.ts';
import { AccountService } from './account.service.ts';
import { ApiToken } from './api-token.entity.ts';
import { ApiTokensController } from './api-tokens.controller.ts';
import { ApiTokensService } from './api-tokens.service.ts';
import { AuditController } from './audit.controller.ts';
import { AuditRow } from './audit.entity.ts';
import { AuditService } from './audit.service.ts';
import { Company } from './company.entity.ts';
import { Person } from './person.entity.ts';
import { SessionController } from './session.controller.ts';
import { Session } from './session.entity.ts';
import { SessionGuard } from './session.guard.ts';
import { SessionService } from './session.service.ts';
import { Who } from './who.ts';

/** Companies, their people, who is signed in, and the record of who came in. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([Company, Person, Session, ApiToken, AuditRow])],
  controllers: [SessionController, AccountController, ApiTokensController, AuditController],
  providers: [
    SessionService,
    Who,
    AccountService,
    ApiTokensService,
    AuditService,
    Tries,
    { provide: APP_GUARD, useClass: SessionGuard },
  ],
  exports: [AuditService, SessionService, Who, Tries],
})
export class PeopleModule {}
