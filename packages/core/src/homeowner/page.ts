/** The one page that stays at the house: what waters when and why, in plain words, as data for paper and for screens. */
import { sure } from '../document/sure.ts';
import {
  civilOf,
  parseDate,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type EpochDay,
} from '../time/calendar.ts';
import { attempt } from '../engine/effort.ts';
import type { TimerKind } from '../plan/kind.ts';
import { programLabel } from '../plan/planWords.ts';
import { programsByLetter, type Plan, type Program } from '../plan/plan.ts';
import { adjustedSeconds, effectivePercent, enabledStations, missingOf } from '../plan/program.ts';
import { runsWithLinked, wateringStations } from '../plan/linked.ts';
import { simulate } from '../engine/simulate.ts';
import type { Survey } from '../survey/survey.ts';
import type { Office } from './office.ts';
import { RAIN_ADVICE } from './rainAdvice.ts';
import {
  dateWords,
  daysWords,
  lengthWords,
  monthName,
  startWords,
  timeWords,
  weekdayName,
  type ClockStyle,
} from '../words/words.ts';

/** A stretch of watering in the picture of the week. */
export interface WeekRun {
  /** 0: the first day of the picture. */
  readonly day: number;
  /** Seconds of that day; may be over a day where it runs past midnight. */
  readonly from: number;
  readonly to: number;
  readonly program: string;
}

export interface PageProgram {
  /** As in the picture of the week. */
  readonly letter: string;
  /** As the timer names it. */
  readonly label: string;
  /** `4:15 am on Mon, Wed and Fri`. */
  readonly when: string;
  /** In the order in which they run. */
  readonly stations: readonly {
    readonly number: number;
    readonly name: string;
    readonly length: string;
  }[];
  /** When it is over, where that is the same on all its days. */
  readonly until: string | null;
}

export interface HomeownerPage {
  readonly house: string;
  readonly timer: string;
  readonly company: string;
  readonly date: string;
  readonly programs: readonly PageProgram[];
  readonly percent: string | null;
  readonly week: {
    /** Names of the days of the picture. */
    readonly days: readonly string[];
    /** Names of midnight, 6, noon, 18 and midnight again. */
    readonly hours: readonly string[];
    readonly runs: readonly WeekRun[];
  };
  readonly sections: readonly { readonly heading: string; readonly lines: readonly string[] }[];
}

export interface PageSources {
  readonly plan: Plan;
  readonly survey: Survey;
  readonly kind: TimerKind | null;
  readonly house: string;
  readonly company: string;
  readonly office: Office;
  readonly today: EpochDay;
  readonly clock: ClockStyle;
}

const nameOf = (plan: Plan, number: number) =>
  plan.stations.find((station) => station.number === number)?.name ?? `Station ${number}`;

/** A program for the homeowner, at the percent in force. */
function programOf(plan: Plan, program: Program, { today, clock }: PageSources): PageProgram {
  const percent = effectivePercent(plan, program, civilOf(today).month);
  const enabled = enabledStations(plan);
  const { dialect = {} } = plan.timer;
  const days = daysWords(program.days, clock);
  const starts = [...program.starts].sort().map((start) => startWords(start, clock));
  const simulated = attempt(() => simulate({ ...plan, settings: withoutPause(plan) }, today, 62));
  const cycles = simulated.ok
    ? simulated.value.cycles.filter(({ due }) => due.letter === program.letter)
    : [];
  const ends = new Set(
    cycles.flatMap(({ due, ended }) =>
      ended === null
        ? []
        : [`${due.start} ${ended - Math.floor(due.due / SECONDS_PER_DAY) * SECONDS_PER_DAY}`],
    ),
  );
  const [end] = ends;
  return {
    letter: program.letter,
    label: programLabel(program.letter, dialect),
    when: program.days?.rule === 'hours' ? days : `${starts.join(', ')}, ${days}`,
    stations: runsWithLinked(plan, program)
      .filter(({ seconds, station }) => seconds > 0 && enabled.has(station))
      .map(({ station, seconds }) => ({
        number: station,
        name: nameOf(plan, station),
        length: lengthWords(adjustedSeconds(seconds, percent, plan.timer.seasonal)),
      })),
    until:
      program.starts.length === 1 && ends.size === 1 && end !== undefined
        ? timeWords(Number(end.slice(6)) % SECONDS_PER_DAY, clock)
        : null,
  };
}

/** The page says how the timer waters, even while a rain delay or the winter stops it. */
const withoutPause = ({ settings: { wateringResumes: _until, mode: _mode, ...settings } }: Plan) =>
  settings;

