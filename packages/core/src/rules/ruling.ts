/** What the rules mean for one site on one date. */
import { assertDefined } from '../document/assertDefined.ts';
import type { BriefRules } from '../brief/brief.ts';
import { parseDate, type EpochDay } from '../time/calendar.ts';
import type { Supply } from '../site/site.ts';
import type { Rules, RulesClause, RulesCondition, RulesEdition } from './rules.ts';

/** What rules depend on. */
export interface RuledHouse {
  /** As written: `41`, `17a`, `8-10`. */
  readonly houseNumber: string | null;
  readonly supply: Supply | null;
}

export type Ruling =
  /** No edition is in force yet. */
  | { readonly kind: 'none-yet' }
  /** The site is free: no clause matches. */
  | { readonly kind: 'free'; readonly edition: RulesEdition }
  /** What must be known about the site first. */
  | {
      readonly kind: 'unknown';
      readonly edition: RulesEdition;
      readonly needs: 'house-number' | 'supply';
    }
  | { readonly kind: 'forbidden'; readonly edition: RulesEdition; readonly clause: RulesClause }
  | {
      readonly kind: 'allowed';
      readonly edition: RulesEdition;
      readonly clause: RulesClause;
      readonly rules: BriefRules;
    };

/** The house number used by rules: the last whole number in the text. `17a` is 17, `8-10` is 10. */
export function rosterNumber(houseNumber: string | null): number | null {
  const digits = houseNumber?.match(/\d+/g)?.at(-1);
  return digits === undefined ? null : Number(digits.slice(-9));
}

/** Whether a condition matches a site, or what is not known about it. */
function meets(
  { supplies, lastDigits, parity }: RulesCondition,
  { houseNumber, supply }: RuledHouse,
): boolean | 'house-number' | 'supply' {
  const number = rosterNumber(houseNumber);
  if (supplies && supply !== null && !supplies.includes(supply)) return false;
  if (number !== null) {
    if (lastDigits && !lastDigits.includes(number % 10)) return false;
    if (parity && (number % 2 === 1) !== (parity === 'odd')) return false;
  }
  if (supplies && supply === null) return 'supply';
  if ((lastDigits || parity) && number === null) return 'house-number';
  return true;
}

const editionOn = ({ editions }: Rules, on: EpochDay): RulesEdition | undefined =>
  editions.findLast(({ from }) => assertDefined(parseDate(from), 'parseDate(from)') <= on);

function rulingOf(edition: RulesEdition, house: RuledHouse): Ruling {
  for (const clause of edition.clauses) {
    const met = meets(clause.when ?? {}, house);
    if (met === false) continue;
    if (met !== true) return { kind: 'unknown', edition, needs: met };
    if (clause.noWatering === true) return { kind: 'forbidden', edition, clause };
    const { when: _when, noWatering: _none, ...rules } = clause;
    return { kind: 'allowed', edition, clause, rules };
  }
  return { kind: 'free', edition };
}

/** The rules for a site on a date. */
export function rulingOn(rules: Rules, house: RuledHouse, on: EpochDay): Ruling {
  const edition = editionOn(rules, on);
  return edition ? rulingOf(edition, house) : { kind: 'none-yet' };
}

export interface NextRuling {
  readonly from: EpochDay;
  readonly ruling: Ruling;
}

const meaning = (ruling: Ruling): string => {
  const { kind } = ruling;
  return JSON.stringify([
    kind,
    kind === 'allowed' ? ruling.rules : null,
    kind === 'unknown' ? ruling.needs : null,
    kind === 'none-yet' ? null : (ruling.edition.newPlantingUntil ?? null),
  ]);
};

/** The next later date on which something else applies to the site; null if nothing changes. */
export function nextRuling(rules: Rules, house: RuledHouse, on: EpochDay): NextRuling | null {
  const now = meaning(rulingOn(rules, house, on));
  for (const edition of rules.editions) {
    const from = parseDate(edition.from);
    if (from === null || from <= on) continue;
    const ruling = rulingOf(edition, house);
    if (meaning(ruling) !== now) return { from, ruling };
  }
  return null;
}
