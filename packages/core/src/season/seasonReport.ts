/** Output of `water-clock season` (season.md). */
import type { Plan } from '../plan/plan.ts';
import { formatDate } from '../time/calendar.ts';
import type { Garden } from './garden.ts';
import { seasonFor, type AccountDay, type Quarters, type SeasonSums } from './season.ts';

/** Without a minus sign for zero. */
const toHundredth = (millimetres: number) => Math.round(millimetres * 100) / 100 + 0;

const told = ({ applied, ranOff, percolated, stressDays, dryDays }: SeasonSums) => ({
  stressDays,
  dryDays,
  applied: toHundredth(applied),
  ranOff: toHundredth(ranOff),
  percolated: toHundredth(percolated),
});

/**
 * @param daily station to list day by day; null: none
 * @throws TooMuchWork
 */
export function seasonReport(plan: Plan, garden: Garden, daily: number | null) {
  const account: AccountDay[] = [];
  const { from, days, stations } = seasonFor(
    plan,
    garden,
    daily === null ? undefined : { station: daily, told: (day) => account.push(day) },
  );
  const areas = new Map(garden.stations.map(({ number, areaM2 }) => [number, areaM2]));
  return {
    from: formatDate(from),
    days,
    stations: stations.map((one) => {
      const { applied, ranOff, percolatedIrrigation } = one;
      const area = areas.get(one.station);
      return {
        station: one.station,
        applied: toHundredth(applied),
        ranOff: toHundredth(ranOff),
        rain: toHundredth(one.rain),
        used: toHundredth(one.used),
        percolated: toHundredth(one.percolated),
        stressDays: one.stressDays,
        dryDays: one.dryDays,
        efficiency:
          applied === 0
            ? null
            : Math.round(((applied - ranOff - percolatedIrrigation) / applied) * 1000) / 1000,
        ...(area === undefined ? {} : { litres: Math.round(applied * area) }),
        byYear: one.byYear.map(({ year, ...sums }) => ({ year, ...told(sums) })),
      };
    }),
    ...(daily === null
      ? {}
      : {
          account: account.map(
            ({ day, irrigation, rain, ranOff, used, percolated, depletion }) => ({
              date: formatDate(day),
              irrigation: toHundredth(irrigation),
              rain: toHundredth(rain),
              ranOff: toHundredth(ranOff),
              used: toHundredth(used),
              percolated: toHundredth(percolated),
              // Safe cast: a list of four stays one.
              depletion: depletion.map(toHundredth) as unknown as Quarters,
            }),
          ),
        }),
  };
}
