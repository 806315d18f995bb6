/** The steps of a visit in order, and what is done or missing in each. No interface code. */
import {
  clockReading,
  plural,
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
  say,
  powerOf,
  type TimerKind,
} from '@water-clock/core';
import type { Site } from '../../data/api/sites.ts';

/** Steps under the five phases of a visit. */
export const PHASES = [
  {
    id: 'arrive',
    name: say`Arrive`,
    steps: [
      ['house', say`House and rules`],
      ['timer', say`Timer`],
      ['clock', say`Clock`],
      ['found', say`As found`],
    ],
  },
  {
    id: 'look',
    name: say`Look`,
    steps: [
      ['seen', say`Sightings`],
      ['stations', say`Stations`],
      ['minutes', say`Minutes`],
    ],
  },
  {
    id: 'plan',
    name: say`Plan`,
    steps: [
      ['brief', say`Brief`],
      ['plan', say`Planner`],
      ['', say`Programs`],
      ['settings', say`Percent and hours`],
    ],
  },
  {
    id: 'set',
    name: say`Set`,
    steps: [
      ['keyin', say`Key in`],
      ['leave', say`Test and leave`],
    ],
  },
  {
    id: 'hand-over',
    name: say`Hand over`,
    steps: [
      ['page', say`Homeowner’s page`],
      ['log', say`Logbook`],
    ],
  },
] as const;
export type Phase = (typeof PHASES)[number];
export type Step = Phase['steps'][number];
export type StepPath = Step[0];

export const STEPS: readonly Step[] = PHASES.flatMap(({ steps }): readonly Step[] => steps);

/** The steps a timer with one outlet and one program needs; the rest fold away. */
const SIMPLE: readonly StepPath[] = ['house', 'clock', 'minutes', '', 'keyin', 'page'];

export const isSimple = ({
  stationCount,
  programCount,
}: Pick<Plan['timer'], 'stationCount' | 'programCount'>): boolean =>
  stationCount === 1 && programCount === 1;

/** Whether a step is under "More steps" on a timer. */
export const foldsAway = (path: StepPath, simple: boolean): boolean =>
  simple && !SIMPLE.includes(path);

/** The phase of a step; the walk belongs to the stations. */
export const phaseOf = (path: string): Phase =>
  PHASES.find(({ steps }) =>
    steps.some(([step]) => step === (path === 'walk' ? 'stations' : path)),
  ) ?? PHASES[2];

export const nameOf = (path: string): string =>
  STEPS.find(([step]) => step === path)?.[1] ?? (path === 'walk' ? say`Stations` : '');

export const pathOf = (timerId: string, path: StepPath): string =>
  path ? `/timers/${timerId}/${path}` : `/timers/${timerId}`;

/** Steps that show the night strip. */
export const STRIP_STEPS: readonly string[] = ['', 'settings', 'clock'];

export interface StepState {
  readonly done: boolean;
  /** Something is wrong. */
  readonly alarm?: boolean;
  /** What is missing, or that nothing is. */
  readonly line: string;
}

export interface VisitFacts {
  readonly site: Site;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly kind: TimerKind | null;
  readonly rules: Rules | null;
  readonly minutes: SiteMinutes;
  readonly verdict: Verdict | null;
  readonly today: EpochDay;
}

const listed = (missing: readonly (string | false)[], done: string): StepState => {
  const open = missing.filter((one) => one !== false);
  return open.length === 0
    ? { done: true, line: done }
    : { done: false, line: say`Missing: ${open.join(', ')}.` };
};

const stationsText = (numbers: readonly number[]) =>
  numbers.length === 1
    ? say`station ${numbers[0]}`
    : numbers.length > 6
      ? say`${numbers.length} stations`
      : say`stations ${numbers.join(', ')}`;

