/** Format of a site archive: one ZIP of open documents and photos. */
import type { ClosedVisit, Plan, Survey } from '@water-clock/core';
import type { PhotoContent } from '../photos/photo-content.ts';

export const ARCHIVE_FORMAT = 'water-clock-site';
export const ARCHIVE_VERSION = 1;
/** Name of the index file. */
export const INDEX = 'site.json';

/** Index, at the root of the archive. */
export interface Index {
  readonly format: typeof ARCHIVE_FORMAT;
  readonly version: typeof ARCHIVE_VERSION;
  readonly site: object;
  /** Number of visits of each timer, in folder `timers/N/`. */
  readonly timers: readonly { readonly visits: number; readonly name?: string }[];
  readonly photos: readonly string[];
}

export interface Contents {
  /** Not validated yet. */
  readonly site: object;
  readonly timers: readonly {
    /** Name at the site; empty if the timer goes by its kind. */
    readonly name: string;
    readonly plan: Plan;
    readonly survey: Survey;
    readonly visits: readonly ClosedVisit[];
  }[];
  readonly photos: readonly { readonly id: string; readonly content: PhotoContent }[];
}

export const folderOf = (index: number) => `timers/${index + 1}`;
export const photoFile = (id: string) => `photos/${id}`;
/** Paths of the documents of a timer with that many visits. */
export const filesOf = (index: number, visits: number) => ({
  plan: `${folderOf(index)}/timer.plan.json`,
  survey: `${folderOf(index)}/survey.json`,
  visits: Array.from({ length: visits }, (_, k) => `${folderOf(index)}/visits/${k + 1}.json`),
});

/** Format of a company archive: the library and the site archives. */
export const COMPANY_FORMAT = 'water-clock-firm';
export const COMPANY_VERSION = 1;
export const COMPANY_INDEX = 'firm.json';

export interface CompanyIndex {
  readonly format: typeof COMPANY_FORMAT;
  readonly version: typeof COMPANY_VERSION;
  readonly name: string;
  readonly library: readonly {
    readonly shelf: string;
    readonly id: string;
    readonly document: object;
  }[];
  /** Each site is `sites/ID.zip`. */
  readonly sites: readonly { readonly id: string; readonly name: string }[];
}
