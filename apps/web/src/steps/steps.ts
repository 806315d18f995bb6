/** The order of a visit, and what of each step is done and what is missing, in a line. No interface code. */
import {
  rainSensorOf,
  rulingOn,
  surveyOf,
  undoneIn,
  unknownNeeds,
  type EpochDay,
  type Plan,
  type Rules,
  type SiteMinutes,
  type Survey,
  type Undone,
  type Verdict,
} from '@water-clock/core';
import type { Site } from '../api/sites.ts';

/** The steps under the five phases of a visit. */
export const PHASES = [
  {
    name: 'Arrive',
    steps: [
      ['house', 'House and rules'],
      ['timer', 'Timer'],
      ['clock', 'Clock'],
      ['found', 'As found'],
    ],
  },
  {
    name: 'Look',
    steps: [
      ['seen', 'What was seen'],
      ['stations', 'Stations'],
      ['minutes', 'Minutes'],
    ],
  },
  {
    name: 'Plan',
    steps: [
      ['brief', 'Brief'],
      ['plan', 'Planner'],
      ['', 'Programs'],
      ['settings', 'Percent and hours'],
    ],
  },
  {
    name: 'Set',
    steps: [
      ['keyin', 'Key in'],
      ['leave', 'Test and leave'],
    ],
  },
  {
    name: 'Hand over',
    steps: [
      ['page', 'Homeowner’s page'],
      ['log', 'Logbook'],
    ],
  },
] as const;
export type Phase = (typeof PHASES)[number];
export type Step = Phase['steps'][number];
export type StepPath = Step[0];

export const STEPS: readonly Step[] = PHASES.flatMap(({ steps }): readonly Step[] => steps);

/** All that a timer of one outlet and one program needs; the rest folds away. */
const SIMPLE: readonly StepPath[] = ['house', 'clock', 'minutes', '', 'keyin', 'page'];

export const isSimple = ({
  stationCount,
  programCount,
}: Pick<Plan['timer'], 'stationCount' | 'programCount'>): boolean =>
  stationCount === 1 && programCount === 1;

/** Whether a step folds away under "More steps" on a timer. */
export const foldsAway = (path: StepPath, simple: boolean): boolean =>
  simple && !SIMPLE.includes(path);

/** The phase of a step; the walk belongs to the stations. */
export const phaseOf = (path: string): Phase =>
  PHASES.find(({ steps }) =>
    steps.some(([step]) => step === (path === 'walk' ? 'stations' : path)),
  ) ?? PHASES[2];

export const nameOf = (path: string): string =>
  STEPS.find(([step]) => step === path)?.[1] ?? (path === 'walk' ? 'Stations' : '');

export const pathOf = (timerId: string, path: StepPath): string =>
  path ? `/timers/${timerId}/${path}` : `/timers/${timerId}`;

/** The steps beside which the night strip stands. */
export const STRIP_STEPS: readonly string[] = ['', 'settings', 'clock'];

export interface StepState {
  readonly done: boolean;
  /** Something is wrong there. */
  readonly alarm?: boolean;
  /** What is missing, or that nothing is. */
  readonly line: string;
}

export interface VisitFacts {
  readonly site: Site;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly rules: Rules | null;
  readonly minutes: SiteMinutes;
  readonly verdict: Verdict | null;
  readonly today: EpochDay;
}

const listed = (missing: readonly (string | false)[], done: string): StepState => {
  const open = missing.filter((one) => one !== false);
  return open.length === 0
    ? { done: true, line: done }
    : { done: false, line: `Missing: ${open.join(', ')}.` };
};

const stationsText = (numbers: readonly number[]) =>
  numbers.length === 1
    ? `station ${numbers[0]}`
    : numbers.length > 6
      ? `${numbers.length} stations`
      : `stations ${numbers.join(', ')}`;

function house({ site, rules, survey, today }: VisitFacts): StepState {
  const ruling = rules && rulingOn(rules, site, today);
  return listed(
    [
      site.houseNumber === null && 'its number in the street',
      site.supply === null && 'where its water comes from',
      site.town === null && site.climateId === null && 'the town its weather is of',
      !rules && survey.rules === undefined && 'watering rules',
      ruling?.kind === 'unknown' && 'what the rules go by',
    ],
    'House and rules are noted.',
  );
}

