/** Programs that water past midnight into dates their day rule excludes (planning.md section 2, `past-midnight`). */
import { assertDefined } from '../document/assertDefined.ts';
import { daysOf, type WetStart, type WetStarts } from '../engine/wetStarts.ts';
import type { EpochDay } from '../time/calendar.ts';
import { isIn } from '../time/dayRules.ts';
import type { Finding } from './finding.ts';

/** Dates of a start to examine, if its rule depends on more than weekdays. */
const DATES_LOOKED_AT = 60;

export function midnightFindings(wets: WetStarts): Finding[] {
  const found = new Map<string, Finding>();
  for (const wet of wets.all) {
    const { letter } = wet.program;
    if (found.has(letter)) continue;
    const days = new Set(wet.runs.flatMap((run) => [...daysOf(run)]));
    for (const later of days) {
      if (later === 0) continue;
      const date = dryDate(wets, wet, later);
      if (date === null) continue;
      found.set(letter, {
        code: 'past-midnight',
        severity: 'note',
        where: { program: letter, start: wet.start.start, date },
      });
      break;
    }
  }
  return [...found.values()];
}

/** The first date, that many days after one of a start's, on which its program's rule does not water; null: none. */
function dryDate({ meetings, starts }: WetStarts, wet: WetStart, later: number): EpochDay | null {
  const series = meetings.series(wet.dates, wet.dates, 0, wet.least);
  for (let place = 0; place < DATES_LOOKED_AT; place++) {
    const date = series.at(place);
    if (!date) return null;
    const day = date.day + later;
    if (
      !assertDefined(starts.get(wet.program.letter), 'starts.get(wet.program.letter)').some(
        ({ days }) => isIn(days, day),
      )
    )
      return day;
  }
  return null;
}
