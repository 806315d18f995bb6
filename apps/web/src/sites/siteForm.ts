/** What is typed about a house, and what it means; faults stand at their fields. */
import { SUPPLIES, WEEKDAYS, type Weekday } from '@water-clock/core';
import type { SiteFields } from './queries.ts';

export interface SiteForm {
  readonly name: string;
  readonly houseNumber: string;
  readonly timeZone: string;
  readonly latitude: string;
  readonly longitude: string;
  /** Empty: not noted. */
  readonly supply: string;
  /** Weekdays with a space between. */
  readonly mowing: string;
  readonly notes: string;
}

export type SiteFaults = Partial<Record<keyof SiteForm, string>>;

export const formOf = (site: SiteFields): SiteForm => ({
  name: site.name,
  houseNumber: site.houseNumber ?? '',
  timeZone: site.timeZone,
  latitude: site.latitude === null ? '' : String(site.latitude),
  longitude: site.longitude === null ? '' : String(site.longitude),
  supply: site.supply ?? '',
  mowing: site.mowing.join(' '),
  notes: site.notes,
});

/** The weekdays of a form's mowing days. */
export const mowingOf = ({ mowing }: Pick<SiteForm, 'mowing'>): Weekday[] =>
  WEEKDAYS.filter((weekday) => mowing.split(' ').includes(weekday));

function degrees(text: string, most: number): number | null | undefined {
  const trimmed = text.trim().replace(',', '.').replace('−', '-');
  if (trimmed === '') return null;
  const value = Number(trimmed);
  return Number.isFinite(value) && Math.abs(value) <= most ? value : undefined;
}

/** The fields of a form, or what is wrong with each. */
export function readSiteForm(
  form: SiteForm,
  isZone: (name: string) => boolean,
): { readonly site: SiteFields } | { readonly faults: SiteFaults } {
  const latitude = degrees(form.latitude, 90);
  const longitude = degrees(form.longitude, 180);
  const half = (latitude === null) !== (longitude === null);
  const faults: SiteFaults = {
    ...(form.name.trim() === '' ? { name: 'Give the site a name.' } : {}),
    ...(form.name.length > 120 ? { name: 'A name has at most 120 characters.' } : {}),
    ...(form.houseNumber.length > 40
      ? { houseNumber: 'A house number has at most 40 characters.' }
      : {}),
    ...(isZone(form.timeZone)
      ? {}
      : { timeZone: 'Choose a time zone of the list, such as Europe/Lisbon.' }),
    ...(latitude === undefined ? { latitude: 'Degrees north, -90 to 90; south is negative.' } : {}),
    ...(longitude === undefined
      ? { longitude: 'Degrees east, -180 to 180; west is negative.' }
      : {}),
    ...(half && latitude === null ? { latitude: 'Give both or none.' } : {}),
    ...(half && longitude === null ? { longitude: 'Give both or none.' } : {}),
    ...(form.notes.length > 2000 ? { notes: 'Notes have at most 2000 characters.' } : {}),
  };
  if (Object.keys(faults).length > 0 || latitude === undefined || longitude === undefined)
    return { faults };
  const houseNumber = form.houseNumber.trim();
  return {
    site: {
      name: form.name.trim(),
      houseNumber: houseNumber === '' ? null : houseNumber,
      timeZone: form.timeZone,
      latitude,
      longitude,
      supply: SUPPLIES.find((one) => one === form.supply) ?? null,
      mowing: mowingOf(form),
      notes: form.notes.trim(),
    },
  };
}