function timer({ plan: { settings }, survey: { device = {} } }: VisitFacts): StepState {
  return listed(
    [
      device.power === undefined && 'its power',
      device.power === 'battery' && device.batteryDate === undefined && 'the battery’s date',
      rainSensorOf(settings, device).state === 'unknown' && 'its rain sensor',
      device.changers === undefined && 'who else can change it',
    ],
    'The timer is noted.',
  );
}

function stations({ plan, survey }: VisitFacts): StepState {
  const left = plan.stations
    .map(({ number }) => number)
    .filter((number) => surveyOf(survey, number).walked !== 'seen');
  return left.length === 0
    ? { done: true, line: `All ${plan.stations.length} stations are walked.` }
    : {
        done: false,
        line: `Walked ${plan.stations.length - left.length} of ${plan.stations.length}; left: ${stationsText(left)}.`,
      };
}

function minutes({ minutes: sums }: VisitFacts): StepState {
  const unknown = unknownNeeds(sums);
  return unknown.length === 0
    ? { done: true, line: 'Every station’s need is known.' }
    : {
        done: false,
        line: `Not known yet what ${stationsText(unknown)} ${unknown.length === 1 ? 'needs' : 'need'}.`,
      };
}

/** What stands in the way of closing, in a word; the step itself lists each point. */
const LACKING_TO_LEAVE: Record<Undone['what'], string | false> = {
  'clock-wrong': 'the clock, which is wrong',
  'clock-not-looked': 'the clock',
  // Kept apart, with their numbers.
  'not-tested': false,
  'not-keyed': false,
  'no-as-found': 'the settings as found',
  'no-as-left': 'the settings as left',
  'as-left-is-older': 'the settings as left, which are older than what is set',
  switched: 'what was switched for the test',
};

/** The steps that belong to the visit itself, where one is under way. */
function underWay({ plan, survey }: VisitFacts): Partial<Record<StepPath, StepState>> {
  const { visit } = survey;
  if (!visit) return {};
  const points = undoneIn(plan, survey);
  const untested = points.flatMap((point) => (point.what === 'not-tested' ? point.stations : []));
  return {
    found: visit.asFound
      ? { done: true, line: 'Frozen as found.' }
      : { done: false, line: 'Not frozen yet what is in the box.' },
    ...(visit.cause === undefined ? {} : { seen: { done: true, line: visit.cause } }),
    leave: listed(
      [
        untested.length > 0 && `the test of ${stationsText(untested)}`,
        ...new Set(points.map(({ what }) => LACKING_TO_LEAVE[what])),
      ],
      'Tested, put back and frozen: the visit can be closed.',
    ),
  };
}

/** Each step's state; those that are never finished have none. */
export function stepStates(facts: VisitFacts): Partial<Record<StepPath, StepState>> {
  const { device = {} } = facts.survey;
  const parts = {
    house: house(facts),
    timer: timer(facts),
    clock: listed(
      [
        (device.clockShown === undefined || device.clockReally === undefined) &&
          'the clock as found',
      ],
      'The clock as found is noted.',
    ),
    stations: stations(facts),
    minutes: minutes(facts),
  };
  const open = Object.values(parts).filter(({ done }) => !done).length;
  const { verdict } = facts;
  return {
    ...parts,
    ...underWay(facts),
    brief: {
      done: open === 0,
      line: open === 0 ? 'The brief is complete.' : `${open} steps before it are not finished.`,
    },
    ...(verdict === null
      ? {}
      : {
          '': {
            done: verdict === 'clear',
            alarm: verdict === 'overlap' || verdict === 'incomplete',
            line: {
              clear: 'Set, and nothing ever overlaps.',
              overlap: 'Programs overlap.',
              incomplete: 'A program is half set.',
              empty: 'Nothing is set yet.',
            }[verdict],
          },
        }),
  };
}
