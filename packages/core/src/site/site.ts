/** What is noted of a house, in one description: anybody who reads, shows, saves or archives a site goes by these fields. */
import type { PlanSite } from '../plan/plan.ts';
import { WEEKDAYS, type Weekday } from '../time/calendar.ts';
import type { UnitSystem } from '../water/units.ts';
import type { Language } from '../language/say.ts';
import type { ClockStyle } from '../words/words.ts';

/** Where its water comes from; local rules may differ by it. */
export const SUPPLIES = ['mains', 'bore', 'pump', 'tank'] as const;
export type Supply = (typeof SUPPLIES)[number];

export const UNIT_SYSTEMS = ['metric', 'us'] as const satisfies readonly UnitSystem[];
export const CLOCK_STYLES = ['12', '24'] as const satisfies readonly ClockStyle[];

/** Somebody at a house, and how to reach them. */
export interface Contact {
  readonly name: string;
  readonly role: string;
  readonly phone: string;
}

export interface SiteFields {
  readonly name: string;
  readonly houseNumber: string | null;
  /** Of its address; the number stands by itself, since rules go by it. */
  readonly street: string | null;
  /** The town or village of its address. */
  readonly locality: string | null;
  /** IANA name. */
  readonly timeZone: string;
  /** Degrees north. */
  readonly latitude: number | null;
  /** Degrees east. */
  readonly longitude: number | null;
  /** Null: not noted. */
  readonly supply: Supply | null;
  /** The most that it gives, litres a minute; null: not measured. */
  readonly supplyFlow: number | null;
  /** Weekdays on which its lawns are mown. */
  readonly mowing: readonly Weekday[];
  readonly notes: string;
  readonly people: readonly Contact[];
  /** Units in which it is shown; null: as the person likes. */
  readonly units: UnitSystem | null;
  /** How times are shown; null: as the person likes. */
  readonly clockStyle: ClockStyle | null;
  /** Of its homeowner's page; null: English. */
  readonly language: Language | null;
  /** Its weather: a town of the weather feed, or a climate of the library; never both. */
  readonly town: string | null;
  readonly climateId: string | null;
  /** The watering rules of the library that hold for it. */
  readonly rulesId: string | null;
  /** The library's table of minutes that it goes by; null: the one that ships. */
  readonly minutesId: string | null;
}

/** What a site cannot do without; every other field has a value that stands for nothing. */
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

/** The fields of a site and nothing else: trimmed, mowing days in the order of the week, what is missing as nothing. */
export function siteFields(given: GivenSite): SiteFields {
  const { name, timeZone } = given;
  const others = Object.fromEntries(
    Object.entries(NOTHING).map(([key, nothing]) => [
      key,
      // The cast holds because the keys are those of the fields.
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

/** A site as the plan document has it. */
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
