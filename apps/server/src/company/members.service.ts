import { say } from '@water-clock/core';
import { Injectable } from '@nestjs/common';
import { DataSource, IsNull, type EntityManager } from 'typeorm';
import { idempotentWrite } from '../changes/record.ts';
import type { Actor } from '../identity/actor.ts';
import { AuditService } from '../audit/audit.service.ts';
import { Company } from '../identity/company.entity.ts';
import { Person, type Role } from '../identity/person.entity.ts';
import { Site } from '../sites/site.entity.ts';
import { ApiError, notFound } from '../http/api-error.ts';
import type { WriteBody } from '../http/write-body.ts';
import type { RoleBody } from './people-body.ts';

export interface MemberView {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  /** Version of role and membership. */
  readonly version: number;
  readonly secondFactor: boolean;
  /** ISO instant; null while a member. */
  readonly takenOutAt: string | null;
}

const memberView = (person: Person): MemberView => ({
  id: person.id,
  name: person.name,
  email: person.email,
  role: person.role,
  version: person.memberVersion,
  secondFactor: person.secondFactor !== null,
  takenOutAt: person.takenOutAt?.toISOString() ?? null,
});

type Columns = Partial<Pick<Person, 'role' | 'takenOutAt' | 'secondFactor' | 'secondFactorStep'>>;

/** The members of a company and their roles. */
@Injectable()
export class MembersService {
  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
  ) {}

  /** Everyone by name, including removed people, whose names stay on their work. */
  async list({ companyId }: Actor): Promise<readonly MemberView[]> {
    const people = await this.database.manager.find(Person, {
      where: { companyId },
      order: { name: 'ASC', id: 'ASC' },
    });
    return people.map(memberView);
  }

  setRole(actor: Actor, id: string, { role, ...body }: RoleBody): Promise<MemberView> {
    return this.change(actor, id, body, 'role-changed', { role });
  }

  /** Ends all their sessions. */
  takeOut(actor: Actor, id: string, body: WriteBody): Promise<MemberView> {
    return this.change(actor, id, body, 'taken-out', { takenOutAt: new Date() });
  }

  /** For someone who lost their phone. */
  dropFactor(actor: Actor, id: string, body: WriteBody): Promise<MemberView> {
    const without = { secondFactor: null, secondFactorStep: null };
    return this.change(actor, id, body, 'second-factor-off', without);
  }

  private change(
    actor: Actor,
    id: string,
    { id: write, baseVersion }: WriteBody,
    what: 'role-changed' | 'taken-out' | 'second-factor-off',
    columns: Columns,
  ): Promise<MemberView> {
    const { companyId, personId } = actor;
    return idempotentWrite(this.database, actor, {
      id: write.toLowerCase(),
      meaning: ['member', id, baseVersion, what, columns.role ?? null],
      again: async (_earlier, database) =>
        memberView(await database.findOneByOrFail(Person, { companyId, id })),
      make: async (database, written) => {
        // One at a time in a company: if two owners remove each other at once, the second is then the last owner and is refused.
        await database.findOne(Company, {
          where: { id: companyId },
          lock: { mode: 'pessimistic_write' },
        });
        const person = await database.findOneBy(Person, { companyId, id, takenOutAt: IsNull() });
        if (!person) throw notFound('person');
        if (person.memberVersion !== baseVersion)
          throw new ApiError({
            code: 'stale-version',
            message: say`someone else changed ${person.name}: now at version ${person.memberVersion}; your change was based on version ${baseVersion}`,
            current: memberView(person),
          });
        const memberVersion = person.memberVersion + 1;
        await database.update(Person, { companyId, id }, { ...columns, memberVersion });
        await assertOwned(database, companyId);
        if (columns.takenOutAt) {
          // The sessions give no access any more, but devices use them to hand in waiting changes.
          await database.update(Site, { companyId, personId: id }, { personId: null });
        }
        await written({ subject: 'member', subjectId: id, version: memberVersion });
        await this.audit.note({ companyId, personId, what, subjectId: id }, database);
        return memberView(await database.findOneByOrFail(Person, { companyId, id }));
      },
    });
  }
}

async function assertOwned(database: EntityManager, companyId: string): Promise<void> {
  if (!(await database.existsBy(Person, { companyId, role: 'owner', takenOutAt: IsNull() })))
    throw new ApiError({
      code: 'last-owner',
      message: say`a company needs an owner; make someone else an owner first`,
    });
}
