/**
 * What a garden gets from a plan over years of weather: the root-zone water of each station, day by day (season.md), after chapter 8 of FAO
 * Irrigation and Drainage Paper 56. The balance is exact.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { Effort } from '../engine/effort.ts';
import { dueCycles, serve } from '../engine/simulate.ts';
import type { Plan } from '../plan/plan.ts';
import { civilOf, parseDate, SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import type { Garden, GardenStation } from './garden.ts';

/** Driest quarter first. */
export type Quarters = readonly [number, number, number, number];

/** Millimetres, averaged over the quarters. */
interface Amounts {
  readonly applied: number;
  readonly ranOff: number;
  readonly percolated: number;
}

export interface SeasonSums extends Amounts {
  /** Of the driest quarter first. */
  readonly stressDays: Quarters;
  readonly dryDays: Quarters;
}

export interface AccountDay {
  readonly day: EpochDay;
  readonly irrigation: number;
  /** Effective rain. */
  readonly rain: number;
  readonly ranOff: number;
  readonly used: number;
  readonly percolated: number;
  /** Depletion in the evening, mm. */
  readonly depletion: Quarters;
}

export interface StationSeason extends SeasonSums {
  readonly station: number;
  readonly rain: number;
  readonly used: number;
  /** The part of `percolated` that came from irrigation. */
  readonly percolatedIrrigation: number;
  readonly byYear: readonly (SeasonSums & { readonly year: number })[];
}

export interface Season {
  readonly from: EpochDay;
  readonly days: number;
  readonly stations: readonly StationSeason[];
}

/** Engine steps: enough for twenty thousand dates of a timer with everything. */
const MOST_STEPS = 4_000_000_000;
const SECONDS_PER_HOUR = 3600;
/** Rain below this share of the day's reference evapotranspiration evaporates from the leaves. */
const LEAST_RAIN_SHARE = 0.2;

/** A valve open on one date, seconds from the first midnight. */
interface Opening {
  readonly on: number;
  readonly off: number;
  /** Date on which the valve opened, counted from the first; negative on the evening before. */
  readonly opened: number;
}

/** When each station is open, split at midnight, in order; two cycles watering one station at once open it once. */
function openingsOf(plan: Plan, first: EpochDay, days: number): Map<number, Opening[]> {
  const effort = new Effort(MOST_STEPS);
  const { runs } = serve(plan, dueCycles(plan, first - 1, days + 1, [], effort), -Infinity, effort);
  const origin = first * SECONDS_PER_DAY;
  const end = days * SECONDS_PER_DAY;
  const spans = new Map<number, { on: number; off: number }[]>();
  for (const { station, on, off } of runs) {
    const list = spans.get(station) ?? [];
    const last = list.at(-1);
    if (last && on - origin < last.off) last.off = Math.max(last.off, off - origin);
    else list.push({ on: on - origin, off: off - origin });
    spans.set(station, list);
  }
  const openings = new Map<number, Opening[]>();
  for (const [station, list] of spans) {
    const own: Opening[] = [];
    for (const { on, off } of list) {
      const opened = Math.floor(on / SECONDS_PER_DAY);
      for (let from = Math.max(0, on); from < Math.min(off, end);) {
        const until = Math.min(off, (Math.floor(from / SECONDS_PER_DAY) + 1) * SECONDS_PER_DAY);
        own.push({ on: from, off: until, opened });
        from = until;
      }
    }
    openings.set(station, own);
  }
  return openings;
}

/** Dates, from the first, on which a rain sensor stops valves that would open. */
function sensedDates({ rainSensor, weather }: Garden): Uint8Array {
  const sensed = new Uint8Array(weather.length);
  if (!rainSensor) return sensed;
  weather.forEach(({ rain }, day) => {
    if (rain >= rainSensor.stopsAt) sensed.fill(1, day, day + 1 + rainSensor.dryDays);
  });
  return sensed;
}

/** Irrigation of one quarter on each date, mm. */
function irrigationOf(
  { precipitationRate, intakeRate, surfaceStorage = 0 }: GardenStation,
  share: number,
  openings: readonly Opening[],
  days: number,
): Readonly<Record<'applied' | 'ranOff' | 'wentIn', Float64Array>> {
  const applied = new Float64Array(days);
  const ranOff = new Float64Array(days);
  const wentIn = new Float64Array(days);
  const add = (sums: Float64Array, day: number, millimetres: number) => {
    sums[day] = assertDefined(sums[day], 'sums[day]') + millimetres;
  };
  const rate = share * precipitationRate;
  /** Water on the surface at the end of the last opening, mm. */
  let standing = 0;
  let last = 0;
  for (const { on, off } of openings) {
    const day = Math.floor(on / SECONDS_PER_DAY);
    const hours = (off - on) / SECONDS_PER_HOUR;
    const depth = rate * hours;
    let lost = 0;
    if (intakeRate !== undefined) {
      standing = Math.max(0, standing - (intakeRate * (on - last)) / SECONDS_PER_HOUR);
      last = off;
      if (rate > intakeRate) {
        const full = (surfaceStorage - standing) / (rate - intakeRate);
        if (hours > full) lost = (rate - intakeRate) * (hours - full);
      }
      const risen = standing + (rate - intakeRate) * hours;
      standing = Math.min(surfaceStorage, Math.max(0, risen));
    }
    add(applied, day, depth);
    add(ranOff, day, lost);
    add(wentIn, day, depth - lost);
  }
  return { applied, ranOff, wentIn };
}

