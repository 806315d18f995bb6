/** Sites added offline. They open on the device at once and are sent before the changes of their timers. */
import { EMPTY_SURVEY, type Plan, type SiteFields } from '@water-clock/core';
import { request } from './request.ts';
import { ownerName } from './whose.ts';

/** A site with its first timer. The ids are made once, so that sending it again is harmless. */
export interface NewSite {
  readonly siteId: string;
  readonly timerId: string;
  readonly site: SiteFields;
  readonly plan: Plan;
}

const PREFIX = 'water-clock:new-site:';
const prefixOf = () => `${PREFIX}${ownerName()}:`;

/** Whether a storage key holds another person's new site. */
export const isAnothersNewSite = (key: string): boolean =>
  key.startsWith(PREFIX) && !key.startsWith(prefixOf());

/** Timers of waiting sites. */
export const newTimers = (): readonly string[] =>
  Object.keys(localStorage)
    .filter((key) => key.startsWith(prefixOf()))
    .map((key) => key.slice(prefixOf().length));

/** Stores a site on the device; false if the device refuses. */
export async function keepNewSite(made: NewSite): Promise<boolean> {
  const { siteId, timerId, plan } = made;
  try {
    localStorage.setItem(`${prefixOf()}${timerId}`, JSON.stringify(made));
  } catch {
    return false;
  }
  const site = { id: siteId, version: 1, archivedAt: null, ...made.site };
  const { site: _site, ...bare } = plan;
  const view = {
    ...{ id: timerId, name: '', version: 1, site, plan: bare, survey: EMPTY_SURVEY },
    ...{ history: [], merging: null },
  };
  // The answer the server will give once it has the site.
  const { keepAnswer } = await import('../offlineCache/kept.ts');
  const owner = ownerName();
  const path = `/api/timers/${timerId}`;
  await keepAnswer(owner, path, view);
  await keepAnswer(owner, `${path}/proposals`, []);
  await keepAnswer(owner, `${path}/visits`, []);
  return true;
}

/** Sends a timer's waiting site. It stays if the server is unreachable or refuses it. */
export async function sendNewSiteOf(timerId: string): Promise<void> {
  const key = `${prefixOf()}${timerId}`;
  const text = localStorage.getItem(key);
  if (text === null) return;
  await request('POST', '/api/sites', JSON.parse(text));
  localStorage.removeItem(key);
}