/** The week from a date on, as the timer really runs it. */
function weekOf({ plan, today, clock }: PageSources): HomeownerPage['week'] {
  const simulated = attempt(() =>
    simulate({ ...plan, settings: withoutPause(plan) }, today - 8, 16),
  );
  const first = today * SECONDS_PER_DAY;
  const cycles = simulated.ok ? simulated.value.cycles : [];
  const runs = cycles.flatMap(({ due, began, ended }): WeekRun[] => {
    if (began === null || ended === null || began < first || began >= first + 7 * SECONDS_PER_DAY)
      return [];
    const day = Math.floor((began - first) / SECONDS_PER_DAY);
    const midnight = first + day * SECONDS_PER_DAY;
    return [{ day, from: began - midnight, to: ended - midnight, program: due.letter }];
  });
  return {
    days: Array.from({ length: 7 }, (_, i) => {
      const { day } = civilOf(today + i);
      return `${weekdayName(weekdayIndexOf(today + i))} ${day}`;
    }),
    hours: [0, 6, 12, 18, 0].map((hour) => timeWords(hour * 3600, clock).replace(':00', '')),
    runs,
  };
}

function whySection({ plan, survey, today, clock }: PageSources): string[] {
  const lines = [
    'It waters at night or early in the morning: less water evaporates, and the leaves dry when the sun comes up.',
  ];
  const splits = plan.stations.some(({ cycleSeconds }) => cycleSeconds !== undefined);
  const repeats = plan.programs.some(({ starts }) => starts.length > 1);
  if (splits || repeats)
    lines.push('It waters in several short runs, so that the water sinks in and does not run off.');
  const drip = plan.stations.filter(({ overhead }) => overhead === false);
  if (drip.length > 0)
    lines.push(
      'Drip lines run longer than sprinklers, because they give only a little water at a time.',
    );
  const often = survey.stations.filter(({ oftenADay }) => oftenADay !== undefined);
  for (const { number, oftenADay } of often)
    lines.push(
      `${nameOf(plan, number)} is new and waters ${oftenADay?.times ?? 2} times a day${oftenADay?.until === undefined ? '' : ` until ${dateWords(sure(parseDate(oftenADay.until)), today)}`}.`,
    );
  const windows = plan.settings.noWaterWindows ?? [];
  for (const { from, to } of windows)
    lines.push(
      `Nothing waters from ${startWords(from, clock)} to ${startWords(to, clock)}: because of the local rules or your own wish.`,
    );
  return lines;
}

/**
 * The page. Sources: field guide, steps 10 to 14 (leave a page) and Complaints; the notes of the timer's kind.
 *
 * Cost: two simulations of some weeks.
 */
export function homeownerPage(sources: PageSources): HomeownerPage {
  const { plan, survey, kind, house, company, office, today } = sources;
  const watering = wateringStations(plan);
  const complete = programsByLetter(plan).filter(
    (program) => missingOf(program, watering).length === 0,
  );
  const { year, month, day } = civilOf(today);
  const month100 = effectivePercentNow(plan, today);
  const call = [company, office.phone, office.hours].filter(Boolean).join(', ');
  const rain = RAIN_ADVICE[survey.rain ?? (plan.settings.sensor === 'none' ? 'delay' : 'sensor')];
  return {
    house,
    timer: plan.timer.name,
    company,
    date: `${day} ${monthName(month)} ${year}`,
    programs: complete.map((program) => programOf(plan, program, sources)),
    percent: month100 === null ? null : `The seasonal percent is ${month100} %.`,
    week: weekOf(sources),
    sections: [
      { heading: 'Why it waters this way', lines: whySection(sources) },
      {
        heading: 'What the display normally shows',
        lines: [
          'Most of the time it shows the time of day and nothing else.',
          ...(kind?.signs ?? []).map(
            ({ sign, means }) => `Not normal: ${sign}. It means: ${means}.`,
          ),
        ],
      },
      {
        heading: 'When it rains or freezes',
        lines: [
          ...rain,
          'Switch it off when it is close to freezing, below about 3 °C: wet paths turn to ice.',
        ],
      },
      {
        heading: 'How to water by hand',
        lines: [
          kind?.manual ??
            'Start the station at the timer. It stops by itself, and the programs stay as they are.',
          'Do not change a start or a run time for this: the change stays.',
        ],
      },
      {
        heading: 'What to leave alone',
        lines: [
          'Starts, run times, days and the clock. One start runs all the stations of a program, one after another; a second start runs all of them again.',
          ...(survey.device?.power === 'battery'
            ? []
            : [
                'The wiring behind the cover: there may be mains voltage. Leave it to a licensed electrician.',
              ]),
        ],
      },
      {
        heading: `When to call ${call}`,
        lines: [
          'When it waters at a time that is not on this page, or when two areas run at once.',
          'When the clock flashes or is wrong after a power cut.',
          'When a patch dries out, water runs off, or a head is broken or leaks.',
          ...(kind?.restore === undefined || kind.restore.startsWith('None')
            ? []
            : [
                `The settings are saved inside the timer. ${kind.restore} We can talk you through a restore by phone.`,
              ]),
        ],
      },
    ],
  };
}

/** The one percent in force; null where none can be set or programs have their own. */
function effectivePercentNow(plan: Plan, today: EpochDay): number | null {
  const { scope } = plan.timer.seasonal;
  const [program] = plan.programs;
  if (scope !== 'timer' || !program) return null;
  return effectivePercent(plan, program, civilOf(today).month);
}
