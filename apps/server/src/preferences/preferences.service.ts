import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { fingerprintOf, record, repeatedWrite } from '../changes/record.ts';
import type { Actor } from '../people/actor.ts';
import { Person } from '../people/person.entity.ts';
import type { PreferencesView } from '../people/preferences.ts';
import { ApiError } from '../platform/api-error.ts';
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
    const changeId = id.toLowerCase();
    const fingerprint = fingerprintOf(['preferences', personId, baseVersion, preferences]);
    return this.database.transaction(async (database) => {
      const person = await database.findOneOrFail(Person, {
        where: key,
        lock: { mode: 'pessimistic_write' },
      });
      const last = { version: person.version, preferences: person.preferences };
      if (await repeatedWrite(database, actor, changeId, fingerprint)) return last;
      if (last.version !== baseVersion)
        throw new ApiError({
          code: 'stale-version',
          message: `your preferences were changed elsewhere: they are now at version ${last.version}; your change was based on version ${baseVersion}`,
          current: last,
        });
      const version = last.version + 1;
      const now = { ...preferences };
      await database.update(Person, key, { version, preferences: now });
      await record(database, actor, {
        id: changeId,
        subject: 'person',
        subjectId: personId,
        version,
        fingerprint,
      });
      return { version, preferences: now };
    });
  }
}