function house({ site, rules, survey, today }: VisitFacts): StepState {
  const ruling = rules && rulingOn(rules, site, today);
  return listed(
    [
      site.houseNumber === null && say`street number`,
      site.supply === null && say`water source`,
      site.town === null && site.climateId === null && say`weather town`,
      !rules && survey.rules === undefined && say`watering rules`,
      ruling?.kind === 'unknown' && say`what the rules depend on`,
    ],
    say`House and rules are complete.`,
  );
}

function timer({ plan: { settings }, survey, kind }: VisitFacts): StepState {
  const { device = {} } = survey;
  const power = powerOf(survey, kind);
  return listed(
    [
      power === null && say`its power`,
      power === 'battery' && device.batteryDate === undefined && say`the battery’s date`,
      rainSensorOf(settings, device).state === 'unknown' && say`its rain sensor`,
      device.changers === undefined && say`who else can change it`,
    ],
    say`Timer details are complete.`,
  );
}

function stations({ plan, survey }: VisitFacts): StepState {
  const left = plan.stations
    .map(({ number }) => number)
    .filter((number) => surveyOf(survey, number).walked !== 'seen');
  return left.length === 0
    ? { done: true, line: say`All ${plan.stations.length} stations are walked.` }
    : {
        done: false,
        line: say`Walked ${plan.stations.length - left.length} of ${plan.stations.length}. Left: ${stationsText(left)}.`,
      };
}

function minutes({ minutes: sums }: VisitFacts): StepState {
  const unknown = unknownNeeds(sums);
  return unknown.length === 0
    ? { done: true, line: say`Every station’s need is known.` }
    : {
        done: false,
        line: say`Need not known yet: ${stationsText(unknown)}.`,
      };
}

/** What prevents closing, in a word; the step lists each point. */
const LACKING_TO_LEAVE: Record<Undone['what'], string | false> = {
  'clock-wrong': say`the clock, which is wrong`,
  'clock-not-looked': say`the clock`,
  // A separate list, with counts.
  'not-tested': false,
  'not-keyed': false,
  'no-as-found': say`the settings as found`,
  'no-as-left': say`the settings as left`,
  'as-left-is-older': say`the settings as left, which are older than what is set`,
  switched: say`what was switched for the test`,
};

/** Steps that belong to an open visit. */
function underWay({ plan, survey }: VisitFacts): Partial<Record<StepPath, StepState>> {
  const { visit } = survey;
  if (!visit) return {};
  const points = undoneIn(plan, survey);
  const untested = points.flatMap((point) => (point.what === 'not-tested' ? point.stations : []));
  return {
    found: visit.asFound
      ? { done: true, line: say`As-found settings saved.` }
      : { done: false, line: say`As-found settings not saved yet.` },
    ...(visit.cause === undefined ? {} : { seen: { done: true, line: visit.cause } }),
    leave: listed(
      [
        untested.length > 0 && say`the test of ${stationsText(untested)}`,
        ...new Set(points.map(({ what }) => LACKING_TO_LEAVE[what])),
      ],
      say`Tested, put back and saved. The visit can be closed.`,
    ),
  };
}

/** In an open visit only its own reading counts; between visits, that there is one. */
const isClockRead = (survey: Survey): boolean =>
  survey.visit ? clockReading(survey) !== null : survey.device?.clockReally !== undefined;

/** State of each step; steps that never finish have none. */
export function stepStates(facts: VisitFacts): Partial<Record<StepPath, StepState>> {
  const parts = {
    house: house(facts),
    timer: timer(facts),
    clock: listed(
      [!isClockRead(facts.survey) && say`the clock as found`],
      say`The clock reading is recorded.`,
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
      line:
        open === 0
          ? say`The brief is complete.`
          : plural(open, '# earlier step is not finished.', '# earlier steps are not finished.'),
    },
    ...(verdict === null
      ? {}
      : {
          '': {
            done: verdict === 'clear',
            alarm: verdict === 'overlap' || verdict === 'incomplete',
            line: {
              clear: say`Set, with no overlaps.`,
              overlap: say`Programs overlap.`,
              incomplete: say`A program is not complete.`,
              empty: say`Nothing is set yet.`,
            }[verdict],
          },
        }),
  };
}
