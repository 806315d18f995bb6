/** What people type about a site and what it means; each fault belongs to a field. */
import {
  CLOCK_STYLES,
  LANGUAGES,
  siteFields,
  SUPPLIES,
  UNIT_SYSTEMS,
  WEEKDAYS,
  type Contact,
  type SiteFields,
  type Weekday,
  say,
} from '@water-clock/core';

export interface SiteForm {
  readonly name: string;
  readonly houseNumber: string;
  readonly street: string;
  readonly locality: string;
  readonly timeZone: string;
  readonly latitude: string;
  readonly longitude: string;
  /** Empty: not noted; the same for all choices. */
  readonly supply: string;
  /** Litres a minute. */
  readonly supplyFlow: string;
  /** Weekdays separated by spaces. */
  readonly mowing: string;
  readonly notes: string;
  readonly people: readonly Contact[];
  readonly units: string;
  readonly clockStyle: string;
  readonly language: string;
  readonly town: string;
  readonly climateId: string;
  readonly rulesId: string;
  readonly minutesId: string;
}

export type SiteFaults = Partial<Record<keyof SiteForm, string>>;

export const MOST_PEOPLE = 12;

export const formOf = (site: SiteFields): SiteForm => ({
  name: site.name,
  houseNumber: site.houseNumber ?? '',
  street: site.street ?? '',
  locality: site.locality ?? '',
  timeZone: site.timeZone,
  latitude: site.latitude === null ? '' : String(site.latitude),
  longitude: site.longitude === null ? '' : String(site.longitude),
  supply: site.supply ?? '',
  supplyFlow: site.supplyFlow === null ? '' : String(site.supplyFlow),
  mowing: site.mowing.join(' '),
  notes: site.notes,
  people: site.people,
  units: site.units ?? '',
  clockStyle: site.clockStyle ?? '',
  language: site.language ?? '',
  town: site.town ?? '',
  climateId: site.climateId ?? '',
  rulesId: site.rulesId ?? '',
  minutesId: site.minutesId ?? '',
});

/** A site of which only the time zone is known. */
export const emptyForm = (timeZone: string): SiteForm => formOf(siteFields({ name: '', timeZone }));

/** Weekdays of a form's mowing days. */
export const mowingOf = ({ mowing }: Pick<SiteForm, 'mowing'>): Weekday[] =>
  WEEKDAYS.filter((weekday) => mowing.split(' ').includes(weekday));

/** A field of a form as text, for comparison. */
export const fieldText = (form: SiteForm, key: keyof SiteForm): string => {
  const value = form[key];
  return typeof value === 'string'
    ? value
    : value
        .map(({ name, role, phone }) => [name, role, phone].filter(Boolean).join(', '))
        .join('; ');
};

function degrees(text: string, most: number): number | null | undefined {
  const trimmed = text.trim().replace(',', '.').replace('−', '-');
  if (trimmed === '') return null;
  const value = Number(trimmed);
  return Number.isFinite(value) && Math.abs(value) <= most ? value : undefined;
}

const orNull = (text: string): string | null => (text.trim() === '' ? null : text.trim());

/** The fields of a form, or the fault of each. */
export function readSiteForm(
  form: SiteForm,
  isZone: (name: string) => boolean,
): { readonly site: SiteFields } | { readonly faults: SiteFaults } {
  const latitude = degrees(form.latitude, 90);
  const longitude = degrees(form.longitude, 180);
  const half = (latitude === null) !== (longitude === null);
  const people = form.people.filter(({ name, role, phone }) => `${name}${role}${phone}`.trim());
  const faults: SiteFaults = {
    ...(form.name.trim() === '' ? { name: say`Give the site a name.` } : {}),
    ...(form.name.length > 120 ? { name: say`A name has at most 120 characters.` } : {}),
    ...(form.houseNumber.length > 40
      ? { houseNumber: say`A house number has at most 40 characters.` }
      : {}),
    ...(form.street.length > 120 ? { street: say`A street has at most 120 characters.` } : {}),
    ...(form.locality.length > 80 ? { locality: say`A town has at most 80 characters.` } : {}),
    ...(isZone(form.timeZone)
      ? {}
      : { timeZone: say`Choose a time zone from the list, such as Europe/Lisbon.` }),
    ...(latitude === undefined
      ? { latitude: say`Degrees north, -90 to 90; south is negative.` }
      : {}),
    ...(longitude === undefined
      ? { longitude: say`Degrees east, -180 to 180; west is negative.` }
      : {}),
    ...(half && latitude === null ? { latitude: say`Enter both or neither.` } : {}),
    ...(half && longitude === null ? { longitude: say`Enter both or neither.` } : {}),
    ...(form.notes.length > 2000 ? { notes: say`Notes have at most 2000 characters.` } : {}),
    ...(people.some(({ name }) => name.trim() === '')
      ? { people: say`Each person needs a name. The rest is optional.` }
      : {}),
  };
  if (Object.keys(faults).length > 0 || latitude === undefined || longitude === undefined)
    return { faults };
  return {
    site: siteFields({
      name: form.name,
      houseNumber: orNull(form.houseNumber),
      street: orNull(form.street),
      locality: orNull(form.locality),
      timeZone: form.timeZone,
      latitude,
      longitude,
      supply: SUPPLIES.find((one) => one === form.supply) ?? null,
      supplyFlow: form.supplyFlow === '' ? null : Number(form.supplyFlow),
      mowing: mowingOf(form),
      notes: form.notes,
      people,
      units: UNIT_SYSTEMS.find((one) => one === form.units) ?? null,
      clockStyle: CLOCK_STYLES.find((one) => one === form.clockStyle) ?? null,
      language: LANGUAGES.find((one) => one === form.language) ?? null,
      town: orNull(form.town),
      climateId: orNull(form.climateId),
      rulesId: orNull(form.rulesId),
      minutesId: orNull(form.minutesId),
    }),
  };
}
