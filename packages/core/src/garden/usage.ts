/** How much water the programs use, what it costs, and how certain that is. */
import { assertDefined } from '../document/assertDefined.ts';
import { civilOf, epochDayOf, type EpochDay } from '../time/calendar.ts';
import type { Plan, Station } from '../plan/plan.ts';
import { surveyOf, type Survey } from '../survey/survey.ts';
import type { Tariff } from '../visit/visit.ts';
import { figuresOf, type Source } from './figures.ts';
import { givenByMonth, peakWeekOf, type PeakWeek } from './given.ts';

/** Possible error of a flow by source, as a share. Our judgement: meters and buckets are read to a few percent. */
const UNCERTAIN: Readonly<Partial<Record<Source, number>>> = { measured: 0.05, noted: 0.15 };
/** A table's rate over a paced-out area. */
const UNCERTAIN_TABLE = 0.35;

interface StationUsage {
  readonly station: number;
  /** Litres a minute while running; null: neither flow nor area is known. */
  readonly litresPerMinute: number | null;
  readonly source: Source | null;
  /** Average litres a week by month, January first; empty if the flow is not known. */
  readonly weeklyByMonth: readonly number[];
}

export interface Usage {
  readonly stations: readonly StationUsage[];
  /** Stations that water an unknown amount. */
  readonly unknown: readonly number[];
  /** Known litres of the coming year, with the possible error either way. */
  readonly litresAYear: number;
  readonly uncertainLitres: number;
  /** The calendar week with the highest use, of stations with known flow; null: nothing is used. */
  readonly peakWeek: PeakWeek | null;
}

/** A station's litres a minute: its flow, or its rate over its area; null if neither is known. */
export function stationFlow(
  station: Station,
  survey: Survey,
): Pick<StationUsage, 'litresPerMinute' | 'source'> {
  const noted = surveyOf(survey, station.number);
  const { flow, rate } = figuresOf(noted, station);
  if (flow) return { litresPerMinute: flow.value, source: flow.source };
  if (!rate || noted.areaSquareMetres === undefined) return { litresPerMinute: null, source: null };
  // One millimetre on a square metre is a litre.
  return { litresPerMinute: (rate.value * noted.areaSquareMetres) / 60, source: rate.source };
}

const DAYS = 365.25;

/**
 * A plan's use in the year from a date on.
 *
 * Litres = flow × minutes, with the flow measured or noted, otherwise precipitation rate × area (water-need.md). Ignores windows and
 * overlaps, as `givenByMonth` does.
 */
export function waterUsage(plan: Plan, survey: Survey, from: EpochDay): Usage {
  const given = givenByMonth(plan, from);
  const stations = plan.stations.map((station): StationUsage => {
    const { number } = station;
    const flow = stationFlow(station, survey);
    const seconds = given.get(number) ?? [];
    const { litresPerMinute: lpm } = flow;
    return {
      station: number,
      ...flow,
      weeklyByMonth: lpm === null ? [] : seconds.map((one) => (one / 60) * lpm),
    };
  });
  const unknown = stations
    .filter(
      ({ station, litresPerMinute }) =>
        litresPerMinute === null && (given.get(station) ?? []).some((one) => one > 0),
    )
    .map(({ station }) => station);
  const year = ({ weeklyByMonth }: StationUsage) =>
    (weeklyByMonth.reduce((a, b) => a + b, 0) / 12) * (DAYS / 7);
  // Errors of different stations partly cancel; those of a table all go the same way.
  let squares = 0;
  let common = 0;
  for (const stationUsage of stations) {
    const share =
      stationUsage.source === null ? 0 : (UNCERTAIN[stationUsage.source] ?? UNCERTAIN_TABLE);
    if (share === UNCERTAIN_TABLE) common += share * year(stationUsage);
    else squares += (share * year(stationUsage)) ** 2;
  }
  return {
    stations,
    unknown,
    litresAYear: stations.reduce((sum, stationUsage) => sum + year(stationUsage), 0),
    uncertainLitres: Math.sqrt(squares) + common,
    peakWeek: peakWeekOf(
      plan,
      from,
      new Map(
        stations.flatMap(({ station, litresPerMinute }) =>
          litresPerMinute === null ? [] : [[station, litresPerMinute] as const],
        ),
      ),
    ),
  };
}

/** Cost of an amount of water in one billing period, by its tariff steps. */
export function priceOf(litres: number, { steps }: Tariff): number {
  let [from, price] = [0, 0];
  for (const { upToLitres = Infinity, perCubicMetre } of steps) {
    const within = Math.max(0, Math.min(litres, upToLitres) - from);
    price += (within / 1000) * perCubicMetre;
    from = Math.max(from, upToLitres);
  }
  // Above the last limit, the last price applies.
  const last = steps[steps.length - 1];
  if (last && litres > from) price += ((litres - from) / 1000) * last.perCubicMetre;
  return price;
}

/** Yearly cost of the garden's water: what each billing period costs more with it than without. Periods count from January. */
export function costOfYear(usage: Usage, tariff: Tariff): number {
  const house = tariff.houseLitres ?? 0;
  const perDay = Array.from(
    { length: 12 },
    (_, month) =>
      usage.stations.reduce(
        (sum, stationUsage) => sum + (stationUsage.weeklyByMonth[month] ?? 0),
        0,
      ) / 7,
  );
  const first = epochDayOf({ year: 2027, month: 1, day: 1 });
  let cost = 0;
  let [litres, days] = [0, 0];
  const close = () => {
    // A period cut off by the year has its steps in proportion.
    const share = days / tariff.periodDays;
    const steps = tariff.steps.map(({ upToLitres, perCubicMetre }) => ({
      perCubicMetre,
      ...(upToLitres === undefined ? {} : { upToLitres: upToLitres * share }),
    }));
    const scaled = { ...tariff, steps };
    cost += priceOf(house * share + litres, scaled) - priceOf(house * share, scaled);
    [litres, days] = [0, 0];
  };
  for (let day = 0; day < 365; day++) {
    litres += assertDefined(
      perDay[civilOf(first + day).month - 1],
      'perDay[civilOf(first + day).month - 1]',
    );
    days += 1;
    if (days === tariff.periodDays) close();
  }
  if (days > 0) close();
  return cost;
}
