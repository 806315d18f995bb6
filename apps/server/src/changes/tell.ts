import type { EntityManager } from 'typeorm';

/** The channel by which all servers of one database hear of what happens. */
export const CHANNEL = 'water_clock';

/** Something that pages which are open may want to know. Names are no secret among colleagues, and nobody else hears it. */
export type Told =
  /** Something of which lists tell is worked out again; it was. */
  { readonly companyId: string; readonly kind: 'stale' | 'checked' } | ToldOfTimer;

export type ToldOfTimer = { readonly companyId: string; readonly timerId: string } & (
  | {
      readonly kind: 'changed';
      readonly version: number;
      /** Who made it. */
      readonly personId: string;
      readonly by: string;
    }
  | { readonly kind: 'proposals' }
  /** A page of the timer is open; it says so again and again. */
  | {
      readonly kind: 'looking';
      readonly pageId: string;
      readonly personId: string;
      readonly name: string;
      /** Whoever else has a page of it answers. */
      readonly isNew: boolean;
    }
  | { readonly kind: 'left'; readonly pageId: string }
);

/** Tells it to all servers: in a transaction when that is committed, and not at all where it is not. */
export async function tell(database: Pick<EntityManager, 'query'>, told: Told): Promise<void> {
  await database.query('select pg_notify($1, $2)', [CHANNEL, JSON.stringify(told)]);
}
