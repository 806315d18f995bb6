/** The fields of a site, in one description used by all code that reads, shows, saves or archives one. */
import type { PlanSite } from '../plan/plan.ts';
import { WEEKDAYS, type Weekday } from '../time/calendar.ts';
import type { UnitSystem } from '../water/units.ts';
import type { Language } from '../language/say.ts';
import type { ClockStyle } from '../words/words.ts';

/** Water source; local rules may depend on it. */
export const SUPPLIES = ['mains', 'bore', 'pump', 'tank'] as const;
export type Supply = (typeof SUPPLIES)[number];

export const UNIT_SYSTEMS = ['metric', 'us'] as const satisfies readonly UnitSystem[];
export const CLOCK_STYLES = ['12', '24'] as const satisfies readonly ClockStyle[];

/** A contact at a site. */
export interface Contact {
  readonly name: string;
  readonly role: string;
  readonly phone: string;
}

export interface SiteFields {
  readonly name: string;
  readonly houseNumber: string | null;
  /** Street of the address; the number is separate, because rules depend on it. */
  readonly street: string | null;
  /** Town of the address. */
  readonly locality: string | null;
  /** IANA name. */
  readonly timeZone: string;
  /** Degrees north. */
  readonly latitude: number | null;
  /** Degrees east. */
  readonly longitude: number | null;
  /** Null: not known. */
  readonly supply: Supply | null;
  /** Maximum flow, litres a minute; null: not measured. */
  readonly supplyFlow: number | null;
  /** Mowing days. */
  readonly mowing: readonly Weekday[];
  readonly notes: string;
  readonly people: readonly Contact[];
  /** Units; null: as the person prefers. */
  readonly units: UnitSystem | null;
  /** Clock style; null: as the person prefers. */
  readonly clockStyle: ClockStyle | null;
  /** Language of the homeowner's page; null: English. */
  readonly language: Language | null;
  /** Weather: a town of the feed or a climate of the library; never both. */
  readonly town: string | null;
  readonly climateId: string | null;
  /** Watering rules from the library. */
  readonly rulesId: string | null;
  /** Minutes table from the library; null: the shipped one. */
  readonly minutesId: string | null;
}

/** Required fields of a site; every other field has an empty value. */
export type GivenSite = Pick<SiteFields, 'name' | 'timeZone'> & {
  readonly [K in keyof SiteFields]?: SiteFields[K] | null | undefined;
};

const NOTHING: Omit<SiteFields, 'name' | 'timeZone'> = {
  houseNumber: null,
  street: null,
  locality: null,
  latitude: null,
  longitude: null,
  supply: null,
  supplyFlow: null,
  mowing: [],
  notes: '',
  people: [],
  units: null,
  clockStyle: null,
  language: null,
  town: null,
  climateId: null,
  rulesId: null,
  minutesId: null,
};

/** The fields of a site and nothing else: trimmed, mowing days in week order, missing ones empty. */
export function siteFields(given: GivenSite): SiteFields {
  const { name, timeZone } = given;
  const others = Object.fromEntries(
    Object.entries(NOTHING).map(([key, nothing]) => [
      key,
      // Safe cast: the keys are those of the fields.
      given[key as keyof SiteFields] ?? nothing,
    ]),
  ) as unknown as typeof NOTHING;
  return {
    name: name.trim(),
    timeZone,
    ...others,
    mowing: WEEKDAYS.filter((weekday) => others.mowing.includes(weekday)),
    notes: others.notes.trim(),
    people: others.people.map((person) => ({
      name: person.name.trim(),
      role: person.role.trim(),
      phone: person.phone.trim(),
    })),
  };
}

/** A site as in the plan document. */
export function documentSite(site: SiteFields): PlanSite {
  const { name, timeZone, latitude, longitude, houseNumber } = site;
  return {
    name,
    timeZone,
    ...(latitude === null ? {} : { latitude }),
    ...(longitude === null ? {} : { longitude }),
    ...(houseNumber === null ? {} : { houseNumber }),
  };
}