/** A quarter's water on one date. */
interface QuarterDay {
  readonly used: number;
  readonly percolated: number;
  readonly depletion: number;
  readonly isStress: boolean;
  readonly isDry: boolean;
}

/**
 * Steps 1 and 6 of the balance.
 *
 * @param missing depletion in the morning, mm
 * @param water infiltrated, mm
 */
function balance(
  { plantFactor, allowedDepletion = 0.5 }: GardenStation,
  total: number,
  eto: number,
  missing: number,
  water: number,
): QuarterDay {
  const wanted = plantFactor * eto;
  const share = Math.min(0.8, Math.max(0.1, allowedDepletion + 0.04 * (5 - wanted)));
  const ready = share * total;
  const stress = missing <= ready ? 1 : Math.max(0, (total - missing) / (total - ready));
  let used = stress * wanted;
  const percolated = Math.max(0, water - used - missing);
  let depletion = missing - water + used + percolated;
  if (depletion > total) {
    used -= depletion - total;
    depletion = total;
  }
  return { used, percolated, depletion, isStress: stress < 1 && eto > 0, isDry: stress < 0.5 };
}

const FOUR = [0, 1, 2, 3] as const;

/** Sums over a range of dates. */
class Sums {
  applied = 0;
  ranOff = 0;
  percolated = 0;
  readonly stressDays: [number, number, number, number] = [0, 0, 0, 0];
  readonly dryDays: [number, number, number, number] = [0, 0, 0, 0];

  get told(): SeasonSums {
    const { applied, ranOff, percolated, stressDays, dryDays } = this;
    return { applied, ranOff, percolated, stressDays, dryDays };
  }
}

/** @param told called with the balance of each date */
function stationSeason(
  station: GardenStation,
  garden: Garden,
  all: readonly Opening[],
  sensed: Uint8Array,
  told?: (day: AccountDay) => void,
): StationSeason {
  const { weather, start = 0 } = garden;
  const { uniformity = 1, availableWater, rootDepthMm, obeysRain = true } = station;
  const first = parseDate(assertDefined(weather[0], 'weather[0]').date) ?? 0;
  const openings = obeysRain ? all.filter(({ opened }) => !sensed[opened]) : all;
  const water = FOUR.map((k) =>
    irrigationOf(station, 1 + ((1 - uniformity) * (2 * k - 3)) / 3, openings, weather.length),
  );
  const total = (availableWater * rootDepthMm) / 1000;
  const missing: [number, number, number, number] = [
    start * total,
    start * total,
    start * total,
    start * total,
  ];
  const whole = new Sums();
  const years = new Map<number, Sums>();
  let [rained, usedUp, lost] = [0, 0, 0];
  weather.forEach(({ eto, rain: fell }, day) => {
    const rain = fell < LEAST_RAIN_SHARE * eto ? 0 : fell;
    const { year } = civilOf(first + day);
    const sums = years.get(year) ?? new Sums();
    years.set(year, sums);
    const today = { irrigation: 0, ranOff: 0, used: 0, percolated: 0 };
    for (const k of FOUR) {
      const applied = water[k]?.applied[day] ?? 0;
      const ranOff = water[k]?.ranOff[day] ?? 0;
      const wentIn = water[k]?.wentIn[day] ?? 0;
      const one = balance(station, total, eto, missing[k], wentIn + rain);
      missing[k] = one.depletion;
      today.irrigation += applied / 4;
      today.ranOff += ranOff / 4;
      today.used += one.used / 4;
      today.percolated += one.percolated / 4;
      if (one.percolated > 0) lost += (one.percolated * wentIn) / (wentIn + rain) / 4;
      for (const span of [whole, sums]) {
        if (one.isStress) span.stressDays[k]++;
        if (one.isDry) span.dryDays[k]++;
      }
    }
    for (const span of [whole, sums]) {
      span.applied += today.irrigation;
      span.ranOff += today.ranOff;
      span.percolated += today.percolated;
    }
    rained += rain;
    usedUp += today.used;
    told?.({ day: first + day, rain, ...today, depletion: [...missing] });
  });
  return {
    station: station.number,
    ...whole.told,
    rain: rained,
    used: usedUp,
    percolatedIrrigation: lost,
    byYear: [...years].map(([year, sums]) => ({ year, ...sums.told })),
  };
}

/**
 * Seasons of all stations of a garden under a plan.
 *
 * @param daily station to list day by day
 * @returns millimetres, unrounded
 * @throws TooMuchWork
 */
export function seasonFor(
  plan: Plan,
  garden: Garden,
  daily?: { readonly station: number; readonly told: (day: AccountDay) => void },
): Season {
  const from = parseDate(assertDefined(garden.weather[0], 'weather[0]').date) ?? 0;
  const days = garden.weather.length;
  const openings = openingsOf(plan, from, days);
  const sensed = sensedDates(garden);
  const stations = garden.stations.map((station) =>
    stationSeason(
      station,
      garden,
      openings.get(station.number) ?? [],
      sensed,
      daily?.station === station.number ? daily.told : undefined,
    ),
  );
  return { from, days, stations };
}
