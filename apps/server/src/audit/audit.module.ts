import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { AuditController } from './audit.controller.ts';
import { AuditRow } from './audit.entity.ts';
import { AuditService } from './audit.service.ts';

/** The activity log: sign-ins, exports and deletions. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([AuditRow])],
  controllers: [AuditController],
  providers: [AuditService],
  exports: [AuditService],
})
export class AuditModule {}
