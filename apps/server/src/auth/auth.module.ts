import { Global, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Tries } from './tries.ts';
import { AccountController } from './account.controller.ts';
import { AccountService } from './account.service.ts';
import { ApiToken } from './api-token.entity.ts';
import { ApiTokensController } from './api-tokens.controller.ts';
import { ApiTokensService } from './api-tokens.service.ts';
import { Company } from '../identity/company.entity.ts';
import { Person } from '../identity/person.entity.ts';
import { SessionController } from './session.controller.ts';
import { Session } from './session.entity.ts';
import { SessionGuard } from './session.guard.ts';
import { SessionService } from './session.service.ts';
import { Who } from './who.ts';

/** Sign-in, sessions, passwords, second factors and personal tokens, and the guard for every route. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([Company, Person, Session, ApiToken])],
  controllers: [SessionController, AccountController, ApiTokensController],
  providers: [
    SessionService,
    Who,
    AccountService,
    ApiTokensService,
    Tries,
    { provide: APP_GUARD, useClass: SessionGuard },
  ],
  exports: [SessionService, Who, Tries],
})
export class AuthModule {}
