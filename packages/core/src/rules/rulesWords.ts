/** What rules mean for a site, in a sentence. */
import { assertDefined } from '../document/assertDefined.ts';
import type { BriefRules } from '../brief/brief.ts';
import { civilOf, parseDate, parseTime, type EpochDay } from '../time/calendar.ts';
import type { NoWaterWindow } from '../time/windows.ts';
import {
  capitalized,
  dateWords,
  listed,
  monthName,
  timeWords,
  weekdaysWords,
  type Speech,
} from '../words/words.ts';
import { nextRuling, rulingOn, type RuledHouse, type Ruling } from './ruling.ts';
import type { MonthBan } from './houseRules.ts';
import { SUPPLY_WORDS } from '../site/siteWords.ts';
import type { Rules, RulesCondition } from './rules.ts';
import { plural, say, translator } from '../language/say.ts';

/** `9:00 to 17:00 on Mon Fri`. */
export function windowWords(
  { from, to, weekdays }: NoWaterWindow,
  { clock }: Pick<Speech, 'clock'>,
): string {
  const hours = say`${timeWords(assertDefined(parseTime(from), 'parseTime(from)'), clock)} to ${timeWords(assertDefined(parseTime(to), 'parseTime(to)'), clock)}`;
  return weekdays ? say`${hours} on ${weekdaysWords(weekdays)}` : hours;
}

/** Which sites a clause is for: `Numbers ending in 1 and 2, water from a bore`. */
export function conditionWords({ supplies, lastDigits, parity }: RulesCondition): string {
  const parts = [
    lastDigits && say`numbers ending in ${listed(lastDigits)}`,
    parity && say`${parity} numbers`,
    supplies &&
      say`water from ${listed(
        supplies.map((one) => SUPPLY_WORDS[one]),
        'or',
      )}`,
  ].filter((one) => typeof one === 'string');
  return parts.length === 0 ? say`every house` : parts.join(', ');
}

/** What a site may do: `Wed and Sat only; not from 9:00 to 18:00; on at most 2 days a week; drip is free`. */
export function allowedWords(rules: BriefRules, speech: Speech): string {
  const { weekdays, parity, noWaterWindows = [], mostDaysPerWeek, dripExempt } = rules;
  const parts = [
    weekdays &&
      (weekdays.length === 0
        ? say`no watering on any day`
        : say`only on ${listed(weekdaysWords(weekdays).split(' '))}`),
    parity && say`only on ${parity} dates`,
    noWaterWindows.length > 0 &&
      say`not from ${listed(noWaterWindows.map((window) => windowWords(window, speech)))}`,
    mostDaysPerWeek !== undefined &&
      plural(mostDaysPerWeek, 'on at most # day a week', 'on at most # days a week'),
    dripExempt === true && say`drip is exempt`,
  ].filter((one) => typeof one === 'string');
  return parts.length === 0 ? say`any day, any time` : parts.join('; ');
}

function rulingWords(ruling: Ruling, speech: Speech): string {
  switch (ruling.kind) {
    case 'none-yet':
      return say`no rules are in force yet`;
    case 'free':
      return say`no rule applies to this house`;
    case 'unknown':
      return ruling.needs === 'supply'
        ? say`the rules depend on the water source; enter the supply`
        : say`the rules depend on the street number; enter it`;
    case 'forbidden':
      return say`no watering by timer`;
    case 'allowed': {
      const { newPlantingUntil } = ruling.edition;
      const until = newPlantingUntil === undefined ? null : parseDate(newPlantingUntil);
      const allowed = allowedWords(ruling.rules, speech);
      return until !== null && until >= speech.on
        ? say`${allowed}; new planting is exempt until ${dateWords(until, speech.on, speech.order)}`
        : allowed;
    }
  }
}

/** `off, banned from 1 May`; for part of a month `banned from 10 to 20 May`. */
export function banWords({ from, to, isWhole }: Omit<MonthBan, 'month'>, speech: Speech): string {
  const begins = dayOfMonthWords(from, speech);
  if (isWhole) return say`off, banned from ${begins}`;
  return from === to
    ? say`banned on ${begins}`
    : say`banned from ${begins} to ${dayOfMonthWords(to, speech)}`;
}

/** `Off from 1 May to 31 October, banned: …`; less than a month as in `banWords`. */
export function banSpanSentence(span: Omit<MonthBan, 'month'>, speech: Speech): string {
  if (!span.isWhole) return `${capitalized(banWords(span, speech))}.`;
  const [from, to] = [dayOfMonthWords(span.from, speech), dayOfMonthWords(span.to, speech)];
  return say`Off from ${from} to ${to} (banned). Switch the timer off before this and back on afterwards.`;
}

/** `1 May` or `May 1`. */
function dayOfMonthWords(date: EpochDay, { order }: Speech): string {
  const other = translator()?.date(date, 'date', order ?? 'day-month');
  if (other !== undefined) return other;
  const { month, day } = civilOf(date);
  return order === 'month-day' ? `${monthName(month)} ${day}` : `${day} ${monthName(month)}`;
}

/** What is valid today and when it changes, in one sentence. */
export function rulesSentence(rules: Rules, house: RuledHouse, speech: Speech): string {
  const now = rulingWords(rulingOn(rules, house, speech.on), speech);
  const next = nextRuling(rules, house, speech.on);
  return next
    ? say`Today: ${now}. From ${dateWords(next.from, speech.on, speech.order)}: ${rulingWords(next.ruling, speech)}.`
    : say`Today: ${now}. No change is announced.`;
}
