import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { MailController } from './mail.controller.ts';
import { Mail } from './mail.entity.ts';
import { MailService } from './mail.service.ts';

/** What the application writes to people. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([Mail])],
  controllers: [MailController],
  providers: [MailService],
  exports: [MailService],
})
export class MailModule {}
