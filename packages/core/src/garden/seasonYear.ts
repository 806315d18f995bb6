/** Basis for following a garden's season: its stations' balance, or the table of minutes. */
import type { Survey } from '../survey/survey.ts';
import type { MinutesTable } from '../water/minutesTable.ts';
import type { SiteMinutes } from './schools.ts';

export interface SeasonYear {
  readonly byBalance: boolean;
  /** January first. For a table, percents take the place of depths. */
  readonly year: readonly {
    readonly month: number;
    readonly netMmPerWeek: number;
    readonly weeklySeconds: number;
  }[];
  /** The month that 100 percent stands for, 1 to 12. */
  readonly hundred: number;
}

export function seasonYear(
  minutes: SiteMinutes,
  table: MinutesTable,
  { school = 'balance' }: Pick<Survey, 'school'>,
): SeasonYear {
  const byBalance = school === 'balance' && minutes.year.length > 0;
  const year = byBalance
    ? minutes.year
    : table.months.map((percent, i) => ({
        month: i + 1,
        netMmPerWeek: percent,
        weeklySeconds: percent,
      }));
  const highest = year.reduce((best, one) => (one.netMmPerWeek > best.netMmPerWeek ? one : best));
  return { byBalance, year, hundred: minutes.hundredMonth ?? highest.month };
}
