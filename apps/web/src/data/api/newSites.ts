/** Houses that were noted without a network: they open on the device at once, and go to the office before the changes of their timers do. */
import { EMPTY_SURVEY, type Plan, type SiteFields } from '@water-clock/core';
import { request } from './request.ts';
import { ownerName } from './whose.ts';

/** A house with its first timer; the ids are made once, so that sending it again is harmless. */
export interface NewSite {
  readonly siteId: string;
  readonly timerId: string;
  readonly site: SiteFields;
  readonly plan: Plan;
}

const PREFIX = 'water-clock:new-site:';
const prefixOf = () => `${PREFIX}${ownerName()}:`;

/** Whether a key of the device's storage holds a new house of somebody else. */
export const isAnothersNewSite = (key: string): boolean =>
  key.startsWith(PREFIX) && !key.startsWith(prefixOf());

/** The timers of houses that wait. */
export const newTimers = (): readonly string[] =>
  Object.keys(localStorage)
    .filter((key) => key.startsWith(prefixOf()))
    .map((key) => key.slice(prefixOf().length));

/** Keeps a house on the device; false: the device refuses. */
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
  // What the office will answer once it knows of it.
  const { keepAnswer } = await import('../offlineCache/kept.ts');
  const owner = ownerName();
  const path = `/api/timers/${timerId}`;
  await keepAnswer(owner, path, view);
  await keepAnswer(owner, `${path}/proposals`, []);
  await keepAnswer(owner, `${path}/visits`, []);
  return true;
}

/** Sends the house of a timer, where it waits. It stays where the office cannot be reached or refuses it. */
export async function sendNewSiteOf(timerId: string): Promise<void> {
  const key = `${prefixOf()}${timerId}`;
  const text = localStorage.getItem(key);
  if (text === null) return;
  await request('POST', '/api/sites', JSON.parse(text));
  localStorage.removeItem(key);
}
