import { Injectable } from '@nestjs/common';
import { emptyPlan, SHIPPED_KINDS, siteFields, type TimerKind, say } from '@water-clock/core';
import { DataSource, In, IsNull, Not, type EntityManager } from 'typeorm';
import { claimId, idempotentWrite } from '../changes/record.ts';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import type { Actor } from '../identity/actor.ts';
import { notAccepted } from '../http/api-error.ts';
import { Site } from '../sites/site.entity.ts';
import { columnsOf, soundSite } from '../sites/sites.service.ts';
import { Timer } from '../sites/timer.entity.ts';
import type { ImportSitesBody } from './import-body.ts';

/** Creates several sites at once; all or none. */
@Injectable()
export class ImportsService {
  constructor(private readonly database: DataSource) {}

  async bring(actor: Actor, { id, sites }: ImportSitesBody): Promise<{ timerIds: string[] }> {
    const { companyId } = actor;
    const timerIds = sites.map(({ timerId }) => timerId.toLowerCase());
    const meaning = sites.map(({ siteId, timerId, kindId, site }) => [
      ...[siteId, timerId, kindId],
      siteFields(site),
    ]);
    return idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['sites', meaning],
      again: () => ({ timerIds }),
      make: async (database, written) => {
        const kinds = await this.kindsOf(
          database,
          companyId,
          sites.map(({ kindId }) => kindId.toLowerCase()),
        );
        for (const [i, { siteId: given, kindId, site: body }] of sites.entries()) {
          const [siteId, timerId] = [given.toLowerCase(), timerIds[i] ?? ''];
          const kind = kinds.get(kindId.toLowerCase());
          if (!kind)
            throw notAccepted([
              {
                code: 'unknown-document',
                path: `sites[${i}].kindId`,
                message: say`this timer kind is not in your library; choose another`,
              },
            ]);
          await claimId(database, actor, Site, siteId, 'site');
          await claimId(database, actor, Timer, timerId, 'timer');
          const site = await soundSite(database, companyId, body, `sites[${i}].site`);
          await database.insert(Site, { companyId, id: siteId, version: 1, ...columnsOf(site) });
          const plan = emptyPlan(kind.timer);
          await database.insert(Timer, { companyId, id: timerId, siteId, version: 1, plan });
        }
        const subjectId = sites[0]?.siteId.toLowerCase() ?? id;
        await written({ subject: 'site', subjectId, version: 1 });
        return { timerIds };
      },
    });
  }

  private async kindsOf(
    database: EntityManager,
    companyId: string,
    ids: readonly string[],
  ): Promise<ReadonlyMap<string, Pick<TimerKind, 'timer'>>> {
    const own = await database.find(LibraryEntry, {
      where: { companyId, shelf: 'kinds', id: In([...new Set(ids)]), document: Not(IsNull()) },
    });
    return new Map([
      ...SHIPPED_KINDS.map(({ id, kind }) => [id, kind] as const),
      // Safe cast: only documents accepted by `readTimerKind` are on this shelf.
      ...own.map(({ id, document }) => [id, document as TimerKind] as const),
    ]);
  }
}
