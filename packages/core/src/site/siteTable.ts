/** Sites as spreadsheet rows: each bad cell is reported and nothing else refused. */
import { faultsOfCell, nameCell, numberCell, type CellFault } from '../document/cells.ts';
import type { Fault } from '../document/fault.ts';
import { readTable } from '../document/table.ts';
import { siteFields, SUPPLIES, type GivenSite, type SiteFields } from './site.ts';
import { say } from '../language/say.ts';

export const SITE_HEADINGS = [
  'name',
  'number',
  'street',
  'town',
  'person',
  'role',
  'telephone',
  'timer',
  'supply',
  'supply_l_min',
  'latitude',
  'longitude',
  'time_zone',
  'notes',
] as const;
type Heading = (typeof SITE_HEADINGS)[number];

/** Larger lists are imported in parts. */
export const MOST_SITE_ROWS = 5_000;

/** A timer kind that a table may name. */
interface NamedKind {
  readonly id: string;
  readonly name: string;
}

export interface SiteEntry {
  readonly line: number;
  readonly site: SiteFields;
  readonly kindId: string;
}

export interface SiteTable {
  readonly entries: readonly SiteEntry[];
  readonly faults: readonly CellFault[];
}

interface Given {
  /** Default: the importing person's. */
  readonly timeZone: string;
  readonly isZone: (name: string) => boolean;
  /** Kinds a row may name; the first is the default. */
  readonly kinds: readonly [NamedKind, ...NamedKind[]];
}

const tooLong = (cell: string, most: number): Fault | null =>
  cell.length <= most
    ? null
    : {
        code: 'wrong-length',
        path: [],
        expected: say`at most ${most} characters`,
        actual: cell.length,
      };

const notOneOf = (cell: string, allowed: readonly string[]): Fault => ({
  code: 'not-one-of',
  path: [],
  allowed,
  actual: JSON.stringify(cell),
});

const MOST_LENGTH: Partial<Record<Heading, number>> = {
  name: 120,
  number: 40,
  street: 120,
  town: 80,
  person: 80,
  role: 80,
  telephone: 40,
  notes: 2000,
};

/**
 * Reads sites from CSV rows, header first, columns in any order. A bad cell is reported and skipped; a row without a name, or with an
 * unknown timer kind, is skipped.
 */
export function readSiteTable(
  rows: readonly (readonly string[])[],
  { timeZone, isZone, kinds }: Given,
): SiteTable {
  const table = readTable(rows, { key: 'name', headings: SITE_HEADINGS, most: MOST_SITE_ROWS });
  const faults: CellFault[] = [...table.faults];
  const entries: SiteEntry[] = [];
  for (const { line, cell } of table.rows) {
    const told = (heading: Heading, fault: Fault) => {
      faults.push(faultsOfCell(line, heading, fault));
      return undefined;
    };
    const text = (heading: Heading): string | undefined => {
      const found = cell(heading);
      const fault = tooLong(found, MOST_LENGTH[heading] ?? Infinity);
      return fault ? told(heading, fault) : found || undefined;
    };
    const number = (heading: Heading, least: number, most: number): number | undefined => {
      if (cell(heading) === '') return undefined;
      const value = numberCell(cell(heading), least, most);
      return typeof value === 'number' ? value : told(heading, value);
    };
    const kindName = cell('timer').toLowerCase();
    const kind =
      kindName === '' ? kinds[0] : kinds.find(({ name }) => name.toLowerCase() === kindName);
    if (!kind)
      told(
        'timer',
        notOneOf(
          cell('timer'),
          kinds.map(({ name }) => name),
        ),
      );
    const name = text('name');
    if (name === undefined && cell('name') === '')
      told('name', { code: 'missing-field', path: [], expected: say`a name` });
    const zone = cell('time_zone');
    if (zone !== '' && !isZone(zone)) told('time_zone', notOneOf(zone, [say`an IANA time zone`]));
    const supply = cell('supply') === '' ? undefined : nameCell(cell('supply'), SUPPLIES);
    if (typeof supply === 'object') told('supply', supply);
    const person = text('person');
    const given: Omit<GivenSite, 'name'> = {
      timeZone: zone !== '' && isZone(zone) ? zone : timeZone,
      houseNumber: text('number'),
      street: text('street'),
      locality: text('town'),
      latitude: number('latitude', -90, 90),
      longitude: number('longitude', -180, 180),
      supply: typeof supply === 'string' ? supply : undefined,
      supplyFlow: number('supply_l_min', 0.1, 1000),
      notes: text('notes'),
      people:
        person === undefined
          ? undefined
          : [{ name: person, role: text('role') ?? '', phone: text('telephone') ?? '' }],
    };
    if (name !== undefined && kind)
      entries.push({ line, kindId: kind.id, site: siteFields({ ...given, name }) });
  }
  return { entries, faults };
}
