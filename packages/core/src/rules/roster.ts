/** Rules as a grid: weekdays by last digit of the house number, or by odd and even, for each supply. */
import type { BriefRules } from '../brief/brief.ts';
import type { Supply } from '../site/site.ts';
import { SUPPLIES } from '../site/site.ts';
import { parseDate, WEEKDAYS, type Weekday } from '../time/calendar.ts';
import { assertDefined } from '../document/assertDefined.ts';
import { RULES_FORMAT, RULES_VERSION, type RulesClause, type RulesEdition } from './rules.ts';
import { rulingOn, type Ruling } from './ruling.ts';

export const ROSTER_KINDS = ['digits', 'parity'] as const;
export type RosterKind = (typeof ROSTER_KINDS)[number];

/** Rows of each kind, by a sample house number. */
const ROWS = {
  digits: Array.from({ length: 10 }, (_, digit) => ({ name: String(digit), house: `1${digit}` })),
  parity: [
    { name: 'odd', house: '1' },
    { name: 'even', house: '2' },
  ],
} as const;

export const rosterRows = (kind: RosterKind): readonly string[] =>
  ROWS[kind].map(({ name }) => name);

/** The grid of some supplies. */
export interface RosterTable {
  /** Empty: any supply. */
  readonly supplies: readonly Supply[];
  /** Allowed weekdays of each row; none: no watering by a timer. */
  readonly days: readonly (readonly Weekday[])[];
  /** Other permissions, the same in all rows. */
  readonly rest: Omit<BriefRules, 'weekdays'>;
}

export interface Roster {
  readonly kind: RosterKind;
  readonly tables: readonly RosterTable[];
}

const rulingIn = (edition: RulesEdition, houseNumber: string, supply: Supply): Ruling =>
  rulingOn(
    { format: RULES_FORMAT, version: RULES_VERSION, name: 'x', editions: [edition] },
    { houseNumber, supply },
    assertDefined(parseDate(edition.from), 'parseDate(edition.from)'),
  );

function daysOf(ruling: Ruling): readonly Weekday[] {
  if (ruling.kind === 'forbidden') return [];
  const { weekdays } = ruling.kind === 'allowed' ? ruling.rules : {};
  return weekdays ? WEEKDAYS.filter((one) => weekdays.includes(one)) : WEEKDAYS;
}

/** Supplies the clauses tell apart, each set once; those none names come last. */
function suppliesToldApart({ clauses }: RulesEdition): (readonly Supply[])[] {
  const sets = new Map<string, readonly Supply[]>();
  for (const { when } of clauses)
    if (when?.supplies) sets.set([...when.supplies].sort().join(' '), when.supplies);
  const named = new Set([...sets.values()].flat());
  return named.size < SUPPLIES.length ? [...sets.values(), []] : [...sets.values()];
}

/** An edition as a grid, as closely as possible. */
export function rosterOf(edition: RulesEdition, kind: RosterKind): Roster {
  const groups = suppliesToldApart(edition);
  const named = groups.flat();
  const other = SUPPLIES.find((one) => !named.includes(one));
  return {
    kind,
    tables: groups.flatMap((supplies): RosterTable[] => {
      const supply = supplies[0] ?? other;
      if (supply === undefined) return [];
      const rulings = ROWS[kind].map(({ house }) => rulingIn(edition, house, supply));
      const allowed = rulings.find((ruling) => ruling.kind === 'allowed');
      const { weekdays: _days, ...rest } = allowed?.rules ?? {};
      return [{ supplies, days: rulings.map(daysOf), rest }];
    }),
  };
}

/** Clauses of one grid: rows with equal days together. */
function clausesOf({ supplies, days, rest }: RosterTable, kind: RosterKind): RulesClause[] {
  const groups = new Map<string, number[]>();
  days.forEach((allowed, row) => {
    const key = WEEKDAYS.filter((one) => allowed.includes(one)).join(' ');
    groups.set(key, [...(groups.get(key) ?? []), row]);
  });
  return [...groups].map(([key, rows]): RulesClause => {
    const weekdays = key === '' ? [] : (key.split(' ') as Weekday[]);
    const isEvery = rows.length === days.length;
    const when = {
      ...(supplies.length > 0 ? { supplies } : {}),
      ...(isEvery
        ? {}
        : kind === 'digits'
          ? { lastDigits: rows }
          : { parity: rows[0] === 0 ? ('odd' as const) : ('even' as const) }),
    };
    const about = Object.keys(when).length > 0 ? { when } : {};
    if (weekdays.length === 0) return { ...about, noWatering: true };
    return { ...about, ...(weekdays.length < WEEKDAYS.length ? { weekdays } : {}), ...rest };
  });
}

/** An edition with a grid in place of its clauses; grids for any supply go last, since the first matching clause applies. */
export function withRoster(edition: RulesEdition, { kind, tables }: Roster): RulesEdition {
  const ordered = [
    ...tables.filter(({ supplies }) => supplies.length > 0),
    ...tables.filter(({ supplies }) => supplies.length === 0),
  ];
  return { ...edition, clauses: ordered.flatMap((table) => clausesOf(table, kind)) };
}

const meaningOf = (ruling: Ruling) =>
  JSON.stringify(
    ruling.kind === 'allowed'
      ? Object.entries({ ...ruling.rules, weekdays: daysOf(ruling) }).sort()
      : [ruling.kind],
  );

/** Whether a grid of a kind expresses all of an edition's clauses, for every site. */
export function isRoster(edition: RulesEdition, kind: RosterKind): boolean {
  const same = withRoster(edition, rosterOf(edition, kind));
  const houses = ROWS.digits.map(({ house }) => house);
  return SUPPLIES.every((supply) =>
    houses.every((house) => {
      const [before, after] = [edition, same].map((one) => rulingIn(one, house, supply));
      if (!before || !after) return false;
      // A free site and one that may water on any day are the same.
      const isFree = (ruling: Ruling) =>
        ruling.kind === 'free' ||
        (ruling.kind === 'allowed' &&
          daysOf(ruling).length === WEEKDAYS.length &&
          Object.keys(ruling.rules).every((key) => key === 'weekdays'));
      return isFree(before) ? isFree(after) : meaningOf(before) === meaningOf(after);
    }),
  );
}
