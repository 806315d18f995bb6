/**
 * The watering rules of an area in the library: an open document, `water-clock-rules`, file extension `.rules.json`. Rules are data: which
 * days and hours are allowed to whom, and from when. Local rules come first, and they change, so a document has editions with dates from
 * which they are in force.
 */
import type { BriefRules } from '../brief/brief.ts';
import { readRulesFields } from '../brief/readBrief.ts';
import { SUPPLIES, type Supply } from '../site/site.ts';
import type { Fault, Outcome } from '../document/fault.ts';
import { leavesFreeTime, readDate } from '../time/timeReaders.ts';
import { foreignDocument, readJson } from '../document/openDocument.ts';
import {
  boolean,
  integer,
  list,
  object,
  oneOf,
  optional,
  required,
  readLine,
  readNote,
} from '../document/reader.ts';
import type { DateText } from '../time/calendar.ts';
import { say } from '../language/say.ts';

export const RULES_FORMAT = 'water-clock-rules';
export const RULES_VERSION = 1;

/** Which sites a clause is for; an absent condition matches every site. */
export interface RulesCondition {
  readonly supplies?: readonly Supply[];
  /** Last digits of the house number. */
  readonly lastDigits?: readonly number[];
  readonly parity?: 'odd' | 'even';
}

/** What some sites are allowed. The windows are the no-watering hours. */
export interface RulesClause extends BriefRules {
  readonly when?: RulesCondition;
  /** No watering by a timer at all. */
  readonly noWatering?: boolean;
}

export interface RulesEdition {
  /** First date on which it is valid; it is valid until the next edition. */
  readonly from: DateText;
  /** The first matching clause applies. A site that matches none is free. */
  readonly clauses: readonly RulesClause[];
  /** New planting is free until this date, inclusive. */
  readonly newPlantingUntil?: DateText;
  readonly source?: string;
  readonly note?: string;
}

export interface Rules {
  readonly format: typeof RULES_FORMAT;
  readonly version: typeof RULES_VERSION;
  readonly name: string;
  readonly note?: string;
  readonly editions: readonly RulesEdition[];
}

const condition = object<RulesCondition>({
  supplies: optional(list(oneOf(SUPPLIES), { least: 1, unique: true })),
  lastDigits: optional(list(integer(0, 9), { least: 1, unique: true })),
  parity: optional(oneOf(['odd', 'even'])),
});

const clause = object<RulesClause>({
  when: optional(condition),
  noWatering: optional(boolean),
  ...readRulesFields,
});

const MOST_CLAUSES = 100;
const shape = object<Rules>({
  format: required(oneOf([RULES_FORMAT]), `"${RULES_FORMAT}"`),
  version: required(oneOf([RULES_VERSION]), `${RULES_VERSION}`),
  name: required(readLine, 'the water authority'),
  note: optional(readNote),
  editions: required(
    list(
      object<RulesEdition>({
        from: required(readDate, 'the date it takes effect'),
        clauses: required(list(clause, { most: MOST_CLAUSES }), 'a list of rules'),
        newPlantingUntil: optional(readDate),
        source: optional(readNote),
        note: optional(readNote),
      }),
      { least: 1, most: 100 },
    ),
    'a list of editions',
  ),
});

/** Reads rules from a JSON value. Strict; editions must be in order of date, each date once. */
export function readRules(value: unknown): Outcome<Rules> {
  const faults: Fault[] = [];
  const other = foreignDocument(value, RULES_FORMAT, RULES_VERSION);
  if (other) return { ok: false, faults: [other] };
  const rules = shape(value, [], faults);
  if (rules === undefined) return { ok: false, faults };
  rules.editions.forEach(({ from, clauses }, i) => {
    const earlier = rules.editions[i - 1];
    if (earlier && earlier.from >= from)
      faults.push({
        code: 'malformed',
        path: ['editions', i, 'from'],
        expected: say`a date after that of the edition before, ${earlier.from}`,
        actual: `"${from}"`,
      });
    clauses.forEach(({ noWaterWindows = [] }, k) => {
      if (!leavesFreeTime(noWaterWindows))
        faults.push({
          code: 'no-free-second',
          path: ['editions', i, 'clauses', k, 'noWaterWindows'],
        });
    });
  });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value: rules };
}

export const readRulesText = (json: string): Outcome<Rules> => readJson(json, readRules);
