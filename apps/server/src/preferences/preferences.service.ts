import { say } from '@water-clock/core';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { idempotentWrite } from '../changes/record.ts';
import type { Actor } from '../identity/actor.ts';
import { Person } from '../identity/person.entity.ts';
import type { PreferencesView } from '../identity/preferences.ts';
import { ApiError } from '../http/api-error.ts';
import type { ChangePreferencesBody } from './preferences-body.ts';

@Injectable()
export class PreferencesService {
  constructor(private readonly database: DataSource) {}

  async change(
    actor: Actor,
    { id, baseVersion, preferences }: ChangePreferencesBody,
  ): Promise<PreferencesView> {
    const { companyId, personId } = actor;
    const key = { companyId, id: personId };
    return idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['preferences', personId, baseVersion, preferences],
      again: async (_earlier, database) => {
        const person = await database.findOneByOrFail(Person, key);
        return { version: person.version, preferences: person.preferences };
      },
      make: async (database, written) => {
        const person = await database.findOneOrFail(Person, {
          where: key,
          lock: { mode: 'pessimistic_write' },
        });
        const last = { version: person.version, preferences: person.preferences };
        if (last.version !== baseVersion)
          throw new ApiError({
            code: 'stale-version',
            message: say`your preferences were changed on another device: they are now at version ${last.version}; your change was based on version ${baseVersion}`,
            current: last,
          });
        const version = last.version + 1;
        const now = { ...preferences };
        await database.update(Person, key, { version, preferences: now });
        await written({ subject: 'person', subjectId: personId, version });
        return { version, preferences: now };
      },
    });
  }
}
