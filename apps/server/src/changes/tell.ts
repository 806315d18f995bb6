import type { EntityManager } from 'typeorm';

/** Notification channel of all servers on one database. */
export const CHANNEL = 'water_clock';

/** An event that open pages may want to know. Names are visible to colleagues, and events reach no one else. */
export type Told =
  /** Timer status is being recalculated, or has been. */
  { readonly companyId: string; readonly kind: 'stale' | 'checked' } | ToldOfTimer;

export type ToldOfTimer = { readonly companyId: string; readonly timerId: string } & (
  | {
      readonly kind: 'changed';
      readonly version: number;
      /** Author of the change. */
      readonly personId: string;
      readonly by: string;
    }
  | { readonly kind: 'proposals' }
  /** A page with this timer is open. Repeated at intervals. */
  | {
      readonly kind: 'looking';
      readonly pageId: string;
      readonly personId: string;
      readonly name: string;
      /** Asks other open pages of the timer to announce themselves. */
      readonly isNew: boolean;
    }
  | { readonly kind: 'left'; readonly pageId: string }
);

/** Notifies all servers when the transaction commits, and not at all if it does not. */
export async function tell(database: Pick<EntityManager, 'query'>, told: Told): Promise<void> {
  await database.query('select pg_notify($1, $2)', [CHANNEL, JSON.stringify(told)]);
}
